import { Bookmark, Search, X } from 'lucide-react';
import { Link, Location, NavigationType, useLocation, useNavigationType } from 'react-router';
import { Fragment, useDeferredValue, useEffect, useRef, useState } from 'react';
import { isQuestion } from '@crow/core/finding/asking/isQuestion';
import { endpoints } from '@crow/contract/endpoints';
import { FIND_ORDERS, FindOrder, FoundDocument } from '@crow/contract/finding';
import { Button, IconButton, inputLook } from '../../parts/controls';
import { count, kindName } from '../../parts/words';
import { useChange, useFound, useMay, useSearches } from '../../queries';
import { ChosenBar } from './ChosenBar';
import { Answer } from './asking/Answer';
import { DocumentRow } from './DocumentRow';
import { useShelfPlace } from './shelfPlace';

const TYPING_PAUSE_MS = 180;
/** So many documents are shown at first, and at most. */
const [AT_FIRST, AT_MOST] = [20, 300];

/** Once a hit is opened, the keys are for it: they go from hit to hit. */
function focusOpened(): void {
  setTimeout(() => window.document.querySelector<HTMLElement>('[data-open-document]')?.focus(), 50);
}

/** Find: a word that stands in a paper, and the papers that it stands in, with the lines around it. */
export function FindPane() {
  const { find = '', document: openId, go } = useShelfPlace();
  const [typed, setTyped] = useState(find);
  // Whoever leads here from elsewhere, a kept search, a tag or the way back, changes what stands in the field; what is typed here is ahead of
  // the address.
  const { key, state } = useLocation() as Location<{ typed?: boolean } | null>;
  const isWayBack = useNavigationType() === NavigationType.Pop;
  const [seen, setSeen] = useState(key);
  if (key !== seen) {
    setSeen(key);
    if (!state?.typed || isWayBack) setTyped(find);
  }
  const field = useRef<HTMLInputElement>(null);
  const query = useDeferredValue(find);
  const [order, setOrder] = useState<FindOrder>('best');
  const [most, setMost] = useState(AT_FIRST);
  // What asks something is answered; anything else is looked for.
  const asks = isQuestion(query);
  const { data, isFetching } = useFound(asks ? '' : query, order, most);
  const works = useMay('work');
  const kept = useSearches(works).data?.find((each) => each.query === find.trim());
  const keep = useChange(endpoints.keepSearch, ['search']);
  const forget = useChange(endpoints.forgetSearch, ['search']);
  const found = query.trim() && !asks ? (data?.found ?? []) : [];
  const list = found.map(({ document }) => document.id);
  const latest = useRef({ openId, go });
  useEffect(() => {
    latest.current = { openId, go };
  });
  // “/” comes here from anywhere.
  const begun = find === '';
  useEffect(() => field.current?.focus(), [begun]);
  useEffect(() => {
    if (typed === find) return;
    const timer = setTimeout(
      () => latest.current.go({ document: latest.current.openId, find: typed }, true),
      TYPING_PAUSE_MS,
    );
    return () => clearTimeout(timer);
  }, [typed, find]);
  const open = (document: FoundDocument['document']) =>
    go({ folder: document.folderId ?? undefined, document: document.id, find: typed });
  const step = (by: number) => {
    const at = found.findIndex(({ document }) => document.id === openId);
    const next = found[Math.max(0, Math.min(found.length - 1, at + by))];
    if (next) open(next.document);
  };
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-14 shrink-0 items-center gap-1 border-b border-rule px-4">
        <div className="relative flex-1">
          <Search size={15} aria-hidden className="absolute top-2 left-2 text-quiet" />
          <input
            ref={field}
            className={`${inputLook} pl-8`}
            type="text"
            role="searchbox"
            aria-label="Find"
            placeholder="Words, names, numbers; or a question"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter') {
                if (!openId) step(1);
                focusOpened();
              } else if (event.key === 'ArrowDown') step(1);
              else if (event.key === 'ArrowUp') step(-1);
              else if (event.key === 'Escape') go({});
              else return;
              event.preventDefault();
            }}
          />
        </div>
        {works && find.trim() !== '' && (
          <IconButton
            name={kept ? 'Keep this search no longer' : 'Keep this search beside the folders'}
            aria-pressed={Boolean(kept)}
            onClick={() =>
              kept ? forget.mutate({ params: { id: kept.id } }) : keep.mutate({ body: { query: find.trim() } })
            }
          >
            <Bookmark size={17} fill={kept ? 'currentColor' : 'none'} />
          </IconButton>
        )}
        <IconButton name="Close Find (Esc)" onClick={() => go({})}>
          <X size={17} />
        </IconButton>
      </header>
      {asks ? (
        <Answer question={query} />
      ) : (
        <>
          {' '}
          <p className="border-b border-rule px-4 py-1.5 text-sm text-quiet" role="status">
            {!query.trim()
              ? 'Type a word that stands in the paper.'
              : found.length > 0 || (data?.inSort.length ?? 0) > 0
                ? `${data?.more ? 'The first ' : ''}${count(found.length, 'document')}${data && data.alsoSearched.length > 0 ? ` · read as ${data.alsoSearched.slice(0, 3).join(', ')}, too` : ''}`
                : isFetching
                  ? 'Looking …'
                  : 'Nothing found. Try fewer or other words; spelling mistakes of a letter or two are forgiven.'}
          </p>
          {query.trim() && <Narrow found={found} typed={typed} onChange={setTyped} order={order} onOrder={setOrder} />}
          {!query.trim() && <Examples onChoose={setTyped} />}
          <div className="min-h-0 flex-1 overflow-y-auto bg-ground" aria-label="Found documents">
            {found.map(({ document, hits, morePages, lines }) => (
              <DocumentRow
                key={document.id}
                document={document}
                current={document.id === openId}
                list={list}
                onOpen={() => {
                  open(document);
                  focusOpened();
                }}
              >
                <p className="mt-1 text-sm font-semibold text-accent">
                  {hits > 0 && count(hits, 'hit')}
                  {morePages > 0 && ` and more on ${count(morePages, 'further page')}`}
                  {document.folderPath && (
                    <span className="font-normal text-quiet"> in {document.folderPath.replaceAll('/', ' / ')}</span>
                  )}
                </p>
                <ul className="text-sm">
                  {lines.map((line, index) => (
                    <li key={index} className="truncate">
                      {line.pieces.map((piece, place) =>
                        piece.hit ? (
                          <mark key={place} className="bg-attention-soft px-0.5 font-semibold text-ink">
                            {piece.text}
                          </mark>
                        ) : (
                          <span key={place}> {piece.text} </span>
                        ),
                      )}
                    </li>
                  ))}
                </ul>
              </DocumentRow>
            ))}
            {query.trim() && data && data.inSort.length > 0 && (
              <ul aria-label="Found in stacks that are still to be sorted" className="border-b border-rule px-4 py-2">
                {data.inSort.map(({ id, name, pages }) => (
                  <li key={id} className="py-1">
                    <Link className="text-accent underline" to={`/sort/${id}`}>
                      {name}
                    </Link>{' '}
                    <span className="text-sm text-quiet">still to be sorted · on {count(pages, 'page')}</span>
                  </li>
                ))}
              </ul>
            )}
            {data?.more && most < AT_MOST && (
              <p className="p-4 text-center">
                <Button onClick={() => setMost(Math.min(AT_MOST, 4 * most))}>Show more</Button>
              </p>
            )}
          </div>
        </>
      )}
      <ChosenBar documents={found.map(({ document }) => document)} />
    </div>
  );
}

