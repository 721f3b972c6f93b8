import { Raster } from '../raster';
import { PenLine } from './penLines';
import { NoSignature, signatureFrom, TracedSignature } from './signatureFrom';

/** A name as it is written in one go, with a dot and a stroke under it; places from 0 to 1 across and 0 to 0.4 down, and how wide. */
const WRITTEN: PenLine[] = [
  Array.from({ length: 260 }, (_, at): PenLine[number] => {
    const t = at / 259;
    const loop = 9 * 2 * Math.PI * t;
    return [
      0.06 + 0.8 * t + 0.035 * Math.sin(loop),
      0.18 + (0.11 - 0.05 * t) * Math.cos(loop),
      0.006 + 0.005 * Math.abs(Math.sin(loop / 2)),
    ];
  }),
  [[0.52, 0.02, 0.016]],
  Array.from({ length: 40 }, (_, at): PenLine[number] => [
    0.1 + (0.75 * at) / 39,
    0.35 - 0.03 * Math.sin(at / 9),
    0.007,
  ]),
];

/** Whether ink of some lines lies at a place. */
function inkAt(lines: readonly PenLine[], x: number, y: number): boolean {
  return lines.some((line) =>
    line.some(([x1, y1, w1], at) => {
      const [x2, y2, w2] = line[Math.min(at + 1, line.length - 1)];
      const reach = Math.max(w1, w2);
      if (x < Math.min(x1, x2) - reach || x > Math.max(x1, x2) + reach) return false;
      if (y < Math.min(y1, y2) - reach || y > Math.max(y1, y2) + reach) return false;
      const length = (x2 - x1) ** 2 + (y2 - y1) ** 2;
      const t = length === 0 ? 0 : Math.max(0, Math.min(1, ((x - x1) * (x2 - x1) + (y - y1) * (y2 - y1)) / length));
      return Math.hypot(x - x1 - t * (x2 - x1), y - y1 - t * (y2 - y1)) <= (w1 + t * (w2 - w1)) / 2;
    }),
  );
}

type Painted = (x: number, y: number, inked: boolean) => [number, number, number, number];

/** A picture of the name, `across` pixels wide of a picture of a width, its corner somewhere. */
function picture(size: [number, number], at: [number, number, number], paint: Painted): Raster {
  const [width, height] = size;
  const [left, top, across] = at;
  const data = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [u, v] = [(x - left) / across, (y - top) / across];
      const inked = u > 0 && u < 1 && v > -0.02 && v < 0.4 && inkAt(WRITTEN, u, v);
      data.set(paint(x, y, inked), 4 * (y * width + x));
    }
  return { width, height, channels: 4, data };
}

/** How much the ink, made as wide as the other, of a traced signature and of what was written have in common, as a share of both together. */
function alike(found: TracedSignature | NoSignature): number {
  if (typeof found === 'string') throw new Error(found);
  const box = WRITTEN.flat().reduce(
    ([left, top, right, bottom], [x, y, wide]) => [
      Math.min(left, x - wide / 2),
      Math.min(top, y - wide / 2),
      Math.max(right, x + wide / 2),
      Math.max(bottom, y + wide / 2),
    ],
    [1, 1, 0, 0],
  );
  const high = box[3] - box[1];
  let [both, either] = [0, 0];
  for (let v = 0.005; v < 1; v += 0.02)
    for (let u = 0.005; u < found.shape; u += 0.02) {
      const was = inkAt(WRITTEN, box[0] + (u / found.shape) * (box[2] - box[0]), box[1] + v * high);
      const is = inkAt(found.lines, u, v);
      both += was && is ? 1 : 0;
      either += was || is ? 1 : 0;
    }
  return both / either;
}

const BLUE = [30, 40, 110];
let last = 7;
const grain = () => {
  last = (1103515245 * last + 12345) % 2147483648;
  return last / 2147483648 - 0.5;
};

test('a scan of a signature on white paper becomes its lines', () => {
  const scan = picture([900, 500], [100, 100, 600], (_, __, inked) => [
    ...((inked ? BLUE : [250, 250, 248]) as [number, number, number]),
    255,
  ]);
  const found = signatureFrom(scan) as TracedSignature;
  expect(alike(found)).toBeGreaterThan(0.8);
  expect(found.shape).toBeCloseTo(2.4, 0);
});

test('a photo in uneven light, grainy, faint ink', () => {
  const photo = picture([1400, 1000], [300, 320, 700], (x, y, inked) => {
    const light = 0.45 + 0.4 * (x / 1400) + 0.1 * (y / 1000);
    const tone = (inked ? 0.5 : 0.97) * light * 255 + 14 * grain();
    return [tone, tone, tone * 0.94, 255];
  });
  expect(alike(signatureFrom(photo) as TracedSignature)).toBeGreaterThan(0.8);
});

test('a slip of paper on a dark table: the table is no ink', () => {
  const photo = picture([1400, 1000], [380, 400, 600], (x, y, inked) => {
    const onPaper = x > 220 && x < 1180 && y > 180 && y < 850;
    const tone = (onPaper ? (inked ? 60 : 225) : 58) + 8 * grain();
    return [tone, tone * (onPaper ? 1 : 0.8), tone * (onPaper ? 0.97 : 0.6), 255];
  });
  expect(alike(signatureFrom(photo) as TracedSignature)).toBeGreaterThan(0.8);
});

test('ruled paper: its lines are no ink, and what crosses them stays', () => {
  const photo = picture([1300, 800], [300, 230, 700], (_, y, inked) => {
    const ruled = (y + 20) % 70 < 3;
    const tone = (inked ? 45 : ruled ? 150 : 238) + 8 * grain();
    return [tone, tone, inked ? tone + 40 : tone, 255];
  });
  expect(alike(signatureFrom(photo) as TracedSignature)).toBeGreaterThan(0.75);
});

test('a picture that is transparent already keeps what is opaque', () => {
  const clear = picture([700, 320], [30, 20, 620], (_, __, inked) => (inked ? [0, 0, 0, 255] : [0, 0, 0, 0]));
  expect(alike(signatureFrom(clear) as TracedSignature)).toBeGreaterThan(0.8);
});

test('nothing written, or a whole page, is no signature', () => {
  const paper = picture([600, 400], [0, 0, 1], () => [240, 240, 238, 255]);
  expect(signatureFrom(paper)).toBe('empty');
  const page = picture([900, 1200], [0, 0, 1], (x, y) => {
    const letter = x > 80 && x < 820 && y > 80 && y < 1120 && y % 26 < 12 && x % 14 < 8 && (x * 7 + y) % 5 > 0;
    return letter ? [20, 20, 20, 255] : [245, 245, 245, 255];
  });
  expect(signatureFrom(page)).toBe('too-much');
});
