import { Raster } from '../raster';
import { findPrint, printOn } from './print';

/** Grey paper with words as dark bars of unlike lengths in rows, turned by an angle. */
function printed(turned: number): Raster {
  const [width, height] = [800, 800];
  const data = new Uint8Array(width * height).fill(225);
  const [cosine, sine] = [Math.cos(turned), Math.sin(turned)];
  for (let row = 0; row < 8; row++) {
    let x = 0;
    for (let word = 0; word < 5; word++) {
      const long = 18 + ((word * word * 13 + row * 23) % 41);
      for (let u = 0; u < long; u++) {
        for (let v = 0; v < 9; v++) {
          // Strokes with gaps between them, joined along the foot.
          if (v < 7 && u % 5 > 2) continue;
          const [atX, atY] = [250 + x + u, 280 + row * 22 + v];
          const toX = Math.round(400 + (atX - 400) * cosine - (atY - 400) * sine);
          const toY = Math.round(400 + (atX - 400) * sine + (atY - 400) * cosine);
          data[toY * width + toX] = 40;
        }
      }
      x += long + 9;
    }
  }
  return { width, height, channels: 1, data };
}

/** A cloth of dark squares, all alike. */
function cloth(): Raster {
  const [width, height] = [800, 600];
  const data = new Uint8Array(width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) data[y * width + x] = y % 32 < 16 && x % 32 < 16 ? 60 : 190;
  return { width, height, channels: 1, data };
}

describe('finding print in a photo', () => {
  it.each([0, 0.3, Math.PI / 2])('finds words and what they take, turned by %d radians', (turned) => {
    const { marks, areas } = findPrint(printed(turned));
    expect(marks.length).toBeGreaterThanOrEqual(30);
    expect(areas).toHaveLength(1);
    const middle = [0, 1].map((axis) => areas[0].reduce((sum, corner) => sum + corner[axis], 0) / 4);
    expect(Math.hypot(middle[0] - 400, middle[1] - 370)).toBeLessThan(60);
  });

  it('takes the squares of a cloth for no print', () => {
    expect(findPrint(cloth()).marks).toHaveLength(0);
  });

  it('counts what stands on a sheet, and the rows that its side would cut', () => {
    const print = findPrint(printed(0));
    const whole = printOn(print, [
      [200, 200],
      [700, 200],
      [700, 600],
      [200, 600],
    ]);
    expect(whole).toEqual({ marks: print.marks.length, cut: 0, beside: 0 });
    const half = printOn(print, [
      [200, 200],
      [350, 200],
      [350, 600],
      [200, 600],
    ]);
    expect(half.cut).toBeGreaterThan(3);
    expect(half.beside).toBe(print.marks.length - half.marks);
    expect(half.marks).toBeLessThan(whole.marks);
  });
});
