import { Component, connectedComponents, letterHeight } from './components';
import { paperUnder } from './paperUnder';
import { bytesOf, Raster } from './raster';
import { sharpInk } from './sharpInk';

/** Ink of one colour, as a stencil that is painted in it. */
export interface Stencil {
  colour: [red: number, green: number, blue: number];
  /** 0 where it is painted, 255 elsewhere; grey. */
  mask: Raster;
  /** Where its upper left corner lies on the page, in pixels. */
  left: number;
  top: number;
}

/** A page taken apart: sharp ink in a few colours, and what lies under it, coarse. */
export interface Layers {
  width: number;
  height: number;
  stencils: Stencil[];
  /** The paper and the pictures on it, without the ink; each pixel covers `cell` × `cell` of the page. */
  background: Raster;
  cell: number;
}

/** So much may the brightness inside one piece of ink vary (standard deviation) before it is a picture rather than ink. */
const PLAIN = 26;
/** So many pixels inside, this far from its edges, and such a share of all, a piece has at least before that can be said. */
const ENOUGH_INSIDE = 60;
const INSIDE = 5;
const THICK = 0.25;
/** Colours that are this near are one (see `distance`), and how many are told apart at most. */
const SAME_COLOUR = 52;
const MOST_COLOURS = 6;
/** Ink of a colour of its own makes up this share of all ink at least, or so many pixels. */
const LEAST_SHARE = 0.004;
const LEAST_PIXELS = 400;
/** The ink's blurred edge: so many pixels around it tell nothing of the paper. */
const HALO = 2;

/**
 * Takes a page apart for mixed raster content (ITU-T T.44; Bottou et al. 1998): letters and lines become stencils of one colour
 * each, which stay sharp with one bit a pixel; paper and pictures become a coarse background in which the ink's place is filled
 * from around it. Dark pieces that are not of one colour (photos, shadows at the edges) stay in the background.
 * @param page grey or RGB, best at 300 dpi
 * @param cell how many pixels of the page one of the background covers, across and down
 */
export function separateLayers(page: Raster, cell: number): Layers {
  const { width, height } = page;
  const { components, labels } = connectedComponents(sharpInk(page));
  const pieces = measure(page, components, labels);
  const kinds = sortOut(pieces, components, width, height);
  const groups = groupColours(pieces, kinds);
  const ofPiece = Int32Array.from(components, (_, index) => groups.of[index]);
  const stencils = groups.colours.map((colour, group) => stencilOf(group, colour, ofPiece, components, labels, width));
  const covered = new Uint8Array(labels.length);
  for (let at = 0; at < labels.length; at++) if (labels[at] && ofPiece[labels[at] - 1] >= 0) covered[at] = 1;
  return { width, height, stencils, background: paperUnder(page, widen(covered, width, height), cell), cell };
}

interface Piece {
  pixels: number;
  colour: [number, number, number];
  inside: number;
  /** Standard deviation of the brightness inside. */
  spread: number;
}

/** The colour of each piece of ink, the darker pixels counting more: the edges of strokes are mixed with paper. */
function measure(page: Raster, components: Component[], labels: Int32Array): Piece[] {
  const { width, height, channels } = page;
  const data = bytesOf(page);
  const count = components.length;
  const sums = new Float64Array(count * 3);
  const weights = new Float64Array(count);
  const inside = new Uint32Array(count);
  const brightness = new Float64Array(count);
  const squares = new Float64Array(count);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = y * width + x;
      const label = labels[at];
      if (!label) continue;
      const piece = label - 1;
      const from = at * channels;
      const red = data[from];
      const green = channels === 1 ? red : data[from + 1];
      const blue = channels === 1 ? red : data[from + 2];
      const luma = (77 * red + 150 * green + 29 * blue) / 256;
      const weight = (256 - luma) ** 2;
      weights[piece] += weight;
      sums[3 * piece] += weight * red;
      sums[3 * piece + 1] += weight * green;
      sums[3 * piece + 2] += weight * blue;
      const within = x >= INSIDE && y >= INSIDE && x < width - INSIDE && y < height - INSIDE;
      if (!within || labels[at - INSIDE] !== label || labels[at + INSIDE] !== label) continue;
      if (labels[at - INSIDE * width] !== label || labels[at + INSIDE * width] !== label) continue;
      inside[piece]++;
      brightness[piece] += luma;
      squares[piece] += luma * luma;
    }
  }
  return components.map(({ pixels }, piece) => {
    const colour = [0, 1, 2].map((channel) => sums[3 * piece + channel] / weights[piece]) as Piece['colour'];
    const mean = brightness[piece] / inside[piece];
    const spread = inside[piece] > 0 ? Math.sqrt(Math.max(0, squares[piece] / inside[piece] - mean * mean)) : 0;
    return { pixels, colour, inside: inside[piece], spread };
  });
}

type Kind = 'ink' | 'picture' | 'speck';

/** Side of the squares in which it is noted where pictures are, in pixels. */
const SQUARE = 24;

