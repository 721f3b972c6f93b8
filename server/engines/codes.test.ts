import bwip from 'bwip-js/node';
import sharp from 'sharp';
import { readCodes } from './codes';
import { squareCode } from './squareCode';

/** A white page with a square code on it, each of its squares so many pixels wide. */
function pageWithCode(text: string, square: number) {
  const rows = squareCode(text);
  const [width, height] = [900, 1200];
  const data = new Uint8Array(width * height).fill(255);
  rows.forEach((row, y) =>
    row.forEach((dark, x) => {
      if (!dark) return;
      for (let down = 0; down < square; down++) {
        const from = (200 + y * square + down) * width + 100 + x * square;
        data.fill(20, from, from + square);
      }
    }),
  );
  return { page: { width, height, channels: 1 as const, data }, wide: rows.length * square };
}

it('reads a payment code on a page, and says where it stands', async () => {
  const text = 'BCD\n002\n1\nSCT\n\nWeberei Seeblick AG\nDE75512108001245126199\nEUR141.13\n\n\nRechnung 4417';
  const { page, wide } = pageWithCode(text, 5);
  const [code, ...others] = await readCodes(page);
  expect(code.text).toBe(text);
  expect(others).toEqual([]);
  const [x, y, width, height] = code.box;
  expect(Math.abs(x - 100) + Math.abs(y - 200)).toBeLessThan(25);
  expect(Math.abs(width - wide) + Math.abs(height - wide)).toBeLessThan(50);
});

it('finds none on a page without', async () => {
  expect(await readCodes({ width: 400, height: 500, channels: 1, data: new Uint8Array(200_000).fill(255) })).toEqual(
    [],
  );
});

it.each([
  ['code128', 'QP00412299GB', 'QP00412299GB'],
  ['ean13', '400638133393', '4006381333931'],
  ['datamatrix', 'WL-2026-118', 'WL-2026-118'],
])('reads bars and squares of other kinds: %s', async (bcid, text, said) => {
  const code = await bwip.toBuffer({ bcid, text, scale: 4, ...(bcid !== 'datamatrix' && { height: 12 }) });
  const { data, info } = await sharp({ create: { width: 900, height: 1200, channels: 3, background: '#fff' } })
    .composite([{ input: code, left: 120, top: 300 }])
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const found = await readCodes({ width: info.width, height: info.height, channels: 1, data: new Uint8Array(data) });
  expect(found.map((each) => each.text)).toEqual([said]);
});
