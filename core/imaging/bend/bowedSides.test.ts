import { findEdges, opponentColours } from '../outline/edges';
import { distance, Point, Quad, wholeQuad } from '../quad';
import { bentRow } from './bend';
import { bowedSheet } from './bowedSheet';
import { bowedSides } from './bowedSides';
import { applyHomography, homography } from '../homography';
import { seenSides } from './sideStrip';
import { HEIGHT, outline, photo, seen, SIZE, WIDTH } from './testing/rolledPaper';

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
