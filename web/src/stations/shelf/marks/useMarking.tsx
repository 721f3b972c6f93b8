import { useState } from 'react';
import { Document } from '@crow/contract/documents';
import { NewMark, Signature } from '@crow/contract/marks';
import { Page } from '@crow/contract/pages';
import { Turn } from '@crow/core/geometry';
import { INK_LOOKS, onWords, Stroke } from '@crow/core/pdf/marks/mark';
import { COMMENT_SIDE, heightOfText } from '@crow/core/pdf/marks/shapes';
import { dayOf } from '@crow/core/reading/dayForms';
import { shownDay } from '../../../parts/days';
import { KeyWords, useKeys } from '../../../parts/keys';
import { useMay } from '../../../queries';
import { useChosen } from '../chosen';
import { selectedLines } from './geometry';
import { clickedMark, MarkHand, MarkLayer, movedByKey } from './MarkLayer';
import { MarkNote } from './MarkNote';
import { MarkStrip } from './MarkStrip';
import { SIGNATURE_HEIGHT } from './Signatures';
import { css, measure } from './look';
import { Tool, TOOL_KEYS, useHand } from './tools';
import { useMarks } from './useMarks';

const KEYS: KeyWords = [
  ['h u s', 'Highlight, underline, strike the words that are selected, or select some then'],
  ['d e c', 'Draw, write, comment on the page'],
  ['b g', 'Stamp, sign'],
  ['Delete', 'Remove the mark that is picked up; arrow keys move it'],
  ['Ctrl+z Ctrl+Shift+z', 'Undo, redo'],
];
const TEXT_WIDTH = 180;
const STAMP = { width: 104, height: 44, plain: 30 };
/** Lines that are drawn one soon after the other are one drawing. */
const TOGETHER_MS = 1500;

