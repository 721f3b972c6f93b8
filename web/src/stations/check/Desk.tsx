import { useEffect, useMemo, useRef, useState } from 'react';
import { createPortal } from 'react-dom';
import { Link } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { Document } from '@crow/contract/documents';
import { Choice, Fact, FactName } from '@crow/contract/facts';
import { Kind, kindTraits, likeOf, mayHave } from '@crow/core/reading/facts/kindList';
import { isDoubtfulFact } from '@crow/core/reading/facts/doubt';
import { Bookings } from '../../parts/Bookings';
import { ProblemText } from '../../parts/controls';
import { Lines } from '../../parts/Lines';
import { PageSheet, PickedWord } from '../../parts/PageSheet';
import { WarningLine, WarningMark } from '../../parts/Warning';
import { isEngaged } from '../../parts/keys';
import { useSize } from '../../parts/useSize';
import { WordCursor } from '../../parts/WordCursor';
import { useGo } from '../../parts/wayBack';
import { useChange, useChoices, useKinds, useSettings } from '../../queries';
import { AddNote } from './AddNote';
import { BooksNote } from './BooksNote';
import { Note, NOTE_HEIGHT, NOTE_NAMES } from './Note';
import { Taxes } from './Taxes';

const MARGIN = 272;
const GUTTER = 40;
const WIDEST_PAGE = 860;
const PAGE_GAP = 24;
/** Room below the notes for what adds to them. */
const FOOT = 320;
/** And for each line of a bill and booking of a statement, in two lines at most. */
const LISTED = 58;
const NARROW = 680;
/** Where in the window the place of a note comes into view, as a share of its height. */
const PLACE_FROM_TOP = 0.3;

/** What every paper has: when it was not found, its note waits empty. */
const ALWAYS: FactName[] = ['kind', 'vendor', 'date'];
/** What stands between other facts: its line to the margin would strike through them. */
const BESIDE_OTHERS: FactName[] = ['taxRate', 'currency'];

/** The notes that a document has: what was found, what its kind of paper should say, and what a person says that it has not. */
function notesOf(facts: Map<FactName, Fact>, emptied: readonly FactName[], kind: Kind | undefined): FactName[] {
  const isTotalled = kind !== undefined && kindTraits[kind].totalled;
  return (Object.keys(NOTE_NAMES) as FactName[]).filter(
    (name) => facts.has(name) || emptied.includes(name) || ALWAYS.includes(name) || (isTotalled && name === 'total'),
  );
}

/** What a paper may have besides the notes that there are, what its kind has first. */
function missingOf(kind: Kind | undefined, shown: readonly FactName[]): FactName[] {
  const names = (Object.keys(NOTE_NAMES) as FactName[]).filter((name) => !shown.includes(name));
  return names.sort((a, b) => Number(mayHave(kind, b)) - Number(mayHave(kind, a)));
}

/** Whether a note deserves a look before filing. */
function isDoubtful(fact: Fact | undefined, emptied: boolean): boolean {
  return fact ? isDoubtfulFact(fact) : !emptied;
}

/**
 * The desk: the pages in the middle, and what was read in their margin, each note at the height of its place on the page.
 * @param document what lies on it @param notesInto where the notes go where there is no room for a margin
 */
