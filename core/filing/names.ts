/** What a file name may hold at most, so that folder and name fit every common file system, in UTF-8 bytes. */
const MOST_BYTES = 180;
const RESERVED = /^(con|prn|aux|nul|com\d|lpt\d)$/i;

/**
 * A name made safe for every common file system: no characters that Windows, macOS or Linux refuse, no control or
 * direction-changing characters, no dots or spaces at the ends, no device names, of bounded length, in NFC. What nothing is
 * left of becomes `fallback`.
 */
export function safeName(name: string, fallback = 'Untitled'): string {
  const replaced = name
    .normalize('NFC')
    .replace(/[/\\|]/g, '-')
    .replace(/["<>?*]/g, '')
    .replace(/:/g, '.')
    // Control, format (direction marks among them, but not the joiners inside characters), unpaired surrogate and private use characters.
    .replace(/(?![\u200C\u200D])[\p{Cc}\p{Cf}\p{Cs}\p{Co}\uFFFD]/gu, ' ')
    .replace(/\s+/g, ' ');
  const trimmed = trimEnds(shorten(trimEnds(replaced), MOST_BYTES));
  if (!trimmed) return fallback;
  return RESERVED.test(trimmed.split('.')[0].trim()) ? `${trimmed} -` : trimmed;
}

function trimEnds(name: string): string {
  return name.replace(/^[\s.]+|[\s.]+$/g, '');
}

function shorten(name: string, mostBytes: number): string {
  const encoder = new TextEncoder();
  if (encoder.encode(name).length <= mostBytes) return name;
  let kept = '';
  let bytes = 0;
  for (const { segment } of new Intl.Segmenter('en').segment(name)) {
    bytes += encoder.encode(segment).length;
    if (bytes > mostBytes) break;
    kept += segment;
  }
  return kept;
}

/** What two names are compared by: file systems that ignore case or the form of accents would take them for the same. */
export function nameKey(name: string): string {
  return name.normalize('NFC').toLowerCase();
}

/**
 * The name itself if it is free, else the first of `Name (2)`, `Name (3)` … that is; a number that it ends in already goes
 * on being counted. `taken` holds name keys.
 */
export function freeName(name: string, taken: ReadonlySet<string>): string {
  if (!taken.has(nameKey(name))) return name;
  const unnumbered = name.replace(/ \(\d+\)$/, '');
  for (let number = 2; ; number++) {
    const numbered = `${unnumbered} (${number})`;
    if (!taken.has(nameKey(numbered))) return numbered;
  }
}

/** Orders names as people do, numbers in them counted as numbers: page 9 before page 10. */
export const compareNames: (a: string, b: string) => number = new Intl.Collator('en', { numeric: true }).compare;
