import { ScanColour, ScanSettings, Scanner } from '@crow/contract/scanning';

export const COLOUR_NAMES: Record<ScanColour, string> = {
  colour: 'Colour',
  grey: 'Grey',
  blackAndWhite: 'Black and white',
};
export const SOURCE_NAMES: Record<ScanSettings['source'], string> = {
  whichever: 'Whichever has paper',
  feeder: 'Feeder',
  glass: 'Glass',
};

/** Paper sizes in points; the scanner takes in no more of what it sees. */
export const SCAN_PAPERS: { name: string; width: number; height: number }[] = [
  { name: 'A4', width: 595, height: 842 },
  { name: 'A5', width: 420, height: 595 },
  { name: 'Letter', width: 612, height: 792 },
  { name: 'Receipt', width: 230, height: 842 },
];

const USUAL_DPI = 300;
const [A4] = SCAN_PAPERS;

/** What a scanner is asked for at first: grey is what text needs, at the resolution that it is read best in. */
export function usualSettings({ capabilities }: Scanner): ScanSettings {
  const { glass, feeder, colours, resolutions } = capabilities;
  const near = [...resolutions].sort((a, b) => Math.abs(a - USUAL_DPI) - Math.abs(b - USUAL_DPI))[0];
  return {
    source: feeder && glass ? 'whichever' : feeder ? 'feeder' : 'glass',
    bothSides: false,
    colour: colours.includes('grey') ? 'grey' : colours[0],
    resolution: near,
    area: { x: 0, y: 0, width: A4.width, height: A4.height },
    whole: false,
  };
}

/** Which paper an area is, by name; undefined for one that was drawn, or all that the scanner sees. */
export function paperOf(area: ScanSettings['area']): string | undefined {
  if (!area || area.x > 0 || area.y > 0) return undefined;
  return SCAN_PAPERS.find(({ width, height }) => width === area.width && height === area.height)?.name;
}
