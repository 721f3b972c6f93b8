import { darkenFaintPrint } from './faintPrint';

const [WIDTH, HEIGHT] = [300, 160];

/** White paper with lines of upright strokes, each three pixels wide, as dark as is said, and a point behind each that is lighter. */
function page(lines: { top: number; stroke: number; point: number; soft?: boolean }[]): Uint8Array {
  const data = new Uint8Array(WIDTH * HEIGHT).fill(255);
  for (const { top, stroke, point, soft = false } of lines) {
    for (let left = 20; left < 270; left += 14) {
      for (let y = top; y < top + 16; y++) {
        for (let x = 0; x < 3; x++) data[y * WIDTH + left + x] = stroke;
        // Edges of what shines through fall off over several pixels.
        for (let away = 1; soft && away < 5; away++)
          for (const x of [-away, 2 + away])
            data[y * WIDTH + left + x] = Math.min(255, stroke + (away * (255 - stroke)) / 5);
      }
      data[(top + 15) * WIDTH + left + 8] = point;
    }
  }
  return data;
}

const BLACK = { top: 20, stroke: 8, point: 90 };

it.each([
  ['much lighter than the rest', 165, 205],
  ['grey, its points hardly darker than paper', 100, 175],
])('print that is %s becomes dark, with its points; what is black stays as it is', (_, stroke, point) => {
  const data = page([BLACK, { top: 60, stroke: 8, point: 90 }, { top: 100, stroke, point }]);
  const before = data.slice();
  darkenFaintPrint(WIDTH, HEIGHT, data);
  expect(data.slice(0, 90 * WIDTH)).toEqual(before.slice(0, 90 * WIDTH));
  expect(data[110 * WIDTH + 21]).toBeLessThan(60);
  expect(data[115 * WIDTH + 28]).toBeLessThan(150);
});

it.each([
  ['shines through from the other side', { stroke: 170, point: 255, soft: true }],
  ['is as dark as print that was scanned softly', { stroke: 50, point: 120 }],
])('what %s stays as it is', (_, line) => {
  const data = page([BLACK, { top: 60, stroke: 8, point: 90 }, { top: 100, ...line }]);
  const before = data.slice();
  darkenFaintPrint(WIDTH, HEIGHT, data);
  expect(data).toEqual(before);
});
