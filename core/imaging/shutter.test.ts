import { Quad } from './quad';
import { Raster } from './raster';
import { COUNTDOWN_MS, hintFor, isSame, lookAt, Shutter, Sight } from './shutter';

const SQUARE: Quad = [
  [0.2, 0.1],
  [0.8, 0.1],
  [0.8, 0.9],
  [0.2, 0.9],
];

/** A sheet that lies in view as it should; `print` tells one from another. */
function sight(changes: Partial<Sight> = {}, print = 0): Sight {
  const small = Uint8Array.from({ length: 256 }, (_, at) => ((at * (print + 3)) % 7) * 30);
  return { corners: SQUARE, confidence: 0.95, sharpness: 40, brightness: 200, print: small, ...changes };
}

/** Shows a sight ten times a second for so long; whether the shutter fired. */
function show(shutter: Shutter, what: Sight, from: number, milliseconds: number): boolean {
  for (let now = from; now <= from + milliseconds; now += 100) if (shutter.see(what, now) >= 1) return true;
  return false;
}
const LONG = COUNTDOWN_MS + 1500;

it('tells whether two moments show the same', () => {
  const moved = SQUARE.map(([x, y]) => [x + 0.02, y]) as Quad;
  expect(isSame(sight(), sight())).toBe(true);
  expect(isSame(sight(), sight({ brightness: 150 }))).toBe(true);
  expect(isSame(sight(), sight({ corners: moved }))).toBe(false);
  expect(isSame(sight(), sight({}, 2))).toBe(false);
  expect(isSame(sight(), sight({ corners: null }))).toBe(false);
  expect(isSame(sight({ corners: null }), sight({ corners: null }))).toBe(true);
});

describe('the shutter', () => {
  it('fires once a sheet has lain still for a while, counting down visibly', () => {
    const shutter = new Shutter();
    expect(show(shutter, sight(), 0, 400)).toBe(false);
    const counted = [500, 800, 1100, 1300].map((now) => shutter.see(sight(), now));
    expect([...counted].sort((a, b) => a - b)).toEqual(counted);
    expect(show(shutter, sight(), 1400, LONG)).toBe(true);
  });

  it('fires on a slow device too, by when a sheet was seen and not by how often', () => {
    const shutter = new Shutter();
    expect([0, 1200, 2400].map((at) => shutter.see(sight(), at) >= 1)).toEqual([false, false, true]);
  });

  it('does not take the same sheet twice, and takes the next one', () => {
    const shutter = new Shutter();
    expect(show(shutter, sight(), 0, LONG)).toBe(true);
    shutter.took();
    expect(show(shutter, sight(), 5000, LONG)).toBe(false);
    expect(show(shutter, sight({}, 2), 10_000, LONG)).toBe(true);
  });

  it('waits while the sheet moves', () => {
    const shutter = new Shutter();
    for (let step = 0; step < 40; step++) {
      const corners = SQUARE.map(([x, y]) => [x + step * 0.01, y]) as Quad;
      expect(shutter.see(sight({ corners }), step * 100)).toBe(0);
    }
  });

  it('can be stopped, until the sheet moves', () => {
    const shutter = new Shutter();
    show(shutter, sight(), 0, 700);
    shutter.cancel();
    expect(show(shutter, sight(), 800, LONG)).toBe(false);
    shutter.see(sight({ corners: SQUARE.map(([x, y]) => [x + 0.05, y]) as Quad }), 5000);
    expect(show(shutter, sight(), 5100, LONG)).toBe(true);
  });

  it('takes pages that look alike when they are turned over, and none that lies there still', () => {
    const alike = sight();
    const hand = sight({ corners: null, confidence: 0, print: alike.print.map((value, at) => (at % 2 ? 20 : value)) });
    for (const turning of [true, false]) {
      const shutter = new Shutter(turning);
      expect(show(shutter, alike, 0, LONG)).toBe(true);
      shutter.took();
      expect(show(shutter, alike, LONG + 100, LONG)).toBe(false);
      shutter.see(hand, 2 * LONG + 200);
      expect(show(shutter, alike, 2 * LONG + 300, LONG)).toBe(turning);
    }
  });

  it.each([
    ['dark', { brightness: 40 }],
    ['noSheet', { corners: null, confidence: 0 }],
    ['contrast', { confidence: 0.6 }],
    ['small', { corners: SQUARE.map(([x, y]) => [0.4 + x / 5, 0.4 + y / 5]) as Quad }],
    ['cut', { corners: SQUARE.map(([x, y]) => [x - 0.3, y]) as Quad }],
    [
      'slanted',
      {
        corners: [
          [0.4, 0.1],
          [0.6, 0.1],
          [0.9, 0.9],
          [0.1, 0.9],
        ] as Quad,
      },
    ],
    ['blurred', { sharpness: 3 }],
    ['none', {}],
  ] as const)('says what is in the way: %s', (hint, changes) => {
    expect(hintFor(sight(changes as Partial<Sight>))).toBe(hint);
    if (hint !== 'none') expect(show(new Shutter(), sight(changes as Partial<Sight>), 0, LONG)).toBe(false);
  });
});

it('sees how sharp and how bright the sheet in a frame is', () => {
  const frame = (soft: boolean): Raster => {
    const data = new Uint8Array(200 * 200);
    for (let y = 0; y < 200; y++)
      for (let x = 0; x < 200; x++) {
        const print = x % 10 < 3;
        data[y * 200 + x] = soft ? 190 + 20 * Math.sin((x / 10) * 2 * Math.PI) : print ? 30 : 220;
      }
    return { width: 200, height: 200, channels: 1, data };
  };
  expect(lookAt(frame(false), SQUARE, 0.9).sharpness).toBeGreaterThan(100);
  expect(lookAt(frame(true), SQUARE, 0.9).sharpness).toBeLessThan(20);
  expect(lookAt(frame(false), SQUARE, 0.9).brightness).toBe(220);
});
