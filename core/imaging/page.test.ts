import { judgeLegibility } from './legibility';
import { renderLook, suitableLook } from './looks';
import { liftMarks } from './marks';
import { quarterTurned, Raster } from './raster';
import { roughInk } from './ink';
import { textDirection, textSkew } from './textLines';

const [WIDTH, HEIGHT] = [620, 860];

/** Letters as bars with ascenders now and then, in lines; painted in a colour on paper lit unevenly. */
function page({ ink = 40, light = (() => 235) as (x: number, y: number) => number, tilt = 0 } = {}): Raster {
  const data = new Uint8Array(WIDTH * HEIGHT * 3);
  const slope = Math.tan((tilt * Math.PI) / 180);
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      const paper = light(x, y);
      const line = y - slope * x;
      const value = isInk(x, line) ? (paper * ink) / 235 : paper;
      for (let channel = 0; channel < 3; channel++) data[(y * WIDTH + x) * 3 + channel] = value;
    }
  }
  return { width: WIDTH, height: HEIGHT, channels: 3, data };
}

function isInk(x: number, y: number): boolean {
  if (x < 60 || x > 560 || y < 60 || y > 800) return false;
  const row = Math.floor(y / 30);
  // Letters of different rows don't stand in columns.
  const along = x + ((row * 37) % 12);
  const column = Math.floor(along / 12);
  const [inRow, inColumn] = [y - row * 30, along - column * 12];
  // Words of some letters, and a stroke of three pixels on either side of each.
  if ((column * 7 + row * 3) % 6 === 0 || inColumn > 8 || (inColumn > 2 && inColumn < 6 && inRow > 12 && inRow < 18))
    return false;
  const tall = (column + row * 5) % 3 === 0;
  const deep = (column + row * 5) % 11 === 5;
  return inRow >= (tall ? 3 : 10) && inRow < (deep ? 25 : 20);
}

const at = ({ width, channels, data }: Raster, x: number, y: number) => data[(y * width + x) * channels];
const shadowed = (x: number, y: number) => 235 * (x + y > 900 ? 0.62 : 1);

describe('looks', () => {
  it('make paper white and keep ink dark, in light and in shadow', () => {
    const picture = page({ light: shadowed });
    for (const look of ['clear', 'grey', 'bilevel'] as const) {
      const rendered = renderLook(picture, look);
      const [inks, papers]: [number[], number[]] = [[], []];
      for (let y = 64; y < 790; y += 7)
        for (let x = 62; x < 556; x += 5)
          if (Math.abs(x + y - 900) >= 40) (isInk(x, y) ? inks : papers).push(at(rendered, x, y));
      expect(Math.max(...inks)).toBeLessThan(110);
      expect(Math.min(...papers)).toBeGreaterThan(225);
    }
  });

  it('make faint pencil bold enough to read', () => {
    const rendered = renderLook(page({ ink: 176 }), 'clear');
    expect([...rendered.data.filter((_, index) => index % 97 === 0)].sort((a, b) => a - b)[0]).toBeLessThan(115);
  });

  it('keep tones in even light, and everything as shot', () => {
    const picture = page({ light: (x) => 150 + 80 * (x / WIDTH) });
    const even = renderLook(picture, 'even');
    expect(Math.abs(at(even, 20, 20) - at(even, 600, 20))).toBeLessThan(12);
    expect(renderLook(picture, 'asShot')).toBe(picture);
  });

  it('are chosen by what is on the page', () => {
    const colourful = page();
    for (let at = 0; at < colourful.data.length / 20; at += 3) colourful.data.set([200, 40, 50], at);
    expect(suitableLook(page())).toBe('grey');
    expect(suitableLook(colourful)).toBe('clear');
  });
});

describe('lines of text', () => {
  it.each([-2.4, -0.6, 0, 1.3, 2.7])('tell how far the page is turned (%f degrees)', (tilt) => {
    const { degrees } = textSkew(roughInk(page({ tilt })), 4);
    expect(Math.abs(degrees - tilt)).toBeLessThan(0.15);
  });

  it.each([0, 90, 180, 270] as const)('tell which way up a page is that was turned by %d', (turn) => {
    const found = textDirection(roughInk(quarterTurned(page(), turn)));
    expect((found.turn + turn) % 360).toBe(0);
    expect(found.confidence).toBeGreaterThan(0.4);
  });
});

describe('lifting a mark', () => {
  const stained = page();
  for (let y = 300; y < 420; y++)
    for (let x = 200; x < 330; x++) {
      const from = (y * WIDTH + x) * 3;
      stained.data.set([stained.data[from] * 0.8, stained.data[from + 1] * 0.66, stained.data[from + 2] * 0.42], from);
    }
  const lifted = liftMarks(stained, [
    {
      points: [
        [0.3, 0.35],
        [0.55, 0.49],
        [0.3, 0.49],
        [0.55, 0.35],
      ],
      radius: 0.12,
    },
  ]);

  it('wipes the stain and keeps the print under it', () => {
    let [wiped, kept, paper, print] = [0, 0, 0, 0];
    for (let y = 305; y < 415; y++)
      for (let x = 205; x < 325; x++) {
        if (isInk(x, y) && isInk(x - 1, y) && isInk(x + 1, y)) {
          print++;
          if (at(lifted, x, y) < 120) kept++;
        } else if (![-2, -1, 0, 1, 2].some((by) => isInk(x + by, y) || isInk(x, y + by))) {
          paper++;
          if (lifted.data[(y * WIDTH + x) * 3 + 2] > 215) wiped++;
        }
      }
    expect(wiped / paper).toBeGreaterThan(0.97);
    expect(kept / print).toBeGreaterThan(0.9);
  });

  it('touches nothing outside the brush', () => {
    expect(lifted.data.slice(0, WIDTH * 200 * 3)).toEqual(
      new Uint8ClampedArray(stained.data.slice(0, WIDTH * 200 * 3)),
    );
  });
});

describe('legibility', () => {
  it('is high for a clear page and lower for a faint or a shadowed one, with what to do', () => {
    const clear = judgeLegibility(page());
    const faint = judgeLegibility(page({ ink: 205 }));
    expect(clear.score).toBeGreaterThan(faint.score + 0.15);
    expect(faint.advice.join(' ')).toContain('faint');
  });

  it('notices text that is cut off at the edge', () => {
    const whole = page();
    const cut: Raster = { width: 400, height: 600, channels: 3, data: new Uint8Array(400 * 600 * 3) };
    for (let y = 0; y < 600; y++)
      cut.data.set(whole.data.slice(((y + 100) * WIDTH + 101) * 3, ((y + 100) * WIDTH + 501) * 3), y * 400 * 3);
    expect(judgeLegibility(whole).advice.join(' ')).not.toContain('cut off');
    expect(judgeLegibility(cut).advice.join(' ')).toContain('cut off');
  });

  it('has nothing to say of letters where there are none', () => {
    const data = new Uint8Array(WIDTH * HEIGHT * 3).fill(235);
    expect(judgeLegibility({ width: WIDTH, height: HEIGHT, channels: 3, data }).advice).toEqual([]);
  });
});
