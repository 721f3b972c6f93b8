import { Point, Quad, overlap, scaleQuad } from '../quad';
import { Raster } from '../raster';
import { findOutlines } from './findOutlines';

/** A table of one colour with sheets on it, each with rows of print; drawn with soft edges. */
function photo(width: number, height: number, table: [number, number, number], sheets: Quad[], paper = 236): Raster {
  const data = new Uint8Array(width * height * 3);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      let colour = table.map((value) => value + 6 * Math.sin(x * 1.7 + y * 0.9));
      for (const sheet of sheets) {
        const share = insideness(sheet, [x, y]);
        if (share <= 0) continue;
        const print = share > 24 && y % 22 < 5 && (x * 7 + (y - (y % 22)) * 13) % 11 < 6;
        const on = Math.min(1, share);
        colour = colour.map((value) => value * (1 - on) + (print ? 60 : paper) * on);
      }
      colour.forEach((value, channel) => (data[(y * width + x) * 3 + channel] = value));
    }
  }
  return { width, height, channels: 3, data };
}

/** How far inside the nearest side a point lies, in pixels. */
function insideness(quad: Quad, [x, y]: Point): number {
  return Math.min(
    ...quad.map(([ax, ay], index) => {
      const [bx, by] = quad[(index + 1) % 4];
      return ((bx - ax) * (y - ay) - (by - ay) * (x - ax)) / Math.hypot(bx - ax, by - ay);
    }),
  );
}

const SHEET: Quad = [
  [150, 90],
  [520, 120],
  [560, 640],
  [100, 610],
];

describe('finding the sheet in a photo', () => {
  it.each([
    ['a dark table', [50, 44, 40]],
    ['a coloured cloth', [120, 60, 60]],
    ['a table hardly darker than the paper', [214, 212, 206]],
  ] as [string, [number, number, number]][])('places its sides to a fraction of a percent on %s', (_, table) => {
    const [best] = findOutlines(photo(680, 760, table, [SHEET]));
    expect(overlap(best.corners, SHEET)).toBeGreaterThan(0.99);
    expect(best.confidence).toBeGreaterThan(0.8);
  });

  it('finds a sheet in the dark, on a table nearly as bright, whose edges are weaker than the noise', () => {
    const picture = photo(680, 760, [204, 202, 196], [SHEET]);
    let seed = 5;
    const even = () => (seed = (seed * 48_271) % 2_147_483_647) / 2_147_483_647 - 0.5;
    const dim = Uint8ClampedArray.from(picture.data, (value) => 0.2 * value + 6 * (even() + even() + even()));
    const [best] = findOutlines({ ...picture, data: dim });
    expect(overlap(best.corners, SHEET)).toBeGreaterThan(0.98);
  });

  it('gives its corners clockwise from the upper left', () => {
    const [{ corners }] = findOutlines(photo(680, 760, [60, 60, 60], [SHEET]));
    corners.forEach((corner, index) =>
      expect(Math.hypot(corner[0] - SHEET[index][0], corner[1] - SHEET[index][1])).toBeLessThan(5),
    );
  });

  it('finds a corner outside the picture from the sides that are in it', () => {
    const quad = SHEET.map(([x, y]): Point => [x - 130, y - 20]) as Quad;
    const [best] = findOutlines(photo(560, 700, [70, 64, 60], [quad]));
    expect(best.corners[3][0]).toBeLessThan(-10);
    expect(overlap(best.corners, quad)).toBeGreaterThan(0.98);
  });

  it('takes no rule across a sheet for its end, though something lies on a corner beyond it', () => {
    const sheet: Quad = [
      [120, 60],
      [560, 60],
      [560, 900],
      [120, 900],
    ];
    const picture = photo(680, 960, [96, 66, 50], [sheet]);
    const paint = (x: number, y: number, colour: number[]) =>
      colour.forEach((value, channel) => (picture.data[(y * 680 + x) * 3 + channel] = value));
    for (let y = 300; y < 304; y++) for (let x = 122; x < 558; x++) paint(x, y, [40, 40, 44]);
    for (let y = -120; y <= 120; y++)
      for (let x = -120; x <= 120; x++)
        if (x * x + y * y < 14400 && 560 + x < 680 && 110 + y > 0) paint(560 + x, 110 + y, [150, 40, 40]);
    const [best, ...others] = findOutlines(picture);
    expect(overlap(best.corners, sheet)).toBeGreaterThan(0.95);
    expect(others).toEqual([]);
  });

  it('finds several receipts side by side, each once', () => {
    const receipts = [0, 1, 2].map((place) =>
      scaleQuad(
        [
          [40, 60],
          [150, 70],
          [145, 420],
          [36, 410],
        ],
        1,
      ).map(([x, y]): Point => [x + 190 * place, y]),
    ) as Quad[];
    const found = findOutlines(photo(620, 480, [64, 84, 70], receipts));
    expect(found).toHaveLength(3);
    for (const receipt of receipts)
      expect(Math.max(...found.map(({ corners }) => overlap(corners, receipt)))).toBeGreaterThan(0.97);
  });

  it('is not taken in by a printed rule inside the sheet', () => {
    const picture = photo(680, 760, [52, 48, 46], [SHEET]);
    for (let y = 330; y < 333; y++)
      for (let x = 140; x < 520; x++)
        for (let channel = 0; channel < 3; channel++) picture.data[(y * 680 + x) * 3 + channel] = 30;
    const [best] = findOutlines(picture);
    expect(overlap(best.corners, SHEET)).toBeGreaterThan(0.985);
  });

  it('finds nothing sure where there is no sheet', () => {
    const [best] = findOutlines(photo(400, 300, [120, 100, 80], []));
    expect(best?.confidence ?? 0).toBeLessThan(0.5);
  });
});
