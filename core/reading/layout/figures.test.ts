import { Box } from '../../geometry';
import { Raster } from '../../imaging/raster';
import { findFigures } from './figures';

const [WIDTH, HEIGHT] = [566, 800];

/** White paper with something dark on it. */
function paper(...dark: ((x: number, y: number) => boolean)[]): Raster {
  const data = new Uint8Array(WIDTH * HEIGHT).fill(245);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) if (dark.some((is) => is(x, y))) data[y * WIDTH + x] = 60;
  return { width: WIDTH, height: HEIGHT, channels: 1, data };
}

const disc = (cx: number, cy: number, r: number) => (x: number, y: number) => (x - cx) ** 2 + (y - cy) ** 2 < r * r;
/** Letters of a word: upright strokes. */
const strokes =
  ([left, top, width, height]: Box) =>
  (x: number, y: number) =>
    x >= left && x < left + width && y >= top && y < top + height && (x - left) % 5 < 2;
const frame =
  ([left, top, width, height]: Box) =>
  (x: number, y: number) =>
    x >= left &&
    x <= left + width &&
    y >= top &&
    y <= top + height &&
    (x < left + 2 || x > left + width - 2 || y < top + 2 || y > top + height - 2);
const words: Box[] = [
  [100, 300, 80, 10],
  [190, 300, 60, 10],
  [100, 330, 50, 10],
];
const read = words.map((box) => ({ box, confidence: 0.95 }));

it('finds what is drawn, and not what is written', () => {
  const page = paper(disc(80, 90, 25), ...words.map(strokes));
  const found = findFigures(page, read);
  expect(found).toHaveLength(1);
  const [[x, y, width, height]] = found;
  expect(x).toBeCloseTo(55, -1);
  expect(y).toBeCloseTo(65, -1);
  expect(width).toBeCloseTo(50, -1);
  expect(height).toBeCloseTo(50, -1);
});

it('takes the parts of a drawing together, from the top of the page to its foot', () => {
  const page = paper(disc(400, 600, 20), disc(80, 90, 14), disc(112, 90, 14), ...words.map(strokes));
  const found = findFigures(page, read);
  expect(found.map(([, , width]) => Math.round(width / 10))).toEqual([6, 4]);
});

it('takes neither frames nor rules nor specks for drawings', () => {
  const page = paper(
    frame([80, 280, 300, 100]),
    (x, y) => x > 60 && x < 500 && y > 500 && y < 503,
    disc(300, 700, 4),
    ...words.map(strokes),
  );
  expect(findFigures(page, read)).toEqual([]);
});

it('takes a drawing that was read as doubtful letters for what it is', () => {
  const page = paper(disc(80, 90, 25), ...words.map(strokes));
  expect(findFigures(page, [...read, { box: [55, 65, 50, 50], confidence: 0.3 }])).toHaveLength(1);
  expect(findFigures(page, [...read, { box: [55, 65, 50, 50], confidence: 0.95 }])).toEqual([]);
});
