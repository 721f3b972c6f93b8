import { Point, Quad } from './quad';

/** A projective map of the plane as nine numbers, row by row; the last is 1. */
export type Homography = Float64Array;

/**
 * The projective map that takes four points to four others, by Gaussian elimination.
 * @throws Error when three of the points lie on a line
 */
export function homography(from: Quad, to: Quad): Homography {
  const rows = from.flatMap(([x, y], index) => {
    const [u, v] = to[index];
    return [
      [x, y, 1, 0, 0, 0, -u * x, -u * y, u],
      [0, 0, 0, x, y, 1, -v * x, -v * y, v],
    ];
  });
  for (let column = 0; column < 8; column++) {
    let best = column;
    for (let row = column + 1; row < 8; row++)
      if (Math.abs(rows[row][column]) > Math.abs(rows[best][column])) best = row;
    [rows[column], rows[best]] = [rows[best], rows[column]];
    const pivot = rows[column][column];
    if (Math.abs(pivot) < 1e-12) throw new Error('Three of the corners lie on a line.');
    for (let row = 0; row < 8; row++) {
      if (row === column) continue;
      const factor = rows[row][column] / pivot;
      if (factor !== 0) for (let each = column; each < 9; each++) rows[row][each] -= factor * rows[column][each];
    }
  }
  return Float64Array.from([...rows.map((row, index) => row[8] / row[index]), 1]);
}

export function applyHomography(h: Homography, [x, y]: Point): Point {
  const w = h[6] * x + h[7] * y + h[8];
  return [(h[0] * x + h[1] * y + h[2]) / w, (h[3] * x + h[4] * y + h[5]) / w];
}
