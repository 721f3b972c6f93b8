import { likeness, lookOf } from './likeness';
import { Raster } from './raster';

/** A page with a few strokes whose places depend on a seed. */
function page(seed: number, { width = 400, height = 560, shift = 0, noise = 0, brightness = 1 } = {}): Raster {
  const data = new Uint8Array(width * height);
  let state = 99;
  const random = () => (state = (state * 48271) % 2147483647) / 2147483647;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [u, v] = [(x - shift) / width, (y - shift) / height];
      const isText =
        Math.abs(Math.sin(u * 4 * seed) * 0.4 + 0.45 - v) < 0.03 || Math.hypot(u - 0.2 * seed, v - 0.7) < 0.1;
      data[y * width + x] = Math.max(0, Math.min(255, (isText ? 40 : 240) * brightness + (random() - 0.5) * noise));
    }
  }
  return { width, height, channels: 1, data };
}

it('is nothing to compare by on blank paper with noise', () => {
  const blank: Raster = { width: 300, height: 400, channels: 1, data: new Uint8Array(120_000).fill(240) };
  for (let at = 0; at < 120_000; at += 3) blank.data[at] = 238;
  expect(likeness(lookOf(blank), lookOf(page(2)))).toBe(0);
});

it('stays the same when a page is scanned again: larger, darker, noisier, a little askew', () => {
  const again = page(2, { width: 700, height: 980, noise: 30, brightness: 0.93, shift: 6 });
  expect(likeness(lookOf(page(2)), lookOf(again))).toBeGreaterThan(0.9);
});

it('differs between papers that say something else', () => {
  expect(likeness(lookOf(page(2)), lookOf(page(3)))).toBeLessThan(0.8);
});
