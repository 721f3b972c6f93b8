import { Search, X } from 'lucide-react';
import { Fragment, useDeferredValue, useEffect, useRef, useState } from 'react';
import { FoundDocument } from '@crow/contract/shapes';
import { IconButton, inputLook } from '../../parts/controls';
import { count } from '../../parts/words';
import { useFound } from '../../queries';
import { DocumentRow } from './DocumentRow';
import { useShelfPlace } from './ShelfStation';

const TYPING_PAUSE_MS = 180;

/** Find: a word that stands in a paper, and the papers that it stands in, with the lines around it. */
export function FindPane() {
  const { find = '', document: openId, go } = useShelfPlace();
  const [typed, setTyped] = useState(find);
  const field = useRef<HTMLInputElement>(null);
  const query = useDeferredValue(find);
  const { data, isFetching } = useFound(query);
  const found = query.trim() ? (data?.found ?? []) : [];
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
            placeholder="Words, names, numbers; “in quotes” together"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'ArrowDown' || (event.key === 'Enter' && !openId)) step(1);
              else if (event.key === 'ArrowUp') step(-1);
              else if (event.key === 'Escape') go({});
              else return;
              event.preventDefault();
            }}
          />
        </div>
        <IconButton name="Close Find (Esc)" onClick={() => go({})}>
          <X size={17} />
        </IconButton>
      </header>
      <p className="border-b border-rule px-4 py-1.5 text-sm text-quiet" role="status">
        {!query.trim()
          ? 'Type a word that stands in the paper.'
          : found.length > 0
            ? `${data?.more ? 'The first ' : ''}${count(found.length, 'document')}${data && data.alsoSearched.length > 0 ? ` · read as ${data.alsoSearched.slice(0, 3).join(', ')}, too` : ''}`
            : isFetching
              ? 'Looking …'
              : 'Nothing found. Try fewer or other words; spelling mistakes of a letter or two are forgiven.'}
      </p>
      {!query.trim() && <Examples onChoose={setTyped} />}
      <div className="min-h-0 flex-1 overflow-y-auto" aria-label="Found documents">
        {found.map(({ document, hits, lines }) => (
          <DocumentRow
            key={document.id}
            document={document}
            current={document.id === openId}
            onOpen={() => open(document)}
          >
            <p className="mt-1 text-sm font-semibold text-accent">
              {hits > 0 && count(hits, 'hit')}
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
      </div>
    </div>
  );
}

/** What can be typed besides words; a click tries it. */
const EXAMPLES: [typed: string, means: string][] = [
  ['total>100', 'more than a hundred, in whatever currency'],
  ['date>=2026-03', 'from March 2026 on; a year or a day will do, too'],
  ['due<2026-12', 'to be paid before December'],
  ['who:marlowe', 'from a sender whose name holds this'],
  ['kind:invoice', 'receipt, invoice, letter, statement or other'],
  ['folder:workshop', 'in a folder whose path holds this'],
  ['-indigo', 'where this word does not stand'],
];

function Examples({ onChoose }: { onChoose: (typed: string) => void }) {
  return (
    <dl className="grid grid-cols-[auto_1fr] items-baseline gap-x-4 gap-y-1 px-4 py-4 text-sm">
      <dt className="col-span-2 pb-1 text-quiet">Beside words, and together with them:</dt>
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
