import { Box } from '../../geometry';
import { bytesOf, Raster } from '../../imaging/raster';
import { resampled } from '../../imaging/resample';
import { PageSegments, Segment } from './segments';

/** A segment cut out of its page, alone on white paper, level, in the size that the recogniser likes. */
export interface Strip {
  /** Cut out when it is first asked for, so that the first strips can be read while others are still to be cut. */
  readonly picture: Raster;
  /** The picture's, in pixels. */
  width: number;
  /** Pixels of the strip for each of the page. */
  scale: number;
  /** Where the strip's upper left corner is on the page, and how much its rows fall towards the right there. */
  left: number;
  top: number;
  slope: number;
}

/** The height of capitals and figures in a strip, and the paper around its letters, in pixels. */
const CAPITAL = 34;
const PAPER = 10;
const [LEAST_SCALE, MOST_SCALE] = [0.4, 2.6];

/**
 * Cuts segments out of a page: what belongs to their neighbours is left out, slanted lines are made level, and letters come
 * out equally tall (Catmull & Rom's interpolation, 1974).
 * @param page grey, paper white
 * @param capital how tall capitals become, in pixels
 */
export function cutStrips(
  page: Raster,
  { components, labels }: Pick<PageSegments, 'components' | 'labels'>,
  segments: readonly Segment[],
  capital = CAPITAL,
): Strip[] {
  const owner = new Int32Array(components.length + 1);
  segments.forEach(({ members }, at) => {
    for (const number of members) owner[number] = at + 1;
  });
  const near = { page, data: bytesOf(page), labels, owner };
  return segments.map((segment, at) => cutStrip(near, segment, at + 1, capital));
}

/** The paper left and right of a part of a strip, in pixels. */
export const PART_MARGIN = 10;

/** A part of a strip from one column up to another, with some paper on both sides. */
export function partOf({ picture }: Strip, from: number, until: number): Raster {
  const { height } = picture;
  const data = bytesOf(picture);
  const [left, right] = [Math.max(0, from), Math.min(picture.width, until)];
  const width = right - left + 2 * PART_MARGIN;
  const part = new Uint8Array(width * height).fill(255);
  for (let y = 0; y < height; y++)
    part.set(data.subarray(y * picture.width + left, y * picture.width + right), y * width + PART_MARGIN);
  return { width, height, channels: 1, data: part };
}

interface Near {
  page: Raster;
  data: Uint8Array;
  labels: Int32Array;
  owner: Int32Array;
}

function cutStrip(near: Near, segment: Segment, number: number, capital: number): Strip {
  const { slope } = segment;
  const scale = Math.min(MOST_SCALE, Math.max(LEAST_SCALE, capital / segment.tall));
  const margin = Math.max(2, Math.round(PAPER / scale));
  const [left, top] = [segment.left - margin, segment.top - margin];
  const [wide, high] = [segment.right + 1 + margin - left, segment.bottom + 1 + margin - top];
  const [width, height] = [Math.max(1, Math.round(wide * scale)), Math.max(1, Math.round(high * scale))];
  const fall = Math.round(Math.abs(slope) * width);
  const lower = height - Math.min(fall, Math.max(0, height - Math.round((segment.letter + 2 * margin) * scale)));
  let cut: Raster | undefined;
  return {
    get picture() {
      if (cut) return cut;
      const source = ownPixels(near, number, left, top, wide, high);
      const enlarged = resampled({ width: wide, height: high, channels: 1, data: source }, width, height);
      cut = fall === 0 ? enlarged : levelled(enlarged, slope, lower);
      return cut;
    },
    width,
    scale,
    left,
    top: slope < 0 ? top + (height - lower) / scale : top,
    slope,
  };
}

/** Columns moved up or down by whole pixels, so that a slanted line is level: the blur of in-between pixels is spared. */
function levelled({ width, height, data }: Raster, slope: number, lower: number): Raster {
  const out = new Uint8Array(width * lower).fill(255);
  const first = slope < 0 ? height - lower : 0;
  for (let x = 0; x < width; x++) {
    const shift = first + Math.round(slope * x);
    for (let y = 0; y < lower; y++) {
      const from = y + shift;
      if (from >= 0 && from < height) out[y * width + x] = data[from * width + x];
    }
  }
  return { width, height: lower, channels: 1, data: out };
}

/** A segment's own pixels; everything else is white. */
function ownPixels(
  { page: { width, height }, data, labels, owner }: Near,
  number: number,
  left: number,
  top: number,
  wide: number,
  high: number,
): Uint8Array {
  const out = new Uint8Array(wide * high).fill(255);
  for (let y = Math.max(0, -top); y < Math.min(high, height - top); y++) {
    for (let x = Math.max(0, -left); x < Math.min(wide, width - left); x++) {
      const [px, py] = [left + x, top + y];
      const at = py * width + px;
      const value = data[at];
      if (value === 255) continue;
      const piece = labels[at];
      if (piece > 0 ? owner[piece] === number : isOurs(labels, owner, width, height, px, py, number))
        out[y * wide + x] = value;
    }
  }
  return out;
}

/** The soft edge around a letter: no ink itself, and what ink touches it is the segment's. */
function isOurs(
  labels: Int32Array,
  owner: Int32Array,
  width: number,
  height: number,
  x: number,
  y: number,
  number: number,
): boolean {
  for (let ny = Math.max(0, y - 1); ny <= Math.min(height - 1, y + 1); ny++)
    for (let nx = Math.max(0, x - 1); nx <= Math.min(width - 1, x + 1); nx++) {
      const piece = labels[ny * width + nx];
      if (piece > 0 && owner[piece] === number) return true;
    }
  return false;
}

/** Where a box on a strip is on the page. */
export function boxOnPage({ scale, left, top, slope }: Strip, [x, y, width, height]: Box): Box {
  const [fromX, toX] = [x / scale, (x + width) / scale];
  const falls = [slope * fromX, slope * toX];
  const upper = top + y / scale + Math.min(...falls);
  const lower = top + (y + height) / scale + Math.max(...falls);
  return [left + fromX, upper, toX - fromX, lower - upper];
}
