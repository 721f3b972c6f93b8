/**
 * The page numbers that somebody names, such as “2-5, 8” or “7-” for all from 7 on; nothing typed means all.
 * @param of how many pages there are
 * @returns numbers from 1, in order and each once; undefined when it can't be understood or a page is not there
 */
export function readPageNumbers(typed: string, of: number): number[] | undefined {
  if (typed.trim() === '') return Array.from({ length: of }, (_, index) => index + 1);
  const numbers = new Set<number>();
  const parts = typed.replace(/\s*[-–]\s*(?=\d)/g, '-').split(/[,;\s]+/);
  for (const part of parts.filter((each) => each !== '')) {
    const match = /^(\d+)(?:([-–])(\d*))?$/.exec(part);
    if (!match) return undefined;
    const first = Number(match[1]);
    const last = match[2] ? (match[3] ? Number(match[3]) : of) : first;
    if (first < 1 || last > of || first > last) return undefined;
    for (let number = first; number <= last; number++) numbers.add(number);
  }
  return [...numbers].sort((a, b) => a - b);
}

/** Page numbers in the same words: runs of them joined by a dash. */
export function sayPageNumbers(numbers: number[]): string {
  const runs: [number, number][] = [];
  for (const number of numbers) {
    const last = runs[runs.length - 1];
    if (last && last[1] === number - 1) last[1] = number;
    else runs.push([number, number]);
  }
  return runs.map(([first, last]) => (first === last ? String(first) : `${first}-${last}`)).join(', ');
}
