import { findEdges, opponentColours } from '../outline/edges';
import { distance, Point, Quad, wholeQuad } from '../quad';
import { Raster } from '../raster';
import { USUAL_FOCAL } from '../straighten';
import { bentRow } from './bend';
import { bowedSheet } from './bowedSheet';
import { bowedSides } from './bowedSides';
import { applyHomography, homography } from '../homography';
import { seenSides } from './sideStrip';

const SIZE: [number, number] = [480, 640];
const [WIDTH, HEIGHT, RADIUS] = [210, 297, 180];

/** Where a point of a sheet that lies on a roll is seen, its middle the highest, by a camera that leans a little. */
function seen([x, y]: Point): Point {
  const angle = (x - WIDTH / 2) / RADIUS;
  const [px, py, pz] = [RADIUS * Math.sin(angle), y - HEIGHT / 2, RADIUS * (Math.cos(angle) - 1)];
  const lean = 0.25;
  const depth = 430 + py * Math.sin(lean) - pz * Math.cos(lean);
  const focal = USUAL_FOCAL * SIZE[1];
  return [
    SIZE[0] / 2 + (focal * px) / depth,
    SIZE[1] / 2 + (focal * (py * Math.cos(lean) + pz * Math.sin(lean))) / depth,
  ];
}

const outline = (steps: number): Point[] => {
  const along = Array.from({ length: steps }, (_, at) => at / steps);
  return [
    ...along.map((share) => seen([share * WIDTH, 0])),
    ...along.map((share) => seen([WIDTH, share * HEIGHT])),
    ...along.map((share) => seen([(1 - share) * WIDTH, HEIGHT])),
    ...along.map((share) => seen([0, (1 - share) * HEIGHT])),
  ];
};

function photo(sides: Point[]): Raster {
  const [width, height] = SIZE;
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) data[y * width + x] = isIn(sides, [x, y]) ? 220 : 80;
  return { width, height, channels: 1, data };
}

/** Whether a line to the right crosses the sides an odd number of times. */
function isIn(sides: Point[], [x, y]: Point): boolean {
  let inside = false;
  sides.forEach(([ax, ay], at) => {
    const [bx, by] = sides[(at + 1) % sides.length];
    if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) inside = !inside;
  });
  return inside;
}

const corners = [seen([0, 0]), seen([WIDTH, 0]), seen([WIDTH, HEIGHT]), seen([0, HEIGHT])] as Quad;
/** As an outline with straight sides is found of it: through the middle of what bulges. */
const found = corners.map(([x, y], at): Point => [x, y + (at < 2 ? -8 : 8)]) as Quad;

it('the bowed sides of a sheet without print tell how it lies, and it is made flat', () => {
  const edges = findEdges(opponentColours(photo(outline(40))));
  const sides = bowedSides(seenSides(edges, found))!;
  sides.corners.forEach((corner, at) => expect(distance(corner, corners[at])).toBeLessThan(3));
  const sheet = bowedSheet(sides, SIZE)!;
  expect(sheet.aspect).toBeCloseTo(WIDTH / HEIGHT, 1);
  const inPicture = homography(wholeQuad(1, 1), sheet.corners);
  for (const [u, v] of [
    [0.25, 0.25],
    [0.5, 0.5],
    [0.75, 0.3],
    [0.5, 0.9],
  ] as Point[]) {
    const place = applyHomography(inPicture, bentRow(sheet.bend, v)(u));
    expect(distance(place, seen([u * WIDTH, v * HEIGHT]))).toBeLessThan(4);
  }
});

it('a sheet with straight sides has none', () => {
  const edges = findEdges(opponentColours(photo(corners)));
  expect(bowedSides(seenSides(edges, corners))).toBeUndefined();
});
