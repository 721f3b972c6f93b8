/** Units per em of the font; every glyph is this wide in thousandths of the size, see GLYPH_WIDTH. */
const UNITS_PER_EM = 1000;
/** Width of every glyph in thousandths of the font size. */
export const GLYPH_WIDTH = 500;
/** How much of the font size stands above and below the baseline, in thousandths. */
export const ASCENT = 800;
export const DESCENT = -200;

/**
 * A TrueType font of two glyphs without outlines, for text that is there but draws nothing. Everything invisible in a
 * searchable PDF is set in it: glyph 1 stands for every character, the PDF's ToUnicode map says which.
 */
export function glyphlessFont(): Uint8Array {
  const glyphs = 2;
  const tables: [tag: string, bytes: number[]][] = [
    ['OS/2', os2()],
    ['cmap', [...u16(0, 1, 3, 1), ...u32(12), ...u16(4, 24, 0, 2, 2, 0, 0, 0xffff, 0, 0xffff, 1, 0)]],
    ['glyf', [0, 0, 0, 0]],
    ['head', head()],
    ['hhea', [...u32(0x00010000), ...u16(ASCENT, DESCENT, 0, GLYPH_WIDTH, 0, 0, 0, 1, 0, 0, 0, 0, 0, 0, 0, 1)]],
    ['hmtx', [...u16(GLYPH_WIDTH, 0), ...u16(0)]],
    ['loca', u16(...new Array<number>(glyphs + 1).fill(0))],
    ['maxp', [...u32(0x00010000), ...u16(glyphs, 0, 0, 0, 0, 1, 0, 0, 0, 0, 0, 0, 0, 0)]],
    ['name', names('CrowShelfInvisible')],
    ['post', [...u32(0x00030000, 0), ...u16(0, 0), ...u32(1, 0, 0, 0, 0)]],
  ];
  return assemble(tables);
}

function u16(...values: number[]): number[] {
  return values.flatMap((value) => [(value >> 8) & 0xff, value & 0xff]);
}

function u32(...values: number[]): number[] {
  return values.flatMap((value) => [(value >>> 24) & 0xff, (value >>> 16) & 0xff, (value >>> 8) & 0xff, value & 0xff]);
}

function head(): number[] {
  const created = [0, 0, 0, 0, 0, 0, 0, 0];
  return [
    ...u32(0x00010000, 0x00010000, 0, 0x5f0f3cf5),
    ...u16(0x000b, UNITS_PER_EM),
    ...created,
    ...created,
    ...u16(0, 0, 0, 0, 0, 8, 2, 0, 0),
  ];
}

function os2(): number[] {
  return [
    ...u16(3, GLYPH_WIDTH, 400, 5, 0, 650, 700, 0, 140, 650, 700, 0, 480, 50, 260, 0),
    ...new Array<number>(10).fill(0),
    ...u32(0, 0, 0, 0),
    ...[...'CROW'].map((letter) => letter.charCodeAt(0)),
    ...u16(0x40, 0xffff, 0xffff, ASCENT, DESCENT, 0, ASCENT, -DESCENT),
    ...u32(0, 0),
    ...u16(500, 700, 0, 32, 1),
  ];
}

function names(postScriptName: string): number[] {
  const text = u16(...[...postScriptName].map((letter) => letter.charCodeAt(0)));
  const ids = [1, 4, 6];
  const records = ids.flatMap((id) => u16(3, 1, 0x409, id, text.length, 0));
  return [...u16(0, ids.length, 6 + records.length), ...records, ...text];
}

/** Puts the tables into one file, each on a multiple of four bytes, with checksums (OpenType 1.9, Organization of a font). */
function assemble(tables: [tag: string, bytes: number[]][]): Uint8Array {
  const directory = 12 + 16 * tables.length;
  const padded = tables.map(([, bytes]) => [...bytes, ...new Array<number>((4 - (bytes.length % 4)) % 4).fill(0)]);
  const power = Math.floor(Math.log2(tables.length));
  const font = [...u32(0x00010000), ...u16(tables.length, 16 << power, power, 16 * (tables.length - (1 << power)))];
  let offset = directory;
  let headOffset = 0;
  tables.forEach(([tag, bytes], index) => {
    font.push(...[...tag].map((letter) => letter.charCodeAt(0)), ...u32(checksum(padded[index]), offset, bytes.length));
    if (tag === 'head') headOffset = offset;
    offset += padded[index].length;
  });
  for (const bytes of padded) font.push(...bytes);
  const adjustment = u32((0xb1b0afba - checksum(font)) >>> 0);
  adjustment.forEach((byte, index) => (font[headOffset + 8 + index] = byte));
  return Uint8Array.from(font);
}

function checksum(bytes: number[]): number {
  let sum = 0;
  for (let at = 0; at < bytes.length; at += 4) {
    sum = (sum + ((bytes[at] << 24) | (bytes[at + 1] << 16) | (bytes[at + 2] << 8) | bytes[at + 3])) >>> 0;
  }
  return sum;
}
