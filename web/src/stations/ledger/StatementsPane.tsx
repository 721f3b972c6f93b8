import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { Books, StatementRead } from '@crow/contract/ledger';
import { ask, reportOf, sendStatement } from '../../api';
import { FORMAT_NAMES } from '../../parts/books/words';
import { Button, Choice, Empty, ProblemText } from '../../parts/controls';
import { shownDay, shownMoment } from '../../parts/days';
import { useNotices } from '../../parts/notices';
import { queryStale } from '../../parts/stale';
import { count, money } from '../../parts/words';
import { useChange, useStatements } from '../../queries';

/** A file, or a paper on the shelf. */
type Source = { name: string; file: File } | { name: string; documentId: string };

/** A statement that was looked at, before it is taken in. */
interface Looked {
  source: Source;
  read?: StatementRead;
  problem?: unknown;
  accountId?: string;
  /** Whether a person says that it is of an account that is not there yet. */
  another?: boolean;
  turned: boolean;
}

const ANOTHER = '';

const read = (source: Source, wish: Parameters<typeof sendStatement>[1]): Promise<StatementRead> =>
  'file' in source
    ? sendStatement(source.file, wish)
    : ask(endpoints.takeInPaper, { params: { id: source.documentId }, body: wish });

/** Statements of banks and cards: files are looked at, then taken in; and what was taken in before. */
export function StatementsPane({ books }: { books: Books }) {
  const { data: statements = [] } = useStatements();
  const { tell } = useNotices();
  const input = useRef<HTMLInputElement>(null);
  const [looked, setLooked] = useState<Looked[]>([]);
  const [busy, setBusy] = useState(false);
  const takeOut = useChange(endpoints.takeOutStatement, ['ledger'], () =>
    tell({ text: 'The statement is out of the books.' }),
  );
  const accountName = (id: string) => books.accounts.find((each) => each.id === id)?.name ?? 'Another account';

  const look = async (source: Source, wish: Pick<Looked, 'accountId' | 'another' | 'turned'>): Promise<Looked> => {
    try {
      const found = await read(source, { look: true, ...wish });
      return { source, read: found, ...wish, accountId: wish.accountId ?? found.accountId ?? undefined };
    } catch (error) {
      return { source, problem: error, ...wish };
    }
  };
  const choose = async (sources: Source[]) => {
    setBusy(true);
    for (const source of sources) {
      const next = await look(source, { turned: false });
      setLooked((before) => [...before, next]);
    }
    setBusy(false);
  };
  const change = async (at: number, wish: Partial<Pick<Looked, 'accountId' | 'another' | 'turned'>>) => {
    const { source, accountId, another, turned } = looked[at];
    const anew = await look(source, { accountId, another, turned, ...wish });
    setLooked((before) => before.map((each, other) => (other === at ? anew : each)));
  };
  const leave = (at: number) => setLooked((before) => before.filter((_, other) => other !== at));
  const takeIn = async (at: number) => {
    const { source, accountId, another, turned } = looked[at];
    setBusy(true);
    try {
      const { id, fresh, known } = await read(source, { accountId, another, turned });
      leave(at);
      const there = known > 0 ? `, ${count(known, 'line')} had been there` : '';
      tell({
        text: `${count(fresh, 'line')} of “${source.name}” ${fresh === 1 ? 'is' : 'are'} in the books${there}.`,
        action: { label: 'Undo', run: () => takeOut.mutate({ params: { id: id! } }) },
      });
      for (const key of ['ledger', 'statements', 'statementPapers', 'books', 'overview']) queryStale(key);
    } catch (error) {
      tell({ error });
    }
    setBusy(false);
  };
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-4">
      <div className="mb-4 flex flex-wrap items-center gap-3">
        <Button main onClick={() => input.current?.click()} disabled={busy}>
          Choose files …
        </Button>
        <p className="text-quiet">
          What your bank gives you as a file: CSV of any kind, OFX, CAMT.053, MT940 or QIF. Files may overlap.
        </p>
        <input
          ref={input}
          data-statements
          type="file"
          multiple
          hidden
          aria-label="Statements"
          accept=".csv,.txt,.ofx,.qfx,.xml,.sta,.mt940,.940,.qif"
          onChange={({ target }) => {
            void choose([...(target.files ?? [])].map((file) => ({ name: file.name, file })));
            target.value = '';
          }}
        />
      </div>
      <AmongPapers
        without={looked.flatMap(({ source }) => ('documentId' in source ? source.documentId : []))}
        onLook={(source) => void choose([source])}
      />
      {looked.map(({ source: { name }, read, problem, accountId, turned }, at) => (
        <section key={at} aria-label={name} className="mb-5 border-l-2 border-accent bg-raised p-3">
          <h2 className="font-semibold">{name}</h2>
          {problem !== undefined && <ProblemText report={reportOf(problem)} />}
          {read && (
            <>
              <p>
                {FORMAT_NAMES[read.format] ?? read.format}
                {read.number && <>, account {read.number}</>}, {read.currency}
                {read.first && read.last && (
                  <>
                    , {shownDay(read.first)} to {shownDay(read.last)}
                  </>
                )}
                : <strong>{count(read.fresh, 'new line')}</strong>
                {read.known > 0 && <>, {count(read.known, 'line')} in the books already</>}.
              </p>
              {read.gaps.map(({ day, units }) => (
                <p key={day} role="status" className="text-attention">
                  ! Up to {shownDay(day)} the balance is {money({ units, currency: read.currency })} off: lines are
                  missing there.
                </p>
              ))}
              <table className="my-2 text-sm">
                <caption className="sr-only">The first lines as they were understood</caption>
                <tbody>
                  {read.sample.map(({ day, units, who, text }, row) => (
                    <tr key={row}>
                      <td className="pr-4 font-mono">{shownDay(day)}</td>
                      <td className="max-w-56 truncate pr-4">{who}</td>
                      <td className="max-w-72 truncate pr-4 text-quiet">{text}</td>
                      <td className="text-right font-mono">{money({ units, currency: read.currency })}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </>
          )}
          <div className="flex flex-wrap items-center gap-3">
            {read && (
              <>
                <Choice
                  label="Account"
                  shown
                  value={accountId ?? ANOTHER}
                  choices={[
                    { value: ANOTHER, name: 'one that is not there yet' },
                    ...books.accounts.flatMap(({ id, name, kind, retired }) =>
                      kind === 'cash' || retired ? [] : [{ value: id, name }],
                    ),
                  ]}
                  onChange={(to) =>
                    void change(at, { accountId: to || undefined, another: to === ANOTHER || undefined })
                  }
                />
                <Button onClick={() => void change(at, { turned: !turned })}>Turn in and out round</Button>
                <Button main onClick={() => void takeIn(at)} disabled={busy}>
                  Take in {count(read.fresh, 'line')}
                </Button>
              </>
            )}
            <Button onClick={() => leave(at)}>Leave it</Button>
          </div>
        </section>
      ))}
      {statements.length === 0 && looked.length === 0 ? (
        <Empty title="No statement yet">
          <p>Choose a file from your bank, and its lines are tied to the entries that they pay.</p>
        </Empty>
      ) : (
        statements.length > 0 && (
          <table className="w-full max-w-[1000px] text-sm" aria-label="Statements that were taken in">
            <thead>
              <tr className="text-left">
                {['File', 'Account', 'From', 'To', 'Lines', 'Closing balance', 'Taken in', ''].map((name) => (
                  <th key={name} scope="col" className="border-b border-rule py-1 pr-4 font-semibold">
                    {name}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {statements.map(({ id, name, format, accountId, first, last, lines, closing, currency, takenInAt }) => (
                <tr key={id} className="border-b border-rule">
                  <td className="max-w-56 truncate py-1.5 pr-4" title={name}>
                    {name} <span className="text-quiet">{FORMAT_NAMES[format] ?? format}</span>
                  </td>
                  <td className="pr-4">{accountName(accountId)}</td>
                  <td className="pr-4 font-mono">{first && shownDay(first)}</td>
                  <td className="pr-4 font-mono">{last && shownDay(last)}</td>
                  <td className="pr-4 font-mono">{lines}</td>
                  <td className="pr-4 font-mono">{closing !== null && money({ units: closing!, currency })}</td>
                  <td className="pr-4">{shownMoment(takenInAt)}</td>
                  <td>
                    <button
                      className="text-quiet underline underline-offset-2 hover:text-ink"
                      onClick={() => takeOut.mutate({ params: { id } })}
                    >
                      Take out
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )
      )}
    </div>
  );
}

/** Papers on the shelf that are statements and were not taken in yet. */
function AmongPapers({ without, onLook }: { without: readonly string[]; onLook: (source: Source) => void }) {
  const { data = [] } = useQuery({
    queryKey: ['statementPapers'],
    queryFn: () => ask(endpoints.statementsAmongPapers, {}),
  });
  const papers = data.filter(({ documentId }) => !without.includes(documentId));
  if (papers.length === 0) return null;
  return (
    <section aria-label="Statements among the papers" className="mb-5 max-w-[1000px]">
      <h2 className="font-semibold">Statements among the papers</h2>
      <ul>
        {papers.map(({ documentId, name, lines, first, last }) => (
          <li key={documentId} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-1.5 text-sm">
            <span className="min-w-0 flex-1 truncate">{name}</span>
            <span className="font-mono">
              {shownDay(first)} to {shownDay(last)}
            </span>
            <span>{count(lines, 'line')}</span>
            <Button onClick={() => onLook({ name, documentId })}>Look at it</Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
