import { PointerEvent, useState } from 'react';
import { Document } from '@crow/contract/documents';
import { endpoints } from '@crow/contract/endpoints';
import { Hit } from '@crow/contract/finding';
import { Page } from '@crow/contract/pages';
import { Hideable } from '@crow/core/finding/placesToHide';
import { Box, Turn } from '@crow/core/geometry';
import { later } from '../../parts/later';
import { ask } from '../../api';
import { Button } from '../../parts/controls';
import { KeyWords, useKeys } from '../../parts/keys';
import { useNotices } from '../../parts/notices';
import { count } from '../../parts/words';
import { selectedLines, shareAt } from './marks/geometry';

/** A part of a page that is to be hidden, in shares of it; what was hidden in one go has one step. */
interface Hidden {
  pageId: string;
  box: Box;
  step: number;
}

const CopiesDialog = later(async () => (await import('./sending/CopiesDialog')).default);

const KEYS: KeyWords = [
  ['Ctrl+z', 'Show again what was hidden last'],
  ['Escape', 'Make no copy'],
];
/** What is smaller, as a share of the page, was a click and no area. */
const LEAST = 0.004;

/** Choosing what is hidden in a copy of the open document, and making that copy. */
export function useHiding(
  document: Document,
  { turn, hits, keys }: { turn: Turn; hits: readonly Hit[]; keys: boolean },
) {
  const [on, setOn] = useState(false);
  const [by, setBy] = useState<'words' | 'areas'>('words');
  const [hidden, setHidden] = useState<Hidden[]>([]);
  const [copying, setCopying] = useState(false);
  const { tell } = useNotices();
  const hide = (places: { pageId: string; box: Box }[]) => {
    const step = (hidden.at(-1)?.step ?? 0) + 1;
    const known = new Set(hidden.map(({ pageId, box }) => `${pageId} ${box.join()}`));
    const added = places.filter(({ pageId, box }) => !known.has(`${pageId} ${box.join()}`));
    setHidden([...hidden, ...added.map((place) => ({ ...place, step }))]);
    return added.length;
  };
  const hideSelected = () => {
    const selection = window.getSelection();
    if (!selection) return;
    const lines = [...selectedLines(selection)];
    if (lines.length === 0) return;
    hide(lines.flatMap(([pageId, { boxes }]) => boxes.map((box) => ({ pageId, box }))));
    selection.removeAllRanges();
  };
  const hideAll = async (what: Hideable) => {
    try {
      const places = await ask(endpoints.placesToHide, { params: { id: document.id }, query: { what } });
      const added = hide(places.map(({ pageId, box }) => ({ pageId, box: box as Box })));
      const words = what === 'accounts' ? ['account number', 'account numbers'] : ['amount', 'amounts'];
      tell({
        text:
          added > 0 ? `${count(added, words[0], words[1])} hidden.` : `There are no more ${words[1]} that were read.`,
      });
    } catch (error) {
      tell({ error });
    }
  };
  const undo = () => setHidden(hidden.filter(({ step }) => step !== hidden.at(-1)?.step));
  const close = () => {
    setOn(false);
    setHidden([]);
  };
  useKeys(on && keys ? { 'Ctrl+z': undo, Escape: close } : {}, on && keys ? KEYS : []);
  return {
    on,
    begin: () => setOn(true),
    over: (page: Page) =>
      hidden.map(
        ({ pageId, box: [x, y, width, height] }, at) =>
          pageId === page.id && (
            <span
              key={at}
              data-hidden
              className="absolute bg-[#000]"
              style={{ left: `${100 * x}%`, top: `${100 * y}%`, width: `${100 * width}%`, height: `${100 * height}%` }}
            />
          ),
      ),
    above: (page: Page) =>
      by === 'areas' && <AreaHand turn={turn} onArea={(box) => hide([{ pageId: page.id, box }])} />,
    onPointerUp: () => by === 'words' && hideSelected(),
    strip: (
      <div
        role="toolbar"
        aria-label="Hide"
        className="flex shrink-0 flex-wrap items-center gap-2 border-t border-rule bg-ground px-4 py-2"
      >
        <p className="mr-auto basis-64 text-sm">
          {by === 'words' ? 'Select the words that are to be hidden.' : 'Draw round what is to be hidden.'} The paper
          here stays as it is.
        </p>
        {(['words', 'areas'] as const).map((each) => (
          <Button
            key={each}
            aria-pressed={by === each}
            className={by === each ? 'border-accent outline-1 outline-accent' : ''}
            onClick={() => setBy(each)}
          >
            {each === 'words' ? 'Words' : 'Areas'}
          </Button>
        ))}
        <Button onClick={() => void hideAll('accounts')}>All account numbers</Button>
        <Button onClick={() => void hideAll('amounts')}>All amounts</Button>
        {hits.length > 0 && (
          <Button
            onClick={() => hide(hits.flatMap(({ pageId, boxes }) => boxes.map((box) => ({ pageId, box: box as Box }))))}
          >
            All {hits.length} hits
          </Button>
        )}
        <span role="status" className="font-mono text-sm">
          {hidden.length} hidden
        </span>
        <Button onClick={undo} disabled={hidden.length === 0}>
          Undo
        </Button>
        <Button onClick={close}>Cancel</Button>
        <Button main disabled={hidden.length === 0} onClick={() => setCopying(true)}>
          Make the copy …
        </Button>
        {copying && (
          <CopiesDialog
            documents={[document]}
            hidden={hidden.map(({ pageId, box }) => ({ pageId, box }))}
            onClose={() => setCopying(false)}
            onMade={close}
          />
        )}
      </div>
    ),
  };
}

/** Draws areas on a page. */
function AreaHand({ turn, onArea }: { turn: Turn; onArea: (box: Box) => void }) {
  const [frame, setFrame] = useState<HTMLElement | null>(null);
  const [area, setArea] = useState<{ from: [number, number]; to: [number, number] }>();
  const at = (event: PointerEvent) => shareAt(frame!.getBoundingClientRect(), turn, event.clientX, event.clientY);
  const boxOf = ({ from, to }: { from: [number, number]; to: [number, number] }): Box => [
    Math.max(0, Math.min(from[0], to[0])),
    Math.max(0, Math.min(from[1], to[1])),
    Math.abs(to[0] - from[0]),
    Math.abs(to[1] - from[1]),
  ];
  const shown = area && boxOf(area);
  return (
    <div
      ref={setFrame}
      className="absolute inset-0 cursor-crosshair touch-none"
      onPointerDown={(event) => {
        event.preventDefault();
        event.currentTarget.setPointerCapture(event.pointerId);
        setArea({ from: at(event), to: at(event) });
      }}
      onPointerMove={(event) => area && setArea({ ...area, to: at(event) })}
      onPointerUp={() => {
        if (shown && shown[2] > LEAST && shown[3] > LEAST) onArea(shown);
        setArea(undefined);
      }}
    >
      {shown && (
        <span
          className="absolute border-2 border-[#000] bg-[#000]/60"
          style={{
            left: `${100 * shown[0]}%`,
            top: `${100 * shown[1]}%`,
            width: `${100 * shown[2]}%`,
            height: `${100 * shown[3]}%`,
          }}
        />
      )}
    </div>
  );
}
