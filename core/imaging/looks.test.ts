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

describe('a shadow on the page', () => {
  /** The page in the shadow of a stick that lies across it, so many pixels wide and soft at its edges. */
  const shadowed = (wide: number, soft: number, depth = 0.6) => {
    const { data, ...picture } = page(0);
    const light = (x: number, y: number) => {
      const off = Math.abs(x + 0.4 * y - 700) - wide / 2;
      return 1 - depth / (1 + Math.exp((4 * off) / soft));
    };
    return { ...picture, data: data.map((value, at) => value * light(at % WIDTH, Math.floor(at / WIDTH))) };
  };
  const bright = ({ data }: Raster) => data.filter((value) => value > 235).length / data.length;

  it.each([
    ['narrow', 60, 24],
    ['wide', 260, 24],
    ['wide, with sharp edges', 260, 9],
  ])('that is %s is taken out, and the print in it stays', (_, wide, soft) => {
    const [plain, made] = [renderLook(page(0), 'grey'), renderLook(shadowed(wide, soft), 'grey')];
    expect(bright(made)).toBeGreaterThan(bright(plain) - 0.01);
    const print = ({ data }: Raster) => data.filter((value) => value < 128).length;
    expect(Math.abs(print(made) / print(plain) - 1)).toBeLessThan(0.1);
  });

  it('is no panel that is printed in grey', () => {
    const picture = page(0);
    for (let y = 200; y < 260; y++) picture.data.fill(110, y * WIDTH + 40, y * WIDTH + 260);
    const { data } = renderLook(picture, 'grey');
    expect(data[230 * WIDTH + 150]).toBeLessThan(140);
  });
});

it('black and white keeps a faint stroke that hangs on bold print, however it winds, and drops one by itself', () => {
  const [width, height] = [400, 400];
  const data = new Uint8Array(width * height).fill(230);
  const stroke = (left: number, top: number, w: number, h: number, value: number) => {
    for (let y = top; y < top + h; y++) data.fill(value, y * width + left, y * width + left + w);
  };
  // Bold print, so that it is known how dark ink is here, and on one of its letters a stroke that goes to and fro, upwards.
  for (const y of [350, 376]) for (let x = 22; x < 380; x += 24) stroke(x, y, 3, 20, 20);
  const faint = 160;
  stroke(22, 60, 2, 290, faint);
  for (let row = 0; row < 6; row++) {
    stroke(22, 60 + 8 * row, 200, 2, faint);
    if (row > 0) stroke(row % 2 === 1 ? 220 : 22, 52 + 8 * row, 2, 8, faint);
  }
  stroke(300, 60, 2, 200, faint);
  const { data: made } = renderLook({ width, height, channels: 1, data }, 'bilevel');
  expect(made[60 * width + 150]).toBe(0);
  expect(made[101 * width + 100]).toBe(0);
  expect(made[150 * width + 300]).toBe(255);
});
