import { setTimeout as sleep } from 'node:timers/promises';
import { XMLParser } from 'fast-xml-parser';
import { Problem } from '@crow/contract/problems';
import {
  ScanColour,
  scannerCapabilities,
  ScannerCapabilities,
  ScanSettings,
  ScanSourceName,
} from '@crow/contract/scanning';
import { printable } from '@crow/core/reading/printable';

/** Tags that stand once or several times. */
const LISTS = ['ColorMode', 'DiscreteResolution', 'AdfOption', 'JobInfo', 'JobStateReason', 'SettingProfile'];
const xml = new XMLParser({
  removeNSPrefix: true,
  parseTagValue: false,
  processEntities: false,
  isArray: (name) => LISTS.includes(name),
});
const UNITS_PER_POINT = 300 / 72;
const ANSWER_MS = 15_000;
/** A side in colour at 600 dpi takes a while. */
const PAGE_MS = 180_000;
const BUSY_TRIES = 60;
const BUSY_MS = 1000;
const MOST_PAGE_BYTES = 200 * 1024 * 1024;
const MOST_TOLD_BYTES = 1024 * 1024;
/** No feeder holds more; a scanner that goes on and on is broken. */
const MOST_PAGES = 1000;
const LONGEST_NAME = 120;
const MOST_RESOLUTIONS = 30;

const COLOUR_MODES: Record<ScanColour, string> = {
  colour: 'RGB24',
  grey: 'Grayscale8',
  blackAndWhite: 'BlackAndWhite1',
};

interface InputCaps {
  MaxWidth?: string;
  MaxHeight?: string;
  SettingProfiles?: {
    SettingProfile?: {
      ColorModes?: { ColorMode?: string[] };
      SupportedResolutions?: {
        DiscreteResolutions?: { DiscreteResolution?: { XResolution?: string }[] };
        ResolutionRange?: { XResolutionRange?: { Min?: string; Max?: string } };
      };
    }[];
  };
}

/**
 * A network scanner that speaks eSCL (Mopria Alliance, eSCL Technical Specification).
 * @param address such as http://192.168.1.20:80/eSCL
 */
export class EsclScanner {
  /** @param patience how long one answer is waited for, in ms; a page has PAGE_MS */
  constructor(
    private readonly address: string,
    private readonly patience = ANSWER_MS,
  ) {}

  /** @throws Problem 'scanner-gone', 'scanner-strange' */
  async capabilities(): Promise<ScannerCapabilities> {
    const { ScannerCapabilities: told } = await this.read<{
      ScannerCapabilities?: {
        MakeAndModel?: string;
        Platen?: { PlatenInputCaps?: InputCaps };
        Adf?: { AdfSimplexInputCaps?: InputCaps; AdfDuplexInputCaps?: InputCaps };
      };
    }>('ScannerCapabilities');
    if (!told) throw new Problem('scanner-strange');
    const glass = told.Platen?.PlatenInputCaps;
    const feeder = told.Adf?.AdfSimplexInputCaps ?? told.Adf?.AdfDuplexInputCaps;
    const caps = glass ?? feeder;
    if (!caps) throw new Problem('scanner-strange');
    const profiles = caps.SettingProfiles?.SettingProfile ?? [];
    const modes = new Set(profiles.flatMap((profile) => profile.ColorModes?.ColorMode ?? []));
    const colours = (Object.keys(COLOUR_MODES) as ScanColour[]).filter((colour) => modes.has(COLOUR_MODES[colour]));
    const capabilities = {
      model: printable(String(told.MakeAndModel ?? ''), LONGEST_NAME) || 'Scanner',
      glass: glass ? largestArea(glass) : null,
      feeder: feeder ? largestArea(feeder) : null,
      bothSides: told.Adf?.AdfDuplexInputCaps !== undefined,
      colours: colours.length > 0 ? colours : ['colour'],
      resolutions: resolutionsOf(caps),
    };
    return scannerCapabilities.validate(capabilities, { strict: true }).catch(() => {
      throw new Problem('scanner-strange');
    });
  }

  /** What the scanner says of its feeder. @throws Problem 'scanner-gone' */
  async feeder(): Promise<'loaded' | 'empty' | 'jam' | 'coverOpen' | 'unknown'> {
    const { ScannerStatus: status } = await this.read<{ ScannerStatus?: { AdfState?: string } }>('ScannerStatus');
    const state = status?.AdfState ?? '';
    if (/Loaded|Processing/.test(state)) return 'loaded';
    if (/Empty/.test(state)) return 'empty';
    if (/Jam|Mispick|MultipickDetected/.test(state)) return 'jam';
    if (/Open/.test(state)) return 'coverOpen';
    return 'unknown';
  }

