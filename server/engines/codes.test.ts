import { readCodes, squareCode } from './codes';

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
