import { LEFT, photo, RIGHT, SIZE } from '../bend/testing/foldedPaper';
import { distance, overlap, Point, Quad, scaleQuad, wholeQuad } from '../quad';
import { bendOver } from '../bend/bend';
import * as rolled from '../bend/testing/rolledPaper';
import { bentRegion, Sheet, withBends } from './bent';

const [A, B, C, D] = [LEFT[0], RIGHT[1], RIGHT[2], LEFT[3]];
const WHOLE: Quad = [A, B, C, D];
const between = (from: Point, to: Point, share: number): Point => [
  from[0] + share * (to[0] - from[0]),
  from[1] + share * (to[1] - from[1]),
];
/** A slip that lies on the right piece, dark all over. */
const [top, bottom] = [0.3, 0.6].map((share): [Point, Point] => [
  between(RIGHT[0], RIGHT[3], share),
  between(B, C, share),
]);
const SLIP: Quad = [between(...top, 0.25), between(...top, 0.7), between(...bottom, 0.7), between(...bottom, 0.25)];

const foundIn = (corners: Quad, [width, height]: [number, number]): Sheet => ({
  corners,
  confidence: 0.9,
  proposal: {
    recipe: {
      corners: scaleQuad(corners, 1 / width, 1 / height),
      angle: 0,
      look: 'grey',
      paper: [595, 842],
      marks: [],
    },
    turn: 0,
    confidence: 0.9,
  },
  off: 0,
});
const found = (corners: Quad) => foundIn(corners, SIZE);
const isWhole = ({ corners }: Sheet) =>
  [0, 1, 2, 3].some((by) => corners.every((corner, at) => distance(corner, WHOLE[(at + by) % 4]) < 6));

it('a folded sheet takes the place of both its pieces, though nothing is printed on it', () => {
  const sheets = withBends(photo([LEFT, RIGHT]), [found(LEFT), found(RIGHT)], found);
  expect(sheets).toHaveLength(1);
  expect(sheets.every(isWhole)).toBe(true);
  expect(sheets[0].proposal.recipe.bend).toBeDefined();
});

it('of one piece alone the whole is found, and what else lies on it stays a paper of its own', () => {
  const sheets = withBends(photo([LEFT, RIGHT, SLIP], [225, 180, 110]), [found(LEFT), found(SLIP)], found);
  expect(sheets.filter(isWhole)).toHaveLength(1);
  expect(sheets.filter(({ corners }) => overlap(corners, SLIP) > 0.99)).toHaveLength(1);
});

it('a flat sheet stays as it was found', () => {
  const flat: Quad = [
    [300, 200],
    [700, 200],
    [700, 766],
    [300, 766],
  ];
  const sheets = [found(flat)];
  expect(withBends(photo([flat]), sheets, found)).toEqual(sheets);
});

describe('a rolled sheet', () => {
  const photo = rolled.printedPhoto();
  const onPhoto = (corners: Quad) => foundIn(corners, rolled.SIZE);
  const partOf = (share: number) =>
    [
      [0, 0],
      [rolled.WIDTH, 0],
      [rolled.WIDTH, share * rolled.HEIGHT],
      [0, share * rolled.HEIGHT],
    ].map((corner) => rolled.seen(corner as Point)) as Quad;
  const expectWhole = ({ recipe }: Sheet['proposal']) => {
    scaleQuad(recipe.corners!, ...rolled.SIZE).forEach((corner, at) =>
      expect(distance(corner, partOf(1)[at])).toBeLessThan(4),
    );
    expect(recipe.bend).toBeDefined();
  };

  it('of which no outline was found is found by its print', () => {
    expectWhole(bentRegion(photo, onPhoto)!);
  });

  it('that was bent by its rows of print is bent by its sides where these are clear', () => {
    // Its rows are as level as can be, and some of the table is taken for the sheet.
    const beside = ([x, y]: Point) => rolled.seen([(1.05 * x - 0.05) * rolled.WIDTH, y * rolled.HEIGHT]);
    const more = wholeQuad(1, 1).map(beside) as Quad;
    const byRows = (corners: Quad): Sheet => {
      const sheet = onPhoto(corners);
      const bend = bendOver(more, beside);
      const recipe = {
        ...sheet.proposal.recipe,
        corners: scaleQuad(more, 1 / rolled.SIZE[0], 1 / rolled.SIZE[1]),
        bend,
      };
      return { ...sheet, proposal: { ...sheet.proposal, recipe } };
    };
    expectWhole(bentRegion(photo, byRows)!);
  });

  it('of which the upper part was found goes on where its print does', () => {
    const [sheet, ...others] = withBends(photo, [onPhoto(partOf(0.5))], onPhoto);
    expect(others).toHaveLength(0);
    expectWhole(sheet.proposal);
  });
});
