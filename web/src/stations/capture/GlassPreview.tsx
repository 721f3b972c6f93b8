import { ScanEye } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { KeyboardEvent, PointerEvent, useEffect, useRef, useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { Scanner, ScanSettings } from '@crow/contract/scanning';
import { askBytes } from '../../api';
import { Button } from '../../parts/controls';
import { useNotices } from '../../parts/notices';

interface GlassPreviewProps {
  scanner: Scanner;
  area: ScanSettings['area'];
  onArea: (area: ScanSettings['area']) => void;
}

const SMALLEST = 20;
/** How far a key moves the area, in points. */
const STEP = 12;

/** What lies on the glass, small, with the area to scan drawn on it by dragging. */
export function GlassPreview({ scanner, area, onArea }: GlassPreviewProps) {
  const { tell } = useNotices();
  const [picture, setPicture] = useState<string>();
  const [looking, setLooking] = useState(false);
  const [drawn, setDrawn] = useState<NonNullable<ScanSettings['area']>>();
  const from = useRef<[number, number]>(undefined);
  const { width = 1, height = 1 } = scanner.capabilities.glass ?? {};
  useEffect(() => () => void (picture && URL.revokeObjectURL(picture)), [picture]);

  const look = async () => {
    setLooking(true);
    try {
      const seen = await askBytes(endpoints.previewScan, { params: { id: scanner.id } });
      setDrawn(area ?? undefined);
      setPicture(URL.createObjectURL(seen));
    } catch (error) {
      tell({ error });
    } finally {
      setLooking(false);
    }
  };
  const placeOf = ({ currentTarget, clientX, clientY }: PointerEvent): [number, number] => {
    const box = currentTarget.getBoundingClientRect();
    const share = (value: number) => Math.max(0, Math.min(1, value));
    return [share((clientX - box.left) / box.width) * width, share((clientY - box.top) / box.height) * height];
  };
  const begin = (event: PointerEvent) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    from.current = placeOf(event);
  };
  const drag = (event: PointerEvent) => {
    if (!from.current) return;
    const [ax, ay] = from.current;
    const [bx, by] = placeOf(event);
    setDrawn({ x: Math.min(ax, bx), y: Math.min(ay, by), width: Math.abs(ax - bx), height: Math.abs(ay - by) });
  };
  /** By keys: the arrows move the area, with Shift its lower right corner. */
  const hear = (event: KeyboardEvent) => {
    const steps: Record<string, [number, number]> = {
      ArrowLeft: [-STEP, 0],
      ArrowRight: [STEP, 0],
      ArrowUp: [0, -STEP],
      ArrowDown: [0, STEP],
    };
    const by = steps[event.key];
    if (!by) return;
    event.preventDefault();
    const {
      x,
      y,
      width: w,
      height: h,
    } = drawn ?? { x: width / 4, y: height / 4, width: width / 2, height: height / 2 };
    const within = (value: number, least: number, most: number) => Math.max(least, Math.min(most, value));
    setDrawn(
      event.shiftKey
        ? { x, y, width: within(w + by[0], SMALLEST, width - x), height: within(h + by[1], SMALLEST, height - y) }
        : { x: within(x + by[0], 0, width - w), y: within(y + by[1], 0, height - h), width: w, height: h },
    );
  };
  const take = () => {
    const usable = drawn && drawn.width > SMALLEST && drawn.height > SMALLEST;
    onArea(usable ? drawn : null);
    setPicture(undefined);
  };
  return (
    <>
      <Button onClick={() => void look()} disabled={looking}>
        <ScanEye size={15} aria-hidden /> {looking ? 'Looking …' : 'Look at the glass'}
      </Button>
      <Dialog.Root open={Boolean(picture)} onOpenChange={(open) => !open && setPicture(undefined)}>
        <Dialog.Portal>
          <Dialog.Overlay className="fixed inset-0 z-40 bg-[#000]/30" />
          <Dialog.Content
            aria-describedby={undefined}
            className="fixed top-1/2 left-1/2 z-40 flex max-h-[92dvh] -translate-1/2 flex-col gap-3 border border-quiet bg-raised p-5"
          >
            <Dialog.Title className="font-semibold">Drag over what is to be scanned</Dialog.Title>
            {/* eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions -- an application takes all keys itself */}
            <div
              role="application"
              tabIndex={0}
              aria-label={`What lies on the glass. The arrow keys move the area, with Shift they change its size${drawn ? `; it is ${Math.round((drawn.width / 72) * 25.4)} by ${Math.round((drawn.height / 72) * 25.4)} mm` : ''}`}
              onKeyDown={hear}
              className="relative cursor-crosshair touch-none self-center bg-paper select-none"
              style={{ height: 'min(66dvh, 620px)', aspectRatio: `${width} / ${height}` }}
              onPointerDown={begin}
              onPointerMove={drag}
              onPointerUp={() => (from.current = undefined)}
            >
              {picture && <img src={picture} alt="" draggable={false} className="block h-full w-full" />}
              {drawn && (
                <span
                  className="pointer-events-none absolute outline-2 outline-[#1f1d26] outline-dashed"
                  style={{
                    left: `${(100 * drawn.x) / width}%`,
                    top: `${(100 * drawn.y) / height}%`,
                    width: `${(100 * drawn.width) / width}%`,
                    height: `${(100 * drawn.height) / height}%`,
                  }}
                />
              )}
            </div>
            <div className="flex justify-end gap-2">
              <Button onClick={() => setDrawn({ x: 0, y: 0, width, height })}>All of it</Button>
              <Button onClick={() => setPicture(undefined)}>Cancel</Button>
              <Button main onClick={take} disabled={!drawn}>
                Scan this area
              </Button>
            </div>
          </Dialog.Content>
        </Dialog.Portal>
      </Dialog.Root>
    </>
  );
}
