import { bytesIn, withPixels } from '../kernels/pixels';
import { Raster } from '../raster';

/** Opponent colours of a picture: brightness, red against green, yellow against blue; 0 to 255 or around 0. */
export interface Opponent {
  width: number;
  height: number;
  light: Float32Array;
  redGreen: Float32Array;
  yellowBlue: Float32Array;
  /** These three, one behind the other. */
  all: Float32Array;
}

export function opponentColours({ width, height, channels, data }: Raster): Opponent {
  const count = width * height;
  const all = new Float32Array(3 * count);
  const [light, redGreen, yellowBlue] = planesOf(all, count);
  for (let at = 0, from = 0; at < count; at++, from += channels) {
    if (channels === 1) {
      light[at] = data[from];
      continue;
    }
    const red = data[from];
    const green = data[from + 1];
    const blue = data[from + 2];
    light[at] = 0.299 * red + 0.587 * green + 0.114 * blue;
    redGreen[at] = (red - green) / 2;
    yellowBlue[at] = (red + green) / 4 - blue / 2;
  }
  return { width, height, light, redGreen, yellowBlue, all };
}

/** The planes of three that lie one behind the other. */
const planesOf = (all: Float32Array, count: number): Float32Array[] =>
  [0, 1, 2].map((number) => all.subarray(number * count, (number + 1) * count));

/** Thin edges: where the colour changes most, how much, and in which direction (the unit normal). */
export interface Edges {
  width: number;
  height: number;
  /** 0 where there is no edge. */
  strength: Float32Array;
  normalX: Float32Array;
  normalY: Float32Array;
}

/** A pixel counts as an edge when it changes by this many times what pixels usually change by here, and by so much at least. */
const OVER_USUAL = 2.2;
const LEAST_CHANGE = 1.3;
const TILE = 32;

/**
 * Edges of brightness and colour together: at each pixel the change of all channels, in the direction of the channel that
 * changes most (after Di Zenzo 1986), thinned to ridges across that direction (Canny 1986), with a threshold that follows how
 * busy the surroundings are.
 */
export function findEdges(colours: Opponent): Edges {
  const { width, height } = colours;
  const count = width * height;
  const { strength, normalX, normalY } = changes(colours);
  const thin = new Float32Array(count);
  const threshold = usualChange(strength, width, height);
  const tilesAcross = Math.ceil(width / TILE);
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1, at = y * width + 1; x < width - 1; x++, at++) {
      const here = strength[at];
      if (here < threshold[((y / TILE) | 0) * tilesAcross + ((x / TILE) | 0)]) continue;
      // Compared with the two neighbours across the edge, between pixels.
      const stepX = normalX[at] < 0 ? -1 : 1;
      const stepY = normalY[at] < 0 ? -width : width;
      const ax = Math.abs(normalX[at]);
      const ay = Math.abs(normalY[at]);
      const share = ax > ay ? ay / ax : ax / ay;
      const straight = ax > ay ? stepX : stepY;
      const ahead = strength[at + straight] * (1 - share) + strength[at + stepX + stepY] * share;
      const behind = strength[at - straight] * (1 - share) + strength[at - stepX - stepY] * share;
      if (here >= ahead && here > behind) thin[at] = here;
    }
  }
  return { width, height, strength: thin, normalX, normalY };
}

/** How much each pixel changes, and in which direction, across and down: edges before they are thinned. */
export function changes(colours: Opponent): Edges {
  const { width, height, all } = colours;
  const count = width * height;
  const found = withPixels([bytesIn(all), 12 * count], (pixels, [from, out]) =>
    pixels.gradients(from, width, height, out),
  );
  const [strength, normalX, normalY] = found
    ? planesOf(new Float32Array(found.buffer), count)
    : plainGradients(colours);
  return { width, height, strength, normalX, normalY };
}

/** The same without the kernels. */
function plainGradients({ width, height, light, redGreen, yellowBlue }: Opponent): Float32Array[] {
  const count = width * height;
  const [strength, normalX, normalY] = planesOf(new Float32Array(3 * count), count);
  const channels = [light, redGreen, yellowBlue];
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1, at = y * width + 1; x < width - 1; x++, at++) {
      let [gx, gy, most, sum] = [0, 0, 0, 0];
      for (let number = 0; number < 3; number++) {
        // How it rises to the right and downwards, per pixel (Scharr 2000).
        const channel = channels[number];
        const fall = channel[at + width + 1] - channel[at - width - 1];
        const rise = channel[at + width - 1] - channel[at - width + 1];
        const cx = (3 * (fall - rise) + 10 * (channel[at + 1] - channel[at - 1])) / 32;
        const cy = (3 * (fall + rise) + 10 * (channel[at + width] - channel[at - width])) / 32;
        const size = cx * cx + cy * cy;
        sum += size;
        if (size <= most) continue;
        gx = cx;
        gy = cy;
        most = size;
      }
      const length = Math.sqrt(most) + 1e-9;
      strength[at] = Math.sqrt(sum);
      normalX[at] = gx / length;
      normalY[at] = gy / length;
    }
  }
  return [strength, normalX, normalY];
}

const BINS = 96;
const BINS_PER_LEVEL = 6;

/** The threshold for each tile: the median change in and around it, so many times over. */
function usualChange(strength: Float32Array, width: number, height: number): Float32Array {
  const [across, down] = [Math.ceil(width / TILE), Math.ceil(height / TILE)];
  const counts = new Uint16Array(across * down * BINS);
  for (let y = 1; y < height - 1; y += 2) {
    const row = Math.trunc(y / TILE) * across;
    for (let x = 1, at = y * width + 1; x < width - 1; x += 2, at += 2) {
      const bin = Math.min(BINS - 1, (strength[at] * BINS_PER_LEVEL) | 0);
      counts[(row + ((x / TILE) | 0)) * BINS + bin]++;
    }
  }
  const around = new Uint32Array(BINS);
  const thresholds = new Float32Array(across * down);
  for (let tile = 0; tile < thresholds.length; tile++) {
    const [tileX, tileY] = [tile % across, Math.trunc(tile / across)];
    around.fill(0);
    let total = 0;
    for (let y = Math.max(0, tileY - 1); y <= Math.min(down - 1, tileY + 1); y++) {
      for (let x = Math.max(0, tileX - 1); x <= Math.min(across - 1, tileX + 1); x++) {
        const from = (y * across + x) * BINS;
        for (let bin = 0; bin < BINS; bin++) around[bin] += counts[from + bin];
      }
    }
    for (const each of around) total += each;
    let bin = 0;
    for (let below = around[0]; below < total / 2 && bin < BINS - 1; below += around[bin]) bin++;
    thresholds[tile] = Math.max(LEAST_CHANGE, (OVER_USUAL * (bin + 0.5)) / BINS_PER_LEVEL);
  }
  return thresholds;
}