/** Tells ink from pictures, what lies in pictures, and specks. */
function sortOut(pieces: Piece[], components: Component[], width: number, height: number): Kind[] {
  const letter = letterHeight(components) || 20;
  const across = Math.ceil(width / SQUARE);
  const pictured = new Uint8Array(across * Math.ceil(height / SQUARE));
  const isPicture = pieces.map(({ inside, pixels, spread }, index) => {
    const { left, top, right, bottom } = components[index];
    const large = Math.max(right - left, bottom - top) > 2 * letter;
    return large && inside >= Math.max(ENOUGH_INSIDE, THICK * pixels) && spread > PLAIN;
  });
  isPicture.forEach((is, index) => {
    const { left, top, right, bottom, pixels } = components[index];
    // A thin line or a frame around much else covers little of its box.
    if (!is || pixels < 0.3 * (right - left + 1) * (bottom - top + 1)) return;
    for (let row = Math.floor(top / SQUARE); row <= bottom / SQUARE; row++)
      pictured.fill(1, row * across + Math.floor(left / SQUARE), row * across + Math.floor(right / SQUARE) + 1);
  });
  const speck = Math.max(3, (letter * letter) / 160);
  return components.map(({ left, top, right, bottom, pixels }, index) => {
    if (isPicture[index]) return 'picture';
    const [x, y] = [Math.floor((left + right) / 2 / SQUARE), Math.floor((top + bottom) / 2 / SQUARE)];
    if (pictured[y * across + x]) return 'picture';
    return pixels < speck ? 'speck' : 'ink';
  });
}

/** How different two colours look: brightness counts less than hue, since thin strokes come out lighter. */
function distance(a: readonly number[], b: readonly number[]): number {
  const luma = (c: readonly number[]) => 0.3 * c[0] + 0.59 * c[1] + 0.11 * c[2];
  const [la, lb] = [luma(a), luma(b)];
  const hue = Math.hypot(...[0, 1, 2].map((channel) => a[channel] - la - (b[channel] - lb)));
  return Math.hypot(0.55 * (la - lb), 1.6 * hue);
}

/** The few colours that ink has, and which piece has which; -1 for what is no ink. */
function groupColours(pieces: Piece[], kinds: Kind[]): { colours: Piece['colour'][]; of: Int32Array } {
  const of = new Int32Array(pieces.length).fill(-1);
  const order = pieces
    .map((_, index) => index)
    .filter((index) => kinds[index] === 'ink')
    .sort((a, b) => pieces[b].pixels - pieces[a].pixels);
  const total = order.reduce((sum, index) => sum + pieces[index].pixels, 0);
  let groups: { colour: Piece['colour']; pixels: number }[] = [];
  const nearest = (colour: Piece['colour']) => {
    let best = -1;
    for (let group = 0; group < groups.length; group++)
      if (best < 0 || distance(groups[group].colour, colour) < distance(groups[best].colour, colour)) best = group;
    return best;
  };
  for (const index of order) {
    const { colour, pixels } = pieces[index];
    const at = nearest(colour);
    if (at < 0 || (distance(groups[at].colour, colour) > SAME_COLOUR && groups.length < 4 * MOST_COLOURS)) {
      groups.push({ colour, pixels });
      continue;
    }
    const group = groups[at];
    const sum = group.pixels + pixels;
    group.colour = group.colour.map((value, c) => (value * group.pixels + colour[c] * pixels) / sum) as Piece['colour'];
    group.pixels = sum;
  }
  groups = groups
    .toSorted((a, b) => b.pixels - a.pixels)
    .filter(({ pixels }, place) => place === 0 || (pixels >= LEAST_PIXELS && pixels >= LEAST_SHARE * total))
    .slice(0, MOST_COLOURS);
  for (const index of order) of[index] = nearest(pieces[index].colour);
  return { colours: groups.map(({ colour }) => colour.map(Math.round) as Piece['colour']), of };
}

function stencilOf(
  group: number,
  colour: Stencil['colour'],
  ofPiece: Int32Array,
  components: Component[],
  labels: Int32Array,
  width: number,
): Stencil {
  const own = components.filter((_, index) => ofPiece[index] === group);
  const left = own.reduce((least, each) => Math.min(least, each.left), Infinity);
  const top = own.reduce((least, each) => Math.min(least, each.top), Infinity);
  const right = own.reduce((most, each) => Math.max(most, each.right), 0);
  const bottom = own.reduce((most, each) => Math.max(most, each.bottom), 0);
  const [w, h] = [right - left + 1, bottom - top + 1];
  const data = new Uint8Array(w * h).fill(255);
  for (let y = 0; y < h; y++) {
    for (let x = 0, at = (top + y) * width + left; x < w; x++, at++)
      if (labels[at] && ofPiece[labels[at] - 1] === group) data[y * w + x] = 0;
  }
  return { colour, mask: { width: w, height: h, channels: 1, data }, left, top };
}

/** Everything within the halo of what is covered. */
function widen(covered: Uint8Array, width: number, height: number): Uint8Array {
  const out = new Uint8Array(covered.length);
  for (let y = 0; y < height; y++) {
    const [row, end] = [y * width, (y + 1) * width];
    const [above, below] = [Math.max(0, y - HALO), Math.min(height - 1, y + HALO)];
    // Run by run: of most pages little is covered.
    for (let at = row; at < end; at++) {
      if (covered[at] === 0) continue;
      const left = Math.max(0, at - row - HALO);
      while (at < end && covered[at] !== 0) at++;
      const right = Math.min(width, at - row + HALO);
      for (let near = above; near <= below; near++)
        for (let to = near * width + left; to < near * width + right; to++) out[to] = 1;
    }
  }
  return out;
}
