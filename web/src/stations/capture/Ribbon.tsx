import {
  DndContext,
  DragEndEvent,
  DragOverlay,
  MouseSensor,
  pointerWithin,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useState } from 'react';
import { Page } from '@crow/contract/pages';
import { Place } from '../../parts/intake';
import { asideInWords } from '../../parts/words';
import { PagePicture } from '../../parts/PagePicture';
import { WarningMark } from '../../parts/Warning';

const HEIGHT = 92;
const GAP = 14;
const [NARROWEST, WIDEST] = [34, 150];

interface RibbonProps {
  pages: Page[];
  /** The page that it is at. */
  current: string | undefined;
  /** Where the next pages go, when it is among these. */
  place: Place | undefined;
  onCurrent: (id: string) => void;
  /** Asks for a page to stand before another one, or at the end. */
  onMove: (id: string, before: string | null) => void;
}

/** The pages taken, in their order, along the bottom; they can be dragged to other places. */
export function Ribbon({ pages, current, place, onCurrent, onMove }: RibbonProps) {
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const [dragged, setDragged] = useState<string>();
  const virtualizer = useVirtualizer({
    horizontal: true,
    count: pages.length + 1,
    getScrollElement: () => scroller,
    estimateSize: (index) => (pages[index] ? widthOf(pages[index]) : NARROWEST) + GAP,
    overscan: 6,
    paddingStart: 8,
    paddingEnd: 8,
  });
  const at = pages.findIndex(({ id }) => id === current);
  useEffect(() => virtualizer.measure(), [virtualizer, pages]);
  useEffect(() => {
    if (at >= 0) virtualizer.scrollToIndex(at);
  }, [virtualizer, at]);
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 250, tolerance: 8 } }),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    setDragged(undefined);
    if (over && over.id !== active.id) onMove(String(active.id), over.id === 'end' ? null : String(over.id));
  };
  const moving = pages.find(({ id }) => id === dragged);
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      onDragStart={({ active }) => setDragged(String(active.id))}
      onDragEnd={drop}
      onDragCancel={() => setDragged(undefined)}
    >
      <div
        ref={setScroller}
        className="h-[126px] shrink-0 overflow-x-auto overflow-y-hidden border-t border-rule bg-sunken"
      >
        <ol aria-label="Pages taken in" className="relative h-full" style={{ width: virtualizer.getTotalSize() }}>
          {virtualizer.getVirtualItems().map(({ index, start, size }) => {
            const page = pages[index];
            const landing = place && !place.again && (page ? place.before === page.id : !place.before);
            return page ? (
              <Item
                key={page.id}
                page={page}
                number={index + 1}
                left={start}
                width={size}
                current={page.id === current}
                landing={Boolean(landing)}
                again={place?.again === page.id}
                onChoose={() => onCurrent(page.id)}
              />
            ) : (
              <End key="end" left={start} width={size} landing={Boolean(landing)} />
            );
          })}
        </ol>
      </div>
      <DragOverlay dropAnimation={null}>
        {moving && (
          <div className="shadow-paper" style={{ width: widthOf(moving), height: HEIGHT }}>
            <PagePicture page={moving} size="thumb" alt="" />
          </div>
        )}
      </DragOverlay>
    </DndContext>
  );
}

function widthOf({ width, height }: Page): number {
  return Math.max(NARROWEST, Math.min(WIDEST, (HEIGHT * width) / height));
}

function Item({
  page,
  number,
  left,
  width,
  current,
  landing,
  again,
  onChoose,
}: {
  page: Page;
  number: number;
  left: number;
  width: number;
  current: boolean;
  landing: boolean;
  again: boolean;
  onChoose: () => void;
}) {
  const { setNodeRef: dropRef, isOver } = useDroppable({ id: page.id });
  const { setNodeRef: dragRef, listeners, isDragging } = useDraggable({ id: page.id });
  return (
    <li ref={dropRef} className="absolute top-0 h-full pt-2.5" style={{ left, width, paddingLeft: GAP }}>
      {(landing || isOver) && <Caret />}
      <button
        ref={dragRef}
        {...listeners}
        aria-label={`Page ${number}${page.dropped ? `, ${asideInWords(page)}` : ''}`}
        aria-current={current}
        onClick={onChoose}
        className={`relative block w-full bg-paper ${current ? 'outline-2 outline-offset-2 outline-accent' : ''}`}
        style={{ height: HEIGHT, opacity: isDragging ? 0.35 : 1, touchAction: 'pan-x' }}
      >
        <span className={`block h-full ${page.dropped || again ? 'opacity-30' : ''}`}>
          <PagePicture page={page} size="thumb" alt="" />
        </span>
        <WarningMark page={page} />
        {(page.dropped || again) && (
          <span className="absolute inset-x-0 top-1/2 -translate-y-1/2 bg-ground text-xs">
            {again ? 'again' : (page.divider?.place?.name ?? (page.divider ? 'divider' : asideInWords(page)))}
          </span>
        )}
      </button>
      <div className="text-center font-mono text-xs leading-5 text-quiet">
        {number}
        {page.againOf && <span title="Taken again"> ↻</span>}
      </div>
    </li>
  );
}

/** The place behind the last page. */
function End({ left, width, landing }: { left: number; width: number; landing: boolean }) {
  const { setNodeRef, isOver } = useDroppable({ id: 'end' });
  return (
    <li ref={setNodeRef} aria-hidden className="absolute top-0 h-full" style={{ left, width }}>
      {(landing || isOver) && <Caret />}
    </li>
  );
}

/** Where pages land: a line between two pages. */
function Caret() {
  return <span className="absolute top-1.5 bottom-5 w-[3px] bg-accent" style={{ left: GAP / 2 - 2 }} />;
}
