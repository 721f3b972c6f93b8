import { useRef, useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { EntriesRead } from '@crow/contract/ledgerLines';
import { ENTRY_COLUMNS, EntryColumn } from '@crow/core/ledger/books/entriesTable';
import { reportOf, sendEntries } from '../../api';
import { Button, Choice, ProblemText, Tick } from '../../parts/controls';
import { shownDay } from '../../parts/days';
import { useNotices } from '../../parts/notices';
import { queryStale } from '../../parts/stale';
import { count, money } from '../../parts/words';
import { useChange } from '../../queries';

/** A file that was looked at, before its entries are taken in. */
interface Looked {
  file: File;
  read?: EntriesRead;
  problem?: unknown;
}

const NOTHING = '';
const COLUMN_NAMES: Record<EntryColumn, string> = {
  day: 'date',
  due: 'due date',
  who: 'who',
  what: 'what',
  number: 'number',
  total: 'total',
  out: 'to be paid',
  in: 'to be received',
  net: 'net',
  tax: 'tax',
  rate: 'tax rate',
  category: 'category',
  currency: 'currency',
};
const CHOICES = [
  { value: NOTHING, name: 'nothing' },
  ...ENTRY_COLUMNS.map((value) => ({ value: value as string, name: COLUMN_NAMES[value] })),
];

/** Entries that were made elsewhere: what each column of their file holds is shown, put right, remembered; then they are taken in. */
export function ImportPane({ onDone }: { onDone: () => void }) {
  const { tell } = useNotices();
  const input = useRef<HTMLInputElement>(null);
  const [looked, setLooked] = useState<Looked>();
  const [busy, setBusy] = useState(false);
  const takeOut = useChange(endpoints.takeOutEntries, ['ledger']);

  const look = async (file: File, wish: { columns?: string; turned?: boolean } = {}) => {
    setBusy(true);
    try {
      setLooked({ file, read: await sendEntries(file, { look: true, ...wish }) });
    } catch (problem) {
      setLooked({ file, problem });
    }
    setBusy(false);
  };
  const wishOf = ({ columns, turned }: EntriesRead) => ({
    columns: columns.map((each) => each ?? NOTHING).join(','),
    turned,
  });
  /** A column that another one is said to hold now holds nothing. */
  const put = ({ file }: Looked, read: EntriesRead, at: number, to: string) => {
    const columns = read.columns.map((each, other) => (other === at ? to : each === to ? NOTHING : (each ?? NOTHING)));
    void look(file, { columns: columns.join(','), turned: read.turned });
  };
  const takeIn = async ({ file }: Looked, read: EntriesRead) => {
    setBusy(true);
    try {
      const { ids } = await sendEntries(file, wishOf(read));
      for (const key of ['ledger', 'books', 'overview']) queryStale(key);
      tell({
        text: `${count(ids.length, 'entry', 'entries')} of “${file.name}” ${ids.length === 1 ? 'is' : 'are'} in the books.`,
        action: { label: 'Undo', run: () => takeOut.mutate({ body: { ids } }) },
      });
      onDone();
    } catch (error) {
      tell({ error });
    }
    setBusy(false);
  };
  const { read } = looked ?? {};
  return (
    <div className="min-h-0 flex-1 space-y-4 overflow-y-auto p-4 md:px-6">
      <div className="flex flex-wrap items-center gap-3">
        <Button main={!read} onClick={() => input.current?.click()} disabled={busy}>
          Choose a file …
        </Button>
        <p className="text-quiet">
          Entries that were made elsewhere, as CSV: a row for each, a head above the columns. What is there already is
          not taken in twice.
        </p>
        <input
          ref={input}
          type="file"
          hidden
          aria-label="Entries"
          accept=".csv,.txt,.tsv"
          onChange={({ target }) => {
            const [file] = target.files ?? [];
            if (file) void look(file);
            target.value = '';
          }}
        />
      </div>
      {looked?.problem !== undefined && <ProblemText report={reportOf(looked.problem)} />}
      {looked && read && (
        <section aria-label={looked.file.name} className="space-y-3 border-l-2 border-accent bg-raised p-3">
          <h2 className="font-semibold">{looked.file.name}</h2>
          <p role="status">
            <strong>{count(read.fresh, 'new entry', 'new entries')}</strong>
            {read.known > 0 && <>, {count(read.known, 'entry', 'entries')} in the books already</>}
            {read.wrong > 0 && (
              <span className="text-attention">
                , {count(read.wrong, 'row')} that {read.wrong === 1 ? 'is' : 'are'} none
              </span>
            )}
            .{read.remembered && ' Its columns are as you said the last time.'}
          </p>
          <fieldset>
            <legend className="mb-1 text-quiet">What its columns hold</legend>
            <div className="flex flex-wrap gap-x-4 gap-y-2">
              {read.head.map((name, at) => (
                <span key={at} className="flex items-center gap-2">
                  <span aria-hidden className="font-mono text-xs">
                    {name || `column ${at + 1}`}
                  </span>
                  <Choice
                    label={`${name || `Column ${at + 1}`} holds`}
                    value={read.columns[at] ?? NOTHING}
                    choices={CHOICES}
                    onChange={(to) => put(looked, read, at, to)}
                  />
                </span>
              ))}
            </div>
          </fieldset>
          <Tick checked={read.turned} onChange={(turned) => void look(looked.file, { ...wishOf(read), turned })}>
            Its amounts are to be received, not to be paid
          </Tick>
          {read.sample.length > 0 && (
            <table className="text-sm" aria-label="The first entries as they were understood">
              <tbody>
                {read.sample.map(({ day, who, what, number, units, tax, currency }, row) => (
                  <tr key={row}>
                    <td className="pr-4 font-mono">{shownDay(day)}</td>
                    <td className="max-w-56 truncate pr-4">{who}</td>
                    <td className="max-w-64 truncate pr-4 text-quiet">{what}</td>
                    <td className="pr-4 font-mono">{number}</td>
                    <td className="pr-4 text-right font-mono">{money({ units, currency })}</td>
                    <td className="text-right font-mono text-quiet">
                      {tax !== 0 && `tax ${money({ units: tax, currency })}`}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {read.problems.length > 0 && (
            <ul aria-label="Rows that are no entries" className="text-sm text-attention">
              {read.problems.map(({ row, why }) => (
                <li key={row}>
                  ! Row {row}: {why}.
                </li>
              ))}
              {read.wrong > read.problems.length && <li>… and {read.wrong - read.problems.length} more.</li>}
            </ul>
          )}
          <div className="flex gap-2">
            <Button main disabled={busy || read.fresh === 0} onClick={() => void takeIn(looked, read)}>
              Take {count(read.fresh, 'entry', 'entries')} in
            </Button>
            <Button onClick={() => setLooked(undefined)}>Leave it</Button>
          </div>
        </section>
      )}
    </div>
  );
}
