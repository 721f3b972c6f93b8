import { applyHomography, homography } from './homography';
import { Point, Quad, wholeQuad } from './quad';
import { Raster } from './raster';
import { flatSize, paperFor, trueAspect, warp } from './straighten';

/** A rectangle seen by a pinhole camera that leans over it. */
function seen(aspect: number, lean: number, turn: number, focal: number): Quad {
  const [width, height] = [3000, 4000];
  const corners: Point[] = [
    [-aspect, -1],
    [aspect, -1],
    [aspect, 1],
    [-aspect, 1],
  ];
  return corners.map(([x, y]): Point => {
    const [rx, ry] = [x * Math.cos(turn) - y * Math.sin(turn), x * Math.sin(turn) + y * Math.cos(turn)];
    const depth = 3 + ry * Math.sin(lean);
    return [width / 2 + (focal * rx) / depth, height / 2 + (focal * ry * Math.cos(lean)) / depth];
  }) as Quad;
}

describe('the true shape of a sheet', () => {
  it.each([
    [0.7071, 0.6, 0.2],
    [0.7071, 0.35, 0.9],
    [0.773, 0.5, 0.4],
    [0.3, 0.4, 0.1],
  ])('is recovered from a slanted view (%f, leaning %f, turned %f)', (aspect, lean, turn) => {
    expect(Math.abs(trueAspect(seen(aspect, lean, turn, 3400), 3000, 4000) / aspect - 1)).toBeLessThan(0.02);
  });

  it('is what it looks like from straight above', () => {
    expect(trueAspect(seen(0.7071, 0, 0.3, 3400), 3000, 4000)).toBeCloseTo(0.7071, 3);
  });

  it('becomes a standard paper size when it is close to one, and a till roll when long and narrow', () => {
    expect(paperFor(0.71)).toMatchObject({ name: 'A4', width: 595.28 });
    expect(paperFor(1.29)).toMatchObject({ name: 'Letter', width: 792 });
    expect(paperFor(0.3)).toMatchObject({ name: null, width: 226.8 });
  });
});

it('makes flat what was seen slanted: what was drawn on the sheet comes out where it was drawn', () => {
  const [width, height] = [200, 280];
  const quad: Quad = [
    [60, 40],
    [300, 70],
    [330, 400],
    [30, 370],
  ];
  const toSheet = homography(quad, wholeQuad(width, height));
  const picture: Raster = { width: 360, height: 440, channels: 1, data: new Uint8Array(360 * 440) };
  for (let y = 0; y < 440; y++) {
    for (let x = 0; x < 360; x++) {
      const [u, v] = applyHomography(toSheet, [x + 0.5, y + 0.5]);
      picture.data[y * 360 + x] = u > 40 && u < 90 && v > 100 && v < 130 ? 10 : 240;
    }
  }
  const flat = warp(picture, quad, width, height);
  const at = (x: number, y: number) => flat.data[y * width + x];
  expect([at(45, 105), at(85, 125), at(65, 115)].every((value) => value < 40)).toBe(true);
  expect([at(35, 115), at(95, 115), at(65, 95), at(65, 135)].every((value) => value > 210)).toBe(true);
});

it('gives the page as many pixels as its longest sides had, and 300 an inch at the most', () => {
  const quad = wholeQuad(1000, 1400);
  expect(flatSize(quad, { width: 595, height: 842 })).toEqual([1000, 1415]);
  expect(Math.max(...flatSize(wholeQuad(9000, 12600), { width: 595.28, height: 841.89 }))).toBe(3508);
});
