import { Quad } from '../quad';
import { Raster } from '../raster';
import { Placed, printedFirst, withoutParts } from './wholes';

const [WIDTH, HEIGHT] = [300, 400];

/** A picture that is `paper` bright inside of x from 40 to 260 and `table` beside it; lit as said from the upper edge to the lower one. */
function picture(table: number, lit: (y: number) => number = () => 1): Raster {
  const data = Uint8Array.from({ length: WIDTH * HEIGHT }, (_, at) => {
    const [x, y] = [at % WIDTH, Math.floor(at / WIDTH)];
    return (x > 40 && x < 260 && y < 380 ? 230 : table) * lit(y);
  });
  return { width: WIDTH, height: HEIGHT, channels: 1, data };
}

/** A candidate from some height down to the sheet's end. */
const from = (top: number, score: number, marks: number): Placed => ({
  corners: [
    [40, top],
    [260, top],
    [260, 380],
    [40, 380],
  ] as Quad,
  score,
  cut: 0,
  held: [1, 1, 1, 1],
  words: { marks, cut: 0 },
});
const isFirst = (made: Placed[], candidate: Placed) => made[0].corners === candidate.corners;

describe('of a sheet and a part of it below a rule', () => {
  const [whole, part] = [from(0, 0.74, 140), from(120, 0.82, 26)];

  it('the sheet is taken, where more of the print is, though the table is as bright as it is', () =>
    expect(isFirst(withoutParts(picture(228), [part, whole]), whole)).toBe(true));

  it('the part is taken there if much of the print is on it', () => {
    const much = from(120, 0.82, 60);
    expect(isFirst(withoutParts(picture(228), [much, whole]), much)).toBe(true);
  });

  it('the sheet is taken where the light falls off over it, so that the paper beyond is not as bright as most of it', () => {
    const lit = (y: number) => (y < 160 ? 0.45 + (0.35 * y) / 160 : 0.8 + (0.2 * (y - 160)) / 240);
    expect(isFirst(withoutParts(picture(30, lit), [from(120, 0.82, 100), whole]), whole)).toBe(true);
  });
});

describe('of a sheet and a part of it in the light', () => {
  const shadow = picture(30, (y) => (y < 200 ? 0.5 : 1));
  const whole = from(0, 0.74, 84);

  it.each([
    ['the sheet is taken if the part is bare, though it is a good deal more convincing', 0, true],
    ['the part is taken if it has print, too', 20, false],
  ])('%s', (_, marks, isWhole) => {
    const part = from(200, 0.91, marks);
    expect(isFirst(withoutParts(shadow, [part, whole]), isWhole ? whole : part)).toBe(true);
  });
});

describe('a bare piece of something bright', () => {
  const limits = { least: 0.6, besideBest: 0.7, enough: 8 };
  const [bare, sheet] = [from(200, 0.8, 0), from(0, 0.66, 157)];

  it('comes behind the sheet that has the print', () =>
    expect(printedFirst([bare, from(100, 0.7, 10), sheet], limits)).toEqual([sheet, bare, from(100, 0.7, 10)]));

  it('stays before what is much less convincing, and where there is no print', () => {
    expect(printedFirst([bare, from(0, 0.5, 157)], limits)[0]).toBe(bare);
    expect(printedFirst([bare, from(0, 0.7, 4)], limits)[0]).toBe(bare);
    expect(printedFirst([], limits)).toEqual([]);
  });
});
