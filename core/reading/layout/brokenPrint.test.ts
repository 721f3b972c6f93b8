import { Ink } from '../../imaging/ink';
import { Raster } from '../../imaging/raster';
import { joinBrokenPrint } from './brokenPrint';

/** Upright strokes and bars such as letters have, where `shown` says which of their pixels are printed. */
function page(shown: (x: number, y: number) => boolean): { page: Raster; ink: Ink } {
  const [width, height] = [260, 90];
  const data = new Uint8Array(width * height).fill(255);
  for (let letter = 0; letter < 16; letter++)
    for (let y = 20; y < 50; y++)
      for (let x = 0; x < 11; x++) {
        // Three sides of a box, as of an n.
        const isStroke = x < 3 || x > 7 || y < 23;
        if (isStroke && shown(x, y)) data[y * width + 10 + letter * 15 + x] = 0;
      }
  return {
    page: { width, height, channels: 1, data },
    ink: { width, height, data: data.map((value) => (value < 150 ? 1 : 0)) },
  };
}

/** How often paper and ink change from one pixel to the one below it. */
function changes({ width, data }: Ink): number {
  let count = 0;
  for (let at = width; at < data.length; at++) if (data[at] !== data[at - width]) count++;
  return count;
}

it.each([
  ['dashes, every third row', (_x: number, y: number) => y % 3 !== 2, 3],
  ['dashes with gaps as wide as they are', (_x: number, y: number) => y % 4 < 2, 4],
])('letters of %s are joined', (_what, shown, apart) => {
  const made = page(shown);
  const before = changes(made.ink);
  expect(joinBrokenPrint(made.page, made.ink)).toBe(true);
  expect(before).toBeGreaterThan((2 * 16 * 6 * 25) / apart);
  // A stroke begins and ends; its edges may waver.
  expect(changes(made.ink)).toBeLessThan(0.5 * before);
  // Page and ink say the same.
  made.page.data.forEach((value, at) => expect(made.ink.data[at]).toBe(value < 150 ? 1 : 0));
});

it('letters that hang together stay as they are', () => {
  const made = page(() => true);
  const before = [...made.page.data];
  expect(joinBrokenPrint(made.page, made.ink)).toBe(false);
  expect([...made.page.data]).toEqual(before);
});

it('double rules are no dashes', () => {
  const made = page(() => false);
  for (const y of [30, 35])
    for (let x = 5; x < 250; x++) [made.page, made.ink].forEach(({ data }, which) => (data[y * 260 + x] = which));
  expect(joinBrokenPrint(made.page, made.ink)).toBe(false);
});
