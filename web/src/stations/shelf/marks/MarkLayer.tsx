import { KeyboardEvent, PointerEvent, useState } from 'react';
import { NewMark, ShownMark } from '@crow/contract/marks';
import { Page } from '@crow/contract/pages';
import { Turn } from '@crow/core/geometry';
import { onWords, Stroke } from '@crow/core/pdf/marks/mark';
import { shownMoment } from '../../../parts/days';
import { extent, markAt, moved, resized, shareAt } from './geometry';
import { MarkShapes } from './MarkShapes';
import { MARK_NAMES, Tool } from './tools';

interface LayerProps {
  page: Page;
  turn: Turn;
  marks: readonly ShownMark[];
  selected?: string;
  onSelect: (id: string | undefined) => void;
  onChange: (mark: NewMark) => void;
}

/** The marks on a page, under its words. */
export function MarkLayer({ page, marks, selected, onSelect }: Omit<LayerProps, 'onChange' | 'turn'>) {
  return (
    <svg
      className="absolute inset-0 h-full w-full overflow-visible"
      viewBox={`0 0 ${page.pointWidth} ${page.pointHeight}`}
      preserveAspectRatio="none"
      // What lies on the paper darkens it.
      style={{ mixBlendMode: 'multiply' }}
    >
      {marks.map((mark) => (
        <g
          key={mark.id}
          role="button"
          tabIndex={0}
          data-mark={mark.id}
          aria-label={sayMark(mark)}
          aria-pressed={mark.id === selected}
          className="outline-none"
          onFocus={() => onSelect(mark.id)}
        >
          <title>{sayMark(mark)}</title>
          <MarkShapes mark={mark} />
        </g>
      ))}
    </svg>
  );
}

function sayMark({ kind, text, by, at, replies }: ShownMark): string {
  const answers = replies.map((reply) => ` ${reply.by}: ${reply.text}`).join('');
  return `${MARK_NAMES[kind]}${text ? `: ${text.replace('\n', ', ')}` : ''} (${by}, ${shownMoment(at)})${answers}`;
}

/** How wide a line is that is drawn without a pen that tells how hard it is pressed, in points. */
const PEN = 1.6;
/** How long, and how wide, the lines of a pen become at most and at least. */
const pressed = (pressure: number) => PEN * (0.5 + 1.1 * pressure);

interface HandProps extends LayerProps {
  /** Whether marks may be changed, and not only looked at. */
  may: boolean;
  tool: Tool | undefined;
  /** Put something at a place, in points. */
  onPlace: (x: number, y: number) => void;
  onStroke: (stroke: Stroke) => void;
  colour: string;
}

