import { closed } from './greyMorphology';
import { Plane } from './raster';

/** Cells in shadow have less than so much of the light around, and more than so much, of each colour about as much. */
const DARKER = 0.9;
const DEEPEST = 0.15;
const SAME_TINT = 0.09;
/** So many levels a colour may seem brighter than it is, by noise. */
const NOISE = 8;
/** A shadow takes so many cells at least, and so many of them hold bare paper alone. */
const LEAST_CELLS = 12;
const BARE = 0.15;
/** At the edge of a shadow the light falls little by little: within one cell by no more than this share of the whole fall, on at least half of it. */
const STEEPEST = 0.8;
/** How far about a shadow's edge that is looked at, and how far out the light is taken as it was seen, in cells. */
const EDGE = 4;
const AROUND = 2;
/** Dark cells in a shadow that are narrower hold print. */
const PRINT = 2;

/**
 * Shadows of hands, phones and heads on a page: dark places in the light that are of the paper's tint, mostly bare, and soft at their edges, as nothing printed is
 * (the light of a lamp that has some size, seen past an edge: a penumbra).
 * @param seen how bright paper seems to be in each cell, a plane a channel
 * @param filled the same with dark places filled from around
 * @param printed cells with more than bare paper: 1
 * @returns how bright paper is, shadows told from print; `filled` itself where there is none
 */
export function withShadows(seen: Plane[], filled: Plane[], printed: Uint8Array): Plane[] {
  const [{ width, height }] = seen;
  const share = brightness(seen).map((value, at) => value / brightnessAt(filled, at));
  const isDark = (at: number) => share[at] < DARKER && share[at] > DEEPEST && hasPaperTint(seen, filled, at);
  const inShadow = new Uint8Array(width * height);
  let any = false;
  for (const cells of connected(width, height, isDark)) {
    const bare = cells.filter((at) => printed[at] === 0).length;
    if (cells.length < LEAST_CELLS || bare < BARE * cells.length || !isSoft(cells, share, width, height)) continue;
    any = true;
    for (const at of cells) markAround(inShadow, at, width, height);
  }
  if (!any) return filled;
  return seen.map((grid, channel) => {
    const own = closed(grid, PRINT);
    const data = filled[channel].data.map((value, at) => (inShadow[at] ? Math.min(value, own.data[at]) : value));
    return { width, height, data };
  });
}

const brightnessAt = (planes: Plane[], at: number) => planes.reduce((sum, { data }) => sum + data[at], 0);
const brightness = (planes: Plane[]) => planes[0].data.map((_, at) => brightnessAt(planes, at));

function hasPaperTint(seen: Plane[], filled: Plane[], at: number): boolean {
  const shares = seen.map(({ data }, channel) => data[at] / filled[channel].data[at]);
  const [most, least] = [Math.max(...shares), Math.min(...shares)];
  return most - least <= Math.max(SAME_TINT, NOISE / filled[shares.indexOf(most)].data[at]);
}

/** Groups of cells side by side. */
function connected(width: number, height: number, is: (at: number) => boolean): number[][] {
  const known = new Uint8Array(width * height);
  const groups: number[][] = [];
  for (let start = 0; start < known.length; start++) {
    if (known[start] || !is(start)) continue;
    const group = [start];
    known[start] = 1;
    for (const at of group)
      for (const next of besides(at, width, height)) {
        if (known[next] || !is(next)) continue;
        known[next] = 1;
        group.push(next);
      }
    groups.push(group);
  }
  return groups;
}

function besides(at: number, width: number, height: number): number[] {
  const [x, y] = [at % width, Math.floor(at / width)];
  return [
    ...(x > 0 ? [at - 1] : []),
    ...(x < width - 1 ? [at + 1] : []),
    ...(y > 0 ? [at - width] : []),
    ...(y < height - 1 ? [at + width] : []),
  ];
}

/** Whether the light falls little by little at the edges of a dark place, as far as these lie on the page. */
function isSoft(cells: readonly number[], share: Float32Array, width: number, height: number): boolean {
  const inside = new Set(cells);
  let [soft, all] = [0, 0];
  for (const at of cells) {
    const [x, y] = [at % width, Math.floor(at / width)];
    for (const [dx, dy] of [
      [1, 0],
      [-1, 0],
      [0, 1],
      [0, -1],
    ]) {
      const isOn = (far: number) =>
        x + far * dx >= 0 && x + far * dx < width && y + far * dy >= 0 && y + far * dy < height;
      const cellAt = (far: number) => at + far * (dx + dy * width);
      if (!isOn(1) || inside.has(cellAt(1))) continue;
      const along: number[] = [];
      for (let far = -EDGE; far <= EDGE; far++) if (isOn(far)) along.push(share[cellAt(far)]);
      const fall = Math.max(...along) - Math.min(...along);
      const steps = along.slice(1).map((value, step) => value - along[step]);
      all++;
      if (Math.max(...steps) <= STEEPEST * fall) soft++;
    }
  }
  return all > 0 && soft >= all / 2;
}

function markAround(marks: Uint8Array, at: number, width: number, height: number): void {
  const [x, y] = [at % width, Math.floor(at / width)];
  for (let row = Math.max(0, y - AROUND); row <= Math.min(height - 1, y + AROUND); row++)
    marks.fill(1, row * width + Math.max(0, x - AROUND), row * width + Math.min(width, x + AROUND + 1));
}
