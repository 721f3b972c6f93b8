import { distance, Point, Quad } from '../quad';
import { Raster } from '../raster';
import { foldedSheet } from './folds';
import { BendSearch } from './bendSearch';
import { HEIGHT, LEFT, photo, piece, RIGHT, seen, SIZE, TOP, WIDTH } from './testing/foldedPaper';

const WHOLE: Quad = [LEFT[0], RIGHT[1], RIGHT[2], LEFT[3]];

/** How far the best of what may be is off the true corners, in pixels. */
function off(picture: Raster, outline: Quad, whole = WHOLE): number {
  const sheets = new BendSearch(picture)
    .bendsOf([outline])
    .foldings.flatMap(({ pieces }) => foldedSheet(pieces, SIZE) ?? []);
  // A sheet may be told to begin at any of its corners.
  const offs = sheets.flatMap(({ corners }) =>
    [0, 1, 2, 3].map((by) => Math.max(...corners.map((corner, at) => distance(corner, whole[(at + by) % 4])))),
  );
  return Math.min(Infinity, ...offs);
}

it.each([
  ['the whole sheet, whose sides are broken', WHOLE],
  ['the left piece', LEFT],
  ['the right piece', RIGHT],
])('the fold of a sheet is found from the outline of %s', (_, outline) =>
  expect(off(photo([LEFT, RIGHT]), outline)).toBeLessThan(4),
);

it('the light tells where the fold is when one side looks straight', () => {
  // Seen from where the lower side is in line.
  const straight = [seen([0, HEIGHT]), seen([WIDTH, HEIGHT])];
  const bottom: Point = [0, 1].map((axis) => (straight[0][axis] + straight[1][axis]) / 2) as Point;
  const picture = photo([
    [LEFT[0], LEFT[1], bottom, LEFT[3]],
    [RIGHT[0], RIGHT[1], RIGHT[2], bottom],
  ]);
  const [folding] = new BendSearch(picture).bendsOf([WHOLE]).foldings.filter(({ isWhole }) => isWhole);
  expect(distance(folding.pieces[0][1], LEFT[1])).toBeLessThan(15);
  expect(distance(folding.pieces[0][2], bottom)).toBeLessThan(25);
});

it('a flat sheet has no fold', () => {
  const flat = piece([0, 0], [TOP, 0], [TOP, HEIGHT], [0, HEIGHT]);
  expect(new BendSearch(photo([flat])).seemsFlat(flat)).toBe(true);
});

it('nor has one that another sheet lies beside, at a distance', () => {
  const other = RIGHT.map(([x, y]): Point => [x + 90, y + 20]) as Quad;
  expect(
    new BendSearch(photo([LEFT, other])).bendsOf([LEFT]).foldings.filter(({ pieces }) => foldedSheet(pieces, SIZE)),
  ).toEqual([]);
});

describe('a letter that was folded for its envelope and lies opened again', () => {
  const THIRDS = [0, 99, 198, HEIGHT];
  /** Where the paper is seen, each third of which rises or falls. */
  const letter = ([x, y]: Point): Point => {
    const steep = [0.3, -0.3, 0.25];
    let [far, high] = [0, 0];
    THIRDS.slice(0, -1).forEach((from, at) => {
      const long = Math.max(0, Math.min(y, THIRDS[at + 1]) - from);
      far += long * Math.cos(steep[at]);
      high += long * Math.sin(steep[at]);
    });
    const depth = 430 + 0.2 * (far - HEIGHT / 2) - high;
    const [width, height] = SIZE;
    return [width / 2 + (1360 * (x - WIDTH / 2)) / depth, height / 2 + (1360 * (far - HEIGHT / 2)) / depth];
  };
  const part = (from: number, to: number) => [[0, from], [WIDTH, from], [WIDTH, to], [0, to]].map((point) => letter(point as Point)) as Quad; // prettier-ignore
  const [first, second, third] = [part(0, 99), part(99, 198), part(198, HEIGHT)];

  it.each([
    ['all of it, whose sides are broken twice', part(0, HEIGHT)],
    ['its first piece', first],
    ['its second piece', second],
    ['its third piece', third],
  ])('is found whole from the outline of %s', (_, outline) =>
    expect(off(photo([first, second, third]), outline, part(0, HEIGHT))).toBeLessThan(6),
  );
});
