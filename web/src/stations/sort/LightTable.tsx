import {
  DndContext,
  DragEndEvent,
  DragOverlay,
  DragStartEvent,
  PointerSensor,
  pointerWithin,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { FoldHorizontal, Redo2, RotateCw, Trash2, Undo2, UnfoldHorizontal } from 'lucide-react';
import { useMemo, useState } from 'react';
import {
  acceptCut,
  asProposed,
  cutBehind,
  cutEvery,
  cutEverywhere,
  documentsOf,
  joinPages,
  keepWhole,
  movePages,
  sendToBack,
  setDropped,
  toggleCut,
  turnPages,
} from '@crow/core/sorting/arrangement';
import { Stack } from '@crow/contract/stacks';
import { Button, IconButton, Key } from '../../parts/controls';
import { KeyWords, useKeys } from '../../parts/keys';
import { useLatest } from '../../parts/useLatest';
import { useSize } from '../../parts/useSize';
import { useWave, WarningLine, warningOn } from '../../parts/Warning';
import { count } from '../../parts/words';
import { CutMenu } from './CutMenu';
import { isDoubtful, nextDoubtful } from './gaps';
import { Peek } from './Peek';
import { StackMenu } from './StackMenu';
import { GapLine, ReadingLine } from './TableLines';
import { layInRows, pageBeside } from './rows';
import { Sheets, SheetsHandle } from './Sheets';
import { DraggedPage, EDGE, Place, TableActions } from './TablePage';
import { useSend } from './useSend';
import { ArrangedPage, useArrangement } from '../../parts/useArrangement';
import { twinOf } from '../../parts/twins';
import { useGo } from '../../parts/wayBack';

const ZOOMS = [120, 168, 232, 320];

const KEYS: KeyWords = [
  ['ArrowLeft ArrowRight ArrowUp ArrowDown', 'Go from page to page; with Shift, select them'],
  ['Home End', 'To the first or last page'],
  ['Enter', 'Accept the doubtful gap before the page, and go on to the next'],
  ['x', 'Decide it the other way, and go on to the next'],
  ['n Shift+N', 'To the next or last doubtful gap'],
  ['c', 'Cut before the page, or join it again'],
  ['d', 'Select the whole document'],
  ['j', 'Make one document of the selected pages'],
  ['w', 'Keep the stack whole'],
  ['s', 'Make every page a document'],
  ['Alt+ArrowLeft Alt+ArrowRight', 'Move the selected pages'],
  ['b', 'Put them to the back of the stack'],
  ['r Shift+R', 'Turn them clockwise, or the other way'],
  ['Delete Backspace', 'Drop them, or bring them back'],
  ['Space', 'Look closely'],
  ['e', 'Tidy the page'],
  ['v', 'Compare two captures of a sheet'],
  ['y', 'Accept a page in spite of its warning'],
  ['+ -', 'Larger or smaller pages'],
  ['Ctrl+z Ctrl+Shift+z Ctrl+y', 'Undo, redo'],
  ['Ctrl+Enter', 'Send the documents to Check'],
];

/** The light table: all pages of a stack at readable size, and the cuts between them. */
export function LightTable({ stack }: { stack: Stack }) {
  const { pages, change, undo, redo, settled } = useArrangement(stack);
  const [zoom, setZoom] = useState(1);
  const [focus, setFocus] = useState(0);
  const [anchor, setAnchor] = useState<number>();
  const [peek, setPeek] = useState(false);
  const [dragged, setDragged] = useState<string>();
  const [sheets, setSheets] = useState<SheetsHandle | null>(null);
  const [sizeRef, { width }] = useSize<HTMLDivElement>();
  const send = useSend(stack, settled);
  const go = useGo();
  const wave = useWave();

  const pageWidth = ZOOMS[zoom];
  const rows = useMemo(() => layInRows(pages, width - 2 * EDGE, pageWidth), [pages, width, pageWidth]);
  const current = pages[Math.min(focus, pages.length - 1)];
  const selected = useMemo(() => {
    if (!current) return new Set<string>();
    const [from, to] = [Math.min(anchor ?? focus, focus), Math.max(anchor ?? focus, focus)];
    return new Set(pages.slice(from, to + 1).map(({ id }) => id));
  }, [pages, anchor, focus, current]);
  const documents = useMemo(() => documentsOf(pages), [pages]);
  const places = useMemo(
    () =>
      new Map(
        documents.flatMap((document, number) =>
          document.map(({ id }, place): [string, Place] => [id, { number, place, of: document.length }]),
        ),
      ),
    [documents],
  );

  const goTo = (index: number, extend = false) => {
    const to = Math.max(0, Math.min(pages.length - 1, index));
    setAnchor(extend ? (anchor ?? focus) : undefined);
    setFocus(to);
    sheets?.show(to);
  };
  const cut = () => current && change((before) => toggleCut(before, current.id));
  const doubtful = pages.filter(isDoubtful).length;
  const walk = (by: 1 | -1, among = pages) => {
    const next = nextDoubtful(among, focus, by);
    if (next >= 0) goTo(next);
  };
  /** Settles the gap before the page in focus and goes on to the next doubtful one. */
  const settle = (alter: typeof acceptCut) => {
    if (!current || !isDoubtful(current)) return walk(1);
    change((before) => alter(before, current.id));
    walk(
      1,
      pages.map((page) => (page === current ? { ...page, cutDecided: true } : page)),
    );
  };
  const wholeDocument = (id: string) => {
    const document = documents.find((each) => each.some((page) => page.id === id));
    if (!document) return;
    const places = document.map((page) => pages.findIndex((each) => each.id === page.id));
    setAnchor(places[0]);
    setFocus(places[places.length - 1]);
  };
  const turn = (by: 90 | 270) => change((before) => turnPages(before, selected, by));
  const drop = () => current && change((before) => setDropped(before, selected, !current.dropped));
  const move = (by: -1 | 1) => {
    const places = pages.filter(({ id }) => selected.has(id)).map(({ index }) => index);
    const [first, last] = [places[0], places[places.length - 1]];
    const target = by < 0 ? first - 1 : last + 2;
    if (target < 0 || target > pages.length) return;
    change((before) => movePages(before, selected, pages[target]?.id ?? null));
    setFocus(focus + by);
    if (anchor !== undefined) setAnchor(anchor + by);
  };
  const toBack = () => {
    change((before) => sendToBack(before, selected));
    const first = pages.find(({ id }) => selected.has(id));
    // What comes up next is in focus.
    if (first) goTo(Math.min(first.index, Math.max(0, pages.length - selected.size - 1)));
  };
  const tidy = () =>
    current && void settled().then(() => go(`/page/${stack.id}/${current.id}`, { selected: [...selected] }));
  /** Two captures of a sheet, or any two pages that are selected, side by side. */
  const pair = pairOf(pages, selected);
  const compare = () => pair && void settled().then(() => go(`/compare/${stack.id}/${pair[0].id}/${pair[1].id}`));
  const arrow =
    (by: number) =>
    ({ shiftKey }: KeyboardEvent) =>
      goTo(focus + by, shiftKey);
  const upOrDown =
    (by: -1 | 1) =>
    ({ shiftKey }: KeyboardEvent) =>
      goTo(pageBeside(rows, focus, by), shiftKey);

  useKeys(
    {
      ArrowRight: arrow(1),
      ArrowLeft: arrow(-1),
      ArrowDown: upOrDown(1),
      ArrowUp: upOrDown(-1),
      'Shift+ArrowRight': arrow(1),
      'Shift+ArrowLeft': arrow(-1),
      'Shift+ArrowDown': upOrDown(1),
      'Shift+ArrowUp': upOrDown(-1),
      Home: () => goTo(0),
      End: () => goTo(pages.length - 1),
      'Alt+ArrowRight': () => move(1),
      'Alt+ArrowLeft': () => move(-1),
      c: cut,
      n: () => walk(1),
      'Shift+N': () => walk(-1),
      Enter: () => settle(acceptCut),
      x: () => settle(toggleCut),
      d: () => current && wholeDocument(current.id),
      j: () => change((before) => joinPages(before, selected)),
      r: () => turn(90),
      'Shift+R': () => turn(270),
      Delete: drop,
      Backspace: drop,
      w: () => change(keepWhole),
      s: () => change(cutEverywhere),
      ' ': () => setPeek(true),
      b: toBack,
      e: tidy,
      v: compare,
      y: () => current && warningOn(current) && wave(current),
      'Ctrl+z': undo,
      'Ctrl+Shift+z': redo,
      'Ctrl+Shift+Z': redo,
      'Ctrl+y': redo,
      'Ctrl+Enter': send,
      '+': () => setZoom(Math.min(ZOOMS.length - 1, zoom + 1)),
      '-': () => setZoom(Math.max(0, zoom - 1)),
    },
    KEYS,
  );

  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 6 } }));
  const onDragStart = ({ active }: DragStartEvent) => {
    const index = pages.findIndex(({ id }) => id === active.id);
    if (!selected.has(String(active.id))) {
      setAnchor(undefined);
      setFocus(index);
    }
    setDragged(String(active.id));
  };
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    setDragged(undefined);
    if (!over) return;
    const ids = selected.has(String(active.id)) ? selected : new Set([String(active.id)]);
    const before = over.id === 'end' ? null : String(over.id).replace(/^gap-/, '');
    change((arranged) => movePages(arranged, ids, before));
  };
  const on = useLatest<TableActions>({
    focus: ({ index }, extend) => goTo(index, extend),
    cut: ({ id }) => change((before) => toggleCut(before, id)),
    peek: () => setPeek(true),
    bringBack: ({ id }) => change((before) => setDropped(before, new Set([id]), false)),
    whole: ({ id }) => wholeDocument(id),
  });
  const draggedPage = pages.find(({ id }) => id === dragged);

  return (
    <div className="flex h-full flex-col" ref={sizeRef}>
      <header className="flex min-h-14 shrink-0 flex-wrap items-center gap-x-2 gap-y-1 border-b border-rule px-3 py-1 md:flex-nowrap md:px-6">
        <h1
          className="mr-2 min-w-0 flex-1 basis-full truncate text-lg font-semibold md:flex-initial md:basis-auto"
          title={stack.name}
        >
          {stack.name}
        </h1>
        <p className="mr-auto shrink-0 text-quiet" aria-live="polite">
          {count(pages.length, 'page')} →{' '}
          <strong className="font-semibold text-ink">{count(documents.length, 'document')}</strong>
          {doubtful > 0 && (
            <button className="ml-3 text-attention underline underline-offset-2" onClick={() => walk(1)}>
              ? {count(doubtful, 'doubtful gap')} <Key>n</Key>
            </button>
          )}
        </p>
        <IconButton name="Undo (Ctrl+Z)" onClick={undo} disabled={!stack.canUndo}>
          <Undo2 size={17} />
        </IconButton>
        <IconButton name="Redo (Ctrl+Shift+Z)" onClick={redo} disabled={!stack.canRedo}>
          <Redo2 size={17} />
        </IconButton>
        <CutMenu
          blanks={pages.filter(({ blank }) => blank).length}
          onWhole={() => change(keepWhole)}
          onSingle={() => change(cutEverywhere)}
          onEvery={(number) => change((before) => cutEvery(before, number))}
          onBlanks={() =>
            change((before) => cutBehind(before, new Set(pages.filter(({ blank }) => blank).map(({ id }) => id))))
          }
          onProposed={() => change(asProposed)}
        />
        <label className="flex items-center gap-2 px-2 text-sm text-quiet max-md:hidden">
          <span className="sr-only">Size of the pages</span>
          <input
            type="range"
            min={0}
            max={ZOOMS.length - 1}
            value={zoom}
            onChange={(event) => setZoom(Number(event.target.value))}
            className="w-20 accent-accent"
          />
        </label>
        <Button main onClick={send} hint="Ctrl+Enter" disabled={documents.length === 0}>
          To Check
        </Button>
      </header>
      <ReadingLine stack={stack} />
      <DndContext
        sensors={sensors}
        collisionDetection={pointerWithin}
        onDragStart={onDragStart}
        onDragEnd={onDragEnd}
        onDragCancel={() => setDragged(undefined)}
      >
        <Sheets
          handle={setSheets}
          pages={pages}
          places={places}
          pageWidth={pageWidth}
          rows={rows}
          currentId={current?.id}
          selected={selected}
          on={on}
        />
        <DragOverlay dropAnimation={null}>
          {draggedPage && (
            <DraggedPage
              page={draggedPage}
              width={pageWidth}
              count={selected.has(draggedPage.id) ? selected.size : 1}
            />
          )}
        </DragOverlay>
      </DndContext>
      {current && <GapLine page={current} onAccept={() => settle(acceptCut)} onOther={() => settle(toggleCut)} />}
      {current && <WarningLine page={current} onTidy={tidy} hint="y" />}
      <footer className="flex h-12 shrink-0 items-center gap-2 overflow-x-auto border-t border-rule bg-sunken px-3 text-sm md:px-6">
        <Button onClick={cut} hint="c" disabled={!current || current.index === 0}>
          {current?.cutBefore ? <FoldHorizontal size={15} aria-hidden /> : <UnfoldHorizontal size={15} aria-hidden />}{' '}
          {current?.cutBefore ? 'Join' : 'Cut before'}
        </Button>
        <Button onClick={() => turn(90)} hint="r">
          <RotateCw size={14} aria-hidden /> Turn
        </Button>
        <Button onClick={drop} hint="Del">
          <Trash2 size={14} aria-hidden /> {current?.dropped ? 'Bring back' : 'Drop'}
        </Button>
        <StackMenu
          stack={stack}
          selected={pages.flatMap(({ id }) => (selected.has(id) ? [id] : []))}
          settled={settled}
          onBack={toBack}
        />
        <Button onClick={() => setPeek(true)} hint="Space">
          Look closely
        </Button>
        <Button onClick={tidy} hint="e">
          Tidy
        </Button>
        {pair && (
          <Button onClick={compare} hint="v">
            Compare
          </Button>
        )}
        <span className="ml-auto text-quiet">
          {selected.size > 1 ? `${selected.size} pages selected · ` : ''}arrows go · Shift selects · Alt+arrows move
        </span>
      </footer>
      {current && <Peek page={current} open={peek} onClose={() => setPeek(false)} onStep={(by) => goTo(focus + by)} />}
    </div>
  );
}

function pairOf(pages: ArrangedPage[], selected: ReadonlySet<string>): [ArrangedPage, ArrangedPage] | undefined {
  const chosen = pages.filter(({ id }) => selected.has(id));
  if (chosen.length === 2) return [chosen[0], chosen[1]];
  const twin = chosen.length === 1 && twinOf(chosen[0], pages);
  return twin ? [twin, chosen[0]] : undefined;
}
