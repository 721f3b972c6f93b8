import { Raster } from '../raster';

/** Opponent colours of a picture: brightness, red against green, yellow against blue; 0 to 255 or around 0. */
export interface Opponent {
  width: number;
  height: number;
  light: Float32Array;
  redGreen: Float32Array;
  yellowBlue: Float32Array;
}

export function opponentColours({ width, height, channels, data }: Raster): Opponent {
  const count = width * height;
  const [light, redGreen, yellowBlue] = [new Float32Array(count), new Float32Array(count), new Float32Array(count)];
  for (let at = 0, from = 0; at < count; at++, from += channels) {
    if (channels === 1) {
      light[at] = data[from];
      continue;
    }
    const [red, green, blue] = [data[from], data[from + 1], data[from + 2]];
    light[at] = 0.299 * red + 0.587 * green + 0.114 * blue;
    redGreen[at] = (red - green) / 2;
    yellowBlue[at] = (red + green) / 4 - blue / 2;
  }
  return { width, height, light, redGreen, yellowBlue };
}

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
const LEAST_CHANGE = 2.2;
const TILE = 32;

/**
 * Edges of brightness and colour together (the structure tensor of all channels, Di Zenzo 1986), thinned to ridges across
 * their direction (Canny 1986), with a threshold that follows how busy the surroundings are.
 */
export function findEdges({ width, height, light, redGreen, yellowBlue }: Opponent): Edges {
  const count = width * height;
  const strength = new Float32Array(count);
  const [normalX, normalY] = [new Float32Array(count), new Float32Array(count)];
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const at = y * width + x;
      let [xx, xy, yy] = [0, 0, 0];
      let [mostX, mostY, most] = [0, 0, -1];
      for (let channel = 0; channel < 3; channel++) {
        const from = channel === 0 ? light : channel === 1 ? redGreen : yellowBlue;
        const up = at - width;
        const down = at + width;
        const gx =
          (3 * (from[up + 1] - from[up - 1] + from[down + 1] - from[down - 1]) + 10 * (from[at + 1] - from[at - 1])) /
          32;
        const gy =
          (3 * (from[down - 1] - from[up - 1] + from[down + 1] - from[up + 1]) + 10 * (from[down] - from[up])) / 32;
        xx += gx * gx;
        xy += gx * gy;
        yy += gy * gy;
        const size = gx * gx + gy * gy;
        if (size > most) [mostX, mostY, most] = [gx, gy, size];
      }
      const root = Math.sqrt((xx - yy) * (xx - yy) + 4 * xy * xy);
      const magnitude = Math.sqrt((xx + yy + root) / 2);
      const angle = 0.5 * Math.atan2(2 * xy, xx - yy);
      let [nx, ny] = [Math.cos(angle), Math.sin(angle)];
      if (nx * mostX + ny * mostY < 0) [nx, ny] = [-nx, -ny];
      strength[at] = magnitude;
      normalX[at] = nx;
      normalY[at] = ny;
    }
  }
  const threshold = usualChange(strength, width, height);
  const thin = new Float32Array(count);
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const at = y * width + x;
      const here = strength[at];
      const tile = Math.floor(y / TILE) * Math.ceil(width / TILE) + Math.floor(x / TILE);
      if (here < threshold[tile]) continue;
      // Compared with the two neighbours across the edge, between pixels.
      const [nx, ny] = [normalX[at], normalY[at]];
      const [stepX, stepY] = [nx < 0 ? -1 : 1, (ny < 0 ? -1 : 1) * width];
      const [ax, ay] = [Math.abs(nx), Math.abs(ny)];
      const share = ax > ay ? ay / ax : ax / ay;
      const straight = ax > ay ? stepX : stepY;
      const ahead = strength[at + straight] * (1 - share) + strength[at + stepX + stepY] * share;
      const behind = strength[at - straight] * (1 - share) + strength[at - stepX - stepY] * share;
      if (here >= ahead && here > behind) thin[at] = here;
    }
  }
  return { width, height, strength: thin, normalX, normalY };
}

/** The threshold for each tile: the median change in and around it, so many times over. */
function usualChange(strength: Float32Array, width: number, height: number): Float32Array {
  const [across, down] = [Math.ceil(width / TILE), Math.ceil(height / TILE)];
  const medians = new Float32Array(across * down);
  const values: number[] = [];
  for (let ty = 0; ty < down; ty++) {
    for (let tx = 0; tx < across; tx++) {
      values.length = 0;
      for (let y = Math.max(1, (ty - 1) * TILE); y < Math.min(height - 1, (ty + 2) * TILE); y += 3)
        for (let x = Math.max(1, (tx - 1) * TILE); x < Math.min(width - 1, (tx + 2) * TILE); x += 3)
          values.push(strength[y * width + x]);
      values.sort((a, b) => a - b);
      medians[ty * across + tx] = Math.max(LEAST_CHANGE, OVER_USUAL * (values[values.length >> 1] ?? 0));
    }
  }
  return medians;
}
