import { blurred, noiseOf, withoutNoise } from './noise';
import { renderLook } from './looks';
import { Raster } from './raster';

const [WIDTH, HEIGHT] = [480, 640];
const isPrint = (x: number, y: number) => x > 60 && x < 420 && y > 60 && y < 580 && y % 24 < 10 && x % 12 < 4;

/** Print on paper of some brightness, with noise. */
function page(paper: number, strength: number, noiseAt: (x: number) => number = () => 1): Raster {
  let seed = 4;
  // Three even random numbers make nearly a normal one.
  const even = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647 - 0.5;
  const noise = (deviation: number) => 2 * deviation * (even() + even() + even());
  const data = new Uint8ClampedArray(WIDTH * HEIGHT);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++)
      data[y * WIDTH + x] = (isPrint(x, y) ? 0.25 : 1) * paper + noiseAt(x) * noise(strength);
  return { width: WIDTH, height: HEIGHT, channels: 1, data };
}

/** The share of the bare paper that does not come out nearly white. */
function specks(rendered: Raster): number {
  let [dark, bare] = [0, 0];
  for (let y = 10; y < HEIGHT - 10; y++) {
    for (let x = 10; x < WIDTH - 10; x++) {
      if ([-3, 0, 3].some((dy) => [-3, 0, 3].some((dx) => isPrint(x + dx, y + dy)))) continue;
      bare++;
      if (rendered.data[y * WIDTH + x] < 215) dark++;
    }
  }
  return dark / bare;
}

it('grows with the noise, and print counts as none', () => {
  const strengths = [0, 4, 8, 16].map((strength) => noiseOf(page(100, strength)));
  expect(strengths[0]).toBeLessThan(0.005);
  expect(strengths).toEqual(strengths.toSorted((a, b) => a - b));
});

it('counts where there is much of it, as in a shadow', () =>
  expect(noiseOf(page(100, 16, (x) => (x < 200 ? 1 : 0)))).toBeGreaterThan(0.5 * noiseOf(page(100, 16))));

it('leaves a page without much of it as it is', () => {
  const usual = page(220, 5);
  expect(withoutNoise(usual)).toBe(usual);
});

it('makes a page from a dark room white, its print dark', () => {
  const dim = page(24, 7);
  expect(specks(renderLook(dim, 'grey'))).toBeGreaterThan(0.15);
  const clear = renderLook(withoutNoise(dim), 'grey');
  expect(specks(clear)).toBeLessThan(0.06);
  expect(clear.data[(24 * 8 + 5) * WIDTH + 122]).toBeLessThan(130);
});

it('smooths without making it lighter or darker', () => {
  const even: Raster = { width: 20, height: 20, channels: 3, data: new Uint8Array(1200).fill(93) };
  expect([...blurred(even, 1.7).data]).toEqual([...even.data]);
});
