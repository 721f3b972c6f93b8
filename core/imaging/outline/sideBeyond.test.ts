import { applyHomography, homography } from '../homography';
import { Point, Quad, wholeQuad } from '../quad';
import { trueAspect, USUAL_FOCAL } from '../straighten';
import { withSideBeyond } from './sideBeyond';

const [WIDTH, HEIGHT] = [1200, 1600];

/** An A4 sheet as a usual camera sees it that leans by so much, shifted by so many pixels. */
function seen(lean: number, turn: number, shift: Point): Quad {
  const focal = USUAL_FOCAL * HEIGHT;
  const place = (x: number, y: number): Point => {
    const [u, v] = [x * Math.cos(turn) - y * Math.sin(turn), x * Math.sin(turn) + y * Math.cos(turn)];
    const depth = 300 - v * Math.sin(lean);
    return [WIDTH / 2 + (focal * u) / depth, HEIGHT / 2 + (focal * v * Math.cos(lean)) / depth];
  };
  // Moved on the table, so that the view stays that of a camera with its axis in the middle.
  const [dx, dy] = shift;
  return [
    [-105, -148.5],
    [105, -148.5],
    [105, 148.5],
    [-105, 148.5],
  ].map(([x, y]) => place(x + dx, y + dy)) as Quad;
}

/** The same with its first side where the upper border of the picture cuts it off. */
function cutOff(quad: Quad): Quad {
  const at = ([ax, ay]: Point, [bx, by]: Point): Point => [ax + ((0 - ay) / (by - ay)) * (bx - ax), 0];
  return [at(quad[0], quad[3]), at(quad[1], quad[2]), quad[2], quad[3]];
}

const LEANS: [string, number, number, Point][] = [
  ['from straight above', 0, 0.04, [8, -60]],
  ['leaning away', 0.3, -0.05, [8, -92]],
  ['leaning towards', -0.25, 0.08, [8, -50]],
];

describe.each(LEANS)('a sheet that runs out of the picture at its head, seen %s', (_, lean, turn, shift) => {
  const whole = seen(lean, turn, shift);
  const cut = cutOff(whole);
  const found = withSideBeyond(cut, 0, { width: WIDTH, height: HEIGHT });
  const toFlat = homography(found, wholeQuad(1, 1.414));

  it('gets its head back, and keeps its other corners', () => {
    expect(Math.max(whole[0][1], whole[1][1])).toBeLessThan(0);
    expect(found.slice(2)).toEqual(whole.slice(2));
    const shape = 1 / trueAspect(found, WIDTH, HEIGHT);
    expect(Math.min(...[841.89 / 595.28, 792 / 612].map((usual) => Math.abs(shape / usual - 1)))).toBeLessThan(0.04);
  });

  it('has level lines then, and nothing of what is seen of it is cut off', () => {
    const onSheet = homography(wholeQuad(1, 1.414), whole);
    const [left, right] = [0.1, 0.9].map((x) => applyHomography(toFlat, applyHomography(onSheet, [x, 0.5])));
    expect(Math.abs(left[1] - right[1])).toBeLessThan(0.004);
    for (const corner of cut) {
      const [x, y] = applyHomography(toFlat, corner);
      expect(Math.min(x, 1 - x, y, 1.414 - y)).toBeGreaterThan(-0.001);
    }
  });
});
