import { StatementLine } from './statement';

/**
 * Which lines of several files are in an earlier one already, when these overlap in time. A line that one file has twice was booked twice.
 * @returns for each file, for each of its lines, whether it is there already
 */
export function alreadyThere(files: readonly (readonly StatementLine[])[]): boolean[][] {
  const known = new Map<string, number>();
  return files.map((lines) => {
    const own = new Map<string, number>();
    const there = lines.map((line) => {
      const key = keyOf(line);
      const count = (own.get(key) ?? 0) + 1;
      own.set(key, count);
      return count <= (known.get(key) ?? 0);
    });
    for (const [key, count] of own) known.set(key, Math.max(count, known.get(key) ?? 0));
    return there;
  });
}

function keyOf({ day, units, currency, who, text, id }: StatementLine): string {
  const said = `${who} ${text}`.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '');
  return [day, units, currency ?? '', id, said].join('\n');
}
