import { KeyboardEvent, PointerEvent, useEffect, useRef, useState } from 'react';
import { Turn } from '@crow/core/geometry';
import { Mark } from '@crow/core/imaging/marks';
import { Point } from '@crow/core/imaging/quad';
import { useSize } from '../../parts/useSize';
import { Preview } from './usePreview';

interface ResultPaneProps {
  preview: Preview | undefined;
  turn: Turn;
  /** Whether the page as shot is laid over the left part. */
  comparing: boolean;
  /** The brush's radius as a share of the page's width, when marks are being lifted. */
  brush: number | undefined;
  onMark: (mark: Mark) => void;
  label: string;
  /** How many times larger than it fits it is shown. */
  zoom: number;
}

const PADDING = 28;

/** The page as it will be; with a divider between before and after, and a brush that lifts marks. */
export function ResultPane({ preview, turn, comparing, brush, onMark, label, zoom }: ResultPaneProps) {
  const [ref, space] = useSize<HTMLDivElement>();
  const [divider, setDivider] = useState(50);
  const [stroke, setStroke] = useState<Point[]>();
  const [over, setOver] = useState<Point>();
  if (!preview) return <div ref={ref} className="min-w-0 flex-1" aria-busy />;
  const { width: pixelWidth, height: pixelHeight } = preview.after;
  const scale = Math.min((space.width - 2 * PADDING) / pixelWidth, (space.height - 2 * PADDING) / pixelHeight);
  const [width, height] = [pixelWidth, pixelHeight].map((pixels) => Math.max(0, pixels * scale * zoom));
  // The brush's radius is a share of the page's width before it is turned.
  const radius = brush === undefined ? 0 : brush * (turn % 180 === 0 ? width : height);
  const place = (event: PointerEvent<HTMLElement>): Point => {
    const box = event.currentTarget.getBoundingClientRect();
    return [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height];
  };
  const finish = () => {
    if (stroke && brush !== undefined) onMark({ points: stroke.map((point) => unturned(point, turn)), radius: brush });
    setStroke(undefined);
  };
  /** The brush by keys: the arrows move it, Space lays it on and takes it off, Enter lifts what lies under it. */
  const hear = (event: KeyboardEvent) => {
    if (brush === undefined || event.ctrlKey || event.metaKey || event.altKey) return;
    const [x, y] = over ?? [0.5, 0.5];
    const step = brush * (event.shiftKey ? 4 : 0.75);
    const to: Record<string, Point> = {
      ArrowLeft: [x - step, y],
      ArrowRight: [x + step, y],
      ArrowUp: [x, y - (step * width) / height],
      ArrowDown: [x, y + (step * width) / height],
    };
    if (to[event.key]) {
      const next = to[event.key].map((value) => Math.max(0, Math.min(1, value))) as Point;
      setOver(next);
      if (stroke) setStroke([...stroke, next]);
    } else if (event.key === ' ') {
      setOver([x, y]);
      if (stroke) finish();
      else setStroke([[x, y]]);
    } else if (event.key === 'Enter' && stroke) finish();
    else if (event.key === 'Escape' && stroke) setStroke(undefined);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div ref={ref} className="relative flex min-h-0 min-w-0 flex-1 overflow-auto" tabIndex={zoom > 1 ? 0 : -1}>
      {width > 0 && (
        <div
          role={brush === undefined ? 'img' : 'application'}
          aria-label={
            brush === undefined
              ? label
              : `${label}. The arrow keys move the brush, Space lays it on, Enter lifts the mark`
          }
          // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex -- only while it is an application
          tabIndex={brush === undefined ? undefined : 0}
          ref={(element) => {
            // Taken up with a key, the brush is moved by keys.
            if (brush !== undefined && element && !element.contains(document.activeElement)) focusOnce(element);
          }}
          onKeyDown={hear}
          className={`relative m-auto shrink-0 bg-paper shadow-paper ${brush === undefined ? '' : 'cursor-crosshair touch-none'}`}
          style={{ width, height }}
          onPointerDown={(event) => {
            if (brush === undefined) return;
            event.currentTarget.setPointerCapture(event.pointerId);
            setStroke([place(event)]);
          }}
          onPointerMove={(event) => {
            if (brush === undefined) return;
            setOver(place(event));
            if (stroke) setStroke([...stroke, place(event)]);
          }}
          onPointerUp={finish}
          onPointerLeave={() => setOver(undefined)}
        >
          <Drawn data={preview.after} />
          {comparing && (
            <>
              <div className="absolute inset-0" style={{ clipPath: `inset(0 ${100 - divider}% 0 0)` }}>
                <Drawn data={preview.before} />
              </div>
              <div
                className="pointer-events-none absolute inset-y-0 w-0.5 bg-[#1c5d63]"
                style={{ left: `${divider}%` }}
              >
                <span className="absolute top-2 right-2 bg-[#1f1d26] px-1.5 text-xs text-paper">before</span>
                <span className="absolute top-2 left-2 bg-[#1f1d26] px-1.5 text-xs text-paper">after</span>
              </div>
              <input
                type="range"
                aria-label="Divider between before and after"
                className="absolute inset-0 h-full w-full cursor-ew-resize opacity-0"
                value={divider}
                onChange={(event) => setDivider(Number(event.target.value))}
              />
            </>
          )}
          {brush !== undefined && (
            <svg className="pointer-events-none absolute inset-0" width={width} height={height} aria-hidden>
              {stroke && (
                <polyline
                  points={stroke.map(([x, y]) => `${x * width},${y * height}`).join(' ')}
                  fill="none"
                  stroke="#b7791f"
                  strokeOpacity={0.45}
                  strokeWidth={2 * radius}
                  strokeLinecap="round"
                  strokeLinejoin="round"
                />
              )}
              {over && <circle cx={over[0] * width} cy={over[1] * height} r={radius} fill="none" stroke="#1f1d26" />}
            </svg>
          )}
        </div>
      )}
    </div>
  );
}

const focused = new WeakSet<Element>();
function focusOnce(element: HTMLElement): void {
  if (focused.has(element)) return;
  focused.add(element);
  element.focus({ preventScroll: true });
}

function Drawn({ data }: { data: ImageData }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    canvas.current?.getContext('2d')?.putImageData(data, 0, 0);
  }, [data]);
  return <canvas ref={canvas} width={data.width} height={data.height} className="block h-full w-full" />;
}

/** A place on the page as shown, on the page before it was turned. */
function unturned([x, y]: Point, turn: Turn): Point {
  if (turn === 90) return [y, 1 - x];
  if (turn === 180) return [1 - x, 1 - y];
  return turn === 270 ? [1 - y, x] : [x, y];
}
