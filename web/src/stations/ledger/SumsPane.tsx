import { useMemo, useState } from 'react';
import { DropdownMenu } from 'radix-ui';
import { endpoints } from '@crow/contract/endpoints';
import { Books, Ledger, LEDGER_FORMS, LedgerForm } from '@crow/contract/ledger';
import { AGES, owedByAge } from '@crow/core/ledger/books/ages';
import { accountSums, AccountSum } from '@crow/core/ledger/books/accountSums';
import { COMES_IN, inOwnMoney, SummedBy, SumRow, sumsBy } from '@crow/core/ledger/books/bookSums';
import { CURRENCY_OF, nameOfCode } from '@crow/core/ledger/books/taxCodes';
import { later } from '../../parts/later';
import { askFile } from '../../api';
import { Button, Choice, inputLook } from '../../parts/controls';
import { shownDay, typedDay } from '../../parts/days';
import { menuItemLook, menuLook } from '../../parts/menu';
import { monthName } from '../../parts/months';
import { useNotices } from '../../parts/notices';
import { saveFile } from '../../parts/saveFile';
import { count, figure } from '../../parts/words';
import { useChange } from '../../queries';
import { sumsOf } from './bookRows';

const BookChart = later(
  async () => (await import('./BookChart')).default,
  () => <div className="h-56" />,
);

const BY: { value: SummedBy; name: string }[] = [
  { value: 'category', name: 'by category' },
  { value: 'month', name: 'by month' },
  { value: 'tax', name: 'by treatment of tax' },
  { value: 'who', name: 'by who' },
];
/** Months from and to. */
const SPANS = [
  { value: '1-12', name: 'whole year' },
  ...[1, 2, 3, 4].map((quarter) => ({
    value: `${3 * quarter - 2}-${3 * quarter}` as const,
    name: `quarter ${quarter}`,
  })),
  ...Array.from({ length: 12 }, (_, at) => ({
    value: `${at + 1}-${at + 1}` as const,
    name: monthName(`2000-${String(at + 1).padStart(2, '0')}`).replace(' 2000', ''),
  })),
];
type Span = (typeof SPANS)[number]['value'];

const FORMS: Record<LedgerForm, string> = {
  xlsx: 'Spreadsheet (XLSX)',
  csv: 'Comma-separated values (CSV)',
  json: 'Data (JSON)',
  journal: 'Journal of double entries (text)',
};

