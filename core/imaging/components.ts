import { Ink, inkRuns } from './ink';

/** A connected piece of ink. */
export interface Component {
  left: number;
  top: number;
  right: number;
  bottom: number;
  /** How many pixels of ink. */
  pixels: number;
}

/**
 * The connected pieces of ink (neighbours on all eight sides), and for each pixel the number of its piece from 1, 0 for paper;
 * pieces are numbered as they come from the top. By runs of ink along the rows (He, Chao & Suzuki 2008): paper is most of a page.
 */
export function connectedComponents(ink: Ink): { components: Component[]; labels: Int32Array } {
  const labels = new Int32Array(ink.data.length);
  return { components: piecesOf(ink, (piece, from, to) => labels.fill(piece, from, to + 1)), labels };
}

/** The connected pieces of ink alone, where nobody asks for their pixels. */
export function inkPieces(ink: Ink): Component[] {
  return piecesOf(ink, () => undefined);
}

/**
 * The connected pieces of ink, run by run along the rows, from the top.
 * @param tell is told of each run: the number of its piece from 1, and its first and last pixel
 */
export function piecesOf(ink: Ink, tell: (piece: number, from: number, to: number) => void): Component[] {
  const { width, height } = ink;
  const runs = inkRuns(ink);
  const count = runs.length >> 1;
  const parent = new Int32Array(count);
  // The first run of each row; of the last one, its end.
  const firstOfRow = new Int32Array(height + 1);
  for (let y = 0, run = 0; y < height; y++) {
    const end = (y + 1) * width;
    const lastAbove = run;
    let above = y > 0 ? firstOfRow[y - 1] : 0;
    firstOfRow[y] = run;
    for (; run < count && runs[2 * run] < end; run++) {
      const [from, to] = [runs[2 * run], runs[2 * run + 1]];
      parent[run] = run;
      // What touches it in the row above, at the corners as well.
      while (above < lastAbove && runs[2 * above + 1] + width < from - 1) above++;
      for (let other = above; other < lastAbove && runs[2 * other] + width <= to + 1; other++)
        unite(parent, other, run);
    }
  }
  firstOfRow[height] = count;
  const components: Component[] = [];
  const pieceOf = new Int32Array(count);
  for (let y = 0; y < height; y++) {
    for (let run = firstOfRow[y]; run < firstOfRow[y + 1]; run++) {
      const root = rootOf(parent, run);
      const [from, to] = [runs[2 * run], runs[2 * run + 1]];
      const [left, right, pixels] = [from - y * width, to - y * width, to - from + 1];
      if (pieceOf[root] === 0) pieceOf[root] = components.push({ left, top: y, right, bottom: y, pixels });
      else {
        const component = components[pieceOf[root] - 1];
        if (left < component.left) component.left = left;
        if (right > component.right) component.right = right;
        component.bottom = y;
        component.pixels += pixels;
      }
      tell(pieceOf[root], from, to);
    }
  }
  return components;
}

function rootOf(parent: Int32Array, run: number): number {
  while (parent[run] !== run) {
    parent[run] = parent[parent[run]];
    run = parent[run];
  }
  return run;
}

/** The earlier run becomes the root of both. */
function unite(parent: Int32Array, one: number, other: number): void {
  const [a, b] = [rootOf(parent, one), rootOf(parent, other)];
  if (a < b) parent[b] = a;
  else parent[a] = b;
}

/** A dot fills so much of its box, which is no longer than so many times its other side, and is lower than this share of a letter. */
const [DOT_FULL, DOT_LONG, DOT_LOW] = [0.68, 1.6, 0.55];
/** Where so many of the pieces are dots, they are those of dotted lines, not of letters and sentences. */
const MANY_DOTS = 0.25;
const FEWEST = 20;

/** The height that most letters have (small ones), in pixels; 0 when there are hardly any. */
export function letterHeight(components: Component[]): number {
  const pieces = components.filter(({ left, right, top, bottom, pixels }) => {
    const [w, h] = [right - left + 1, bottom - top + 1];
    return h >= 4 && w >= 2 && w < 4 * h && h < 6 * w && pixels > 0.12 * w * h;
  });
  if (pieces.length < FEWEST) return 0;
  const [full, open] = [pieces.filter(isFull), pieces.filter((piece) => !isFull(piece))];
  const tall = usualHeight(pieces);
  if (open.length < FEWEST || full.length < MANY_DOTS * pieces.length) return tall;
  const least = DOT_LOW * usualHeight(open);
  const dots = full.filter((piece) => heightOf(piece) < least);
  return dots.length < MANY_DOTS * pieces.length
    ? tall
    : usualHeight(pieces.filter((piece) => !isFull(piece) || heightOf(piece) >= least));
}

const heightOf = ({ top, bottom }: Component) => bottom - top + 1;

function isFull({ left, right, top, bottom, pixels }: Component): boolean {
  const [w, h] = [right - left + 1, bottom - top + 1];
  return pixels >= DOT_FULL * w * h && Math.max(w, h) <= DOT_LONG * Math.min(w, h);
}

/** The height of small letters among some pieces: two fifths of them are lower. */
function usualHeight(pieces: readonly Component[]): number {
  const heights = pieces.map(heightOf).sort((a, b) => a - b);
  return heights[Math.floor(heights.length * 0.4)];
}

/** The ink without what is larger than letters: rules, frames, pictures, blots. */
export function lettersOnly(ink: Ink): Ink {
  // Of each run the number of its piece, its first and its last pixel.
  const runs: number[] = [];
  const components = piecesOf(ink, (piece, from, to) => runs.push(piece, from, to));
  const most = LARGEST_LETTER * (letterHeight(components) || Math.max(ink.width, ink.height) / 40);
  const isLetter = components.map(({ left, right, top, bottom }) => right - left < most && bottom - top < most);
  const data = new Uint8Array(ink.data.length);
  for (let run = 0; run < runs.length; run += 3)
    if (isLetter[runs[run] - 1]) data.fill(1, runs[run + 1], runs[run + 2] + 1);
  return { ...ink, data };
}

/** How large a piece of ink that is letters may be, in heights of small letters. */
const LARGEST_LETTER = 5;
