import { KeyboardEvent, PointerEvent, useEffect, useRef, useState } from 'react';
import { Bend, bentOutline } from '@crow/core/imaging/bend/bend';
import { crossing, lineThrough } from '@crow/core/imaging/outline/lines';
import { Point, Quad } from '@crow/core/imaging/quad';
import { useSize } from '../../parts/useSize';

interface OutlinePaneProps {
  source: HTMLImageElement;
  /** In shares of the picture. */
  corners: Quad;
  /** How the sheet lies between them when it isn't flat. */
  bend?: Bend;
  /** Whether the program is unsure of them. */
  unsure: boolean;
  /** @param settled false while something is still being dragged */
  onChange: (corners: Quad, settled: boolean) => void;
}

const PADDING = 28;
const CORNER_NAMES = ['Upper left corner', 'Upper right corner', 'Lower right corner', 'Lower left corner'];
const SIDE_NAMES = ['Upper side', 'Right side', 'Lower side', 'Left side'];
const BRACKET = 22;
const LOUPE = 148;
const LOUPE_ZOOM = 3;

/** The picture as it came, with the outline of the sheet: the sheet keeps its light, all around it dims. */
export function OutlinePane({ source, corners, bend, unsure, onChange }: OutlinePaneProps) {
  const [ref, space] = useSize<HTMLDivElement>();
  const [held, setHeld] = useState<number>();
  /** Where the finger was last. */
  const last = useRef<Point>([0, 0]);
  const { naturalWidth, naturalHeight } = source;
  const scale = Math.min((space.width - 2 * PADDING) / naturalWidth, (space.height - 2 * PADDING) / naturalHeight);
  const [width, height] = [Math.max(0, naturalWidth * scale), Math.max(0, naturalHeight * scale)];
  const shown = corners.map(([x, y]): Point => [x * width, y * height]) as Quad;
  const middles = shown.map(([x, y], index): Point => {
    const [nextX, nextY] = shown[(index + 1) % 4];
    return [(x + nextX) / 2, (y + nextY) / 2];
  });

  const moved = (handle: number, by: Point): Quad => {
    const next = shown.map(([x, y]): Point => [x, y]) as Quad;
    if (handle < 4) next[handle] = [next[handle][0] + by[0], next[handle][1] + by[1]];
    else shiftSide(next, handle - 4, by);
    return next.map(([x, y]) => [keepNear(x / width), keepNear(y / height)]) as Quad;
  };
  const drag = (event: PointerEvent<HTMLElement>) => {
    if (held === undefined) return;
    const [x, y] = last.current;
    last.current = [event.clientX, event.clientY];
    onChange(moved(held, [event.clientX - x, event.clientY - y]), false);
  };
  const release = () => {
    if (held === undefined) return;
    setHeld(undefined);
    onChange(corners, true);
  };
  const hear = (handle: number) => (event: KeyboardEvent) => {
    const step = (event.shiftKey ? 10 : 1) * scale;
    const by: Record<string, Point> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    if (!by[event.key]) return;
    event.preventDefault();
    event.stopPropagation();
    onChange(moved(handle, by[event.key]), true);
  };
  const around = bend ? bentOutline(corners, bend).map(([x, y]): Point => [x * width, y * height]) : shown;
  const path = `M0 0H${width}V${height}H0Z M${around.map((point) => point.join(' ')).join('L')}Z`;
  return (
    <div
      ref={ref}
      className="relative flex min-h-0 min-w-0 flex-1 items-center justify-center overflow-hidden bg-sunken"
    >
      {width > 0 && (
        <div
          className="relative touch-pinch-zoom select-none"
          style={{ width, height }}
          onPointerMove={drag}
          onPointerUp={release}
        >
          <img src={source.src} alt="The page as it came" draggable={false} className="block h-full w-full" />
          <svg
            className="pointer-events-none absolute inset-0 overflow-visible"
            width={width}
            height={height}
            aria-hidden
          >
            <path d={path} fillRule="evenodd" fill="rgb(20 19 24 / 0.58)" />
            {shown.map((_, index) => (
              <polyline
                key={index}
                points={bracket(shown, index)}
                fill="none"
                stroke="#ffffff"
                strokeWidth={held === index ? 4 : 2.5}
                strokeDasharray={unsure ? '5 4' : undefined}
                style={{ filter: 'drop-shadow(0 0 1px #1f1d26)' }}
              />
            ))}
          </svg>
          {[...shown, ...middles].map(([x, y], handle) => (
            <button
              key={handle}
              aria-label={handle < 4 ? CORNER_NAMES[handle] : SIDE_NAMES[handle - 4]}
              title="Drag it, or use the arrow keys"
              className="absolute flex size-11 -translate-1/2 touch-none items-center justify-center"
              style={{ left: x, top: y, cursor: 'move' }}
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                last.current = [event.clientX, event.clientY];
                setHeld(handle);
              }}
              onPointerUp={release}
              onKeyDown={hear(handle)}
            >
              {handle >= 4 && <span className="size-2 bg-paper outline outline-[#1f1d26]" />}
            </button>
          ))}
          {held !== undefined && held < 4 && (
            <Loupe source={source} at={corners[held]} left={shown[held][0] > width / 2 ? 8 : width - LOUPE - 8} />
          )}
        </div>
      )}
    </div>
  );
}

