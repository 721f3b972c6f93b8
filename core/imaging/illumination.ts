import { withPixels } from './kernels/pixels';
import { withShadows } from './castShadows';
import { finerAtEdges } from './shadowEdges';
import { closed } from './greyMorphology';
import { boxBlur, bytesOf, Plane, Raster } from './raster';

/** How bright the bare paper is across a picture: a grid over it for each of red, green and blue (or for grey). */
export interface Illumination {
  /** Cells across and down; a cell's value stands at its middle. */
  channels: Plane[];
}

/** Cells along the longer side, and samples taken across a cell. */
const CELLS = 112;
const SAMPLES = 10;
/** Of the pixels in a cell, so many (a share) are taken to be darker than the paper. */
const PAPER_SHARE = 0.8;
/** Cells this many levels darker than paper near by hold no bare paper. */
const REACH = 7;
/** No paper is darker than this, or in a dim picture than so much of what most of the page is. */
const DARKEST_PAPER = 28;
const DARKEST_SHARE = 0.35;
/** A cell is bare when its brighter and its middling pixels differ by no more than this share. */
const BARE = 0.07;
const DEEPEST_SHADOW = 0.4;
const SAME_TINT = 0.09;

/**
 * Estimates the light on the paper from its bright pixels: the brightness that few pixels of a cell exceed; cells without
 * bare paper (pictures, blocks of ink) take it from those around (a morphological closing), and all is smoothed.
 */
export function estimateIllumination(picture: Raster): Illumination {
  const { width, height, channels } = picture;
  const long = Math.max(width, height);
  const across = Math.max(4, Math.round((CELLS * width) / long));
  const down = Math.max(4, Math.round((CELLS * height) / long));
  const used = channels === 1 ? 1 : 3;
  const cells = across * down;
  const blocks = [bytesOf(picture), 512 * used, (4 * used + 1) * cells];
  const stepX = Math.max(1, Math.floor(width / across / SAMPLES));
  const stepY = Math.max(1, Math.floor(height / down / SAMPLES));
  const seen =
    withPixels(blocks, (pixels, [source, counts, out]) =>
      pixels.paperCells(
        ...[source, width, height, channels, used, across, down],
        ...[stepX, stepY, PAPER_SHARE, BARE, counts, out],
      ),
    ) ?? plainPaperCells(picture, across, down, stepX, stepY);
  const printed = seen.subarray(4 * used * cells);
  const grids = Array.from({ length: used }, (_, channel): Plane => {
    const data = new Float32Array(seen.buffer, seen.byteOffset + 4 * channel * cells, cells);
    return { width: across, height: down, data };
  });
  const asSeen = grids.map((grid) => ({ ...grid, data: grid.data.map((value) => Math.max(1, value)) }));
  for (const { data: values } of grids) {
    const usual = middleOf(values);
    const darkest = Math.max(1, Math.min(DARKEST_PAPER, DARKEST_SHARE * usual));
    values.forEach((value, at) => (values[at] = Math.max(darkest, value)));
  }
  const filled = grids.map((grid) => closed(grid, REACH));
  keepShadowedEdges(grids, filled, printed);
  const lit = withShadows(asSeen, filled, printed);
  return {
    channels: finerAtEdges(
      picture,
      lit.map((grid) => boxBlur(boxBlur(grid, 1), 1)),
    ),
  };
}

/** The median of whole numbers from 0 to 255. */
function middleOf(values: Float32Array): number {
  const counts = new Uint32Array(256);
  for (const value of values) counts[value]++;
  let [below, middle] = [0, 0];
  while (below + counts[middle] <= values.length >> 1) below += counts[middle++];
  return middle;
}

/**
 * How bright paper is in each cell of a grid, without the kernels.
 * @param stepX from each sample of a cell to the next
 * @returns the bytes of 32-bit numbers, a grid for each channel, and behind them a byte a cell: 1 where there is more than bare paper
 */
