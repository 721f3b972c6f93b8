import { ArrowLeft, ZoomIn, ZoomOut } from 'lucide-react';
import { PointerEvent, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { useParams } from 'react-router';
import { endpoints } from '@crow/contract/endpoints';
import { Page } from '@crow/contract/pages';
import { Stack } from '@crow/contract/stacks';
import { compareLegibility } from '@crow/core/imaging/legibility';
import { setDropped } from '@crow/core/sorting/arrangement';
import { Button, Empty, IconButton } from '../../parts/controls';
import { useKeys } from '../../parts/keys';
import { useNotices } from '../../parts/notices';
import { PagePicture, sizeFor } from '../../parts/PagePicture';
import { useArrangement } from '../../parts/useArrangement';
import { useSize } from '../../parts/useSize';
import { useWayBack } from '../../parts/wayBack';
import { useChange, useStack } from '../../queries';

/** Two captures of one sheet side by side: which is more legible, and why; one is kept. */
export default function Compare() {
  const { stack: stackId, one, other } = useParams();
  const { data: stack } = useStack(stackId);
  if (!stack) return null;
  const [a, b] = [one, other].map((id) => stack.pageList.find((page) => page.id === id));
  if (!a || !b) return <Empty title="One of these pages is not there any more" />;
  return <SideBySide stack={stack} a={a} b={b} />;
}

const ZOOMS = [1, 1.5, 2, 3, 4.5];
const STEP = 0.12;

/** What both show: how many times larger than they fit, and which point (shares of the page) is in the middle. */
interface View {
  zoom: number;
  x: number;
  y: number;
}

function SideBySide({ stack, a, b }: { stack: Stack; a: Page; b: Page }) {
  const { back } = useWayBack(stack.state === 'open' ? '/capture' : '/check');
  const keep = useKeep(stack);
  const [view, setView] = useState<View>({ zoom: 0, x: 0.5, y: 0.5 });
  const verdict = a.legibility && b.legibility && compareLegibility(a.legibility, b.legibility);
  const move = (x: number, y: number, zoom = view.zoom) => {
    const within = (value: number) => Math.max(0, Math.min(1, value));
    setView({ zoom: Math.max(0, Math.min(ZOOMS.length - 1, zoom)), x: within(x), y: within(y) });
  };
  const pan = (dx: number, dy: number) =>
    move(view.x + (dx * STEP) / ZOOMS[view.zoom], view.y + (dy * STEP) / ZOOMS[view.zoom]);
  const zoomBy = (by: number) => move(view.x, view.y, view.zoom + by);
  const choose = (kept: Page, other: Page) => void keep(kept, other).then(back);
  useKeys(
    {
      l: () => choose(a, b),
      r: () => choose(b, a),
      '+': () => zoomBy(1),
      '-': () => zoomBy(-1),
      ArrowLeft: () => pan(-1, 0),
      ArrowRight: () => pan(1, 0),
      ArrowUp: () => pan(0, -1),
      ArrowDown: () => pan(0, 1),
      Escape: back,
    },
    [
      ['l r', 'Keep the left or the right one'],
      ['+ -', 'Larger or smaller'],
      ['ArrowLeft ArrowRight ArrowUp ArrowDown', 'Move both'],
      ['Escape', 'Back'],
    ],
  );
  const shared = { view, onMove: move };
  return (
    <div className="flex h-full flex-col">
      <header className="flex h-14 shrink-0 items-center gap-2 border-b border-rule px-6">
        <IconButton name="Back (Esc)" onClick={back}>
          <ArrowLeft size={17} />
        </IconButton>
        <h1 className="text-lg font-semibold">The same sheet twice</h1>
        <p className="mr-auto min-w-0 truncate px-2" aria-live="polite">
          {verdict &&
            (verdict.better
              ? `The ${verdict.better === 'a' ? 'left' : 'right'} one is more legible.`
              : 'Both are equally legible.')}
        </p>
        <IconButton name="Smaller (-)" onClick={() => zoomBy(-1)} disabled={view.zoom === 0}>
          <ZoomOut size={17} />
        </IconButton>
        <IconButton name="Larger (+)" onClick={() => zoomBy(1)} disabled={view.zoom === ZOOMS.length - 1}>
          <ZoomIn size={17} />
        </IconButton>
      </header>
      <div className="flex min-h-0 flex-1">
        <Side
          {...shared}
          page={a}
          side="Left"
          number={stack.pageList.indexOf(a) + 1}
          better={verdict?.better === 'a'}
          reasons={verdict?.reasons.a ?? []}
          hint="l"
          onKeep={() => choose(a, b)}
        />
        <Side
          {...shared}
          page={b}
          side="Right"
          number={stack.pageList.indexOf(b) + 1}
          better={verdict?.better === 'b'}
          reasons={verdict?.reasons.b ?? []}
          hint="r"
          onKeep={() => choose(b, a)}
        />
      </div>
    </div>
  );
}

/** Keeps one of two captures: the other one is dropped, in a document the one takes its place. */
function useKeep(stack: Stack): (kept: Page, other: Page) => Promise<void> {
  const { tell } = useNotices();
  const { change, undo, settled } = useArrangement(stack);
  const swap = useChange(endpoints.swapPage, ['stack', 'document']);
  return async (kept, other) => {
    const number = stack.pageList.indexOf(kept) + 1;
    if (stack.state === 'open') {
      change((now) => setDropped(setDropped(now, new Set([kept.id]), false), new Set([other.id]), true));
      await settled();
      tell({ text: `Page ${number} is kept, the other one dropped.`, action: { label: 'Undo', run: undo } });
      return;
    }
    const instead = (of: Page, page: Page) => swap.mutateAsync({ params: { id: of.id }, body: { page: page.id } });
    await instead(other, kept).catch(() => undefined);
    tell({
      text: `Page ${number} is kept, the other one dropped.`,
      action: { label: 'Undo', run: () => void instead(kept, other).catch(() => undefined) },
    });
  };
}

function Side({
  page,
  side,
  number,
  better,
  reasons,
  hint,
  view,
  onMove,
  onKeep,
}: {
  page: Page;
  side: string;
  number: number;
  better: boolean;
  /** In what it is better than the other one. */
  reasons: string[];
  hint: string;
  view: View;
  onMove: (x: number, y: number, zoom?: number) => void;
  onKeep: () => void;
}) {
  const [ref, space] = useSize<HTMLDivElement>();
  const window = useRef<HTMLDivElement>(null);
  const from = useRef<{ x: number; y: number; view: View }>(undefined);
  const fit = Math.min((space.width - 32) / page.width, (space.height - 32) / page.height);
  const scale = Math.max(0, fit * ZOOMS[view.zoom]);
  const [width, height] = [page.width * scale, page.height * scale];
  // A page smaller than its window lies in the middle; a larger one never leaves a gap at an edge.
  const place = (length: number, room: number, share: number) =>
    length <= room ? (room - length) / 2 : Math.max(room - length, Math.min(0, room / 2 - share * length));
  const drag = {
    onPointerDown: (event: PointerEvent) => {
      from.current = { x: event.clientX, y: event.clientY, view };
      event.currentTarget.setPointerCapture(event.pointerId);
    },
    onPointerMove: (event: PointerEvent) => {
      if (!from.current) return;
      const { x, y, view: begun } = from.current;
      onMove(begun.x - (event.clientX - x) / width, begun.y - (event.clientY - y) / height);
    },
    onPointerUp: () => void (from.current = undefined),
    onPointerCancel: () => void (from.current = undefined),
  };
  const zoomAt = useRef<(event: WheelEvent) => void>(undefined);
  useLayoutEffect(() => {
    zoomAt.current = (event) => {
      event.preventDefault();
      onMove(view.x, view.y, view.zoom + (event.deltaY < 0 ? 1 : -1));
    };
  });
  useEffect(() => {
    const element = window.current;
    const hear = (event: WheelEvent) => zoomAt.current?.(event);
    element?.addEventListener('wheel', hear, { passive: false });
    return () => element?.removeEventListener('wheel', hear);
  }, []);
  const advice = page.legibility?.advice ?? [];
  return (
    <section
      aria-label={`${side}: page ${number}`}
      className="flex min-w-0 flex-1 flex-col not-first:border-l not-first:border-rule"
    >
      <div ref={ref} className="min-h-0 flex-1 overflow-hidden bg-sunken">
        <div
          ref={window}
          {...drag}
          className="relative h-full w-full cursor-grab touch-none overflow-hidden active:cursor-grabbing"
        >
          {width > 0 && (
            <div
              className="absolute shadow-paper"
              style={{
                width,
                height,
                left: place(width, space.width, view.x),
                top: place(height, space.height, view.y),
              }}
            >
              <PagePicture page={page} size={sizeFor(width, page)} alt={`${side}: page ${number}`} />
            </div>
          )}
        </div>
      </div>
      <div className="flex h-[152px] shrink-0 gap-4 overflow-y-auto border-t border-rule p-4">
        <div className="min-w-0 flex-1 text-sm">
          <p className="mb-1 text-base font-semibold">
            Page {number}
            {better && <span className="text-sure"> · ✓ more legible</span>}
            {page.dropped && <span className="font-normal text-quiet"> · dropped</span>}
          </p>
          {reasons.map((reason) => (
            <p key={reason}>+ {reason}</p>
          ))}
          {advice.map((sentence) => (
            <p key={sentence} className="text-quiet">
              ! {sentence}
            </p>
          ))}
          {reasons.length + advice.length === 0 && <p className="text-quiet">Nothing keeps it from being read well.</p>}
        </div>
        <Button main={better} onClick={onKeep} hint={hint}>
          Keep this one
        </Button>
      </div>
    </section>
  );
}
