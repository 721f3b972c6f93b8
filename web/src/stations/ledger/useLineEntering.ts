import { useMemo, useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { BookedLine, Ledger } from '@crow/contract/ledger';
import { EnteredLine } from '@crow/contract/ledgerLines';
import { useNotices } from '../../parts/notices';
import { count } from '../../parts/words';
import { useChange } from '../../queries';

/** How lines of statements are entered for which no bill comes: one by one, or as lines like them were before. */
export function useLineEntering({ asBefore }: Pick<Ledger, 'asBefore'>) {
  const { tell } = useNotices();
  const [line, setLine] = useState<BookedLine>();
  const proposed = useMemo(() => new Map(asBefore.map((each) => [each.lineId, each])), [asBefore]);
  const takeOut = useChange(endpoints.takeOutEntries, ['ledger']);
  const enter = useChange(endpoints.enterLines, ['ledger'], (made) => {
    const [{ serial }] = made;
    tell({
      text: made.length === 1 ? `It is entry ${serial}.` : `${count(made.length, 'line')} of statements entered.`,
      action: { label: 'Undo', run: () => takeOut.mutate({ body: { ids: made.map(({ id }) => id) } }) },
    });
  });
  return {
    /** The line that is being entered by hand. */
    line,
    setLine,
    proposed,
    busy: enter.isPending,
    /** Enters a line as lines like it were before; else asks how. */
    enterLine: (of: BookedLine) => {
      const as = proposed.get(of.id);
      if (as) enter.mutate({ body: { lines: [as], remember: false } });
      else setLine(of);
    },
    enterProposed: () => {
      if (asBefore.length > 0) enter.mutate({ body: { lines: asBefore.slice(0, MOST), remember: false } });
    },
    save: (as: EnteredLine, remember: boolean) =>
      enter.mutate({ body: { lines: [as], remember } }, () => setLine(undefined)),
  };
}

const MOST = 1000;