/** Marking an open document: what lies over its pages, the strip of tools at its foot, and what a click on a page does. */
export function useMarking(document: Document, turn: Turn, keys: boolean) {
  const { pageList, state } = document;
  const may = useMay('work') && state !== 'check' && !document.binnedAt;
  const marks = useMarks(document.id);
  const [hand, setHand] = useHand();
  const [tool, setTool] = useState<Tool>();
  const [signing, setSigning] = useState<Signature>();
  const [picked, pickUp] = useState<string>();
  const { ids: chosen, set: choosePapers } = useChosen();
  const setPicked = (id: string | undefined) => {
    pickUp(id);
    // Words that nobody wrote are nothing.
    const left = picked !== undefined && picked !== id ? marks.find(picked) : null;
    if (may && left && (left.kind === 'text' || left.kind === 'comment') && left.text === '') marks.remove([left.id]);
    // What is done by keys is done to the mark, and not to papers that are chosen in the list.
    if (id && chosen.size > 0) choosePapers([]);
  };
  const [lastDrawn, setLastDrawn] = useState({ id: '', at: 0 });
  const selected = marks.marks.find(({ id }) => id === picked);

  const make = (page: Page, kind: Tool, part: Partial<NewMark>): NewMark => ({
    id: crypto.randomUUID(),
    pageId: page.id,
    kind,
    ink: hand.ink,
    boxes: [],
    strokes: [],
    text: '',
    ...part,
  });
  const put = (mark: NewMark) => {
    marks.put([mark]);
    setPicked(mark.id);
    setTool(undefined);
  };
  /** Marks the words that are selected in the window. @returns whether any were */
  const markWords = (kind: Tool): boolean => {
    const selection = window.getSelection();
    const lines = selection ? selectedLines(selection) : new Map<string, never>();
    const made = pageList.flatMap((page) => {
      const found = lines.get(page.id);
      if (!found) return [];
      const boxes = found.boxes.map(([x, y, width, height]): NewMark['boxes'][number] => [
        x * page.pointWidth,
        y * page.pointHeight,
        width * page.pointWidth,
        height * page.pointHeight,
      ]);
      return [make(page, kind, { boxes, text: found.text.slice(0, 4000) })];
    });
    if (made.length === 0) return false;
    marks.put(made);
    selection!.removeAllRanges();
    return true;
  };
  const chooseTool = (to: Tool | undefined) => {
    setPicked(undefined);
    if (to && onWords(to) && markWords(to)) return;
    setTool(to);
  };
  const place = (page: Page, x: number, y: number) => {
    const within = (width: number, height: number): [number, number, number, number] => [
      Math.max(0, Math.min(page.pointWidth - width, x)),
      Math.max(0, Math.min(page.pointHeight - height, y)),
      width,
      height,
    ];
    if (tool === 'text')
      put(make(page, 'text', { boxes: [within(TEXT_WIDTH, heightOfText('', TEXT_WIDTH, measure))] }));
    else if (tool === 'comment') put(make(page, 'comment', { boxes: [within(COMMENT_SIDE, COMMENT_SIDE)] }));
    else if (tool === 'stamp') {
      const day = hand.dated ? `\n${shownDay(dayOf(new Date()))}` : '';
      const height = day ? STAMP.height : STAMP.plain;
      const box = within(STAMP.width, height);
      put(make(page, 'stamp', { boxes: [box], text: `${hand.stamps[0].toUpperCase()}${day}` }));
    } else if (tool === 'signature' && signing) {
      const { strokes, text, shape } = signing;
      const box = within(SIGNATURE_HEIGHT * shape, SIGNATURE_HEIGHT);
      put(make(page, 'signature', { boxes: [box], strokes, text }));
    }
  };
  const draw = (page: Page, stroke: Stroke) => {
    const before = marks.marks.find(({ id, pageId }) => id === lastDrawn.id && pageId === page.id);
    const soon = Date.now() - lastDrawn.at < TOGETHER_MS;
    const strokes = before && soon ? [...before.strokes, stroke] : [stroke];
    const [xs, ys] = [0, 1].map((axis) => strokes.flat().map((each) => each[axis]));
    const [left, top] = [Math.min(...xs), Math.min(...ys)];
    const boxes: NewMark['boxes'] = [[left, top, Math.max(...xs) - left, Math.max(...ys) - top]];
    const mark = before && soon ? { ...before, strokes, boxes } : make(page, 'drawing', { strokes, boxes });
    marks.put([mark], `drawing ${mark.id}`);
    setLastDrawn({ id: mark.id, at: Date.now() });
  };
  const change = (mark: NewMark) => marks.put([mark]);
  const remove = () => {
    if (!selected) return;
    marks.remove([selected.id]);
    setPicked(undefined);
  };
  const arrow = (key: string, shiftKey: boolean) => () => {
    const to = selected && movedByKey(selected, { key, shiftKey });
    if (to) marks.put([to], `moving ${to.id}`);
  };
  const arrows = ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'];
  const byKey = Object.fromEntries(
    Object.entries(TOOL_KEYS).map(([kind, key]) => [key, () => chooseTool(tool === kind ? undefined : (kind as Tool))]),
  );
  useKeys(
    may && keys
      ? {
          ...byKey,
          ...(marks.undo && { 'Ctrl+z': marks.undo }),
          ...(marks.redo && { 'Ctrl+Shift+Z': marks.redo, 'Ctrl+y': marks.redo }),
          ...(selected && {
            Delete: remove,
            Backspace: remove,
            ...Object.fromEntries(
              arrows.flatMap((key) => [
                [key, arrow(key, false)],
                [`Shift+${key}`, arrow(key, true)],
              ]),
            ),
          }),
          ...((selected || tool) && {
            Escape: () => {
              setPicked(undefined);
              setTool(undefined);
            },
          }),
        }
      : {},
    may && keys ? KEYS : [],
  );

  return {
    /** Whether keys for pages and the whole window belong to a mark now. */
    busy: Boolean(selected ?? tool),
    under: (page: Page) => (
      <MarkLayer
        page={page}
        marks={marks.marks.filter(({ pageId }) => pageId === page.id)}
        selected={picked}
        onSelect={setPicked}
      />
    ),
    above: (page: Page) => (
      <MarkHand
        may={may}
        page={page}
        turn={turn}
        marks={marks.marks.filter(({ pageId }) => pageId === page.id)}
        selected={picked}
        onSelect={setPicked}
        onChange={change}
        tool={tool}
        onPlace={(x, y) => place(page, x, y)}
        onStroke={(stroke) => draw(page, stroke)}
        colour={css(INK_LOOKS[hand.ink].line)}
      />
    ),
    /** After a pointer was let go over the pages: words were selected for a tool, or a mark was picked. */
    onPointerUp: (event: { clientX: number; clientY: number; target: EventTarget }) => {
      if (may && tool && onWords(tool)) return void markWords(tool);
      if (tool) return;
      const selection = window.getSelection();
      if (selection && !selection.isCollapsed) return;
      setPicked(clickedMark(event, turn, pageList, marks.marks)?.id);
    },
    strip: may ? (
      <MarkStrip
        documentId={document.id}
        marks={marks}
        tool={tool}
        onTool={chooseTool}
        hand={hand}
        onHand={setHand}
        signing={signing}
        onSigning={setSigning}
        selected={selected}
        onSelect={setPicked}
        onEveryPage={
          selected && ['signature', 'stamp', 'text'].includes(selected.kind) && pageList.length > 1
            ? () =>
                marks.put(
                  pageList
                    .filter(({ id }) => id !== selected.pageId)
                    .map((page) => ({ ...selected, id: crypto.randomUUID(), pageId: page.id })),
                )
            : undefined
        }
      />
    ) : (
      selected && <MarkNote key={selected.id} documentId={document.id} selected={selected} onSelect={setPicked} />
    ),
  };
}