  /**
   * Scans, and gives the pages one by one as they come: JPEG, with the sides of a sheet behind each other.
   * @param source what `settings.source` means when that is left to the scanner
   * @throws Problem 'scanner-gone', 'scanner-busy', 'scanner-refused', 'feeder-empty', 'feeder-jam', 'scanner-open'
   */
  async *scan(settings: ScanSettings, source: ScanSourceName, signal: AbortSignal): AsyncGenerator<Uint8Array> {
    const job = await this.begin(settings, source, signal);
    let pages = 0;
    let over = false;
    try {
      for (;;) {
        const page = await this.nextPage(job, signal);
        if (!page) break;
        if (++pages > MOST_PAGES) throw new Problem('scanner-strange');
        yield page;
      }
      over = !signal.aborted;
    } finally {
      // Stopped, failed, or whoever asked has had enough: the scanner is free for the next one.
      if (!over) await this.cancel(job);
    }
    if (signal.aborted || source === 'glass') return;
    // The job is over; whether it ended as it should, the scanner tells.
    const state = await this.feeder();
    if (state === 'jam') throw new Problem('feeder-jam');
    if (state === 'coverOpen') throw new Problem('scanner-open');
    if (pages === 0) throw new Problem('feeder-empty');
  }

  private async begin(settings: ScanSettings, source: ScanSourceName, signal: AbortSignal): Promise<string> {
    if (source === 'feeder') await this.insistOnPaper();
    for (let attempt = 0; attempt < BUSY_TRIES; attempt++) {
      const response = await this.send('POST', 'ScanJobs', { body: scanSettings(settings, source), signal });
      if (response.status === 201) {
        const location = response.headers.get('location');
        if (!location) throw new Problem('scanner-strange');
        // Some scanners name themselves otherwise than they are reached; the path is what counts.
        return new URL(new URL(location, this.address).pathname, this.address).href;
      }
      await response.body?.cancel();
      if (response.status !== 503) {
        if (source === 'feeder') await this.insistOnPaper();
        throw new Problem('scanner-refused');
      }
      if (attempt >= 3) throw new Problem('scanner-busy');
      await sleep(BUSY_MS, undefined, { signal }).catch(() => undefined);
    }
    throw new Problem('scanner-busy');
  }

  private async insistOnPaper(): Promise<void> {
    const state = await this.feeder();
    if (state === 'empty') throw new Problem('feeder-empty');
    if (state === 'jam') throw new Problem('feeder-jam');
    if (state === 'coverOpen') throw new Problem('scanner-open');
  }

  /** The next page of a job; undefined when there is none. */
  private async nextPage(job: string, signal: AbortSignal): Promise<Uint8Array | undefined> {
    for (let attempt = 0; attempt < BUSY_TRIES && !signal.aborted; attempt++) {
      const response = await this.send('GET', `${job}/NextDocument`, { signal, limit: PAGE_MS });
      if (response.status === 200) {
        return await bytesOf(response, MOST_PAGE_BYTES, signal);
      }
      await response.body?.cancel();
      if (response.status !== 503) return undefined;
      await sleep(BUSY_MS, undefined, { signal }).catch(() => undefined);
    }
    return undefined;
  }

  private async cancel(job: string): Promise<void> {
    await this.send('DELETE', job, {}).catch(() => undefined);
  }

  private async read<Told>(path: string): Promise<Told> {
    const response = await this.send('GET', path, {});
    if (!response.ok) throw new Problem('scanner-strange');
    try {
      return xml.parse(Buffer.from(await bytesOf(response, MOST_TOLD_BYTES)).toString()) as Told;
    } catch (error) {
      if (error instanceof Problem) throw error;
      throw new Problem('scanner-strange');
    }
  }

  private async send(
    method: string,
    path: string,
    { body, signal, limit = this.patience }: { body?: string; signal?: AbortSignal; limit?: number },
  ): Promise<Response> {
    const base = this.address.endsWith('/') ? this.address : `${this.address}/`;
    try {
      return await fetch(new URL(path, base), {
        method,
        body,
        redirect: 'error',
        headers: body ? { 'content-type': 'text/xml' } : undefined,
        signal: within(limit, signal),
      });
    } catch {
      throw new Problem(signal?.aborted ? 'scan-stopped' : 'scanner-gone');
    }
  }
}

