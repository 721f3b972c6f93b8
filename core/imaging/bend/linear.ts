/** Weighted linear least squares, by the normal equations. @returns one number a column */
export function leastSquares(rows: number[][], values: number[], weights: number[]): number[] {
  const size = rows[0].length;
  const sums = Array.from({ length: size }, () => new Array<number>(size + 1).fill(0));
  rows.forEach((row, index) => {
    for (let a = 0; a < size; a++) {
      const weighed = weights[index] * row[a];
      for (let b = 0; b < size; b++) sums[a][b] += weighed * row[b];
      sums[a][size] += weighed * values[index];
    }
  });
  return solve(sums);
}

/** Solves linear equations, given with their right sides as a last column, by Gaussian elimination; the rows are used up. */
export function solve(rows: number[][]): number[] {
  const size = rows.length;
  for (let column = 0; column < size; column++) {
    let best = column;
    for (let row = column + 1; row < size; row++)
      if (Math.abs(rows[row][column]) > Math.abs(rows[best][column])) best = row;
    [rows[column], rows[best]] = [rows[best], rows[column]];
    const pivot = rows[column][column] || 1e-12;
    for (let row = 0; row < size; row++) {
      if (row === column) continue;
      const factor = rows[row][column] / pivot;
      if (factor !== 0) for (let each = column; each <= size; each++) rows[row][each] -= factor * rows[column][each];
    }
  }
  return rows.map((row, index) => row[size] / (row[index] || 1e-12));
}

/**
 * The numbers for which the squares of residuals add up to least, by Levenberg and Marquardt's method with numeric derivatives.
 * @param from where to begin; numbers of about one
 * @param steps at the most
 */
export function minimise(
  residuals: (numbers: Float64Array) => Float64Array,
  from: Float64Array,
  steps: number,
): Float64Array {
  const size = from.length;
  let numbers = from;
  let now = residuals(numbers);
  let cost = squares(now);
  let damping = 1e-2;
  for (let step = 0; step < steps; step++) {
    const slopes = Array.from({ length: size }, (_, each) => {
      const by = 1e-3;
      const moved = Float64Array.from(numbers);
      moved[each] += by;
      const then = residuals(moved);
      for (let at = 0; at < then.length; at++) then[at] = (then[at] - now[at]) / by;
      return then;
    });
    const normal = Array.from({ length: size }, (_, a) =>
      Array.from({ length: size + 1 }, (_, b) => -product(slopes[a], b < size ? slopes[b] : now) * (b < size ? -1 : 1)),
    );
    let better = false;
    for (let attempt = 0; attempt < 6 && !better; attempt++) {
      const damped = normal.map((row, each) => row.with(each, row[each] * (1 + damping) + 1e-9));
      const change = solve(damped);
      const tried = numbers.map((value, each) => value + change[each]);
      const then = residuals(tried);
      const sum = squares(then);
      if (sum < cost) {
        const little = cost - sum < 1e-5 * cost;
        [numbers, now, cost, better] = [tried, then, sum, true];
        damping = Math.max(1e-7, damping / 5);
        if (little) return numbers;
      } else damping *= 6;
    }
    if (!better) break;
  }
  return numbers;
}

function squares(values: Float64Array): number {
  let sum = 0;
  for (const value of values) sum += value * value;
  return sum;
}

function product(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let at = 0; at < a.length; at++) sum += a[at] * b[at];
  return sum;
}
