import { Quad } from '../quad';
import { Raster } from '../raster';

/** How much the tint of two pieces of paper may differ. */
export const SAME_TINT = 0.045;

/** How far the tints of two colours are apart, however bright they are. @param some red, green and blue */
export function tintApart(some: readonly number[], others: readonly number[]): number {
  const [light, otherLight] = [some, others].map((colour) => colour[0] + colour[1] + colour[2] + 1);
  return Math.hypot(...some.map((value, channel) => value / light - others[channel] / otherLight));
}

/** The colour that most of a quad has. */
export function paperColour(picture: Raster, quad: Quad): number[] {
  const { colours, seen } = coloursIn(picture, quad, 24);
  return medianColour(colours, seen);
}

/** The colours at the points of a grid over a quad, three numbers each, and how many lie in the picture. */
export function coloursIn(
  { width, height, channels, data }: Raster,
  quad: Quad,
  across: number,
): { colours: Uint8Array; seen: number } {
  const colours = new Uint8Array(3 * across * across);
  let seen = 0;
  const [[ax, ay], [bx, by], [cx, cy], [dx, dy]] = quad;
  for (let i = 1; i < across; i++) {
    for (let j = 1; j < across; j++) {
      const u = i / across;
      const v = j / across;
      const x = Math.round((1 - v) * ((1 - u) * ax + u * bx) + v * ((1 - u) * dx + u * cx));
      const y = Math.round((1 - v) * ((1 - u) * ay + u * by) + v * ((1 - u) * dy + u * cy));
      if (x < 0 || y < 0 || x >= width || y >= height) continue;
      const at = (y * width + x) * channels;
      colours[3 * seen] = data[at];
      colours[3 * seen + 1] = data[channels === 1 ? at : at + 1];
      colours[3 * seen + 2] = data[channels === 1 ? at : at + 2];
      seen++;
    }
  }
  return { colours, seen };
}

function medianColour(colours: Uint8Array, seen: number): number[] {
  const counts = new Uint16Array(256);
  return [0, 1, 2].map((channel) => {
    if (seen === 0) return 0;
    counts.fill(0);
    for (let each = 0; each < seen; each++) counts[colours[3 * each + channel]]++;
    let [value, below] = [0, counts[0]];
    while (below <= seen >> 1) below += counts[++value];
    return value;
  });
}

/** How far the tint of paper varies within a sheet. */
const PAPER_TINT = 0.06;
/** How bright paper in the shadow is, beside the rest. */
const DARKEST_PAPER = 0.4;

/** The share of a quad that has the colour which most of it has. */
export function plainness(picture: Raster, quad: Quad): number {
  const { colours, seen } = coloursIn(picture, quad, 14);
  if (seen === 0) return 1;
  const paper = medianColour(colours, seen);
  const light = paper[0] + paper[1] + paper[2] + 1;
  const [ownRed, ownGreen, ownBlue] = [paper[0] / light, paper[1] / light, paper[2] / light];
  let alike = 0;
  for (let at = 0; at < 3 * seen; at += 3) {
    const own = colours[at] + colours[at + 1] + colours[at + 2] + 1;
    if (own < light * DARKEST_PAPER || own > light / DARKEST_PAPER) continue;
    const red = ownRed - colours[at] / own;
    const green = ownGreen - colours[at + 1] / own;
    const blue = ownBlue - colours[at + 2] / own;
    if (red * red + green * green + blue * blue < PAPER_TINT * PAPER_TINT) alike++;
  }
  return alike / seen;
}