/**
 * A signal that aborts after a time, or with another one. A timer of ours holds it: with AbortSignal.any of
 * AbortSignal.timeout, which hold each other weakly, a silent scanner was waited for without end.
 */
function within(milliseconds: number, signal?: AbortSignal): AbortSignal {
  const ending = new AbortController();
  const end = () => {
    clearTimeout(timer);
    signal?.removeEventListener('abort', end);
    ending.abort();
  };
  const timer = setTimeout(end, milliseconds).unref();
  signal?.addEventListener('abort', end);
  if (signal?.aborted) end();
  return ending.signal;
}

/** What an answer holds, counted while it comes. @throws Problem 'scanner-strange' when it is more, 'scanner-gone', 'scan-stopped' */
async function bytesOf(response: Response, most: number, signal?: AbortSignal): Promise<Uint8Array> {
  const pieces: Uint8Array[] = [];
  let sum = 0;
  try {
    for await (const piece of response.body ?? []) {
      sum += (piece as Uint8Array).length;
      if (sum > most) throw new Problem('scanner-strange');
      pieces.push(piece as Uint8Array);
    }
  } catch (error) {
    if (error instanceof Problem) throw error;
    throw new Problem(signal?.aborted ? 'scan-stopped' : 'scanner-gone');
  }
  return Buffer.concat(pieces);
}

function largestArea({ MaxWidth, MaxHeight }: InputCaps): { width: number; height: number } {
  const points = (units: string | undefined, otherwise: number) =>
    Math.floor((Number(units) || otherwise) / UNITS_PER_POINT);
  return { width: points(MaxWidth, 2550), height: points(MaxHeight, 3508) };
}

const USUAL_RESOLUTIONS = [75, 100, 150, 200, 300, 400, 600];

function resolutionsOf({ SettingProfiles }: InputCaps): number[] {
  const profiles = SettingProfiles?.SettingProfile ?? [];
  const found = new Set<number>();
  for (const { SupportedResolutions: supported } of profiles) {
    for (const { XResolution } of supported?.DiscreteResolutions?.DiscreteResolution ?? [])
      found.add(Number(XResolution));
    const range = supported?.ResolutionRange?.XResolutionRange;
    if (range) {
      for (const dpi of USUAL_RESOLUTIONS)
        if (dpi >= Number(range.Min ?? 0) && dpi <= Number(range.Max ?? 0)) found.add(dpi);
    }
  }
  const usable = [...found]
    .filter((dpi) => dpi >= 50 && dpi <= 1200)
    .sort((a, b) => a - b)
    .slice(0, MOST_RESOLUTIONS);
  return usable.length > 0 ? usable : [300];
}

function scanSettings({ colour, resolution, bothSides, area }: ScanSettings, source: ScanSourceName): string {
  const units = (points: number) => Math.round(points * UNITS_PER_POINT);
  const region = area
    ? `<pwg:ScanRegions><pwg:ScanRegion><pwg:ContentRegionUnits>escl:ThreeHundredthsOfInches</pwg:ContentRegionUnits>` +
      `<pwg:XOffset>${units(area.x)}</pwg:XOffset><pwg:YOffset>${units(area.y)}</pwg:YOffset>` +
      `<pwg:Width>${units(area.width)}</pwg:Width><pwg:Height>${units(area.height)}</pwg:Height></pwg:ScanRegion></pwg:ScanRegions>`
    : '';
  return (
    `<?xml version="1.0" encoding="UTF-8"?><scan:ScanSettings xmlns:scan="http://schemas.hp.com/imaging/escl/2011/05/03" ` +
    `xmlns:pwg="http://www.pwg.org/schemas/2010/12/sm"><pwg:Version>2.0</pwg:Version><scan:Intent>Document</scan:Intent>${region}` +
    `<pwg:InputSource>${source === 'feeder' ? 'Feeder' : 'Platen'}</pwg:InputSource>` +
    `<scan:ColorMode>${COLOUR_MODES[colour]}</scan:ColorMode><scan:XResolution>${resolution}</scan:XResolution><scan:YResolution>${resolution}</scan:YResolution>` +
    `<pwg:DocumentFormat>image/jpeg</pwg:DocumentFormat><scan:DocumentFormatExt>image/jpeg</scan:DocumentFormatExt>` +
    (source === 'feeder' ? `<scan:Duplex>${bothSides}</scan:Duplex>` : '') +
    `</scan:ScanSettings>`
  );
}
