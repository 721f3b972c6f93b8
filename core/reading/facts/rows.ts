import { Box } from '../../geometry';
import { linesOf, PageText, Word } from '../words';
import { placeOf } from './fact';

/** Words that stand together in a row, as in a table's cell. */
export interface Cell {
  words: Word[];
  text: string;
  /** The text in small letters without accents, for comparing with labels. */
  folded: string;
  box: Box;
}

/** What stands beside each other on a page. */
export interface Row {
  /** From 1. */
  page: number;
  /** From the top of the document, from 0. */
  number: number;
  words: Word[];
  cells: Cell[];
  text: string;
  folded: string;
  box: Box;
}

/** Small letters without accents; ligatures and the sharp s taken apart. */
export function fold(text: string): string {
  return text
    .toLowerCase()
    .replace(/ß/g, 'ss')
    .replace(/œ/g, 'oe')
    .replace(/[’‘`´]/g, "'")
    .normalize('NFD')
    .replace(/\p{M}/gu, '');
}

/** Figures that letters are misread as. */
const LOOK_ALIKE: Record<string, string> = { '0': 'o', '1': 'l', '5': 's', '7': 'z', '8': 'b' };

/** Folded text, in which a figure among letters is the letter that it looks like: “7ahlbar”, “T0tal”. */
export function foldMisread(text: string): string {
  return fold(text).replace(/[a-z\d]*[a-z]{3}[a-z\d]*/g, (word) =>
    word.replace(/[01578]/g, (figure) => LOOK_ALIKE[figure]),
  );
}

/** A gap wider than so many heights of a word parts cells. */
const CELL_GAP = 1.25;
/** Lines belong to one row when so much of the lower one stands beside the other. */
const BESIDE = 0.6;

/** The rows of a document's pages, from the top; what a text layer tells in separate lines beside each other is one row. */
export function rowsOf(pages: readonly Pick<PageText, 'words'>[]): Row[] {
  const rows: Row[] = [];
  pages.forEach(({ words }, index) => {
    const lines = joined(linesOf(words.flatMap(labelAndValue)));
    const gap = cellGap(lines);
    for (const line of lines) {
      const cells = cellsOf(line, gap);
      const text = cells.map((cell) => cell.text).join(' ');
      rows.push({
        page: index + 1,
        number: rows.length,
        words: line,
        cells,
        text,
        folded: fold(text),
        box: placeOf(line),
      });
    }
  });
  return rows;
}

/** “Bon-Nr.:4418”, “Datum:12.11.2026”: what something is called and what it is, without a space between. */
const LABEL_AND_VALUE = /^(\p{L}[\p{L}./°#-]{0,30}:)([£€$#]?\d.{0,30}|[A-Z]{1,4}[-/]?\d.{0,30})$/u;

/** A label that ran into its value, as two words; each has its share of the room. */
function labelAndValue(word: Word): Word[] {
  const found = LABEL_AND_VALUE.exec(word.text);
  if (!found) return [word];
  const [, label, value] = found;
  const [x, y, width, height] = word.box;
  const to = Math.round((width * label.length) / word.text.length);
  return [
    { ...word, text: label, box: [x, y, to, height] },
    { ...word, text: value, box: [x + to, y, width - to, height] },
  ];
}

function joined(lines: Word[][]): Word[][] {
  const placed = lines.map((words) => ({ words, box: placeOf(words) })).sort((a, b) => a.box[1] - b.box[1]);
  const out: typeof placed = [];
  for (const line of placed) {
    const home = out.slice(-6).findLast(({ words, box: [x, y, w, h] }) => {
      const [lx, ly, lw, lh] = line.box;
      const shared = Math.min(y + h, ly + lh) - Math.max(y, ly);
      if (shared < BESIDE * Math.min(h, lh) || Math.max(h, lh) > 2.2 * Math.min(h, lh)) return false;
      return x + w < lx || lx + lw < x || !words.some(({ box }) => overlaps(box, line.words));
    });
    if (!home) {
      out.push(line);
      continue;
    }
    home.words = [...home.words, ...line.words].sort((a, b) => a.box[0] - b.box[0]);
    home.box = placeOf(home.words);
  }
  return out.map(({ words }) => words);
}

function overlaps([x, , w]: Box, words: Word[]): boolean {
  return words.some(({ box: [ox, , ow] }) => Math.min(x + w, ox + ow) - Math.max(x, ox) > 2);
}

/** The narrower gaps of a page are those between words: in a typewriter's letters they are as wide as a letter. */
const [NARROWER, TIMES_A_SPACE, WIDEST_CELL_GAP, LEAST_GAPS] = [0.1, 2, 2.2, 12];

/** How wide a gap parts cells on a page, in heights of a word. */
function cellGap(lines: readonly Word[][]): number {
  const gaps = lines
    .flatMap((words) =>
      words.slice(1).map(({ box: [x, , , height] }, at) => {
        const [before, , width, other] = words[at].box;
        return (x - before - width) / Math.max(height, other);
      }),
    )
    .sort((a, b) => a - b);
  if (gaps.length < LEAST_GAPS) return CELL_GAP;
  return Math.min(WIDEST_CELL_GAP, Math.max(CELL_GAP, TIMES_A_SPACE * gaps[Math.floor(NARROWER * gaps.length)]));
}

function cellsOf(words: Word[], gap: number): Cell[] {
  const heights = words.map(({ box }) => box[3]).sort((a, b) => a - b);
  const widest = gap * heights[Math.floor(heights.length * 0.6)];
  const groups: Word[][] = [];
  words.forEach((word, at) => {
    const before = words[at - 1];
    if (before && word.box[0] - before.box[0] - before.box[2] <= widest) groups[groups.length - 1].push(word);
    else groups.push([word]);
  });
  return groups.map((group) => {
    const text = group.map((word) => word.text).join(' ');
    return { words: group, text, folded: fold(text), box: placeOf(group) };
  });
}
