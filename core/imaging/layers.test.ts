import { separateLayers } from './layers';
import { Raster } from './raster';

const PAPER = [236, 230, 214];

/** A page on yellowish paper: black bars as letters, red ones below, and a picture that fades from dark to light. */
function madePage(): Raster {
  const [width, height] = [600, 800];
  const data = new Uint8Array(width * height * 3);
  for (let at = 0; at < width * height; at++) data.set(PAPER, 3 * at);
  const paint = (left: number, top: number, w: number, h: number, colour: (x: number) => number[]) => {
    for (let y = top; y < top + h; y++)
      for (let x = left; x < left + w; x++) data.set(colour(x - left), 3 * (y * width + x));
  };
  for (let row = 0; row < 8; row++) {
    for (let letter = 0; letter < 30; letter++) {
      const colour = row < 6 ? [30, 30, 34] : [190, 24, 30];
      paint(40 + 17 * letter, 60 + 40 * row, 6, 24, () => colour);
    }
  }
  paint(100, 460, 300, 200, (x) => [20 + x / 2, 20 + x / 2, 30 + x / 2]);
  return { width, height, channels: 3, data };
}

describe('a page taken apart', () => {
  const page = madePage();
  const layers = separateLayers(page, 4);

  it('has a stencil for each colour of ink, exactly where the ink is', () => {
    expect(layers.stencils.map(({ colour }) => colour.map((value) => Math.round(value / 20)))).toEqual([
      [2, 2, 2],
      [10, 1, 2],
    ]);
    const [black, red] = layers.stencils;
    expect([black.left, black.top]).toEqual([40, 60]);
    expect([red.left, red.top]).toEqual([40, 300]);
    // Of the picture, only what is dark all through may count as ink.
    const ink = ({ mask, top }: typeof black) =>
      mask.data.subarray(0, mask.width * (440 - top)).filter((value) => value === 0).length;
    expect(ink(black)).toBe(6 * 30 * 6 * 24);
    expect(ink(red)).toBe(2 * 30 * 6 * 24);
  });

  it('has paper where the ink was, and the picture as it is', () => {
    const { width, data } = layers.background;
    const at = (x: number, y: number) => [
      ...data.subarray(3 * (Math.floor(y / 4) * width + Math.floor(x / 4))).slice(0, 3),
    ];
    expect(at(43, 70)).toEqual(PAPER);
    expect(at(300, 320)).toEqual(PAPER);
    const shade = at(302, 560)[0];
    expect(shade).toBeGreaterThan(115);
    expect(shade).toBeLessThan(127);
  });
});

it('takes a page without ink apart into a background alone', () => {
  const data = new Uint8Array(200 * 300).fill(240);
  const { stencils, background } = separateLayers({ width: 200, height: 300, channels: 1, data }, 5);
  expect(stencils).toEqual([]);
  expect(background).toMatchObject({ width: 40, height: 60, channels: 1 });
  expect(new Set(background.data)).toEqual(new Set([240]));
});
