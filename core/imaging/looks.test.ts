import { renderLook, tonesOfPrint } from './looks';
import { Raster } from './raster';

const [WIDTH, HEIGHT, PAPER, INK] = [800, 1000, 205, 140];

/** Grey paper with rows of pale strokes, and a dark disc of some size on its left edge. */
function page(radius: number): Raster {
  const data = new Uint8Array(WIDTH * HEIGHT).fill(PAPER);
  for (let y = 60; y < HEIGHT - 60; y += 30)
    for (let x = 300; x < WIDTH - 60; x += 12)
      for (let row = y; row < y + 14; row++) data.fill(INK, row * WIDTH + x, row * WIDTH + x + 4);
  for (let y = -radius; y <= radius; y++)
    data.fill(25, (500 + y) * WIDTH, (500 + y) * WIDTH + Math.round(Math.sqrt(radius ** 2 - y ** 2)));
  return { width: WIDTH, height: HEIGHT, channels: 1, data };
}

const strokeIn = ({ width, data }: Raster) => data[67 * width + 301];

describe('the look of a page', () => {
  it('makes pale print bold, as bold with a thumb on the page as without', () => {
    const [bare, covered] = [0, 200].map((radius) => strokeIn(renderLook(page(radius), 'grey')));
    expect(bare).toBeLessThan(110);
    expect(Math.abs(covered - bare)).toBeLessThan(8);
  });

  it('leaves the paper white beside what lies on it', () => {
    const { data } = renderLook(page(200), 'grey');
    expect(data[500 * WIDTH + 260]).toBeGreaterThan(240);
  });
});

it('tones of print are counted without large dark things, and all of them where there are none', () => {
  const total = (radius: number) => tonesOfPrint(page(radius), 120).reduce((sum, count) => sum + count, 0);
  expect(total(0)).toBe(WIDTH * HEIGHT);
  const dark = tonesOfPrint(page(200), 120)[25];
  // What is left of the thing is its rim.
  expect(dark).toBeLessThan(0.15 * ((Math.PI * 200 ** 2) / 2));
  expect(tonesOfPrint(page(200), 120)[INK]).toBe(tonesOfPrint(page(0), 120)[INK]);
});
