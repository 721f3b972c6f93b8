import { Ink } from './ink';
import { withPixels } from './kernels/pixels';
import { renderLook, toneOf } from './looks';
import { bytesOf, greyOf, Raster } from './raster';

/** How far, in pixels, and how much (as a fraction) the blur of lens and enlargement is taken back. */
const BLUR = 4;
const [SHARPEN, OF] = [6, 5];
/** The edge of a stroke lies where it is so far from the darkest that is near to white, and what is near, in pixels. */
const EDGE = 0.6;
const NEAR = 9;
/** In cells of so many pixels, across and down, it is looked for. */
const CELL = 3;
const REACH = Math.round(NEAR / CELL);

/** Up to which tone a pixel is ink, by the darkest tone near it. */
const LIMITS = Uint8Array.from({ length: 256 }, (_, dark) => dark + EDGE * (255 - dark));

/**
 * Ink with its edges half way between it and the paper. Which ink there is is found as for the look in black and white, which makes
 * strokes bolder than they are.
 * @param page grey or RGB
 */
export function sharpInk(page: Raster): Ink {
  const grey = greyOf(page);
  const tone = toneOf(grey);
  const bold = bytesOf(renderLook(grey, 'bilevel', tone));
  const even: Raster = { ...grey, data: bytesOf(renderLook(grey, 'even', tone)) };
  const { width, height } = even;
  const cells = Math.ceil(width / CELL) * Math.ceil(height / CELL);
  const blocks = [bytesOf(even), bold, LIMITS, 12 * width, 2 * cells, width * height, width * height];
  const data =
    withPixels(blocks, (pixels, [source, boldAt, limits, rows, room, sharp, out]) =>
      pixels.sharpInk(source, boldAt, width, height, BLUR, SHARPEN, OF, CELL, REACH, limits, rows, room, sharp, out),
    ) ?? plainSharpInk(even, bold);
  return { width, height, data };
}

/** The same without the kernels. @param bold 0 where there is ink at all */
function plainSharpInk({ width, height, data: source }: Raster, bold: Uint8Array): Uint8Array {
  const even = sharpened(bytesOf({ data: source }), width, height);
  const { across, cells } = darkestNear(even, width, height);
  const data = new Uint8Array(bold.length);
  for (let y = 0, at = 0; y < height; y++) {
    const row = Math.floor(y / CELL) * across;
    for (let x = 0; x < width; x++, at++)
      if (bold[at] === 0 && even[at] <= LIMITS[cells[row + Math.floor(x / CELL)]]) data[at] = 1;
  }
  return data;
}

/** With the edges of strokes steeper and their small counters open (unsharp masking). */
function sharpened(data: Uint8Array, width: number, height: number): Uint8Array {
  const mean = meanAround(data, width, height, BLUR);
  const out = new Uint8Array(data.length);
  for (let at = 0; at < data.length; at++) {
    const value = data[at] + Math.floor((SHARPEN * (data[at] - mean[at])) / OF);
    out[at] = value < 0 ? 0 : value > 255 ? 255 : value;
  }
  return out;
}

/** The mean over a square around each pixel, by running sums of columns. */
function meanAround(data: Uint8Array, width: number, height: number, radius: number): Uint8Array {
  const out = new Uint8Array(data.length);
  const columns = new Uint32Array(width);
  for (let y = -radius; y < height; y++) {
    const [entering, leaving] = [y + radius, y - radius - 1];
    if (entering < height) for (let x = 0, at = entering * width; x < width; x++, at++) columns[x] += data[at];
    if (leaving >= 0) for (let x = 0, at = leaving * width; x < width; x++, at++) columns[x] -= data[at];
    if (y < 0) continue;
    const rows = Math.min(height - 1, entering) - Math.max(0, leaving + 1) + 1;
    let sum = 0;
    for (let x = 0; x < Math.min(radius, width); x++) sum += columns[x];
    for (let x = 0, at = y * width; x < width; x++, at++) {
      if (x + radius < width) sum += columns[x + radius];
      if (x - radius - 1 >= 0) sum -= columns[x - radius - 1];
      out[at] = sum / (rows * (Math.min(width - 1, x + radius) - Math.max(0, x - radius) + 1));
    }
  }
  return out;
}

/** The least value near each pixel, in cells of a few pixels. */
interface Darkest {
  across: number;
  cells: Uint8Array;
}

function darkestNear(data: Uint8Array, width: number, height: number): Darkest {
  const [across, down] = [Math.ceil(width / CELL), Math.ceil(height / CELL)];
  const least = new Uint8Array(across * down).fill(255);
  for (let y = 0, at = 0; y < height; y++) {
    let cell = Math.floor(y / CELL) * across;
    for (let x = 0; x < width; cell++) {
      let value = least[cell];
      for (const end = Math.min(width, x + CELL); x < end; x++, at++) if (data[at] < value) value = data[at];
      least[cell] = value;
    }
  }
  const rows = new Uint8Array(least.length);
  const cells = new Uint8Array(least.length);
  const spread = (from: Uint8Array, to: Uint8Array, step: number, first: (at: number) => number, count: number) => {
    for (let at = 0; at < from.length; at++) {
      const place = first(at);
      let value = from[at];
      for (let by = -Math.min(REACH, place); by <= Math.min(REACH, count - 1 - place); by++)
        if (from[at + by * step] < value) value = from[at + by * step];
      to[at] = value;
    }
  };
  spread(least, rows, 1, (at) => at % across, across);
  spread(rows, cells, across, (at) => Math.floor(at / across), down);
  return { across, cells };
}