const ORDER_NAMES: Record<FindOrder, string> = {
  best: 'best first',
  newest: 'newest first',
  oldest: 'oldest first',
  most: 'highest total first',
};

interface NarrowProps {
  found: FoundDocument[];
  typed: string;
  onChange: (typed: string) => void;
  order: FindOrder;
  onOrder: (order: FindOrder) => void;
}

/** Narrows what was found by a click: the condition is added to what is typed, where it can be changed or taken out. */
function Narrow({ found, typed, onChange, order, onOrder }: NarrowProps) {
  const add = (condition: string) => onChange(`${typed.trim()} ${condition} `);
  const documents = found.map(({ document }) => document);
  const quoted = (value: string) => (value.includes(' ') ? `"${value}"` : value);
  const choices = {
    kind: counted(documents.map(({ kind }) => kind)).map(([kind, number]) => ({
      text: `${kindName(kind)} (${number})`,
      condition: `kind:${kind}`,
    })),
    who: counted(documents.map(({ vendor }) => vendor)).map(([who, number]) => ({
      text: `${who} (${number})`,
      condition: `who:${quoted(who)}`,
    })),
    date: counted(documents.map(({ date }) => date?.slice(0, 4))).map(([year, number]) => ({
      text: `${year} (${number})`,
      condition: `date:${year}`,
    })),
    folder: counted(documents.map(({ folderPath }) => folderPath)).map(([path, number]) => ({
      text: `${path.replaceAll('/', ' / ')} (${number})`,
      condition: `folder:${quoted(path)}`,
    })),
    total: [10, 50, 100, 500, 1000].map((amount) => ({ text: `more than ${amount}`, condition: `total>${amount}` })),
  };
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule px-4 py-1.5 text-sm">
      {Object.entries(choices).map(
        ([name, list]) =>
          (list.length > 1 || (name === 'total' && found.length > 1)) && (
            <select
              key={name}
              aria-label={`Only of one ${name}`}
              className="w-18 bg-ground text-quiet hover:text-ink"
              value=""
              onChange={(event) => event.target.value && add(event.target.value)}
            >
              <option value="">{name} …</option>
              {list.slice(0, 12).map(({ text, condition }) => (
                <option key={condition} value={condition}>
                  {text}
                </option>
              ))}
            </select>
          ),
      )}
      <select
        aria-label="Order"
        className="ml-auto bg-ground"
        value={order}
        onChange={(event) => onOrder(event.target.value as FindOrder)}
      >
        {FIND_ORDERS.map((each) => (
          <option key={each} value={each}>
            {ORDER_NAMES[each]}
          </option>
        ))}
      </select>
    </div>
  );
}