/** What the books come to: a year beside the one before, what is owed, and how they are saved and handed over. */
export function SumsPane({ books, ledger, today }: { books: Books; ledger: Ledger; today: string }) {
  const { entries, lines } = ledger;
  const own = CURRENCY_OF[books.country];
  const years = useMemo(() => [...new Set(entries.map(({ day }) => day.slice(0, 4)))].sort().reverse(), [entries]);
  const currencies = useMemo(() => sumsOf(entries).map(({ currency }) => currency), [entries]);
  const [year, setYear] = useState(years[0] ?? today.slice(0, 4));
  const [currency, setCurrency] = useState(currencies.includes(own) ? own : (currencies[0] ?? own));
  const [by, setBy] = useState<SummedBy>('category');
  // In the money of the books stands what is in another as well, as far as it is known what that comes to.
  const summed = useMemo(
    () => (currency === own ? inOwnMoney(entries, own) : { entries, unknown: 0 }),
    [entries, currency, own],
  );
  const [span, setSpan] = useState<Span>('1-12');
  const rows = useMemo(() => {
    const [first, last] = span.split('-').map(Number);
    const income = new Set(books.categories.flatMap(({ id, side }) => (side === 'income' ? id : [])));
    return sumsBy(summed.entries, by, { year, currency, months: [first, last], isIncome: (id) => income.has(id) });
  }, [summed, by, year, currency, span, books]);
  const months = useMemo(() => sumsBy(summed.entries, 'month', { year, currency }), [summed, year, currency]);
  const accounts = useMemo(() => accountSums(books.accounts, { entries, lines }, year), [books, entries, lines, year]);
  const aged = useMemo(() => owedByAge(entries, currency, today), [entries, currency, today]);
  const categories = new Map(books.categories.map(({ id, name }) => [id, name]));
  const nameOf = (key: string): string => {
    if (by === 'month') return monthName(`${year}-${key}`);
    if (by === 'category') return categories.get(key) ?? 'No category';
    if (by === 'tax') {
      const code = key.replace(COMES_IN, '');
      const name = code ? `${nameOfCode(code, `${year}-12-31`)} (${code})` : 'Not known';
      return key.startsWith(COMES_IN) ? `Coming in: ${name}` : name;
    }
    return key;
  };
  const show = (units: number) => figure({ units, currency });
  const all = rows.reduce(
    (sum, row) => ({
      net: sum.net + row.net,
      tax: sum.tax + row.tax,
      total: sum.total + row.total,
      before: sum.before + row.before,
    }),
    { net: 0, tax: 0, total: 0, before: 0 },
  );
  return (
    <div className="min-h-0 flex-1 overflow-y-auto px-3 py-3 md:px-6">
      <div className="mb-3 flex flex-wrap items-center gap-3">
        <Choice label="Year" value={year} choices={years.map((value) => ({ value, name: value }))} onChange={setYear} />
        <Choice label="Time" value={span} choices={SPANS} onChange={setSpan} />
        <Choice label="Added up" value={by} choices={BY} onChange={setBy} />
        {currencies.length > 1 && (
          <Choice
            label="Currency"
            value={currency}
            choices={currencies.map((value) => ({ value, name: value }))}
            onChange={setCurrency}
          />
        )}
        <span className="flex-1" />
        <SaveAs year={year} />
      </div>
      <div className="flex flex-wrap items-start gap-x-10 gap-y-6">
        <div className="max-w-full flex-1 overflow-x-auto">
          {summed.unknown > 0 && (
            <p className="mb-2 text-sm text-attention">
              ! {count(summed.unknown, 'entry', 'entries')} in other money {summed.unknown === 1 ? 'is' : 'are'} not in
              this: nobody has said what {summed.unknown === 1 ? 'it comes' : 'they come'} to in {own}, and{' '}
              {summed.unknown === 1 ? 'it is' : 'they are'} not paid in it.
            </p>
          )}
          <table
            className="w-full min-w-[560px] text-sm"
            aria-label={`${span === '1-12' ? '' : `${SPANS.find(({ value }) => value === span)!.name} `}${year} in ${currency}`}
          >
            <thead>
              <tr>
                {['', 'Entries', 'Net', 'Tax', 'Total', String(Number(year) - 1), 'Change'].map((name, at) => (
                  <th
                    key={name}
                    scope="col"
                    className={`border-b-2 border-rule py-1 font-semibold ${at === 0 ? 'text-left' : 'pl-4 text-right'}`}
                  >
                    {name || <span className="sr-only">What</span>}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <tr key={row.key}>
                  <th scope="row" className="border-b border-rule py-1 text-left font-normal">
                    {nameOf(row.key)}
                  </th>
                  {[
                    String(row.entries),
                    show(row.net),
                    show(row.tax),
                    show(row.total),
                    show(row.before),
                    show(row.total - row.before),
                  ].map((text, at) => (
                    <td key={at} className="border-b border-rule py-1 pl-4 text-right font-mono">
                      {text}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
            <tfoot>
              <tr className="font-semibold">
                <th scope="row" className="py-1 text-left">
                  All together
                </th>
                {[
                  '',
                  show(all.net),
                  show(all.tax),
                  show(all.total),
                  show(all.before),
                  show(all.total - all.before),
                ].map((text, at) => (
                  <td key={at} className="py-1 pl-4 text-right font-mono">
                    {text}
                  </td>
                ))}
              </tr>
            </tfoot>
          </table>
          {by === 'tax' && <TaxDue rows={rows} show={show} />}
        </div>
        <div className="w-[420px] max-w-full space-y-6">
          <figure>
            <BookChart months={months} year={year} currency={currency} />
            <figcaption className="text-xs text-quiet">
              By month: above the line more went out than came in, below it more came in.
            </figcaption>
          </figure>
          <table className="w-full text-sm" aria-label={`Owed, in ${currency}`}>
            <thead>
              <tr>
                {['Due', 'To pay', 'To come'].map((name, at) => (
                  <th
                    key={name}
                    scope="col"
                    className={`border-b-2 border-rule py-1 font-semibold ${at === 0 ? 'text-left' : 'text-right'}`}
                  >
                    {name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {AGES.map((age, at) => (
                <tr key={age}>
                  <th scope="row" className="border-b border-rule py-1 text-left font-normal">
                    {at === 0 ? 'not yet' : at === AGES.length - 1 ? 'for longer than 90 days' : `for ${age}`}
                  </th>
                  <td className="border-b border-rule py-1 text-right font-mono">{show(aged.toPay[at])}</td>
                  <td className="border-b border-rule py-1 text-right font-mono">{show(aged.toCome[at])}</td>
                </tr>
              ))}
            </tbody>
          </table>
          <AccountBalances accounts={accounts} year={year} />
          <HandOver entries={entries} today={today} closedUntil={books.closedUntil} />
        </div>
      </div>
    </div>
  );
}

/** What was charged of tax and what was paid of it: two figures of a return, and what lies between them. */
function TaxDue({ rows, show }: { rows: readonly SumRow[]; show: (units: number) => string }) {
  const sum = (comesIn: boolean) =>
    rows.filter(({ key }) => key.startsWith(COMES_IN) === comesIn).reduce((total, { tax }) => total + tax, 0);
  const [charged, paid] = [-sum(true), sum(false)];
  return (
    <p className="mt-2 text-sm" role="status">
      Tax charged <span className="font-mono">{show(charged)}</span>, tax paid{' '}
      <span className="font-mono">{show(paid)}</span>: <strong className="font-mono">{show(charged - paid)}</strong>{' '}
      apart. What of it can be reclaimed, and what is reverse-charged, is not judged here.
    </p>
  );
}

/** What was on each account when the year began, what came in and went out, and what is on it at its end. */
function AccountBalances({ accounts, year }: { accounts: readonly AccountSum[]; year: string }) {
  if (accounts.length === 0) return null;
  return (
    <table className="w-full text-sm" aria-label={`Accounts in ${year}`}>
      <thead>
        <tr>
          {['Account', 'At first', 'In', 'Out', 'At last'].map((name, at) => (
            <th
              key={name}
              scope="col"
              className={`border-b-2 border-rule py-1 font-semibold ${at === 0 ? 'text-left' : 'text-right'}`}
            >
              {name}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {accounts.map(({ id, name, currency, opening, received, spent, closing }) => (
          <tr key={id}>
            <th scope="row" className="border-b border-rule py-1 text-left font-normal">
              {name} <span className="text-xs text-quiet">{currency}</span>
            </th>
            {[opening, received, spent, closing].map((units, at) => (
              <td key={at} className="border-b border-rule py-1 pl-3 text-right font-mono">
                {units === null ? <span title="Nobody has said what was on it">?</span> : figure({ units, currency })}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function SaveAs({ year }: { year: string }) {
  const { tell } = useNotices();
  const save = async (as: LedgerForm) => {
    try {
      const { bytes, name } = await askFile(endpoints.exportLedger, { query: { as, year } });
      saveFile(bytes, name);
    } catch (error) {
      tell({ error });
    }
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button>Save {year} as …</Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className={menuLook} align="end">
          {LEDGER_FORMS.map((form) => (
            <DropdownMenu.Item key={form} className={menuItemLook} onSelect={() => void save(form)}>
              {FORMS[form]}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** The quarter before a day, as its first and last day. */
export function quarterBefore(today: string): [string, string] {
  const [year, month] = today.split('-').map(Number);
  const first = Math.floor((month - 1) / 3) * 3 - 3;
  const day = (at: Date) => at.toISOString().slice(0, 10);
  return [day(new Date(Date.UTC(year, first, 1))), day(new Date(Date.UTC(year, first + 3, 0)))];
}

/** A period is checked as a whole, and saved for whoever does the accounts. */
function HandOver({
  entries,
  today,
  closedUntil,
}: {
  entries: Ledger['entries'];
  today: string;
  closedUntil: string | null;
}) {
  const { tell } = useNotices();
  const [first, last] = quarterBefore(today);
  const [from, setFrom] = useState(shownDay(first));
  const [to, setTo] = useState(shownDay(last));
  const [busy, setBusy] = useState(false);
  const days = { from: typedDay(from), to: typedDay(to) };
  const inside = entries.filter(({ day }) => days.from <= day && day <= days.to);
  const unchecked = inside.filter(({ checkedAt }) => !checkedAt).map(({ id }) => id);
  const unlock = useChange(endpoints.checkEntries, ['ledger']);
  const change = useChange(endpoints.changeBooks, ['ledger']);
  const check = useChange(endpoints.checkEntries, ['ledger']);
  /** Everything in it is checked and locked, and nothing comes in any more; what was closed before stays so. */
  const close = async () => {
    const until = closedUntil !== null && closedUntil > days.to ? closedUntil : days.to;
    try {
      for (let from = 0; from < unchecked.length; from += MOST_CHECKED)
        await check.mutateAsync({ body: { ids: unchecked.slice(from, from + MOST_CHECKED), checked: true } });
      await change.mutateAsync({ body: { closedUntil: until } });
    } catch {
      return;
    }
    const back = async () => {
      await change.mutateAsync({ body: { closedUntil } });
      if (unchecked.length > 0) await unlock.mutateAsync({ body: { ids: unchecked, checked: false } });
    };
    tell({
      text: `The books are closed until ${shownDay(until)}.`,
      action: { label: 'Undo', run: () => void back().catch(() => undefined) },
    });
  };
  const reopen = () =>
    change.mutate({ body: { closedUntil: null } }, () =>
      tell({
        text: 'The books are open again; entries that are checked stay locked.',
        action: { label: 'Undo', run: () => change.mutate({ body: { closedUntil } }) },
      }),
    );
  const save = async () => {
    setBusy(true);
    try {
      const { bytes, name } = await askFile(endpoints.exportPeriod, { query: days });
      saveFile(bytes, name);
    } catch (error) {
      tell({ error });
    }
    setBusy(false);
  };
  const lacking = inside.filter(({ papers }) => !papers.some(({ role }) => role === 'proof')).length;
  return (
    <section aria-label="Hand a period over" className="space-y-2 border-l-2 border-rule pl-3 text-sm">
      <h2 className="font-semibold">Hand a period over</h2>
      <div className="flex items-center gap-2">
        <input
          aria-label="From"
          className={`${inputLook} font-mono`}
          value={from}
          onChange={({ target }) => setFrom(target.value)}
        />
        to
        <input
          aria-label="To"
          className={`${inputLook} font-mono`}
          value={to}
          onChange={({ target }) => setTo(target.value)}
        />
      </div>
      <p>
        {count(inside.length, 'entry', 'entries')}
        {lacking > 0 && (
          <span className="text-attention">, {count(lacking, 'of them has', 'of them have')} no paper</span>
        )}
        {unchecked.length > 0 && `, ${unchecked.length} not checked`}.
      </p>
      <div className="flex flex-wrap gap-2">
        <Button
          disabled={
            !days.to ||
            check.isPending ||
            change.isPending ||
            (unchecked.length === 0 && days.to <= (closedUntil ?? ''))
          }
          onClick={() => void close()}
        >
          Check and close it
        </Button>
        <Button main disabled={busy || inside.length === 0} onClick={() => void save()}>
          Save for the accountant (ZIP)
        </Button>
      </div>
      {closedUntil && (
        <p>
          The books are closed until {shownDay(closedUntil)}: nothing before that changes or comes in.{' '}
          <button className="underline underline-offset-2" onClick={reopen}>
            Open them again
          </button>
        </p>
      )}
    </section>
  );
}

const MOST_CHECKED = 5000;
