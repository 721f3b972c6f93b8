/** How much more often round amounts are seen than others. */
export function roundness(units: number): number {
  return units % 10_000 === 0 ? 6 : units % 1000 === 0 ? 3 : units % 100 === 0 ? 1.5 : 0;
}

/** Where a value belongs among sorted ones. */
export function placeIn(sorted: Float64Array, value: number): number {
  let [from, to] = [0, sorted.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if (sorted[middle] < value) from = middle + 1;
    else to = middle;
  }
  return from;
}

/** The amounts that a text says, with a point or a comma, or in whole behind a currency, in hundredths. */
export function amountsSaid(text: string): Set<number> {
  const plain = text.replace(/(?<=\d)[.,' ](?=\d{3}(?!\d))/g, '');
  const found = new Set<number>();
  for (const [, whole, rest] of plain.matchAll(/(?<![\d.,])(\d{1,9})[.,](\d{2})(?!\d)/g))
    found.add(Number(whole) * 100 + Number(rest));
  for (const [, whole] of plain.matchAll(/\b[A-Z]{3} ?(\d{1,9})(?![\d.,])/g)) found.add(Number(whole) * 100);
  return found;
}
