import { useState } from 'react';
import { BookedLine, Entry } from '@crow/contract/ledger';
import { EnteredLine } from '@crow/contract/ledgerLines';
import { BookCountry } from '@crow/core/ledger/books/taxCodes';
import { CategoryChoice, TaxChoice } from '../../parts/books/PartsEditor';
import { Button, inputLook, Tick } from '../../parts/controls';
import { shownDay } from '../../parts/days';
import { money } from '../../parts/words';
import { useEscape } from './useEscape';
import { WhoInput } from './WhoInput';

interface LineStripProps {
  line: BookedLine;
  /** What was entered before: the next of somebody is likely as the last one was. */
  entries: readonly Entry[];
  country: BookCountry;
  onSave: (as: EnteredLine, remember: boolean) => void;
  onClose: () => void;
  busy: boolean;
}

const FIELD = `${inputLook} h-8`;

/** `TARROW ESTATES LTD` as a name is written. */
const asName = (text: string): string =>
  text === text.toUpperCase() ? text.toLowerCase().replace(/(^|[\s-])\p{L}/gu, (letter) => letter.toUpperCase()) : text;

/** Along the foot of the page: a line of a statement for which no bill comes is entered under a category. */
export function LineStrip({ line, entries, country, onSave, onClose, busy }: LineStripProps) {
  const form = useEscape(onClose);
  const [as, setAs] = useState<EnteredLine>({
    lineId: line.id,
    who: asName(line.who || line.text).slice(0, 200),
    what: '',
    categoryId: null,
    taxCode: `${country}-N`,
    rate: null,
  });
  const [remember, setRemember] = useState(true);
  const put = (change: Partial<EnteredLine>) => setAs((before) => ({ ...before, ...change }));
  const guess = () => {
    const last = entries.findLast(({ who }) => who.toLowerCase() === as.who.trim().toLowerCase());
    if (!last || as.categoryId) return;
    const [{ categoryId, taxCode, rate }] = last.parts;
    put({ who: last.who, what: as.what || last.what, categoryId, taxCode, rate });
  };
  return (
    <form
      ref={form}
      aria-label={`Enter the line of ${shownDay(line.day)}`}
      className="flex shrink-0 flex-wrap items-end gap-x-3 gap-y-2 border-t border-rule bg-sunken px-3 py-2 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        if (as.who.trim()) onSave(as, remember);
      }}
    >
      <p className="basis-full">
        {shownDay(line.day)} · {[line.who, line.text].filter(Boolean).join(' · ')} ·{' '}
        <strong className="font-mono">{money({ units: line.units, currency: line.currency })}</strong>
      </p>
      <span className="min-w-44 flex-1">
        <span aria-hidden className="block text-xs text-quiet">
          Who
        </span>
        <WhoInput
          entries={entries}
          // Whoever asks for the line types into it next.
          autoFocus
          className={FIELD}
          value={as.who}
          onFocus={(event) => event.target.select()}
          onChange={({ target }) => put({ who: target.value })}
          onBlur={guess}
        />
      </span>
      <label className="min-w-32 flex-1">
        <span className="block text-xs text-quiet">What</span>
        <input
          className={FIELD}
          value={as.what}
          autoComplete="off"
          onChange={({ target }) => put({ what: target.value })}
        />
      </label>
      <span className="w-48">
        <span aria-hidden className="block text-xs text-quiet">
          Category
        </span>
        <CategoryChoice label="Category" value={as.categoryId ?? null} onChange={(categoryId) => put({ categoryId })} />
      </span>
      <span className="w-48">
        <span aria-hidden className="block text-xs text-quiet">
          Tax
        </span>
        <TaxChoice
          label="Tax"
          value={as.taxCode ?? null}
          day={line.day}
          country={country}
          onChange={(taxCode, rate) => put({ taxCode, rate })}
        />
      </span>
      <Tick checked={remember} onChange={setRemember}>
        Propose this for lines like it
      </Tick>
      <span className="flex gap-2">
        <Button main type="submit" disabled={busy || !as.who.trim()} hint="Enter">
          Enter it
        </Button>
        <Button onClick={onClose} hint="Esc">
          Cancel
        </Button>
      </span>
    </form>
  );
}
