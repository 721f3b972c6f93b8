import { distance, Point, Quad } from '../quad';
import { bytesOf, Raster } from '../raster';
import { crossing, Line } from './lines';

const SAMPLES = 72;
/** The ends of a side are left out: corners are round, dog-eared or covered. */
const LEFT_OUT = 0.04;
/** How much more a step into lighter paper counts than one into darker. */
const INTO_LIGHT = 1.35;

/**
 * Moves the sides of a quad onto the edges nearest to them in a larger picture, to fractions of a pixel: at many places along
 * a side the steepest change across it is found, and a line is fitted that what lies off it pulls ever less (iteratively
 * reweighted least squares, Huber 1964).
 * @param reach how far to look to either side, in pixels
 * @returns the corners, and for each side the share of places where a step was found on the line
 */
export function refineQuad(picture: Raster, quad: Quad, reach: number): { corners: Quad; held: number[] } {
  const { lines, held } = refineSides(picture, quad, reach);
  const corners = quad.map((corner, index) => {
    const point = crossing(lines[(index + 3) % 4], lines[index]);
    return point && distance(point, corner) < 6 * reach ? point : corner;
  }) as Quad;
  return { corners, held };
}

/** The same for some sides only, as lines. */
export function refineSides(
  picture: Raster,
  quad: Quad,
  reach: number,
  sides = [0, 1, 2, 3],
): { lines: Line[]; held: number[] } {
  const found = sides.map((side) => refineSide(picture, quad[side], quad[(side + 1) % 4], reach));
  return { lines: found.map(({ line }) => line), held: found.map(({ share }) => share) };
}

function refineSide(picture: Raster, from: Point, to: Point, reach: number): { line: Line; share: number } {
  const { width, height, channels } = picture;
  const data = bytesOf(picture);
  const length = distance(from, to);
  const [ax, ay] = [(to[0] - from[0]) / length, (to[1] - from[1]) / length];
  // Clockwise corners: the inside lies to the right as one walks, which is this normal.
  const [nx, ny] = [-ay, ax];
  const steps = 2 * reach + 1;
  const profile = new Float32Array(3 * (steps + 2));
  // One before the first and one behind the last, where nothing changes.
  const strengths = new Float64Array(steps + 2);
  const isInside = (px: number, py: number) => px >= 0 && py >= 0 && px < width - 1 && py < height - 1;
  const found: { t: number; off: number; weight: number }[] = [];
  for (let sample = 0; sample < SAMPLES; sample++) {
    const t = length * (LEFT_OUT + ((1 - 2 * LEFT_OUT) * (sample + 0.5)) / SAMPLES);
    const [x, y] = [from[0] + t * ax, from[1] + t * ay];
    // The profile lies in the picture when both its ends do.
    const out = reach + 1;
    if (!isInside(x - out * nx, y - out * ny) || !isInside(x + out * nx, y + out * ny)) continue;
    for (let step = 0; step < steps + 2; step++) {
      const px = x + (step - out) * nx;
      const py = y + (step - out) * ny;
      const left = px | 0;
      const top = py | 0;
      const fx = px - left;
      const fy = py - top;
      const at = (top * width + left) * channels;
      const below = at + width * channels;
      const lowerRight = fx * fy;
      const upperRight = fx - lowerRight;
      const lowerLeft = fy - lowerRight;
      const upperLeft = 1 - fx - lowerLeft;
      for (let channel = 0; channel < 3; channel++) {
        const by = channels === 1 ? 0 : channel;
        profile[3 * step + channel] =
          upperLeft * data[at + by] +
          upperRight * data[at + channels + by] +
          lowerLeft * data[below + by] +
          lowerRight * data[below + channels + by];
      }
    }
    let [best, bestStep] = [0, -1];
    for (let step = 1; step <= steps; step++) {
      const red = profile[3 * step + 3] - profile[3 * step - 3];
      const green = profile[3 * step + 4] - profile[3 * step - 2];
      const blue = profile[3 * step + 5] - profile[3 * step - 1];
      const away = (step - 1 - reach) / reach;
      const strength =
        Math.sqrt(red * red + green * green + blue * blue) *
        (red + green + blue > 0 ? INTO_LIGHT : 1) *
        (1 - 0.45 * away * away);
      strengths[step] = strength;
      if (strength > best) [best, bestStep] = [strength, step - 1];
    }
    if (best < 3) continue;
    const [before, after] = [strengths[bestStep], strengths[bestStep + 2]];
    const curve = before - 2 * best + after;
    const fraction = curve < 0 ? Math.max(-0.5, Math.min(0.5, (0.5 * (before - after)) / curve)) : 0;
    found.push({ t, off: bestStep + fraction - reach, weight: Math.min(1, best / 30) });
  }
  const fit = robustLine(found, reach);
  const near = found.filter(({ t, off }) => Math.abs(off - fit.offset - fit.slope * t) < 1.5).length;
  const start: Point = [from[0] + fit.offset * nx, from[1] + fit.offset * ny];
  const end: Point = [to[0] + (fit.offset + fit.slope * length) * nx, to[1] + (fit.offset + fit.slope * length) * ny];
  return { line: through(start, end), share: near / SAMPLES };
}

/** off = offset + slope × t through points of which many may be wrong. */
function robustLine(
  points: { t: number; off: number; weight: number }[],
  reach: number,
): { offset: number; slope: number } {
  if (points.length < SAMPLES / 6) return { offset: 0, slope: 0 };
  let fit = consensus(points);
  for (const scale of [2, 1.2, 0.8]) {
    let [sw, st, so, stt, sto] = [0, 0, 0, 0, 0];
    for (const { t, off, weight } of points) {
      const error = Math.abs(off - fit.offset - fit.slope * t);
      if (error > 5 * scale) continue;
      const w = weight * (error < scale ? 1 : scale / error);
      sw += w;
      st += w * t;
      so += w * off;
      stt += w * t * t;
      sto += w * t * off;
    }
    const determinant = sw * stt - st * st;
    if (sw < 2 || Math.abs(determinant) < 1e-6) break;
    const slope = (sw * sto - st * so) / determinant;
    fit = { slope, offset: (so - slope * st) / sw };
  }
  const ends = [fit.offset, fit.offset + fit.slope * points[points.length - 1].t];
  return ends.every((off) => Math.abs(off) <= 1.6 * reach) ? fit : { offset: 0, slope: 0 };
}

/** The line through two of the points that most others lie near (Fischler & Bolles 1981, every pair of a grid tried). */
function consensus(points: { t: number; off: number; weight: number }[]): { offset: number; slope: number } {
  let best = { offset: 0, slope: 0 };
  let most = -1;
  const step = Math.max(1, Math.floor(points.length / 14));
  for (let i = 0; i < points.length; i += step) {
    for (let j = i + step * 3; j < points.length; j += step) {
      const [a, b] = [points[i], points[j]];
      const slope = (b.off - a.off) / (b.t - a.t);
      if (Math.abs(slope) > 0.06) continue;
      const offset = a.off - slope * a.t;
      let sum = 0;
      for (const { t, off, weight } of points) if (Math.abs(off - offset - slope * t) < 1.2) sum += weight;
      if (sum > most) [most, best] = [sum, { offset, slope }];
    }
  }
  return best;
}

function through([ax, ay]: Point, [bx, by]: Point): Line {
  const angle = Math.atan2(bx - ax, ay - by);
  return { angle, offset: ax * Math.cos(angle) + ay * Math.sin(angle) };
}
