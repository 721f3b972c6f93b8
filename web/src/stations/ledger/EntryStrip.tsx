import { ReactNode, useState } from 'react';
import { BookCountry, CURRENCY_OF } from '@crow/core/ledger/books/taxCodes';
import { Entry, EntryFields, entryProblem } from '@crow/contract/ledger';
import { AccountChoice, AmountField, PartsEditor, taxedAnew } from '../../parts/books/PartsEditor';
import { rateInWords } from '../../parts/books/words';
import { Button, inputLook } from '../../parts/controls';
import { shownDay, typedDay } from '../../parts/days';
import { useEscape } from './useEscape';
import { WhoInput } from './WhoInput';

interface StripProps {
  /** The entry that is changed; none for a new one. */
  entry?: Entry;
  /** What was entered before, the latest last: the next of a sender is likely as its last one was. */
  entries: readonly Entry[];
  country: BookCountry;
  /** Today (ISO 8601). */
  today: string;
  onSave: (fields: EntryFields) => void;
  onClose: () => void;
  busy: boolean;
}

const FIELD = `${inputLook} h-8`;

/** Along the foot of the page: an entry typed in one line, or changed; what earlier ones of the same sender had stands there already. */
export function EntryStrip({ entry, entries, country, today, onSave, onClose, busy }: StripProps) {
  const form = useEscape(onClose);
  const [fields, setFields] = useState<EntryFields>(() => entry ?? emptyEntry(country, today));
  const [days, setDays] = useState({ day: shownDay(fields.day), due: fields.due ? shownDay(fields.due) : '' });
  const [wrong, setWrong] = useState<string>();
  const put = (change: Partial<EntryFields>) => setFields((before) => ({ ...before, ...change }));
  /** The usual of a sender, once its name is there. */
  const guess = () => {
    if (entry || fields.parts.some(({ categoryId }) => categoryId)) return;
    const last = entries.findLast(({ who }) => who.toLowerCase() === fields.who.trim().toLowerCase());
    if (!last) return;
    const [{ categoryId, taxCode, rate }] = last.parts;
    const [part] = fields.parts;
    put({
      who: last.who,
      what: fields.what || last.what,
      currency: last.currency,
      accountId: fields.accountId ?? last.accountId,
      parts: [{ ...part, categoryId, taxCode, rate, ...taxedAnew(part, rate ?? null) }],
    });
  };
  const putTotal = (units: number) => {
    const [part] = fields.parts;
    const parts =
      fields.parts.length === 1 ? [{ ...part, ...taxedAnew({ net: units, tax: 0 }, part.rate ?? null) }] : fields.parts;
    put({ units, parts });
  };
  const save = () => {
    const ownUnits = fields.currency === CURRENCY_OF[country] ? null : fields.ownUnits;
    const whole = { ...fields, ownUnits, day: typedDay(days.day), due: days.due.trim() ? typedDay(days.due) : null };
    const problem = entryProblem(whole);
    setWrong(problem);
    if (!problem) onSave(whole);
  };
  return (
    <form
      ref={form}
      aria-label={entry ? `Entry ${entry.serial}` : 'A new entry'}
      className="shrink-0 border-t border-rule bg-sunken px-3 py-2 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <div className="flex flex-wrap items-start gap-x-3 gap-y-2">
        <Labelled name="Date" width="w-28">
          <input
            // Whoever asks for the line types into it next.
            autoFocus={!entry}
            aria-label="Date"
            className={`${FIELD} font-mono`}
            value={days.day}
            autoComplete="off"
            onFocus={(event) => event.target.select()}
            onChange={({ target }) => setDays({ ...days, day: target.value })}
          />
        </Labelled>
        <Labelled name="Who" width="min-w-44 flex-1">
          <WhoInput
            entries={entries}
            autoFocus={Boolean(entry)}
            className={FIELD}
            value={fields.who}
            onChange={({ target }) => put({ who: target.value })}
            onBlur={guess}
          />
        </Labelled>
        <Labelled name="What" width="min-w-32 flex-1">
          <input
            aria-label="What"
            className={FIELD}
            value={fields.what}
            autoComplete="off"
            onChange={({ target }) => put({ what: target.value })}
          />
        </Labelled>
        <Labelled name="Number" width="w-28">
          <input
            aria-label="Number"
            className={`${FIELD} font-mono`}
            value={fields.number}
            autoComplete="off"
            onChange={({ target }) => put({ number: target.value })}
          />
        </Labelled>
        <Labelled name="Total, minus for what comes in" width="w-52">
          <span className="flex gap-1">
            <AmountField
              label="Total"
              units={fields.units}
              currency={fields.currency}
              onChange={putTotal}
              className="h-8! border! border-rule bg-raised px-2"
            />
            <span className="w-14 shrink-0">
              <input
                aria-label="Currency"
                className={`${FIELD} font-mono`}
                value={fields.currency}
                maxLength={3}
                onChange={({ target }) => put({ currency: target.value.toUpperCase() })}
              />
            </span>
          </span>
        </Labelled>
        {fields.currency !== CURRENCY_OF[country] && (
          <Labelled name={`In ${CURRENCY_OF[country]}`} width="w-32">
            <AmountField
              label={`In ${CURRENCY_OF[country]}`}
              units={fields.ownUnits ?? 0}
              currency={CURRENCY_OF[country]}
              onChange={(ownUnits) => put({ ownUnits: ownUnits === 0 ? null : ownUnits })}
              className="h-8! border! border-rule bg-raised px-2"
            />
            <span className="font-mono text-xs whitespace-nowrap text-quiet">
              {rateInWords(fields, CURRENCY_OF[country])}
            </span>
          </Labelled>
        )}
        <Labelled name="Category and tax" width="min-w-80 flex-1">
          <PartsEditor
            across
            parts={fields.parts as Parameters<typeof PartsEditor>[0]['parts']}
            units={fields.units}
            currency={fields.currency}
            day={typedDay(days.day)}
            country={country}
            onChange={(parts) => put({ parts })}
          />
        </Labelled>
        <Labelled name="Paid from" width="w-52">
          <AccountChoice
            className={FIELD}
            value={fields.accountId ?? null}
            onChange={(accountId) => put({ accountId })}
          />
        </Labelled>
        <Labelled name="Due" width="w-28">
          <input
            aria-label="Due"
            className={`${FIELD} font-mono`}
            value={days.due}
            placeholder="not said"
            autoComplete="off"
            onChange={({ target }) => setDays({ ...days, due: target.value })}
          />
        </Labelled>
        <div className="flex gap-2 pt-5">
          <Button main type="submit" disabled={busy} hint="Enter">
            {entry ? 'Keep' : 'Enter it'}
          </Button>
          <Button onClick={onClose} hint="Esc">
            Cancel
          </Button>
        </div>
      </div>
      {wrong && (
        <p role="alert" className="mt-1 text-attention">
          ! {wrong[0].toUpperCase() + wrong.slice(1)}.
        </p>
      )}
    </form>
  );
}

function Labelled({ name, width, children }: { name: string; width: string; children: ReactNode }) {
  return (
    <div className={width}>
      <span aria-hidden className="block text-xs text-quiet">
        {name}
      </span>
      {children}
    </div>
  );
}

function emptyEntry(country: BookCountry, today: string): EntryFields {
  return {
    day: today,
    due: null,
    who: '',
    what: '',
    number: '',
    currency: CURRENCY_OF[country],
    units: 0,
    accountId: null,
    ownUnits: null,
    parts: [{ categoryId: null, taxCode: `${country}-N`, rate: null, net: 0, tax: 0 }],
  };
}
