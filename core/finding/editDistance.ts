/** The least number of letters to change, add or leave out (Levenshtein 1966). */
export function editDistance(a: string, b: string): number {
  let previous = Array.from({ length: b.length + 1 }, (_, index) => index);
  for (let row = 1; row <= a.length; row++) {
    const current = [row];
    for (let column = 1; column <= b.length; column++) {
      const change = previous[column - 1] + (a[row - 1] === b[column - 1] ? 0 : 1);
      current.push(Math.min(change, previous[column] + 1, current[column - 1] + 1));
    }
    previous = current;
  }
  return previous[b.length];
}
