import { Ink } from '../ink';

/** A line of a pen: places, each with how wide the ink is there; in pixels. */
export type PenLine = [x: number, y: number, width: number][];

/** What lies nearer than this to a straight line, in pixels, or is so little wider, tells nothing. */
const STRAIGHT = 0.35;
const AS_WIDE = 0.9;

/**
 * Ink as lines of a pen: its middle lines (thinned as by Zhang & Suen 1984), each place as wide as the largest disc of ink around it, so
 * that discs drawn along the lines fill the ink again (medial axis, Blum 1967).
 */
export function penLines(ink: Ink): PenLine[] {
  const far = distances(ink);
  const middle = thinned(ink);
  return walks(middle).map((walk) => {
    const wide = walk.map((at) => Math.max(1, 2 * far[at] - 0.5));
    return straightened(
      walk.map((at, index): PenLine[number] => [
        (at % ink.width) + 0.5,
        Math.floor(at / ink.width) + 0.5,
        meanOf(wide.slice(Math.max(0, index - EVENED), index + EVENED + 1)),
      ]),
    );
  });
}

/** Widths are evened over so many pixels before and behind: pixels make them jump. */
const EVENED = 3;
const meanOf = (values: number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/** How far each pixel of ink is from the nearest paper, in pixels (chamfer distances 3 and 4, Borgefors 1986); beyond the edge is paper. */
function distances({ width, height, data }: Ink): Float32Array {
  const far = new Float32Array(width * height);
  const at = (x: number, y: number) => (x < 0 || y < 0 || x >= width || y >= height ? 0 : far[y * width + x]);
  const pass = (x: number, y: number, way: 1 | -1) => {
    const here = y * width + x;
    if (data[here] === 0) return;
    const near = Math.min(
      at(x - way, y) + 1,
      at(x, y - way) + 1,
      at(x - way, y - way) + 4 / 3,
      at(x + way, y - way) + 4 / 3,
    );
    far[here] = way === 1 ? near : Math.min(far[here], near);
  };
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) pass(x, y, 1);
  for (let y = height - 1; y >= 0; y--) for (let x = width - 1; x >= 0; x--) pass(x, y, -1);
  return far;
}

/** The eight neighbours, clockwise from above. */
const AROUND = [
  [0, -1],
  [1, -1],
  [1, 0],
  [1, 1],
  [0, 1],
  [-1, 1],
  [-1, 0],
  [-1, -1],
] as const;

/** Ink thinned to lines a pixel wide (Zhang & Suen 1984). */
function thinned(ink: Ink): Ink {
  // A margin of paper spares asking for the edge.
  const [width, height] = [ink.width + 2, ink.height + 2];
  const data = new Uint8Array(width * height);
  for (let y = 0; y < ink.height; y++)
    for (let x = 0; x < ink.width; x++) data[(y + 1) * width + x + 1] = ink.data[y * ink.width + x] ? 1 : 0;
  const steps = AROUND.map(([x, y]) => y * width + x);
  let places = Array.from(data.keys()).filter((at) => data[at] === 1);
  for (let changed = true; changed;) {
    changed = false;
    for (const round of [0, 1]) {
      const gone = places.filter((at) => mayGo(data, at, steps, round));
      for (const at of gone) data[at] = 0;
      if (gone.length > 0) {
        changed = true;
        places = places.filter((at) => data[at] === 1);
      }
    }
  }
  const out = new Uint8Array(ink.width * ink.height);
  for (const at of places) out[(Math.floor(at / width) - 1) * ink.width + (at % width) - 1] = 1;
  return { width: ink.width, height: ink.height, data: out };
}

function mayGo(data: Uint8Array, at: number, steps: readonly number[], round: number): boolean {
  const near = steps.map((step) => data[at + step]);
  const count = near.reduce((sum, value) => sum + value, 0);
  if (count < 2 || count > 6) return false;
  const rises = near.filter((value, index) => value === 0 && near[(index + 1) % 8] === 1).length;
  if (rises !== 1) return false;
  const [above, , right, , below, , left] = near;
  return round === 0
    ? above * right * below === 0 && right * below * left === 0
    : above * right * left === 0 && above * below * left === 0;
}

/** The ways along thin lines, each as the pixels that it leads over; every pixel is on one at least. */
function walks({ width, height, data }: Ink): number[][] {
  const neighbours = (at: number): number[] => {
    const [x, y] = [at % width, Math.floor(at / width)];
    return AROUND.flatMap(([dx, dy]) => {
      const [nx, ny] = [x + dx, y + dy];
      return nx >= 0 && ny >= 0 && nx < width && ny < height && data[ny * width + nx] ? [ny * width + nx] : [];
    });
  };
  const seen = new Uint8Array(width * height);
  const found: number[][] = [];
  const places = Array.from(data.keys()).filter((at) => data[at] === 1);
  // From ends first, then from wherever something is left, such as rings.
  const ends = places.filter((at) => neighbours(at).length === 1);
  for (const start of [...ends, ...places]) {
    if (seen[start]) continue;
    // A branch begins where it leaves the line that was walked before.
    const from = neighbours(start).find((at) => seen[at] === 1);
    const walk = from === undefined ? [start] : [from, start];
    seen[start] = 1;
    for (let at = start; ;) {
      const ahead = neighbours(at).filter((next) => !seen[next]);
      if (ahead.length === 0) {
        // It ends on a line that was walked before, or where it began.
        const end = walk.length > 2 ? neighbours(at).find((next) => !walk.slice(-3).includes(next)) : undefined;
        if (end !== undefined) walk.push(end);
        break;
      }
      const before = walk.length > 1 ? walk[walk.length - 2] : undefined;
      at = ahead.reduce((best, next) => (bend(before, at, next, width) < bend(before, at, best, width) ? next : best));
      seen[at] = 1;
      walk.push(at);
    }
    found.push(walk);
  }
  return found;
}

/** How much a way turns at a pixel: 0 when it goes straight on; beside each other is nearer than across a corner. */
function bend(before: number | undefined, at: number, next: number, width: number): number {
  const step = (from: number, to: number) => [
    (to % width) - (from % width),
    Math.floor(to / width) - Math.floor(from / width),
  ];
  const [x, y] = step(at, next);
  if (before === undefined) return Math.abs(x) + Math.abs(y);
  const [wasX, wasY] = step(before, at);
  return (x - wasX) ** 2 + (y - wasY) ** 2 + 0.1 * (Math.abs(x) + Math.abs(y));
}

/** A line without the places that lie on the straight way between others (Douglas & Peucker 1973), its widths counted in. */
function straightened(line: PenLine): PenLine {
  if (line.length < 3) return line;
  const [first, last] = [line[0], line[line.length - 1]];
  const length = Math.hypot(last[0] - first[0], last[1] - first[1]);
  let [worst, at] = [0, 0];
  for (let index = 1; index < line.length - 1; index++) {
    const [x, y, wide] = line[index];
    const along =
      length === 0
        ? 0
        : Math.min(
            1,
            Math.max(
              0,
              ((x - first[0]) * (last[0] - first[0]) + (y - first[1]) * (last[1] - first[1])) / (length * length),
            ),
          );
    const between = (side: 0 | 1 | 2) => first[side] + along * (last[side] - first[side]);
    const off = Math.max(Math.hypot(x - between(0), y - between(1)) / STRAIGHT, Math.abs(wide - between(2)) / AS_WIDE);
    if (off > worst) [worst, at] = [off, index];
  }
  if (worst <= 1) return [first, last];
  return [...straightened(line.slice(0, at + 1)), ...straightened(line.slice(at)).slice(1)];
}