function plainPaperCells(picture: Raster, across: number, down: number, stepX: number, stepY: number): Uint8Array {
  const { width, height, channels } = picture;
  const data = bytesOf(picture);
  const used = channels === 1 ? 1 : 3;
  const cells = across * down;
  const out = new Uint8Array((4 * used + 1) * cells);
  const grids = new Float32Array(out.buffer, 0, used * cells);
  const counts = new Uint32Array(256 * used);
  for (let cell = 0; cell < cells; cell++) {
    const [cx, cy] = [cell % across, Math.floor(cell / across)];
    counts.fill(0);
    let seen = 0;
    const [bottom, right] = [Math.ceil(((cy + 1) * height) / down), Math.ceil(((cx + 1) * width) / across)];
    for (let y = Math.floor((cy * height) / down); y < bottom && y < height; y += stepY) {
      for (let x = Math.floor((cx * width) / across); x < right && x < width; x += stepX) {
        const at = (y * width + x) * channels;
        for (let channel = 0; channel < used; channel++) counts[channel * 256 + data[at + channel]]++;
        seen++;
      }
    }
    for (let channel = 0; channel < used; channel++) {
      let value = 255;
      let above = counts[channel * 256 + 255];
      while (value > 0 && above < (1 - PAPER_SHARE) * seen) above += counts[channel * 256 + --value];
      let middle = value;
      while (middle > 0 && above < 0.6 * seen) above += counts[channel * 256 + --middle];
      grids[channel * cells + cell] = value;
      if (value - middle > BARE * value) out[4 * used * cells + cell] = 1;
    }
  }
  return out;
}

/**
 * A wedge of shadow at the edge of the page is narrower than what is filled, but it is paper: cells near an edge that are
 * bare, of the paper's tint and not too dark keep their own brightness.
 */
function keepShadowedEdges(grids: Plane[], filled: Plane[], printed: Uint8Array): void {
  const [{ width, height }] = grids;
  for (let at = 0; at < printed.length; at++) {
    const [x, y] = [at % width, Math.floor(at / width)];
    if (printed[at] || Math.min(x, y, width - 1 - x, height - 1 - y) > REACH) continue;
    const shares = grids.map(({ data }, channel) => data[at] / filled[channel].data[at]);
    if (Math.min(...shares) < DEEPEST_SHADOW || Math.max(...shares) - Math.min(...shares) > SAME_TINT) continue;
    grids.forEach(({ data }, channel) => (filled[channel].data[at] = data[at]));
  }
}

/**
 * One over the light for each pixel of a row, times `scale`, interpolated between the middles of cells.
 * @param y the row
 * @param into one array a channel, as long as the row
 */
export function inverseLightOfRow(
  { channels }: Illumination,
  y: number,
  width: number,
  height: number,
  scale: number,
  into: Float32Array[],
): void {
  channels.forEach(({ width: across, height: down, data }, channel) => {
    const fy = Math.max(0, Math.min(down - 1, ((y + 0.5) * down) / height - 0.5));
    const top = Math.min(down - 2, Math.floor(fy));
    const share = fy - top;
    const row = into[channel];
    const brightness = (cell: number) => {
      const clamped = Math.max(0, Math.min(across - 1, cell));
      return data[top * across + clamped] * (1 - share) + data[(top + 1) * across + clamped] * share;
    };
    const perPixel = across / width;
    let x = 0;
    let from = scale / brightness(-1);
    for (let cell = -1; cell < across; cell++) {
      const to = scale / brightness(cell + 1);
      const begin = ((cell + 0.5) * width) / across;
      const end = ((cell + 1.5) * width) / across;
      const slope = (to - from) * perPixel;
      for (; x < width && x + 0.5 < end; x++) row[x] = from + slope * (x + 0.5 - begin);
      from = to;
    }
    for (; x < width; x++) row[x] = row[x - 1];
  });
}
