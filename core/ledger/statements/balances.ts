import { StatementLine } from './statement';

/** Where balances do not go on: after a day, by so much. */
export interface Gap {
  day: string;
  units: number;
}

/**
 * Where the balance after a line is not the one before with the line's amount: lines are missing there. Files list their lines forwards or
 * backwards; whichever leaves fewer gaps is how this one does.
 */
export function balanceGaps(
  lines: readonly Pick<StatementLine, 'day' | 'units' | 'balance'>[],
  { opening, closing }: { opening: number | null; closing: number | null },
): Gap[] {
  const [forwards, backwards] = [lines, lines.toReversed()].map((ordered) => gapsIn(ordered, opening, closing));
  return backwards.length < forwards.length ? backwards : forwards;
}

function gapsIn(
  lines: readonly Pick<StatementLine, 'day' | 'units' | 'balance'>[],
  opening: number | null,
  closing: number | null,
): Gap[] {
  const gaps: Gap[] = [];
  let before = opening;
  for (const { day, units, balance } of lines) {
    const expected = before === null ? null : before + units;
    if (balance !== null && expected !== null && balance !== expected) gaps.push({ day, units: balance - expected });
    before = balance ?? expected;
  }
  if (closing !== null && before !== null && before !== closing)
    gaps.push({ day: lines.at(-1)?.day ?? '', units: closing - before });
  return gaps.filter(({ day }) => day !== '');
}
