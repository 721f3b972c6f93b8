import { withoutGrain } from './grain';
import { renderLook, suitableLook } from './looks';
import { Raster } from './raster';

const [WIDTH, HEIGHT] = [600, 800];
const isPrint = (x: number, y: number) => x > 80 && x < 520 && y > 80 && y < 400 && y % 24 < 10 && x % 12 < 4;

/** Nearly normal numbers of deviation 1, always the same ones. */
function noise(): () => number {
  let seed = 11;
  const even = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647 - 0.5;
  return () => 2 * (even() + even() + even());
}

/** @param light how much there is of it at a place, from 0 to 1; @param grain standard deviation, in grey levels */
function page(light: (x: number, y: number) => number, grain: number, channels: 1 | 3 = 1, ink = 0.25): Raster {
  const random = noise();
  const data = new Uint8ClampedArray(WIDTH * HEIGHT * channels);
  for (let at = 0; at < data.length; at++) {
    const [x, y] = [Math.floor(at / channels) % WIDTH, Math.floor(at / channels / WIDTH)];
    data[at] = 230 * light(x, y) * (isPrint(x, y) ? ink : 1) + grain * random();
  }
  return { width: WIDTH, height: HEIGHT, channels, data };
}

/** The shares of bare paper that do not come out nearly white, and of the middles of strokes that do not come out dark. */
function faults({ data, channels }: Raster): { specks: number; holes: number } {
  const counts = { bare: 0, specks: 0, ink: 0, holes: 0 };
  for (let y = 20; y < HEIGHT - 20; y++) {
    for (let x = 20; x < WIDTH - 20; x++) {
      const value = data[(y * WIDTH + x) * channels];
      if (isPrint(x - 1, y) && isPrint(x + 1, y)) {
        counts.ink++;
        if (value > 150) counts.holes++;
      } else if (![-6, 0, 6].some((dy) => [-6, 0, 6].some((dx) => isPrint(x + dx, y + dy)))) {
        counts.bare++;
        if (value < 215) counts.specks++;
      }
    }
  }
  return { specks: counts.specks / counts.bare, holes: counts.holes / counts.ink };
}

/** A soft shadow over the lower part. */
const shaded = (x: number, y: number) => 0.4 - 0.22 * Math.max(0, Math.min(1, (y - 420 - x / 4) / 150));

it('goes from the paper, in the light and in the shadow, and print stays', () => {
  const grainy = page(shaded, 6);
  expect(faults(renderLook(grainy, 'grey')).specks).toBeGreaterThan(0.05);
  const { specks, holes } = faults(renderLook(withoutGrain(grainy), 'grey'));
  expect(specks).toBeLessThan(0.004);
  expect(holes).toBeLessThan(0.01);
});

it('leaves print that is pale, but stands out from it', () => {
  const { holes } = faults(renderLook(withoutGrain(page(() => 0.5, 5, 1, 0.6)), 'grey'));
  expect(holes).toBeLessThan(0.05);
});

it('goes alike where a picture says how opaque it is, as in a browser', () => {
  const grainy = page(shaded, 6, 3);
  const opaque: Raster = { ...grainy, channels: 4, data: new Uint8Array((grainy.data.length / 3) * 4).fill(255) };
  grainy.data.forEach((value, at) => (opaque.data[Math.floor(at / 3) * 4 + (at % 3)] = value));
  const [plain, made] = [withoutGrain(grainy), withoutGrain(opaque)];
  expect(plain === grainy || made === opaque).toBe(false);
  expect(Buffer.compare(Buffer.from(made.data.filter((_, at) => at % 4 !== 3)), Buffer.from(plain.data))).toBe(0);
});

it('is no colour', () => {
  const grainy = page(shaded, 9, 3);
  expect(suitableLook(grainy)).toBe('grey');
});

it.each<[string, () => Raster]>([
  ['usual noise', () => page(() => 0.9, 3)],
  ['no noise', () => page(() => 0.3, 0)],
  [
    'nothing but print, as of a newspaper',
    () => {
      const random = noise();
      const data = Uint8ClampedArray.from({ length: WIDTH * HEIGHT }, (_, at) => {
        const [x, y] = [at % WIDTH, Math.floor(at / WIDTH)];
        return ((x * 7 + y * 3) % 11 < 5 && y % 13 < 8 ? 70 : 200) + 4 * random();
      });
      return { width: WIDTH, height: HEIGHT, channels: 1, data };
    },
  ],
])('leaves a page with %s as it is', (_, make) => {
  const picture = make();
  // Not compared by `toBe`, which would write out all of it.
  expect(withoutGrain(picture) === picture).toBe(true);
});