/** What a pointer does on a page: picks a mark up, moves it or makes it larger, draws, says where something goes. */
export function MarkHand(props: HandProps) {
  const { page, turn, may, marks, selected, onSelect, onChange, tool, onPlace, onStroke, colour } = props;
  const [frame, setFrame] = useState<HTMLElement | null>(null);
  const [stroke, setStroke] = useState<Stroke>();
  /** A mark that is being moved or made larger: where it was taken, and what it is by now. */
  const [taken, setTaken] = useState<{ from: [number, number]; corner: boolean; mark: ShownMark; now: ShownMark }>();
  const chosen = marks.find(({ id }) => id === selected);

  const pointAt = ({ clientX, clientY }: { clientX: number; clientY: number }): [number, number] => {
    const [x, y] = shareAt(frame!.getBoundingClientRect(), turn, clientX, clientY);
    return [x * page.pointWidth, y * page.pointHeight];
  };
  const down = (event: PointerEvent) => {
    if (event.button !== 0 || !tool) return;
    event.preventDefault();
    const [x, y] = pointAt(event);
    if (tool !== 'drawing') return onPlace(x, y);
    event.currentTarget.setPointerCapture(event.pointerId);
    setStroke([[x, y, event.pointerType === 'pen' ? pressed(event.pressure) : PEN]]);
  };
  const move = (event: PointerEvent) => {
    if (!stroke) return;
    const places = (event.nativeEvent.getCoalescedEvents?.() ?? []).map((each): Stroke[number] => [
      ...pointAt(each),
      each.pointerType === 'pen' ? pressed(each.pressure) : PEN,
    ]);
    setStroke([...stroke, ...(places.length > 0 ? places : [[...pointAt(event), PEN] as Stroke[number]])]);
  };
  const up = (event: PointerEvent) => {
    if (tool) event.stopPropagation();
    if (stroke) onStroke(thinned(stroke));
    setStroke(undefined);
  };
  const take = (corner: boolean) => (event: PointerEvent) => {
    event.preventDefault();
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    setTaken({ from: pointAt(event), corner, mark: chosen!, now: chosen! });
  };
  const drag = (event: PointerEvent) => {
    if (!taken) return;
    const [x, y] = pointAt(event);
    const by: [number, number] = [x - taken.from[0], y - taken.from[1]];
    setTaken({ ...taken, now: (taken.corner ? resized : moved)(taken.mark, ...by) });
  };
  const drop = (event: PointerEvent) => {
    // It stays picked up: this was no click beside it.
    event.stopPropagation();
    if (taken && taken.now !== taken.mark) onChange(taken.now);
    setTaken(undefined);
  };
  const inPage = ([x, y, width, height]: readonly number[]) => ({
    left: `${(100 * x) / page.pointWidth}%`,
    top: `${(100 * y) / page.pointHeight}%`,
    width: `${(100 * width) / page.pointWidth}%`,
    height: `${(100 * height) / page.pointHeight}%`,
  });
  const draws = tool !== undefined && !onWords(tool);
  const movable = may && chosen && !onWords(chosen.kind);
  const shown = taken?.now ?? chosen;
  return (
    <div
      ref={setFrame}
      className={`absolute inset-0 ${draws ? 'cursor-crosshair touch-none' : 'pointer-events-none'}`}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={() => setStroke(undefined)}
    >
      {(stroke ?? taken) && (
        <svg
          className="pointer-events-none absolute inset-0 h-full w-full overflow-visible"
          viewBox={`0 0 ${page.pointWidth} ${page.pointHeight}`}
          preserveAspectRatio="none"
        >
          {stroke && (
            <polyline
              points={stroke.map(([x, y]) => `${x},${y}`).join(' ')}
              fill="none"
              stroke={colour}
              strokeWidth={PEN}
              strokeLinecap="round"
            />
          )}
          {taken && <MarkShapes mark={taken.now} />}
        </svg>
      )}
      {shown && !draws && (
        <div
          className={`absolute outline-2 outline-offset-2 outline-accent outline-dashed ${movable ? 'pointer-events-auto cursor-move touch-none' : ''}`}
          style={inPage(extent(shown))}
          onPointerDown={movable ? take(false) : undefined}
          onPointerMove={drag}
          onPointerUp={drop}
          onDoubleClick={() => onSelect(shown.id)}
        >
          {movable && chosen.kind !== 'comment' && (
            <span
              className="pointer-events-auto absolute -right-2.5 -bottom-2.5 size-4 cursor-nwse-resize touch-none border-2 border-accent bg-paper"
              onPointerDown={take(true)}
              onPointerMove={drag}
              onPointerUp={drop}
            />
          )}
        </div>
      )}
    </div>
  );
}

/** A place of a line that is nearer to the one before than this tells nothing, in points. */
const NEAR = 0.7;

/** A line without the places that lie so close that they tell nothing; what is left is rounded. */
function thinned(stroke: Stroke): Stroke {
  const kept: Stroke = [];
  for (const [at, place] of stroke.entries()) {
    const last = kept.at(-1);
    const far = !last || Math.hypot(place[0] - last[0], place[1] - last[1]) >= NEAR;
    if (far || at === stroke.length - 1) kept.push(place.map((value) => Math.round(value * 100) / 100) as typeof place);
  }
  return kept;
}

/** The mark of a page that a click in the window is on, if any, whatever lies over it. */
export function clickedMark(
  event: { clientX: number; clientY: number; target: EventTarget },
  turn: Turn,
  pages: readonly Page[],
  marks: readonly ShownMark[],
): ShownMark | undefined {
  const sheet = (event.target as Element).closest?.<HTMLElement>('[data-page]');
  const page = pages.find(({ id }) => id === sheet?.dataset.page);
  if (!sheet || !page) return undefined;
  const [x, y] = shareAt(sheet.getBoundingClientRect(), turn, event.clientX, event.clientY);
  const own = marks.filter(({ pageId }) => pageId === page.id);
  return markAt(own, x * page.pointWidth, y * page.pointHeight);
}

/** How far arrow keys move a mark, in points; with Shift farther. */
const [STEP, LEAP] = [2, 20];

/** A mark moved by an arrow key; nothing for other keys, and for marks that lie on words. */
export function movedByKey(mark: ShownMark, event: Pick<KeyboardEvent, 'key' | 'shiftKey'>): ShownMark | undefined {
  const by: Record<string, [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, -1],
    ArrowDown: [0, 1],
  };
  const way = by[event.key];
  if (!way || onWords(mark.kind)) return undefined;
  const step = event.shiftKey ? LEAP : STEP;
  return moved(mark, way[0] * step, way[1] * step);
}
