import { SortingState } from '@tanstack/react-table';
import { useCallback, useMemo, useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { Books, BookTie, Entry, entryFields, EntryFields, Ledger } from '@crow/contract/ledger';
import { dayOf } from '@crow/core/reading/dayForms';
import { askFile } from '../../api';
import { saveFile } from '../../parts/saveFile';
import { Button, Choice, Empty, inputLook } from '../../parts/controls';
import { KeyWords, useKeys } from '../../parts/keys';
import { useNotices } from '../../parts/notices';
import { useMedium, useSmall } from '../../parts/useNarrow';
import { count } from '../../parts/words';
import { useChange } from '../../queries';
import { BookPage, sumsInWords } from './BookPage';
import { BookFilter, filtered, searchable, sumsOf } from './bookRows';
import { EntryStrip } from './EntryStrip';
import { LineStrip } from './LineStrip';
import { useLineEntering } from './useLineEntering';
import { PaperBeside } from './PaperBeside';

const FILTERS: { value: BookFilter; name: string }[] = [
  { value: 'all', name: 'all entries' },
  { value: 'open', name: 'not paid' },
  { value: 'no-paper', name: 'without a paper' },
  { value: 'no-category', name: 'without category or tax' },
  { value: 'proposed', name: 'with a proposed tie' },
  { value: 'not-checked', name: 'not checked' },
];
const KEYS: KeyWords = [
  ['n', 'Type an entry'],
  ['t', 'Tie what is sure'],
  ['b', 'Enter lines as before'],
  ['f', 'Filter'],
];

/** The book: what of it is shown, what is chosen in it, and what is done with that. */
export function Book({
  books,
  ledger,
  openId,
  onBringIn,
}: {
  books: Books;
  ledger: Ledger;
  openId?: string;
  /** Goes to where entries are brought in that were made elsewhere. */
  onBringIn: () => void;
}) {
  const { entries, lines, ties, asBefore } = ledger;
  const { tell } = useNotices();
  const [medium, small] = [useMedium(), useSmall()];
  const [sorting, setSorting] = useState<SortingState>([{ id: 'day', desc: true }]);
  const [words, setWords] = useState('');
  const [filter, setFilter] = useState<BookFilter>('all');
  const [year, setYear] = useState('');
  const [current, setCurrent] = useState<string | undefined>(openId);
  const [opened, setOpened] = useState<string | undefined>(openId);
  const [editing, setEditing] = useState<Entry | 'new'>();
  /** How many were typed one after the other: each begins anew, and none when others enter something meanwhile. */
  const [typed, setTyped] = useState(0);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [chosenLines, setChosenLines] = useState<ReadonlySet<string>>(new Set());

  const names = useMemo(() => new Map(books.categories.map(({ id, name }) => [id, name])), [books]);
  const categoryName = useCallback((id: string) => names.get(id) ?? '', [names]);
  const all = useMemo(() => searchable(entries, categoryName), [entries, categoryName]);
  const shown = useMemo(() => filtered(all, { words, filter, year }, ties), [all, words, filter, year, ties]);
  const isNarrowed = words.trim() !== '' || filter !== 'all';
  const shownLines = useMemo(() => {
    const ids = new Set(shown.map(({ id }) => id));
    const tied = new Set(ties.flatMap((tie) => (tie.entries.some((id) => ids.has(id)) ? tie.lines : [])));
    return lines.filter(({ id, day }) => (isNarrowed ? tied.has(id) : day.startsWith(year)));
  }, [lines, ties, shown, isNarrowed, year]);
  const years = useMemo(
    () => [...new Set([...entries, ...lines].map(({ day }) => day.slice(0, 4)))].sort().reverse(),
    [entries, lines],
  );

  const entering = useLineEntering({ asBefore });
  const putBack = useChange(endpoints.putBackEntry, ['ledger']);
  const takeOut = useChange(endpoints.takeOutEntry, ['ledger'], (_, { params: { id } }) =>
    tell({
      text: 'The entry is out of the books.',
      action: { label: 'Undo', run: () => putBack.mutate({ params: { id } }) },
    }),
  );
  const make = useChange(endpoints.makeEntry, ['ledger'], (made) => {
    setCurrent(made.id);
    tell({
      text: `It is entry ${made.serial}.`,
      action: { label: 'Undo', run: () => takeOut.mutate({ params: { id: made.id } }) },
    });
  });
  const changeBack = useChange(endpoints.changeEntry, ['ledger']);
  const change = useChange(endpoints.changeEntry, ['ledger'], ({ id, revision, serial }) => {
    const before = entries.find((each) => each.id === id);
    setEditing(undefined);
    if (!before) return;
    const fields = entryFields.cast(before, { stripUnknown: true }) as EntryFields;
    tell({
      text: `Entry ${serial} is changed.`,
      action: { label: 'Undo', run: () => changeBack.mutate({ params: { id }, body: { ...fields, revision } }) },
    });
  });
  const check = useChange(endpoints.checkEntries, ['ledger']);
  const takeOff = useChange(endpoints.takeOffTies, ['ledger']);
  const take = useChange(endpoints.takeTies, ['ledger'], (_, { body: { ids } }) =>
    tell({
      text: `${count(ids.length, 'tie is', 'ties are')} made.`,
      action: { label: 'Undo', run: () => takeOff.mutate({ body: { ids, refuse: false } }) },
    }),
  );
  const tieByHand = useChange(endpoints.makeTie, ['ledger'], ({ id }) => {
    setChosen(new Set());
    setChosenLines(new Set());
    tell({
      text: 'The tie is made.',
      action: { label: 'Undo', run: () => takeOff.mutate({ body: { ids: [id], refuse: false } }) },
    });
  });
  /** Off again; a tie that was made can be made again, and one that was proposed will be proposed again. */
  const takeTieOff = ({ id, made, entries: own, lines: those }: BookTie) =>
    takeOff.mutate({ body: { ids: [id], refuse: true } }, () =>
      tell({
        text: made ? 'The tie is off.' : 'This is not proposed again.',
        action: {
          label: 'Undo',
          run: () =>
            made
              ? tieByHand.mutate({ body: { entries: own, lines: those } })
              : takeOff.mutate({ body: { ids: [id], refuse: false } }),
        },
      }),
    );
  const sure = ties.filter((tie) => !tie.made && tie.sure);
  const takeSure = () => {
    if (sure.length > 0) take.mutate({ body: { ids: sure.map(({ id }) => id) } });
  };
  const save = (fields: EntryFields) => {
    if (editing === 'new') make.mutate({ body: fields }, () => setTyped((before) => before + 1));
    else if (editing) change.mutate({ params: { id: editing.id }, body: { ...fields, revision: editing.revision } });
  };
  const checkThem = (ids: string[], checked: boolean) =>
    check.mutate({ body: { ids, checked } }, () => setChosen(new Set()));
  const open = entries.find(({ id }) => id === opened);
  useKeys(
    {
      n: (event) => {
        event.preventDefault();
        setEditing('new');
      },
      t: takeSure,
      b: entering.enterProposed,
      f: (event) => {
        event.preventDefault();
        document.querySelector<HTMLElement>('[data-filter]')?.focus();
      },
      Escape: () => {
        if (editing) setEditing(undefined);
        else if (entering.line) entering.setLine(undefined);
        else if (opened) setOpened(undefined);
        else setChosen(new Set());
      },
    },
    KEYS,
  );
  if (entries.length === 0 && lines.length === 0 && !editing)
    return (
      <Empty title="Nothing is entered yet">
        <p>
          Bills and receipts are entered by themselves when they are filed in Check. You can also{' '}
          <button className="text-accent underline" onClick={() => setEditing('new')}>
            type an entry
          </button>
          , or{' '}
          <button className="text-accent underline" onClick={onBringIn}>
            bring entries in
          </button>{' '}
          that were made elsewhere.
        </p>
      </Empty>
    );
  const chosenEntries = entries.filter(({ id }) => chosen.has(id));
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="flex shrink-0 flex-wrap items-center gap-2 border-b border-rule px-3 py-1.5 md:px-6">
        <input
          data-filter
          type="search"
          aria-label="Filter the book"
          placeholder="Who, number, amount, category"
          className={`${inputLook} max-w-64`}
          value={words}
          onChange={({ target }) => setWords(target.value)}
        />
        <Choice label="Which" value={filter} choices={FILTERS} onChange={setFilter} />
        <Choice
          label="Year"
          value={year}
          choices={[{ value: '', name: 'all years' }, ...years.map((value) => ({ value, name: value }))]}
          onChange={setYear}
        />
        <span className="flex-1" />
        {sure.length > 0 && (
          <Button onClick={takeSure} hint="t" disabled={take.isPending}>
            Tie the {sure.length === 1 ? 'sure one' : `${sure.length} sure ones`}
          </Button>
        )}
        {asBefore.length > 0 && (
          <Button onClick={entering.enterProposed} hint="b" disabled={entering.busy}>
            Enter {count(asBefore.length, 'line')} as before
          </Button>
        )}
        <Button onClick={onBringIn}>Bring entries in …</Button>
        <Button main onClick={() => setEditing('new')} hint="n">
          Type an entry
        </Button>
      </div>
      <div className="flex min-h-0 flex-1">
        <BookPage
          entries={shown}
          lines={shownLines}
          ties={ties}
          sorting={sorting}
          onSorting={setSorting}
          categoryName={categoryName}
          current={current}
          onCurrent={setCurrent}
          chosen={chosen}
          chosenLines={chosenLines}
          onChoose={(id) => setChosen(toggled(chosen, id))}
          onChooseLine={(id) => setChosenLines(toggled(chosenLines, id))}
          onOpen={({ id }) => {
            setCurrent(id);
            setOpened(id);
          }}
          onEdit={setEditing}
          onCheck={({ id, checkedAt }) => checkThem([id], !checkedAt)}
          onTakeOut={({ id }) => takeOut.mutate({ params: { id } })}
          onTake={({ id }) => take.mutate({ body: { ids: [id] } })}
          onTakeOff={takeTieOff}
          asBefore={entering.proposed}
          onEnterLine={(line) => {
            setEditing(undefined);
            entering.enterLine(line);
          }}
          wide={!medium && !open}
          small={small}
        />
        {open && (
          <div className="contents max-md:fixed max-md:inset-0 max-md:z-30 max-md:flex max-md:bg-sunken">
            <PaperBeside key={open.id} entry={open} onClose={() => setOpened(undefined)} />
          </div>
        )}
      </div>
      {(chosen.size > 0 || chosenLines.size > 0) && (
        <div
          role="toolbar"
          aria-label="What is chosen"
          className="flex shrink-0 flex-wrap items-center gap-2 border-t border-rule bg-sunken px-3 py-1.5 md:px-6"
        >
          <span className="mr-2">
            {count(chosen.size, 'entry', 'entries')}
            {chosenLines.size > 0 && `, ${count(chosenLines.size, 'line')} of statements`} chosen
            {chosenEntries.length > 0 && `: ${sumsInWords(sumsOf(chosenEntries))}`}
          </span>
          {chosen.size > 0 && chosenLines.size > 0 && (
            <Button main onClick={() => tieByHand.mutate({ body: { entries: [...chosen], lines: [...chosenLines] } })}>
              Tie them
            </Button>
          )}
          {chosen.size === 0 && chosenLines.size === 2 && (
            <Button main onClick={() => tieByHand.mutate({ body: { entries: [], lines: [...chosenLines] } })}>
              They are one transfer
            </Button>
          )}
          {chosenEntries.length === 1 && <Button onClick={() => setEditing(chosenEntries[0])}>Change it</Button>}
          {chosenEntries.some(isToPay) && (
            <PaymentFile entries={chosenEntries.filter(isToPay)} accounts={books.accounts} today={dayOf(new Date())} />
          )}
          {chosenEntries.some(({ checkedAt }) => !checkedAt) && (
            <Button
              onClick={() =>
                checkThem(
                  chosenEntries.map(({ id }) => id),
                  true,
                )
              }
            >
              Checked
            </Button>
          )}
          {chosenEntries.some(({ checkedAt }) => checkedAt) && (
            <Button
              onClick={() =>
                checkThem(
                  chosenEntries.map(({ id }) => id),
                  false,
                )
              }
            >
              Unlock
            </Button>
          )}
          <Button
            onClick={() => {
              setChosen(new Set());
              setChosenLines(new Set());
            }}
          >
            None
          </Button>
        </div>
      )}
      {editing ? (
        <EntryStrip
          key={editing === 'new' ? `new ${typed}` : editing.id}
          entry={editing === 'new' ? undefined : editing}
          entries={entries}
          country={books.country}
          today={dayOf(new Date())}
          onSave={save}
          onClose={() => setEditing(undefined)}
          busy={make.isPending || change.isPending}
        />
      ) : entering.line ? (
        <LineStrip
          key={entering.line.id}
          line={entering.line}
          entries={entries}
          country={books.country}
          onSave={entering.save}
          onClose={() => entering.setLine(undefined)}
          busy={entering.busy}
        />
      ) : (
        <footer
          aria-label="What is shown comes to"
          className="flex shrink-0 flex-wrap justify-between gap-x-6 border-t-2 border-rule bg-ground px-3 py-1.5 md:px-6"
        >
          <span className="text-quiet">{count(shown.length, 'entry', 'entries')} shown</span>
          <span className="font-mono">{sumsInWords(sumsOf(shown))}</span>
        </footer>
      )}
    </div>
  );
}

const isToPay = ({ paid, units, currency }: Entry): boolean => paid < units && currency === 'EUR';

/** Saves what is to be paid of entries as a file that a bank takes. */
function PaymentFile({
  entries,
  accounts,
  today,
}: {
  entries: readonly Entry[];
  accounts: Books['accounts'];
  today: string;
}) {
  const { tell } = useNotices();
  // The account that pays in euros, with its number.
  const account = accounts.find(({ kind, retired, number }) => kind === 'bank' && !retired && number);
  const save = async () => {
    try {
      const accountId = account?.id ?? accounts[0].id;
      const body = { ids: entries.map(({ id }) => id), accountId, on: today };
      const { bytes, name } = await askFile(endpoints.savePayments, { body });
      saveFile(bytes, name);
    } catch (error) {
      tell({ error });
    }
  };
  return <Button onClick={() => void save()}>Save {count(entries.length, 'payment')} for the bank</Button>;
}

function toggled(set: ReadonlySet<string>, id: string): ReadonlySet<string> {
  const next = new Set(set);
  if (!next.delete(id)) next.add(id);
  return next;
}
