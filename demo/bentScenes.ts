import { BentSheet } from './bent';
import { PrintedPage } from './book';
import { seededRandom } from './random';
import { TABLES } from './table';
import { Thing, View } from './view';

type Place = [number, number, number];

/** How far a curve that begins at the origin has come after a length, given its slope (radians) at every length. */
function curve(slope: (s: number) => number, length: number, steps = 400): (s: number) => [x: number, z: number] {
  const xs = new Float64Array(steps + 2);
  const zs = new Float64Array(steps + 2);
  const step = length / steps;
  for (let at = 0; at <= steps; at++) {
    const angle = slope((at + 0.5) * step);
    xs[at + 1] = xs[at] + step * Math.cos(angle);
    zs[at + 1] = zs[at] + step * Math.sin(angle);
  }
  return (s) => {
    const place = Math.max(0, Math.min(steps, s / step));
    const low = Math.floor(place);
    const part = place - low;
    return [xs[low] + part * (xs[low + 1] - xs[low]), zs[low] + part * (zs[low + 1] - zs[low])];
  };
}

/** An open book seen from above, by number: another thickness, light, slant, and perhaps fingers that hold it. */
export function makeSpread(seed: number, [left, right]: [PrintedPage, PrintedPage], longSide: number): View {
  const random = seededRandom(seed * 6007 + 11);
  const between = (low: number, high: number) => low + (high - low) * random();
  const pages = [left, right].map((paper, index): BentSheet => {
    const side = index === 0 ? -1 : 1;
    const [steep, short, fall] = [between(0.35, 1.15), between(7, 26), between(0.02, 0.16)];
    const deep = between(0, 3);
    const profile = curve((s) => steep * Math.exp(-s / short) - (fall * s) / paper.width, paper.width);
    const uneven = between(-2.5, 2.5);
    return {
      ...paper,
      gloss: random() < 0.2 ? between(0.1, 0.35) : 0,
      surface: (u, v): Place => {
        const s = index === 0 ? paper.width - u : u;
        const [x, z] = profile(s);
        return [
          side * x,
          v - paper.height / 2,
          deep + z + uneven * (v / paper.height - 0.5) * (s / paper.width) ** 0.7,
        ];
      },
    };
  });
  const open = left.width + right.width;
  const angled = seed % 2 === 1;
  const things: Thing[] = [];
  if (random() < 0.5) {
    // Thumbs that hold the pages open, at the outer edges below or at the sides.
    for (const side of [-1, 1]) {
      const y = between(0.1, 0.42) * left.height;
      things.push({
        from: [side * (open / 2 + 40), y + between(5, 30)],
        to: [side * (open / 2 - between(12, 20)), y],
        radius: between(8, 10),
        colour: [206, 160, 134],
      });
    }
  }
  return {
    width: longSide,
    height: Math.round(longSide * 0.75),
    seed: seed + 1,
    table: TABLES[(seed * 5) % TABLES.length],
    sheets: [],
    bent: pages,
    things,
    camera: {
      shows: Math.max(open, left.height * 1.33) * between(1.08, 1.3),
      lean: angled ? between(0.12, 0.38) : between(0, 0.05),
      leanTo: between(-Math.PI, Math.PI),
      roll: between(-0.08, 0.08),
      focal: between(0.72, 1.05),
    },
    light: {
      level: between(0.72, 1.02),
      falloff: between(0.05, 0.4),
      from: between(0, 6.28),
      warmth: between(-0.3, 0.8),
    },
    shadows: [],
    blur: random() < 0.5 ? 0 : between(0.3, 1.2),
    noise: between(1.5, 7),
  };
}

export type Bend = 'curled' | 'rolled' | 'folded' | 'crumpled' | 'letter';
export const BENDS: Bend[] = ['curled', 'rolled', 'folded', 'crumpled'];

