import { lineBox, linesOf, Word } from './words';

/** A piece of a page's text that may be set anew, and where on the page it begins, in pixels. */
export interface Paragraph {
  text: string;
  top: number;
  /** Whether it is set larger than the text, in a line by itself. */
  heading: boolean;
}

/** A line ends its paragraph when it is shorter than this part of the widest line, and the next begins one when it is so far below. */
const FULL = 0.72;
const APART = 1.7;
/** A heading is so much higher than the text, and has no more letters. */
const HIGHER = 1.25;
const LONGEST_HEADING = 90;

/**
 * The text of a page as paragraphs that may be set anew in any width: lines that go on are joined, words divided at a line's end put
 * together; what stands by itself (rows of tables, addresses, headings) stays a line.
 */
export function paragraphsOf(words: readonly Word[]): Paragraph[] {
  const lines = linesOf([...words]).map((line) => ({
    text: line.map(({ text }) => text).join(' '),
    box: lineBox(line),
    cells: line.filter((word, at) => at > 0 && word.box[0] - right(line[at - 1]) > 2 * word.box[3]).length + 1,
  }));
  const heights = lines.map(({ box }) => box[3]).sort((a, b) => a - b);
  const usual = heights[heights.length >> 1] ?? 0;
  const widest = lines.reduce((most, { box }) => Math.max(most, box[2]), 0);
  const paragraphs: Paragraph[] = [];
  let open = false;
  lines.forEach(({ text, box, cells }, at) => {
    const before = lines[at - 1];
    const near = before && box[1] - before.box[1] < APART * Math.max(before.box[3], box[3]) && box[1] > before.box[1];
    const goesOn = open && near && cells === 1 && Math.abs(box[0] - before.box[0]) < 2 * box[3];
    if (!goesOn) {
      const heading = box[3] >= HIGHER * usual && text.length <= LONGEST_HEADING && cells === 1;
      paragraphs.push({ text, top: box[1], heading });
    } else {
      const last = paragraphs[paragraphs.length - 1];
      // What goes on for lines is text, however large.
      last.heading = false;
      const divided = /\p{Ll}-$/u.test(last.text) && /^\p{Ll}/u.test(text);
      last.text = divided ? last.text.slice(0, -1) + text : `${last.text} ${text}`;
    }
    open = cells === 1 && box[2] >= FULL * widest;
  });
  return paragraphs;
}

const right = ({ box }: Word) => box[0] + box[2];