export function Desk({ document, notesInto }: { document: Document; notesInto?: HTMLElement | null }) {
  const [deskRef, { width: deskWidth }] = useSize<HTMLDivElement>();
  const [active, setActive] = useState<FactName>();
  const go = useGo();
  const { data: choices } = useChoices(document.id, active !== undefined && document.read === document.pages);
  /** What is marked among the choices of a note: its place is shown. */
  const [marked, setMarked] = useState<Choice>();
  const [added, setAdded] = useState<FactName[]>([]);
  const save = useChange(endpoints.changeFact, ['document']);
  const restore = useChange(endpoints.restoreFact, ['document']);
  /** Too narrow for a margin: the notes stand below the pages. */
  const narrow = deskWidth > 0 && deskWidth < NARROW;
  const pageWidth = narrow ? deskWidth - 24 : Math.max(240, Math.min(WIDEST_PAGE, deskWidth - MARGIN - GUTTER - 64));
  const facts = useMemo(() => new Map(document.facts.map((fact) => [fact.name, fact])), [document.facts]);
  const own = useSettings().data?.ownKinds ?? [];
  const kinds = useKinds();
  const kind = facts.has('kind') ? likeOf(facts.get('kind')!.value, own) : undefined;

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
  /** Where the line to its note begins: at the line under it, so that it strikes through nothing that stands behind it. */
  const underOf = (fact: Fact): number | undefined => {
    const page = document.pageList.find(({ id }) => id === fact.pageId);
    const at = heightOf(fact);
    return page && at !== undefined
      ? at + (fact.box![3] / 2) * ((pageWidth * page.height) / page.width) + 3
      : undefined;
  };
  const ready = document.read === document.pages;
  const { notes, foot, shown } = useLaidNotes(notesOf(facts, document.emptied, kind), added, ready, facts, heightOf);
  const add = (name: FactName) => {
    setAdded([...added, name]);
    requestAnimationFrame(() => window.document.querySelector<HTMLElement>(`[data-note="${name}"]`)?.focus());
  };

  const change = (name: FactName, value: string, place?: PickedWord) =>
    save.mutateAsync({
      params: { id: document.id, name },
      body: { value, pageId: place?.pageId ?? null, box: place?.box ?? null },
    });
  const pick = (word: PickedWord, extend: boolean) => {
    if (!active) return;
    const before = facts.get(active)?.value;
    const value = extend && before ? `${before} ${word.text}` : word.text.replace(/[,;:]$/, '');
    void change(active, value, word).catch(() => undefined);
  };
  /** The page on which words are gone through by keys, to pick one for the active note. */
  const [picking, setPicking] = useState<number>();
  const placeOfActive = active && facts.get(active);
  const startPicking = () => {
    const at = document.pageList.findIndex(({ id }) => id === placeOfActive?.pageId);
    setPicking(Math.max(0, at));
  };
  const leavePicking = () => {
    setPicking(undefined);
    requestAnimationFrame(() => window.document.querySelector<HTMLElement>(`[data-note="${active}"]`)?.focus());
  };

  const firstDoubtful = notes.find(({ name }) => isDoubtful(facts.get(name), document.emptied.includes(name)))?.name;
  useFirstDoubtful(ready && deskWidth > 0 && !notesInto, firstDoubtful);
  const activeAt = placeOfActive && heightOf(placeOfActive);
  useEffect(() => {
    // Where the notes lie over the page, the place of the one that somebody is in comes into view above them.
    if (!notesInto || activeAt === undefined) return;
    const desk = window.document.querySelector('[data-desk]');
    desk?.scrollTo({ top: activeAt - desk.clientHeight * PLACE_FROM_TOP });
  }, [notesInto, activeAt]);
  const left = narrow ? 12 : Math.max(24, (deskWidth - pageWidth - GUTTER - MARGIN) / 2);
  const inMargin = (top: number) =>
    narrow ? undefined : { position: 'absolute' as const, left: left + pageWidth + GUTTER, top, width: MARGIN - 16 };
  const margin = (
    <>
      {notes.map(({ name, top }) => (
        <div key={name} style={inMargin(top)}>
          <Note
            name={name}
            fact={facts.get(name)}
            emptied={document.emptied.includes(name)}
            doubtful={ready && isDoubtful(facts.get(name), document.emptied.includes(name))}
            reading={!ready}
            kinds={kinds}
            choices={choices}
            onMark={setMarked}
            onActive={() => setActive(name)}
            onChange={(value, place) => change(name, value, place)}
            onRestore={() => restore.mutate({ params: { id: document.id, name } })}
            onPick={startPicking}
          />
        </div>
      ))}
      <div className="flex flex-col items-start gap-3" style={inMargin(foot)}>
        <AddNote missing={missingOf(kind, shown)} onAdd={add} />
        {(document.taxes.length > 0 || facts.has('tax')) && <Taxes document={document} />}
        {ready && <BooksNote document={document} />}
        {document.lines.length > 0 && (
          <div className="w-full border-l-2 border-rule pl-3">
            <Lines lines={document.lines} />
          </div>
        )}
        {document.bookings.length > 0 && (
          <div className="w-full border-l-2 border-rule pl-3">
            <Bookings bookings={document.bookings} />
          </div>
        )}
      </div>
    </>
  );
  const problem = document.problem ?? document.pageList.find((page) => page.problem)?.problem;
  return (
    <div ref={deskRef} data-desk className="min-h-0 flex-1 overflow-y-auto bg-ground" tabIndex={-1}>
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
        <div
          className="relative"
          style={{
            height: narrow
              ? height
              : Math.max(height, foot + FOOT + LISTED * (document.lines.length + document.bookings.length)),
          }}
        >
          {document.pageList.map((page, index) => (
            <div key={page.id} className="absolute" style={{ left, top: tops[index] }}>
              <PageSheet page={page} number={index + 1} width={pageWidth} onWord={pick}>
                <WarningMark page={page} />
                {picking === index && (
                  <WordCursor
                    page={page}
                    near={placeOfActive?.pageId === page.id ? placeOfActive.box : null}
                    onPick={(word, extend) => {
                      pick(word, extend);
                      if (!extend) leavePicking();
                    }}
                    onLeave={leavePicking}
                    onBeyond={(by) => document.pageList[index + by] && setPicking(index + by)}
                  />
                )}
                {marked?.pageId === page.id && marked.box && <Place box={marked.box} active />}
                {[...facts.values()].map(
                  (fact) =>
                    fact.pageId === page.id &&
                    fact.box && <Place key={fact.name} box={fact.box} active={fact.name === active && !marked} />,
                )}
              </PageSheet>
            </div>
          ))}
          <svg className={`pointer-events-none absolute inset-0 h-full w-full ${narrow ? 'hidden' : ''}`} aria-hidden>
            {notes.map(({ name, top }) => {
              const fact = facts.get(name);
              const at = fact && underOf(fact);
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
          {!narrow && margin}
        </div>
      )}
      {narrow && notesInto && createPortal(margin, notesInto)}
      {narrow && !notesInto && <div className="flex flex-col gap-1 px-3 pb-4">{margin}</div>}
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
function Place({ box: [x, y, width, height], active }: { box: number[]; active: boolean }) {
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
 * Where each note stands: at its place's height, below the one before; notes without a place wait at the top. Once the document is
 * read they stay where they are, whatever changes: none jumps from under the hand, and none goes. Those that are added come below.
 */
function useLaidNotes(
  wanted: FactName[],
  added: FactName[],
  ready: boolean,
  facts: Map<FactName, Fact>,
  heightOf: (fact: Fact) => number | undefined,
): { notes: { name: FactName; top: number }[]; foot: number; shown: FactName[] } {
  /** The notes in their order, each with the fact by whose place it stands. */
  const [fixed, setFixed] = useState<Standing[]>();
  const height = ({ fact }: Standing) => fact && heightOf(fact);
  const now = wanted
    .map((name): Standing => ({ name, fact: facts.get(name) }))
    .sort((a, b) => (height(a) ?? -1) - (height(b) ?? -1));
  if (ready && !fixed) setFixed(now);
  const standing = fixed ?? now;
  const more = [...new Set([...wanted, ...added])].filter((name) => !standing.some((each) => each.name === name));
  if (fixed && more.length > 0) setFixed([...fixed, ...more.map((name) => ({ name }))]);
  const notes: { name: FactName; top: number }[] = [];
  for (const each of [...standing, ...more.map((name): Standing => ({ name }))]) {
    const free = notes.length > 0 ? notes[notes.length - 1].top + NOTE_HEIGHT + 4 : 16;
    notes.push({ name: each.name, top: Math.max(free, (height(each) ?? 0) - NOTE_HEIGHT / 2 + 6) });
  }
  const foot = (notes.at(-1)?.top ?? 0) + NOTE_HEIGHT + 12;
  return { notes, foot, shown: notes.map(({ name }) => name) };
}

interface Standing {
  name: FactName;
  fact?: Fact;
}

/**
 * Once the document is read and its notes are drawn, puts the cursor into the first doubtful one, or onto filing when there is none;
 * but takes it from no field that somebody is in.
 */
function useFirstDoubtful(ready: boolean, name: FactName | undefined): void {
  const done = useRef(false);
  useEffect(() => {
    if (!ready || done.current) return;
    done.current = true;
    if (isEngaged()) return;
    const target = name ? `[data-note="${name}"]` : '[data-file-it]';
    window.document.querySelector<HTMLElement>(target)?.focus({ preventScroll: true });
  }, [ready, name]);
}
