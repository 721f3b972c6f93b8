import { distance, Point, Quad } from '../quad';
import { Raster } from '../raster';
import { opponentColours } from './edges';
import { boundaryOf, largestQuad } from './boundary';
import { SheetRegions } from './sheetRegion';

const [WIDTH, HEIGHT] = [300, 400];
const [TABLE, PAPER, JOINT] = [70, 215, 200];
const MARKS = [0, 1, 2, 3, 4].map((row) => ({ left: 110, top: 90 + row * 14, right: 170, bottom: 95 + row * 14 }));

/** A table with light joints, each a pixel wide, and a sheet on it where something says so, darker towards the right as paper that curls is. */
function scene(isSheet: (x: number, y: number) => boolean): Raster {
  const data = new Uint8Array(WIDTH * HEIGHT);
  for (let y = 0; y < HEIGHT; y++)
    for (let x = 0; x < WIDTH; x++) {
      const table = x % 60 === 30 || y % 60 === 30 ? JOINT : TABLE;
      data[y * WIDTH + x] = isSheet(x, y) ? PAPER - 60 * (x / WIDTH) ** 2 : table;
    }
  for (const { left, top, right, bottom } of MARKS)
    for (let y = top; y < bottom; y++) for (let x = left; x < right; x++) if (x % 3 > 0) data[y * WIDTH + x] = 40;
  return { width: WIDTH, height: HEIGHT, channels: 1, data };
}

const cornersOf = (picture: Raster) =>
  new SheetRegions(opponentColours(picture)).around(MARKS).map((region) => largestQuad(boundaryOf(region))!);
const furthest = (some: Quad, others: Quad) => Math.max(...some.map((corner, at) => distance(corner, others[at])));

describe('the region of a sheet', () => {
  it('ends at its bowed sides, and its corners are theirs', () => {
    const bow = (x: number) => 24 * (1 - ((x - 150) / 80) ** 2);
    const picture = scene((x, y) => x >= 70 && x < 230 && y >= 60 - bow(x) && y < 340 + bow(x));
    const corners: Point[] = [
      [70, 60],
      [230, 60],
      [230, 340],
      [70, 340],
    ];
    const found = cornersOf(picture);
    expect(found).toHaveLength(1);
    expect(furthest(found[0], corners as Quad)).toBeLessThan(5);
  });

  it('goes on to where it runs out of the picture', () => {
    const picture = scene((x, y) => x >= 70 && x < 230 && y >= 60);
    const [, [, , , lowerLeft]] = cornersOf(picture);
    expect(distance(lowerLeft, [70, HEIGHT])).toBeLessThan(5);
  });
});
