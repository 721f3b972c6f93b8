import { withPixels } from './kernels/pixels';
import { bytesOf, Raster } from './raster';

/** Side of the window in which a pixel is compared, as a share of the page's longer side. */
const WINDOW = 1 / 56;
/** Sauvola's k, and the greatest deviation that brightness can have (Sauvola & Pietikäinen 2000). */
const K = 0.24;
const RANGE = 128;
/** Between paper (1) and ink (0): what is darker than the first is ink, than the second only where it touches ink. */
const CERTAIN = 0.55;
const POSSIBLE = 0.8;

/**
 * Black and white from an evenly lit grey page: a local threshold (Sauvola & Pietikäinen 2000), of which only what is
 * connected with certain ink stays (hysteresis, Canny 1986): thin strokes keep their faint ends, show-through goes.
 * @param ink how dark the page's ink usually is, as a share of the paper's brightness
 */
export function binarise(grey: Raster, ink: number): Raster {
  const { width, height } = grey;
  const radius = Math.max(7, Math.round((Math.max(width, height) * WINDOW) / 2));
  const level = Math.min(0.75, ink);
  const certain = Math.floor(255 * (level + (1 - level) * CERTAIN));
  const possible = Math.floor(255 * (level + (1 - level) * POSSIBLE));
  // In the middle of a black area all is dark, and no darker than around.
  const least = 255 * level * 0.9;
  const bounds: Bounds = { radius, possible, certain, least };
  if (radius > MOST_RADIUS) return { width, height, channels: 1, data: plainBinarise(grey, bounds) };
  const blocks = [bytesOf(grey), new Uint8Array(8 * width), width * height];
  const data = withPixels(blocks, (pixels, [source, columns, out]) =>
    pixels.binarise(source, width, height, radius, possible, certain, least, K, RANGE, columns, out),
  );
  return { width, height, channels: 1, data: data ?? plainBinarise(grey, bounds) };
}

/** The kernels' sums of squares over a larger window would not fit in 32 bits. */
const MOST_RADIUS = 128;

/** How far around a pixel is looked, and what is brighter than ink can be, no brighter than certain ink, and the least threshold. */
interface Bounds {
  radius: number;
  possible: number;
  certain: number;
  least: number;
}

/** The same without the kernels. */
function plainBinarise(grey: Raster, { radius, possible, certain, least }: Bounds): Uint8Array {
  const { width, height } = grey;
  const data = bytesOf(grey);
  const state = new Uint8Array(width * height);
  const columns = new Float64Array(width);
  const squares = new Float64Array(width);
  const addRow = (y: number, sign: 1 | -1) => {
    for (let x = 0, at = y * width; x < width; x++, at++) {
      columns[x] += sign * data[at];
      squares[x] += sign * data[at] * data[at];
    }
  };
  for (let y = 0; y < Math.min(radius, height); y++) addRow(y, 1);
  for (let y = 0; y < height; y++) {
    if (y + radius < height) addRow(y + radius, 1);
    if (y - radius - 1 >= 0) addRow(y - radius - 1, -1);
    const rows = Math.min(height - 1, y + radius) - Math.max(0, y - radius) + 1;
    let [sum, squared] = [0, 0];
    for (let x = 0; x < Math.min(radius, width); x++) {
      sum += columns[x];
      squared += squares[x];
    }
    for (let x = 0, at = y * width; x < width; x++, at++) {
      if (x + radius < width) {
        sum += columns[x + radius];
        squared += squares[x + radius];
      }
      if (x - radius - 1 >= 0) {
        sum -= columns[x - radius - 1];
        squared -= squares[x - radius - 1];
      }
      const count = rows * (Math.min(width - 1, x + radius) - Math.max(0, x - radius) + 1);
      const mean = sum / count;
      const value = data[at];
      if (value > possible) continue;
      const deviation = Math.sqrt(Math.max(0, squared / count - mean * mean));
      const threshold = Math.max(mean * (1 + K * (deviation / RANGE - 1)), least);
      if (value <= threshold) state[at] = value <= certain ? 2 : 1;
    }
  }
  return connected(state, width, height);
}

/** 0 (black) for certain ink and whatever touches it, 255 for the rest. */
function connected(state: Uint8Array, width: number, height: number): Uint8Array {
  const out = new Uint8Array(state.length).fill(255);
  const stack: number[] = [];
  for (let start = 0; start < state.length; start++) {
    if (state[start] !== 2 || out[start] === 0) continue;
    out[start] = 0;
    stack.push(start);
    while (stack.length > 0) {
      const at = stack.pop()!;
      const x = at % width;
      for (let dy = -1; dy <= 1; dy++) {
        for (let dx = -1; dx <= 1; dx++) {
          const near = at + dy * width + dx;
          if (x + dx < 0 || x + dx >= width || near < 0 || near >= width * height) continue;
          if (state[near] === 0 || out[near] === 0) continue;
          out[near] = 0;
          stack.push(near);
        }
      }
    }
  }
  return out;
}
