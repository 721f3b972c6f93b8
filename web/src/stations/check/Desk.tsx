import { useEffect, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { Document, Fact, FactName } from '@crow/contract/shapes';
import { ProblemText } from '../../parts/controls';
import { PageSheet, PickedWord } from '../../parts/PageSheet';
import { WarningLine, WarningMark } from '../../parts/Warning';
import { useSize } from '../../parts/useSize';
import { useGo } from '../../parts/wayBack';
import { useChange } from '../../queries';
import { Note, NOTE_HEIGHT, NOTE_NAMES } from './Note';

const MARGIN = 272;
const GUTTER = 40;
const WIDEST_PAGE = 860;
const PAGE_GAP = 24;
const DOUBTFUL = 0.75;

/** What every paper has, and what a bill has besides: when it was not found, its note waits empty. */
const ALWAYS: FactName[] = ['kind', 'vendor', 'date'];
const ON_BILLS: FactName[] = ['total'];
/** What stands between other facts: its line to the margin would strike through them. */
const BESIDE_OTHERS: FactName[] = ['taxRate', 'currency'];

/** The notes that a document has: what was found, and what its kind of paper should say. */
function notesOf(facts: Map<FactName, Fact>): FactName[] {
  const isBill = ['invoice', 'receipt'].includes(facts.get('kind')?.value ?? '');
  return (Object.keys(NOTE_NAMES) as FactName[]).filter(
    (name) => facts.has(name) || ALWAYS.includes(name) || (isBill && ON_BILLS.includes(name)),
  );
}

/** Whether a note deserves a look before filing. */
function isDoubtful(fact: Fact | undefined): boolean {
  return !fact || (!fact.confirmed && fact.confidence < DOUBTFUL);
}

/** The desk: the pages in the middle, and what was read in their margin, each note at the height of its place on the page. */
export function Desk({ document }: { document: Document }) {
  const [deskRef, { width: deskWidth }] = useSize<HTMLDivElement>();
  const [active, setActive] = useState<FactName>();
  const go = useGo();
  const save = useChange(endpoints.changeFact, ['document']);
  const pageWidth = Math.max(240, Math.min(WIDEST_PAGE, deskWidth - MARGIN - GUTTER - 64));
  const facts = useMemo(() => new Map(document.facts.map((fact) => [fact.name, fact])), [document.facts]);

  const tops: number[] = [];
  let height = PAGE_GAP;
  for (const page of document.pageList) {
    tops.push(height);
    height += (pageWidth * page.height) / page.width + PAGE_GAP;
  }
  const heightOf = ({ pageId, box }: Fact): number | undefined => {
    const index = document.pageList.findIndex(({ id }) => id === pageId);
    if (index < 0 || !box) return undefined;
    const page = document.pageList[index];
    return tops[index] + (box[1] + box[3] / 2) * ((pageWidth * page.height) / page.width);
  };
  const notes = layNotes(facts, heightOf);

  const change = (name: FactName, value: string, place?: PickedWord) =>
    save.mutate({
      params: { id: document.id, name },
      body: { value, pageId: place?.pageId ?? null, box: place?.box ?? null },
    });
  const pick = (word: PickedWord, extend: boolean) => {
    if (!active) return;
    const before = facts.get(active)?.value;
    const value = extend && before ? `${before} ${word.text}` : word.text.replace(/[,;:]$/, '');
    change(active, value, word);
  };

  useFirstDoubtful(document, facts);
  const left = Math.max(24, (deskWidth - pageWidth - GUTTER - MARGIN) / 2);
  const problem = document.problem ?? document.pageList.find((page) => page.problem)?.problem;
  return (
    <div ref={deskRef} data-desk className="min-h-0 flex-1 overflow-y-auto" tabIndex={-1}>
      {problem && (
        <div className="px-6 pt-4">
          <ProblemText report={problem} />
        </div>
      )}
      <Doubts document={document} />
      {document.pageList.map((page) => (
        <WarningLine key={page.id} page={page} onTidy={() => go(`/page/${document.stackId}/${page.id}`)} />
      ))}
      {deskWidth > 0 && (
        <div className="relative" style={{ height }}>
          {document.pageList.map((page, index) => (
            <div key={page.id} className="absolute" style={{ left, top: tops[index] }}>
              <PageSheet page={page} number={index + 1} width={pageWidth} onWord={pick}>
                <WarningMark page={page} />
                {[...facts.values()].map(
                  (fact) =>
                    fact.pageId === page.id &&
                    fact.box && <Place key={fact.name} fact={fact} active={fact.name === active} />,
                )}
              </PageSheet>
            </div>
          ))}
          <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden>
            {notes.map(({ name, top, at }) => {
              const fact = facts.get(name);
              if (at === undefined || !fact?.box || (BESIDE_OTHERS.includes(name) && name !== active)) return null;
              const from = left + (fact.box[0] + fact.box[2]) * pageWidth + 3;
              const to = left + pageWidth + GUTTER;
              const edge = left + pageWidth + 10;
              const points = `${from},${at} ${edge},${at} ${to},${top + NOTE_HEIGHT / 2 - 6}`;
              return (
                <polyline
                  key={name}
                  points={points}
                  fill="none"
                  stroke={name === active ? 'var(--accent)' : '#8b8694'}
                  strokeWidth={name === active ? 1.6 : 1}
                />
              );
            })}
          </svg>
          {notes.map(({ name, top }) => (
            <div key={name} className="absolute" style={{ left: left + pageWidth + GUTTER, top, width: MARGIN - 16 }}>
              <Note
                name={name}
                fact={facts.get(name)}
                doubtful={document.read === document.pages && isDoubtful(facts.get(name))}
                reading={document.read < document.pages}
                onActive={() => setActive(name)}
                onChange={(value, place) => change(name, value, place)}
              />
            </div>
          ))}
        </div>
      )}
    </div>
  );
}

/** What does not add up, and papers that may be the same. */
function Doubts({ document: { checks, duplicates } }: { document: Document }) {
  if (checks.length === 0 && duplicates.length === 0) return null;
  return (
    <ul role="status" className="space-y-1 border-b border-rule bg-attention-soft px-6 py-2 text-sm">
      {duplicates.map(({ id, name, state, folderId, why }) => (
        <li key={id}>
          <strong className="font-semibold text-attention">! Perhaps here already:</strong>{' '}
          <Link className="underline" to={state === 'check' ? `/check/${id}` : `/shelf/${folderId}/${id}`}>
            {name || 'another one that waits'}
          </Link>{' '}
          has {why}.
        </li>
      ))}
      {checks.map((check) => (
        <li key={check}>
          <strong className="font-semibold text-attention">!</strong> {check}
        </li>
      ))}
    </ul>
  );
}

/** Where a fact stands on the page. */
function Place({ fact, active }: { fact: Fact; active: boolean }) {
  const [x, y, width, height] = fact.box!;
  return (
    <span
      aria-hidden
      className={`pointer-events-none absolute border-b-2 ${active ? 'border-[#1c5d63] bg-[#1c5d63]/15' : 'border-[#8b8694]'}`}
      style={{
        left: `${x * 100}%`,
        top: `calc(${y * 100}% - 2px)`,
        width: `${width * 100}%`,
        height: `calc(${height * 100}% + 6px)`,
      }}
    />
  );
}

/**
 * Where each note stands: at its place's height, below the one before; notes without a place wait at the top.
 * `at` is the height of the place itself.
 */
function layNotes(
  facts: Map<FactName, Fact>,
  heightOf: (fact: Fact) => number | undefined,
): { name: FactName; top: number; at?: number }[] {
  const wanted = notesOf(facts).map((name) => {
    const fact = facts.get(name);
    return { name, at: fact && heightOf(fact) };
  });
  wanted.sort((a, b) => (a.at ?? -1) - (b.at ?? -1));
  let free = 16;
  return wanted.map(({ name, at }) => {
    const top = Math.max(free, (at ?? 0) - NOTE_HEIGHT / 2 + 6);
    free = top + NOTE_HEIGHT + 4;
    return { name, top, at };
  });
}

/** Once the document is read, puts the cursor into the first doubtful note, or onto filing when there is none. */
function useFirstDoubtful(document: Document, facts: Map<FactName, Fact>): void {
  const done = useRef(false);
  const ready = document.read === document.pages;
  useEffect(() => {
    if (!ready || done.current) return;
    done.current = true;
    const name = notesOf(facts).find((each) => isDoubtful(facts.get(each)));
    const target = name ? `[data-note="${name}"]` : '[data-file-it]';
    requestAnimationFrame(() => window.document.querySelector<HTMLElement>(target)?.focus({ preventScroll: true }));
  }, [ready, facts]);
}