/** How often each value occurs, the most frequent first. */
function counted(values: (string | null | undefined)[]): [string, number][] {
  const counts = new Map<string, number>();
  for (const value of values) if (value) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1]);
}

/** What can be typed besides words; a click tries it. */
const EXAMPLES: [typed: string, means: string][] = [
  ['“dye works”', 'words that stand together'],
  ['total>100', 'more than a hundred, in whatever currency'],
  ['date>=2026-03', 'from March 2026 on; a year or a day will do, too'],
  ['due<2026-12', 'to be paid before December'],
  ['who:marlowe', 'from a sender whose name holds this'],
  ['about:parking', 'a letter whose subject holds this'],
  ['kind:invoice', 'receipt, invoice, letter, statement or other'],
  ['tag:urgent', 'that somebody gave this tag'],
  ['folder:workshop', 'in a folder whose path holds this'],
  ['-indigo', 'where this word does not stand'],
];

/** Questions that every shelf has an answer to, or says that it has none. */
const QUESTIONS = [
  'How much did we pay this year?',
  'Who did we pay the most last year?',
  'Which invoices are due next month?',
];

function Examples({ onChoose }: { onChoose: (typed: string) => void }) {
  return (
    <dl className="grid grid-cols-[auto_1fr] items-baseline gap-x-4 gap-y-1 px-4 py-4 text-sm">
      <dt className="col-span-2 pb-1 text-quiet">Ask, in English, German or French:</dt>
      {QUESTIONS.map((question) => (
        <dd key={question} className="col-span-2">
          <button
            type="button"
            className="cursor-pointer rounded px-1 text-left text-accent hover:bg-accent-soft"
            onClick={() => onChoose(question)}
          >
            {question}
          </button>
        </dd>
      ))}
      <dt className="col-span-2 pt-3 pb-1 text-quiet">Beside words, and together with them:</dt>
      {EXAMPLES.map(([typed, means]) => (
        <Fragment key={typed}>
          <dt>
            <button
              type="button"
              className="cursor-pointer rounded px-1 font-mono text-accent hover:bg-accent-soft"
              onClick={() => onChoose(`${typed} `)}
            >
              {typed}
            </button>
          </dt>
          <dd className="text-quiet">{means}</dd>
        </Fragment>
      ))}
    </dl>
  );
}