/** A single sheet that is not flat, by number. */
export function makeBent(seed: number, bend: Bend, paper: PrintedPage, longSide: number): View {
  const random = seededRandom(seed * 4409 + 7);
  const between = (low: number, high: number) => low + (high - low) * random();
  const { width, height } = paper;
  const long = Math.max(width, height);
  const portrait = height >= width;
  const sheet: BentSheet = { ...paper, surface: surfaceOf() };
  return {
    width: portrait ? Math.round(longSide * 0.75) : longSide,
    height: portrait ? longSide : Math.round(longSide * 0.75),
    seed: seed + 1,
    table: TABLES[(seed * 3) % TABLES.length],
    sheets: [],
    bent: [sheet],
    things: [],
    camera: {
      shows: Math.max(height, width * 1.35) * between(1.12, 1.4),
      lean: between(0, 0.35),
      leanTo: between(-Math.PI, Math.PI),
      roll: between(-0.08, 0.08),
      focal: between(0.72, 1.05),
    },
    light: {
      level: between(0.75, 1.02),
      falloff: between(0.05, 0.45),
      from: between(0, 6.28),
      warmth: between(-0.3, 0.9),
    },
    shadows: [],
    blur: random() < 0.5 ? 0 : between(0.3, 1.3),
    noise: between(1.5, 8),
  };

  function surfaceOf(): BentSheet['surface'] {
    if (bend === 'crumpled') {
      const creases = Array.from({ length: 9 }, () => ({
        at: [between(0, width), between(0, height)],
        angle: between(0, Math.PI),
        tall: between(-1, 1) * long * 0.011,
        wide: between(0.08, 0.2) * long,
      }));
      return (u, v) => {
        let z = 4;
        for (const { at, angle, tall, wide } of creases) {
          const across = (u - at[0]) * Math.cos(angle) + (v - at[1]) * Math.sin(angle);
          z += tall * Math.max(0, 1 - Math.abs(across) / wide);
        }
        return [u - width / 2, v - height / 2, Math.max(0, z)];
      };
    }
    if (bend === 'letter') {
      // Folded twice across, as for an envelope, and opened again.
      const steep = [between(-0.3, 0.3), between(-0.3, 0.3), between(-0.3, 0.3)];
      const folds = [between(0.31, 0.35) * height, between(0.64, 0.68) * height];
      const profile = curve((s) => steep[folds.filter((fold) => s > fold).length], height);
      const [middle] = profile(height / 2);
      const lowest = Math.min(...[0, ...folds, height].map((s) => profile(s)[1]));
      return (u, v) => {
        const [y, z] = profile(v);
        return [u - width / 2, y - middle, z - lowest];
      };
    }
    // Bent along straight lines: across them it is a curve, along them it is straight.
    const axis = bend === 'rolled' ? (height > 1.8 * width ? Math.PI / 2 : 0) : between(-0.6, 0.6);
    const span = Math.abs(width * Math.cos(axis)) + Math.abs(height * Math.sin(axis));
    const [from, to] = [-span / 2, span / 2];
    const turn = bend === 'rolled' ? between(0.8, 1.5) : between(0.35, 1.0);
    const fold = between(-0.2, 0.2) * span;
    const soft = 0.02 * span;
    const bulging = random() < 0.5 ? 1 : -1;
    const slope = (s: number) => {
      const place = from + s;
      if (bend === 'folded') return (0.4 * bulging * turn * (fold - place)) / Math.hypot(place - fold, soft);
      return bulging * turn * (-place / span);
    };
    const profile = curve(slope, to - from);
    const [middle] = profile(span / 2);
    let lowest = Infinity;
    for (let s = 0; s <= span; s += span / 50) lowest = Math.min(lowest, profile(s)[1]);
    const [cos, sin] = [Math.cos(axis), Math.sin(axis)];
    return (u, v) => {
      const [du, dv] = [u - width / 2, v - height / 2];
      const [s, t] = [du * cos + dv * sin, -du * sin + dv * cos];
      const [x, z] = profile(s - from);
      return [(x - middle) * cos - t * sin, (x - middle) * sin + t * cos, z - lowest];
    };
  }
}
