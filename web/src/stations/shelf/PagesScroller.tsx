import { useVirtualizer } from '@tanstack/react-virtual';
import {
  PointerEvent,
  ReactNode,
  Ref,
  useCallback,
  useEffect,
  useImperativeHandle,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import { Hit } from '@crow/contract/finding';
import { Page } from '@crow/contract/pages';
import { Turn } from '@crow/core/geometry';
import { PageSheet } from '../../parts/PageSheet';
import { useSize } from '../../parts/useSize';
import { limited, PADDING, PAGE_GAP, Room, shownSize, Zoom, zoomedBy } from './reading';

/** How much of the window stands above something that is jumped to. */
const ABOVE = 0.3;
/** So many CSS pixels of a wheel, or of two fingers apart, make the pages twice as large. */
const WHEEL_DOUBLES = 400;

/** What others do with the pages: go to one, to a place on one, make them larger. */
export interface PagesHandle {
  /** @param number from 1 */
  goToPage: (number: number) => void;
  /** On or back by so many pages from where the window stands. */
  turnPages: (by: number) => void;
  /** Brings a height on a page, as a share of it, into view. @param index from 0 */
  goToPlace: (index: number, share: number) => void;
  zoomBy: (steps: number) => void;
}

interface ScrollerProps {
  ref?: Ref<PagesHandle>;
  pages: Page[];
  zoom: Zoom;
  onZoom: (zoom: Zoom) => void;
  turn: Turn;
  hits: Hit[];
  /** Told of the page that is read, from 1, as it changes. */
  onCurrent: (number: number) => void;
  /** What lies over a page. @param index from 0 */
  over?: (page: Page, index: number, size: { width: number; height: number }) => ReactNode;
  /** What lies over the words of a page. */
  above?: (page: Page) => ReactNode;
  onPointerUp?: (event: PointerEvent) => void;
  /** Given the element that scrolls, for whoever scrolls it along with another. */
  onScroller?: (element: HTMLElement | null) => void;
  /** Told when the window is measured, and whatever is asked of the pages can be done. */
  onReady?: () => void;
}

/** The pages of a document below each other; those in the window are drawn. */
export function PagesScroller(props: ScrollerProps) {
  const { ref, pages, zoom, onZoom, turn, hits, onCurrent, over, above, onPointerUp, onScroller, onReady } = props;
  const [sizeRef, room] = useSize<HTMLDivElement>();
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const laid = useMemo(
    () => below(pages.map((page) => shownSize(page, { zoom, turn, room }))),
    [pages, zoom, turn, room],
  );
  const ready = scroller !== null && room.width > 0;
  const scrollerRef = useCallback(
    (element: HTMLDivElement | null) => {
      setScroller(element);
      onScroller?.(element);
      return sizeRef(element);
    },
    [onScroller, sizeRef],
  );
  const virtualizer = useVirtualizer({
    count: pages.length,
    getScrollElement: () => scroller,
    estimateSize: (index) => laid[index].height + PAGE_GAP,
    overscan: 1,
    paddingStart: PADDING,
    paddingEnd: PADDING,
  });
  /** The place that stays where it is in the window while the pages become larger or smaller; without one, that which is read. */
  const anchor = useRef<{ index: number; x: number; y: number; left: number; top: number } | undefined>(undefined);
  const drawn = useRef<Laid[]>(undefined);
  /** What of the pages as they were drawn last stands at a place of the window. @param left, top in CSS pixels */
  const placeAt = (left: number, top: number) => {
    if (!scroller || !drawn.current?.length) return undefined;
    const down = scroller.scrollTop + top;
    // Not by how they are laid out now: there may be more of them, or fewer.
    const index = Math.max(
      0,
      drawn.current.findLastIndex(({ start }) => start <= down),
    );
    const { start, width, height } = drawn.current[index];
    const x = (scroller.scrollLeft + left - leftOf(scroller, width)) / width;
    return { index, x, y: (down - start) / height, left, top };
  };
  /** How far down in the window is what is read: a pixel below where a page is brought to, since the browser rounds. */
  const readHeight = () => (scroller?.clientHeight ?? 0) * ABOVE + 1;
  /** What is read; at the very top, the top. */
  const placeRead = () =>
    scroller && placeAt(scroller.clientWidth / 2, scroller.scrollTop === 0 ? PADDING : readHeight());
  useLayoutEffect(() => {
    // Also where something that opens beside them makes them narrower, the pages stay where they are read.
    const held = anchor.current ?? placeRead();
    anchor.current = undefined;
    virtualizer.measure();
    if (!ready) return;
    drawn.current = laid;
    const to = held && laid[held.index];
    if (!to) return;
    const left = held.x * to.width + leftOf(scroller, to.width) - held.left;
    scroller.scrollTo(left, to.start + held.y * to.height - held.top);
    // Only where they are laid out anew, not whenever something else is drawn.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [virtualizer, ready, laid]);

  const readAt = (top: number) => virtualizer.getVirtualItemForOffset(top + readHeight())?.index ?? 0;
  const current = readAt(virtualizer.scrollOffset ?? 0) + 1;
  useEffect(() => onCurrent(current), [current, onCurrent]);

  const zoomBy = (steps: number) => {
    if (!scroller) return;
    onZoom(zoomedBy(steps, pages[current - 1], { zoom, turn, room }));
  };
  const goToPage = (number: number) => {
    const page = laid[Math.max(0, Math.min(pages.length - 1, number - 1))];
    scroller?.scrollTo({ top: page.start });
  };
  useImperativeHandle(ref, () => ({
    goToPage,
    // Two keys may come before the first of them is drawn: what counts is where the window stands by now.
    turnPages: (by) => goToPage(readAt(scroller?.scrollTop ?? 0) + 1 + by),
    goToPlace: (index, share) => {
      const { start, height } = laid[index];
      const within = turn % 180 === 0 ? share * height : 0;
      scroller?.scrollTo({ top: start + within - scroller.clientHeight * ABOVE });
    },
    zoomBy,
  }));
  useEffect(() => {
    if (ready) onReady?.();
    // Once, whatever becomes of what is told.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [ready]);

  const wheel = useRef<(event: WheelEvent) => void>(undefined);
  useLayoutEffect(() => {
    wheel.current = (event) => {
      if (!event.ctrlKey || !scroller) return;
      event.preventDefault();
      const frame = scroller.getBoundingClientRect();
      const now = zoomedBy(0, pages[current - 1], { zoom, turn, room });
      const next = limited(now * 2 ** (-event.deltaY / WHEEL_DOUBLES));
      // As large as can be, nothing is laid out anew, and nothing is to be held.
      if (next === zoom) return;
      anchor.current = placeAt(event.clientX - frame.left, event.clientY - frame.top);
      onZoom(next);
    };
  });
  useEffect(() => {
    if (!scroller) return;
    const hear = (event: WheelEvent) => wheel.current?.(event);
    // Not passive: the browser would zoom the whole window as well.
    scroller.addEventListener('wheel', hear, { passive: false });
    return () => scroller.removeEventListener('wheel', hear);
  }, [scroller]);

  const total = virtualizer.getTotalSize();
  const widest = Math.max(...laid.map(({ width }) => width));
  return (
    <div className="relative min-h-0 min-w-0 flex-1">
      <div
        ref={scrollerRef}
        onPointerUp={onPointerUp}
        className="h-full overflow-auto bg-sunken"
        role="region"
        tabIndex={0}
        aria-label="Pages"
      >
        <div className="relative mx-auto" style={{ height: total, width: widest, minWidth: '100%' }}>
          {ready &&
            virtualizer.getVirtualItems().map(({ index, key, start }) => {
              const page = pages[index];
              const { width, height } = laid[index];
              const sheetWidth = turn % 180 === 0 ? width : height;
              return (
                <div key={key} className="absolute inset-x-0" style={{ top: start, height }}>
                  <div
                    className="absolute top-1/2 left-1/2"
                    style={{ width: sheetWidth, transform: `translate(-50%, -50%) rotate(${turn}deg)` }}
                  >
                    <PageSheet page={page} number={index + 1} width={sheetWidth} above={above?.(page)}>
                      {over?.(page, index, { width: sheetWidth, height: (sheetWidth * page.height) / page.width })}
                    </PageSheet>
                  </div>
                </div>
              );
            })}
        </div>
      </div>
      {hits.length > 0 && ready && (
        <HitMap
          places={hits.flatMap(({ pageNumber, boxes }) => {
            const page = laid[pageNumber - 1];
            return page ? [(page.start + boxes[0][1] * page.height) / total] : [];
          })}
        />
      )}
    </div>
  );
}

interface Laid extends Room {
  /** How far its upper edge is below where what scrolls begins. */
  start: number;
}

/** Pages below each other. @param sizes in CSS pixels */
function below(sizes: Room[]): Laid[] {
  let start = PADDING;
  return sizes.map((size) => {
    const laid = { ...size, start };
    start += size.height + PAGE_GAP;
    return laid;
  });
}

/** How far from the left a page of a width begins, which stands in the middle of what scrolls. */
function leftOf(scroller: HTMLElement, width: number): number {
  return (Math.max(scroller.scrollWidth, scroller.clientWidth) - width) / 2;
}

/** Where in the document hits are, along the scroll bar. @param places as shares of its height */
function HitMap({ places }: { places: number[] }) {
  return (
    <div aria-hidden className="pointer-events-none absolute inset-y-0 right-0 w-3">
      {places.map((place, at) => (
        <span
          key={at}
          data-hit-place
          className="absolute right-0.5 h-1 w-2.5 border border-[#8a5a10] bg-[#f0b849]"
          style={{ top: `${place * 100}%` }}
        />
      ))}
    </div>
  );
}
