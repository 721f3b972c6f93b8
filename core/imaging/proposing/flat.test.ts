import { Raster } from '../raster';
import { looksFlat } from './flat';
import { proposeRecipes } from './proposals';

/** A slip with words in rows that fall by a share of their length, on paper as light as is said of each place. */
function slip(fall: number, paper: (x: number, y: number) => number): Raster {
  const [width, height] = [460, 900];
  const data = Uint8Array.from({ length: width * height }, (_, at) => {
    const [x, y] = [at % width, Math.floor(at / width)];
    const across = y - fall * x;
    const isPrint =
      x > 40 && x < 420 && across > 60 && across < 840 && across % 24 < 11 && x % 60 < 48 && (x + (x >> 3)) % 7 < 3;
    return isPrint ? 50 : paper(x, y);
  });
  return { width, height, channels: 1, data };
}

const even = () => 244;

it('a picture that is paper up to its edges, evenly lit, is a scan, whatever it says of itself', () => {
  expect(looksFlat(slip(0, even))).toBe(true);
});

it.each([
  ['on a dark table', (x: number, y: number) => (x < 20 || y < 20 || x > 440 || y > 880 ? 60 : 244)],
  ['on a table of wood', (x: number, y: number) => (x < 20 || y < 20 ? 150 + ((x * 7 + y) % 60) : 244)],
  ['in light that falls off', (x: number) => 250 - x / 4],
  ['in little light', () => 150],
])('paper %s was photographed', (_, paper) => {
  expect(looksFlat(slip(0, paper))).toBe(false);
});

it('such a picture is one page, made level, of which it is sure', () => {
  const [page, ...others] = proposeRecipes(slip(0.02, even));
  expect(others).toEqual([]);
  expect(page).toMatchObject({ confidence: 1, recipe: { corners: null } });
  expect(page.recipe.angle).toBeCloseTo(-1.15, 0);
});
