import { applyHomography, homography } from '../homography';
import { Point, Quad, wholeQuad } from '../quad';
import { cameraOver, Cylinder } from './cylinder';
import { fitCylinder } from './fitCylinder';
import { Row } from './rows';

const [WIDTH, HEIGHT] = [900, 1200];
const camera = { foot: [450, 700] as Point, height: 1500 };

/** A sheet that rises to one side as an open book's page does. */
const page = new Cylinder([0, 90, 140, 160, 165, 160, 150], -450, 450, 0, camera, [450, 600]);

it('sees what is flat where it lies, and finds it again', () => {
  for (const point of [
    [60, 80],
    [450, 600],
    [820, 1100],
    [300, 20],
  ] as Point[]) {
    const back = page.flat(page.seen(point));
    expect(back[0]).toBeCloseTo(point[0], 0);
    expect(back[1]).toBeCloseTo(point[1], 0);
  }
});

it('is as long over a bend as the paper is', () => {
  // Over a slope of one in one, seen from straight above far away, paper takes less room than it has.
  const roof = new Cylinder([0, 300, 0], -300, 300, 0, { foot: [0, 0], height: 1e7 }, [0, 0]);
  const [[left], [right]] = [roof.flat([-300, 0]), roof.flat([300, 0])];
  expect(right - left).toBeGreaterThan(1.25 * 600);
});

it('knows where the camera is from how it sees a square', () => {
  // A plane seen from 1000 above its point (200, 300), not leaning: the picture is as large as the focal length says.
  const focal = 800;
  const seen = ([x, y]: Point): Point => [640 + ((x - 200) * focal) / 1000, 360 + ((y - 300) * focal) / 1000];
  const square = wholeQuad(500, 500);
  const found = cameraOver(homography(square, square.map(seen) as Quad), [640, 360], focal);
  expect(found.height).toBeCloseTo(1000, 0);
  found.foot.forEach((each, index) => expect(each).toBeCloseTo([200, 300][index], 0));
  expect(applyHomography(homography(square, square.map(seen) as Quad), [0, 0])).toEqual(seen([0, 0]));
});

/** Rows of feet as they are seen on a bent sheet, with some tails that hang below. */
function rowsOn(sheet: Cylinder): Row[] {
  return Array.from({ length: 24 }, (_, row) => ({
    height: 14,
    feet: Array.from({ length: 40 }, (_, letter): Point => {
      const [x, y] = sheet.seen([100 + 18 * letter, 80 + 44 * row]);
      return [x, y + (letter % 9 === 4 ? 1.5 : 0)];
    }),
  }));
}

it('is found by rows that are level on it', () => {
  const rows = rowsOn(page);
  const size = { width: WIDTH, height: HEIGHT };
  const flat = fitCylinder(rows, size, camera, { bent: false });
  const bent = fitCylinder(rows, size, camera);
  expect(flat.off).toBeGreaterThan(0.1);
  expect(bent.off).toBeLessThan(0.03);
  expect(bent.cylinder.bulge()).toBeGreaterThan(20);
  const [left, right] = [rows[3].feet[0], rows[3].feet[39]].map((foot) => bent.level(bent.cylinder.flat(foot)));
  expect(Math.abs(left[1] - right[1])).toBeLessThan(1.5);
});

it('is none where rows are level already', () => {
  const still = new Cylinder([0, 0, 0], -450, 450, 0, camera, [450, 600]);
  expect(fitCylinder(rowsOn(still), { width: WIDTH, height: HEIGHT }, camera, { bent: false }).off).toBeLessThan(0.03);
});
