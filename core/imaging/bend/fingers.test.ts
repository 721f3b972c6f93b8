import { Raster } from '../raster';
import { findFingers } from './fingers';

const [WIDTH, HEIGHT] = [600, 860];
type Spot = (x: number, y: number) => [number, number, number] | undefined;

/** A page with rows of print, and something on it. */
function page(on: Spot = () => undefined, light: (x: number) => number = () => 1): Raster {
  const data = new Uint8Array(WIDTH * HEIGHT * 3);
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const print = x > 80 && x < 520 && y > 80 && y < 780 && y % 26 < 10 && x % 9 < 5 && (x / 9) % 6 > 1;
      const colour = on(x, y) ?? (print ? [50, 50, 52] : [236, 230, 220]);
      colour.forEach((value, channel) => (data[(y * WIDTH + x) * 3 + channel] = value * light(x)));
    }
  }
  return { width: WIDTH, height: HEIGHT, channels: 3, data };
}

/** A thumb from the left, with its end at so many pixels. */
const thumb =
  (end: number, y = 600): Spot =>
  (px, py) =>
    Math.hypot(Math.max(0, px - end + 24), py - y) < 24 ? [206, 160, 134] : undefined;

it('finds a thumb in the margin, all of it, and no print under it', () => {
  const { marks, overPrint } = findFingers(page(thumb(60)));
  expect(marks).toHaveLength(1);
  const [{ points, radius }] = marks;
  for (const [x, y] of [
    [2, 580],
    [2, 620],
    [50, 600],
  ])
    expect(Math.min(...points.map((at) => Math.hypot(at[0] * WIDTH - x, at[1] * HEIGHT - y)))).toBeLessThan(
      radius * WIDTH,
    );
  expect(overPrint).toBe(false);
});

it('says that a thumb lies over print', () => expect(findFingers(page(thumb(150))).overPrint).toBe(true));

it.each([
  ['nothing', page()],
  ['print in uneven light', page(undefined, (x) => 1 - 0.35 * (x / WIDTH))],
  [
    'a picture in the middle of the page',
    page((x, y) => (x > 150 && x < 450 && y > 200 && y < 420 ? [90, 120, 160] : undefined)),
  ],
  ['a picture as wide as the page', page((_, y) => (y > 500 && y < 700 ? [150, 120, 90] : undefined))],
])('takes %s for no finger', (_, flat) => expect(findFingers(flat).marks).toEqual([]));
