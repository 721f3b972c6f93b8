import { Statement, StatementLine } from '../statements/statement';
import { MatchLine, OpenEntry } from './entry';

/** A file that has its signs is turned only where this many amounts fit the other way, and as many times more than as they stand. */
const CLEARLY = 4;

/**
 * Lines of a statement turned so that more of their amounts are those of entries: what a card's statement lists without a sign, or as owed to it,
 * was paid. One that says which way money went is turned only where that is beyond doubt.
 */
export function turnedToFit<Line extends MatchLine>(
  lines: readonly Line[],
  entries: readonly OpenEntry[],
  { signed }: { signed: boolean },
): Line[] {
  const amounts = new Set(entries.map(({ units }) => units));
  const fits = (sign: 1 | -1) => lines.filter(({ units }) => amounts.has(-sign * units)).length;
  const [asTheyAre, turned] = [fits(1), fits(-1)];
  const isOther = signed ? turned >= CLEARLY && turned >= CLEARLY * asTheyAre : turned > asTheyAre;
  return isOther ? lines.map((line) => ({ ...line, units: -line.units })) : [...lines];
}

/** The lines of a statement as they pay entries: turned where the file leaves open which way money went, and they fit the other way. */
export function linesAsPaid<Line extends MatchLine & Pick<StatementLine, 'balance'>>(
  { format, signed, lines }: Pick<Statement, 'format' | 'signed'> & { lines: readonly Line[] },
  entries: readonly OpenEntry[],
): Line[] {
  // Of other formats signs are part of the standard; a balance says them, too.
  const isCertain = signed && (!['csv', 'paper'].includes(format) || lines.some(({ balance }) => balance !== null));
  return isCertain ? [...lines] : turnedToFit(lines, entries, { signed });
}
