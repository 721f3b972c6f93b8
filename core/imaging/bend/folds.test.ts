import { Point, Quad } from '../quad';
import { USUAL_FOCAL } from '../straighten';
import { bentRow } from './bend';
import { applyHomography, homography } from '../homography';
import { wholeQuad } from '../quad';
import { foldedSheet } from './folds';

const SIZE: [number, number] = [1600, 1200];
const FOCAL = USUAL_FOCAL * 1600;
/** Sheet of 210 × 297, folded from `TOP` above to `BOTTOM` below, each piece standing up towards the fold; in millimetres. */
const [WIDTH, HEIGHT, TOP, BOTTOM] = [210, 297, 90, 120];

/** Where a point of the paper is seen by a camera that leans. */
function seen([x, y]: Point, steep = 0.35): Point {
  // How far off the fold it is, and the place on the fold that is nearest.
  const along = [BOTTOM - TOP, HEIGHT];
  const length = Math.hypot(...along);
  const [ax, ay] = [along[0] / length, along[1] / length];
  const off = (x - TOP) * ay - y * ax;
  const far = (x - TOP) * ax + y * ay;
  const flat = [TOP + far * ax + off * ay * Math.cos(steep), far * ay - off * ax * Math.cos(steep)];
  const high = -Math.abs(off) * Math.sin(steep);
  const [px, py, pz] = [flat[0] - WIDTH / 2, flat[1] - HEIGHT / 2, -high];
  const lean = 0.2;
  const depth = 420 + py * Math.sin(lean) + pz * Math.cos(lean);
  return [
    SIZE[0] / 2 + (FOCAL * px) / depth,
    SIZE[1] / 2 + (FOCAL * (py * Math.cos(lean) - pz * Math.sin(lean))) / depth,
  ];
}
const piece = (...corners: Point[]) => corners.map((corner) => seen(corner)) as Quad;
const LEFT = piece([0, 0], [TOP, 0], [BOTTOM, HEIGHT], [0, HEIGHT]);
const RIGHT = piece([TOP, 0], [WIDTH, 0], [WIDTH, HEIGHT], [BOTTOM, HEIGHT]);

it.each([
  ['the left one first', LEFT, RIGHT],
  ['their corners beginning elsewhere', [...LEFT.slice(2), ...LEFT.slice(0, 2)] as Quad, RIGHT],
])('two pieces are one folded sheet, of its true shape, %s', (_, one, other) => {
  const found = foldedSheet(one, other, SIZE)!;
  expect(found.aspect).toBeCloseTo(WIDTH / HEIGHT, 2);
  expect(found.fold[0]).toBeCloseTo(TOP / WIDTH, 2);
  expect(found.fold[1]).toBeCloseTo(BOTTOM / WIDTH, 2);
  const inPicture = homography(wholeQuad(1, 1), found.corners);
  for (const [u, v] of [
    [0.1, 0.2],
    [0.44, 0.5],
    [0.56, 0.5],
    [0.9, 0.9],
  ] as Point[]) {
    // prettier-ignore
    const [x, y] = applyHomography(inPicture, bentRow(found.bend, v)(u));
    const [trueX, trueY] = seen([u * WIDTH, v * HEIGHT]);
    expect(Math.hypot(x - trueX, y - trueY)).toBeLessThan(2.5);
  }
});

it('sheets beside each other with a gap are none', () =>
  expect(foldedSheet(LEFT, RIGHT.map(([x, y]) => [x + 60, y]) as Quad, SIZE)).toBeUndefined());

it('nor are two with a side in common whose other sides do not fit', () => {
  const wide = piece([TOP, 0], [WIDTH + 200, 0], [WIDTH - 30, HEIGHT], [BOTTOM, HEIGHT]);
  expect(foldedSheet(LEFT, wide, SIZE)).toBeUndefined();
});
