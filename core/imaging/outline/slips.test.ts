import { Ink } from '../ink';
import { Raster } from '../raster';
import { holdPrint, isNarrow, printApart } from './slips';

const [WIDTH, HEIGHT] = [707, 1000];
const A4: [number, number] = [595, 842];
const picture: Raster = { width: 1414, height: 2000, channels: 1, data: new Uint8Array(0) };

interface Block {
  x: number;
  y: number;
  width: number;
  lines: number;
}

/** Lines of print, 12 pixels apart, in blocks on an A4 page of 1000 pixels' height. */
function printed(...blocks: Block[]): Ink {
  const data = new Uint8Array(WIDTH * HEIGHT);
  for (const { x, y, width, lines } of blocks)
    for (let line = 0; line < lines; line++)
      for (let row = 0; row < 6; row++)
        for (let at = 0; at < width; at++) if (at % 6 < 4) data[(y + line * 12 + row) * WIDTH + x + at] = 1;
  return { width: WIDTH, height: HEIGHT, data };
}
const RECEIPTS: Block[] = [
  { x: 60, y: 80, width: 180, lines: 30 },
  { x: 380, y: 100, width: 180, lines: 36 },
];

describe('a page on which slips may lie', () => {
  it('has only short lines of print', () => {
    expect(isNarrow(printed(...RECEIPTS), A4)).toBe(true);
    expect(isNarrow(printed({ x: 60, y: 100, width: 580, lines: 30 }), A4)).toBe(false);
    // A letter below an address is one as soon as its paragraphs are wide.
    expect(isNarrow(printed({ x: 60, y: 80, width: 150, lines: 4 }, { x: 60, y: 300, width: 500, lines: 8 }), A4)).toBe(
      false,
    );
  });

  it('is none with hardly any print at all', () =>
    expect(isNarrow(printed({ x: 60, y: 80, width: 20, lines: 1 }), A4)).toBe(false));
});

describe('sheets found in a scan', () => {
  const quad = (left: number, top: number, right: number, bottom: number, confidence = 0.95) => ({
    corners: [
      [2 * left, 2 * top],
      [2 * right, 2 * top],
      [2 * right, 2 * bottom],
      [2 * left, 2 * bottom],
    ] as [[number, number], [number, number], [number, number], [number, number]],
    confidence,
  });
  const letters = printed(...RECEIPTS);
  const [left, right] = [quad(40, 60, 260, 460), quad(360, 80, 580, 560)];

  it('are believed when they hold all print, each some of it', () => {
    expect(holdPrint([left, right], letters, picture)).toBe(true);
    expect(holdPrint([left], letters, picture)).toBe(false);
    expect(holdPrint([left, right, quad(100, 800, 300, 950)], letters, picture)).toBe(false);
  });

  it('are believed when there is one only if it is small and sure', () => {
    const one = printed(RECEIPTS[0]);
    expect(holdPrint([left], one, picture)).toBe(true);
    expect(holdPrint([{ ...left, confidence: 0.7 }], one, picture)).toBe(false);
    expect(holdPrint([quad(5, 5, 700, 990)], one, picture)).toBe(false);
  });
});

describe('papers told apart by the strips between them', () => {
  it('are those beside and below each other', () => {
    const parts = printApart(printed(...RECEIPTS, { x: 60, y: 620, width: 180, lines: 20 }), picture);
    expect(parts).toHaveLength(3);
    const lefts = parts.map(({ corners: [[x]] }) => x).sort((a, b) => a - b);
    // In pixels of the picture, which is twice as large, with a margin.
    expect(lefts[0]).toBeGreaterThan(80);
    expect(lefts[0]).toBeLessThan(120);
    expect(lefts[2]).toBeGreaterThan(700);
  });

  it('are not the lines or columns of one', () =>
    expect(printApart(printed({ x: 60, y: 80, width: 180, lines: 60 }), picture)).toHaveLength(0));
});
