import { linesOf, Word } from '../reading/words';
import { ASCENT, DESCENT, GLYPH_WIDTH } from './glyphlessFont';

/** The characters used in a document, each with its number in the invisible font; numbers begin with 1. */
export class CharacterSet {
  readonly codes = new Map<string, number>();

  /** The characters of a text as two-byte codes in hexadecimal, for a PDF string. */
  encode(text: string): string {
    let hex = '';
    for (const character of text) {
      let code = this.codes.get(character);
      if (code === undefined) this.codes.set(character, (code = this.codes.size + 1));
      hex += code.toString(16).padStart(4, '0');
    }
    return hex;
  }

  /** The CMap that gives each code its text (Adobe Technical Note 5411). */
  toUnicodeMap(): string {
    const entries = [...this.codes].map(
      ([character, code]) => `<${code.toString(16).padStart(4, '0')}> <${utf16(character)}>`,
    );
    const blocks: string[] = [];
    const mostInBlock = 100;
    for (let at = 0; at < entries.length; at += mostInBlock) {
      const block = entries.slice(at, at + mostInBlock);
      blocks.push(`${block.length} beginbfchar\n${block.join('\n')}\nendbfchar`);
    }
    return [
      '/CIDInit /ProcSet findresource begin',
      '12 dict begin',
      'begincmap',
      '/CIDSystemInfo << /Registry (Adobe) /Ordering (UCS) /Supplement 0 >> def',
      '/CMapName /Adobe-Identity-UCS def',
      '/CMapType 2 def',
      '1 begincodespacerange',
      '<0000> <FFFF>',
      'endcodespacerange',
      ...blocks,
      'endcmap',
      'CMapName currentdict /CMap defineresource pop',
      'end',
      'end',
    ].join('\n');
  }
}

function utf16(text: string): string {
  let hex = '';
  for (let at = 0; at < text.length; at++) hex += text.charCodeAt(at).toString(16).padStart(4, '0');
  return hex;
}

const SCALE_LIMIT = 10_000;
/** Lines higher than this share of the page are set word by word: in large type a word's own box matters more than its line. */
const LARGE_TYPE = 0.03;

/**
 * Drawing operators that set words invisibly (text rendering mode 3) where they are in the picture: words of a line share
 * the line's height and stand on their baseline, so that readers put lines and columns together again; their glyphs are
 * stretched to the width of the word's box, and a space follows so that copied text keeps its words apart. Pixels are
 * scaled to points; the origin is the lower left corner of the page.
 */
export function invisibleText(
  words: Word[],
  { scaleX, scaleY, pageHeight }: { scaleX: number; scaleY: number; pageHeight: number },
  fontName: string,
  characters: CharacterSet,
): string {
  const parts = ['BT', '3 Tr'];
  let lastSize = '';
  for (const line of linesOf(words)) {
    const above = Math.max(...line.map((word) => word.baseline - word.box[1])) * scaleY;
    const lineSize = (above * 1000) / ASCENT;
    for (const { text, box, baseline } of line) {
      const [x, y, width, height] = box;
      const large = lineSize > LARGE_TYPE * pageHeight;
      const size = large ? height * scaleY : lineSize;
      const glyphs = [...text].length;
      if (size <= 0 || width <= 0 || glyphs === 0) continue;
      const natural = (glyphs * GLYPH_WIDTH * size) / 1000;
      const stretch = Math.min(SCALE_LIMIT, (100 * width * scaleX) / natural);
      const foot = large ? (y + height) * scaleY + (DESCENT / 1000) * size : baseline * scaleY;
      const sized = `/${fontName} ${number(size)} Tf`;
      if (sized !== lastSize) parts.push(sized);
      lastSize = sized;
      const place = `${number(x * scaleX)} ${number(pageHeight - foot)}`;
      parts.push(`${number(stretch)} Tz 1 0 0 1 ${place} Tm <${characters.encode(`${text} `)}> Tj`);
    }
  }
  parts.push('ET');
  return parts.join('\n');
}

function number(value: number): string {
  return value.toFixed(2).replace(/\.?0+$/, '');
}
