/** The documents that an eSCL scanner answers with (Mopria Alliance, eSCL Technical Specification 2.97). */

const NAMESPACES = `xmlns:scan="http://schemas.hp.com/imaging/escl/2011/05/03" xmlns:pwg="http://www.pwg.org/schemas/2010/12/sm"`;
const DECLARATION = '<?xml version="1.0" encoding="UTF-8"?>\n';
export const RESOLUTIONS = [75, 100, 150, 200, 300, 600];
/** Largest area, in 300ths of an inch: A4 and a little, and legal paper through the feeder. */
export const GLASS = { width: 2550, height: 3508 };
export const FEEDER = { width: 2550, height: 4200 };
export const MODEL = 'Harbour Stand-in 200';
export const UUID = '6f6e1c1a-0c57-4a7e-9f0e-0a4d5be2c0de';

function caps(name: string, { width, height }: { width: number; height: number }): string {
  const resolutions = RESOLUTIONS.map(
    (dpi) =>
      `<scan:DiscreteResolution><scan:XResolution>${dpi}</scan:XResolution><scan:YResolution>${dpi}</scan:YResolution></scan:DiscreteResolution>`,
  ).join('');
  return `<scan:${name}>
    <scan:MinWidth>16</scan:MinWidth><scan:MaxWidth>${width}</scan:MaxWidth><scan:MinHeight>16</scan:MinHeight><scan:MaxHeight>${height}</scan:MaxHeight>
    <scan:MaxScanRegions>1</scan:MaxScanRegions>
    <scan:SettingProfiles><scan:SettingProfile>
      <scan:ColorModes><scan:ColorMode>BlackAndWhite1</scan:ColorMode><scan:ColorMode>Grayscale8</scan:ColorMode><scan:ColorMode>RGB24</scan:ColorMode></scan:ColorModes>
      <scan:DocumentFormats><pwg:DocumentFormat>image/jpeg</pwg:DocumentFormat><scan:DocumentFormatExt>image/jpeg</scan:DocumentFormatExt></scan:DocumentFormats>
      <scan:SupportedResolutions><scan:DiscreteResolutions>${resolutions}</scan:DiscreteResolutions></scan:SupportedResolutions>
    </scan:SettingProfile></scan:SettingProfiles>
    <scan:SupportedIntents><scan:Intent>Document</scan:Intent><scan:Intent>Photo</scan:Intent><scan:Intent>Preview</scan:Intent></scan:SupportedIntents>
    <scan:MaxOpticalXResolution>600</scan:MaxOpticalXResolution><scan:MaxOpticalYResolution>600</scan:MaxOpticalYResolution>
  </scan:${name}>`;
}

export function capabilities(): string {
  return `${DECLARATION}<scan:ScannerCapabilities ${NAMESPACES}>
  <pwg:Version>2.63</pwg:Version><pwg:MakeAndModel>${MODEL}</pwg:MakeAndModel><pwg:SerialNumber>0001</pwg:SerialNumber><scan:UUID>${UUID}</scan:UUID>
  <scan:Platen>${caps('PlatenInputCaps', GLASS)}</scan:Platen>
  <scan:Adf>${caps('AdfSimplexInputCaps', FEEDER)}${caps('AdfDuplexInputCaps', FEEDER)}
    <scan:FeederCapacity>50</scan:FeederCapacity>
    <scan:AdfOptions><scan:AdfOption>DetectPaperLoaded</scan:AdfOption><scan:AdfOption>Duplex</scan:AdfOption></scan:AdfOptions>
  </scan:Adf>
</scan:ScannerCapabilities>`;
}

export interface JobWords {
  uri: string;
  uuid: string;
  ageSeconds: number;
  completed: number;
  state: 'Pending' | 'Processing' | 'Completed' | 'Canceled' | 'Aborted';
  reason: string;
}

export function status(state: 'Idle' | 'Processing' | 'Stopped', adf: string, jobs: JobWords[]): string {
  const told = jobs.map(
    (
      job,
    ) => `<scan:JobInfo><pwg:JobUri>${job.uri}</pwg:JobUri><pwg:JobUuid>${job.uuid}</pwg:JobUuid><scan:Age>${job.ageSeconds}</scan:Age>
      <pwg:ImagesCompleted>${job.completed}</pwg:ImagesCompleted><pwg:ImagesToTransfer>${job.state === 'Processing' ? 1 : 0}</pwg:ImagesToTransfer>
      <pwg:JobState>${job.state}</pwg:JobState><pwg:JobStateReasons><pwg:JobStateReason>${job.reason}</pwg:JobStateReason></pwg:JobStateReasons></scan:JobInfo>`,
  );
  return `${DECLARATION}<scan:ScannerStatus ${NAMESPACES}>
  <pwg:Version>2.63</pwg:Version><pwg:State>${state}</pwg:State><scan:AdfState>${adf}</scan:AdfState>
  <scan:Jobs>${told.join('')}</scan:Jobs>
</scan:ScannerStatus>`;
}