/** A side moved across itself: its corners slide along the neighbouring sides. */
function shiftSide(quad: Quad, side: number, [dx, dy]: Point): void {
  const [from, to] = [side, (side + 1) % 4];
  const moved = lineThrough([quad[from][0] + dx, quad[from][1] + dy], [quad[to][0] + dx, quad[to][1] + dy]);
  const before = lineThrough(quad[(side + 3) % 4], quad[from]);
  const after = lineThrough(quad[to], quad[(side + 2) % 4]);
  quad[from] = crossing(before, moved) ?? quad[from];
  quad[to] = crossing(moved, after) ?? quad[to];
}

/** A corner may lie a little outside its picture. */
function keepNear(share: number): number {
  return Math.max(-0.25, Math.min(1.25, share));
}

/** A thin square bracket at a corner, along its two sides. */
function bracket(quad: Quad, index: number): string {
  const [corner, next, last] = [quad[index], quad[(index + 1) % 4], quad[(index + 3) % 4]];
  const towards = ([x, y]: Point): Point => {
    const length = Math.hypot(x - corner[0], y - corner[1]) || 1;
    const share = Math.min(1, BRACKET / length);
    return [corner[0] + share * (x - corner[0]), corner[1] + share * (y - corner[1])];
  };
  return [towards(last), corner, towards(next)].map((point) => point.join(',')).join(' ');
}

/** What lies under the finger, enlarged. */
function Loupe({ source, at: [x, y], left }: { source: HTMLImageElement; at: Point; left: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const part = LOUPE / LOUPE_ZOOM;
    context.fillStyle = '#1f1d26';
    context.fillRect(0, 0, LOUPE, LOUPE);
    const [px, py] = [x * source.naturalWidth, y * source.naturalHeight];
    context.drawImage(source, px - part / 2, py - part / 2, part, part, 0, 0, LOUPE, LOUPE);
    context.strokeStyle = '#ffffff';
    context.beginPath();
    context.moveTo(LOUPE / 2, LOUPE / 2 - 12);
    context.lineTo(LOUPE / 2, LOUPE / 2 + 12);
    context.moveTo(LOUPE / 2 - 12, LOUPE / 2);
    context.lineTo(LOUPE / 2 + 12, LOUPE / 2);
    context.stroke();
  }, [source, x, y]);
  return (
    <canvas
      ref={canvas}
      width={LOUPE}
      height={LOUPE}
      aria-hidden
      className="pointer-events-none absolute top-2 border border-paper"
      style={{ left }}
    />
  );
}
