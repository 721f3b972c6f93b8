import { useSearchParams } from 'react-router';
import { dayOf } from '@crow/core/reading/dayForms';
import { useBooks, useLedger } from '../../queries';
import { Book } from './Book';
import { ImportPane } from './ImportPane';
import { PapersPane } from './PapersPane';
import { SetUpPane } from './SetUpPane';
import { SheetsPane } from './sheets/SheetsPane';
import { StatementsPane } from './StatementsPane';
import { SumsPane } from './SumsPane';

const VIEWS = [
  ['', 'The book'],
  ['papers', 'Papers without an entry'],
  ['statements', 'Statements'],
  ['sums', 'Sums'],
  ['sheets', 'Sheets'],
  ['set-up', 'Set up'],
] as const;

/** The Ledger station: the book, papers that are not in it yet, statements, sums, and what becomes of sheets. */
export default function LedgerStation() {
  const { data: books } = useBooks();
  const { data: ledger } = useLedger();
  const [query, setQuery] = useSearchParams();
  const view = query.get('view') ?? '';
  if (!books || !ledger) return null;
  return (
    <div className="flex h-full flex-col">
      <header className="flex min-h-14 shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule px-3 py-2 md:px-6">
        <h1 className="text-lg font-semibold">Ledger</h1>
        <nav aria-label="Of the ledger" className="flex max-w-full gap-1 overflow-x-auto">
          {VIEWS.map(([id, name]) => (
            <button
              key={id}
              aria-current={view === id ? 'page' : undefined}
              className={`h-8 shrink-0 border-b-2 px-2 whitespace-nowrap pointer-coarse:h-11 ${view === id ? 'border-accent font-semibold' : 'border-transparent hover:border-rule'}`}
              onClick={() => setQuery(id ? { view: id } : {})}
            >
              {name}
            </button>
          ))}
        </nav>
      </header>
      {view === 'statements' ? (
        <StatementsPane books={books} />
      ) : view === 'papers' ? (
        <PapersPane />
      ) : view === 'sums' ? (
        <SumsPane books={books} ledger={ledger} today={dayOf(new Date())} />
      ) : view === 'sheets' ? (
        <SheetsPane placeId={query.get('place') ?? undefined} />
      ) : view === 'bring-in' ? (
        <ImportPane onDone={() => setQuery({})} />
      ) : view === 'set-up' ? (
        <SetUpPane books={books} />
      ) : (
        <Book
          books={books}
          ledger={ledger}
          openId={query.get('entry') ?? undefined}
          onBringIn={() => setQuery({ view: 'bring-in' })}
        />
      )}
    </div>
  );
}
