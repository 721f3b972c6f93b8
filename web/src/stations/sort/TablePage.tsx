import { useDraggable, useDroppable } from '@dnd-kit/core';
import { Scissors } from 'lucide-react';
import { memo } from 'react';
import { PagePicture, sizeFor } from '../../parts/PagePicture';
import { WarningMark } from '../../parts/Warning';
import { asideInWords, count, KIND_NAMES } from '../../parts/words';
import { ArrangedPage } from '../../parts/useArrangement';
import { gapInWords, isDoubtful } from './gaps';

/** The width of the gap before each page, in CSS pixels: room for a cut. */
export const GAP = 44;

/** Where a page stands among the documents. */
export interface Place {
  /** The document, from 0. */
  number: number;
  /** The page in it, from 0. */
  place: number;
  of: number;
}

/** What can be done with a page where it lies; always the same object, so that pages are not drawn anew for it. */
export interface TableActions {
  focus: (page: ArrangedPage, extend: boolean) => void;
  cut: (page: ArrangedPage) => void;
  peek: () => void;
  bringBack: (page: ArrangedPage) => void;
  /** Selects all pages of its document. */
  whole: (page: ArrangedPage) => void;
}

interface TablePageProps {
  page: ArrangedPage;
  place: Place | undefined;
  width: number;
  height: number;
  focused: boolean;
  selected: boolean;
  on: TableActions;
}

/** A page on the light table, with the gap before it; pages of a document lie on one band that a cut interrupts. */
export const TablePage = memo(function TablePage(props: TablePageProps) {
  const { page, place, width, height, focused, selected, on } = props;
  const begins = page.index === 0 || page.cutBefore;
  const { setNodeRef: dropRef, isOver } = useDroppable({ id: `gap-${page.id}` });
  const { setNodeRef: dragRef, listeners, isDragging } = useDraggable({ id: page.id });
  const fit = Math.min(width / page.width, height / page.height);
  const size = { width: page.width * fit, height: page.height * fit };
  const doubtful = isDoubtful(page);
  const why = gapInWords(page);
  const label = `Page ${page.index + 1}${place ? `, document ${place.number + 1}, page ${place.place + 1} of ${place.of}` : `, ${asideInWords(page)}`}${doubtful ? `. ${why}` : ''}`;
  return (
    <div className="flex">
      <div ref={dropRef} className={`relative h-full ${begins ? '' : 'bg-sunken'}`} style={{ width: GAP }}>
        {page.index > 0 && (
          <button
            tabIndex={-1}
            aria-label={
              begins ? `Join page ${page.index + 1} to the document before` : `Cut before page ${page.index + 1}`
            }
            onClick={() => on.cut(page)}
            title={why}
            className="group absolute inset-0 flex items-center justify-center"
          >
            <span
              className={`absolute inset-y-3 left-1/2 border-l ${begins ? 'border-dashed border-quiet' : doubtful ? 'border-dotted border-attention' : 'border-transparent group-hover:border-accent'}`}
            />
            {doubtful && (
              <span className="absolute top-4 flex size-6 items-center justify-center border-2 border-attention bg-ground font-semibold text-attention">
                ?
              </span>
            )}
            <span
              className={`relative flex size-7 items-center justify-center bg-ground ${begins ? 'text-quiet' : 'text-accent opacity-0 group-hover:opacity-100'}`}
            >
              <Scissors size={15} aria-hidden className={begins ? '' : '-rotate-90'} />
            </span>
          </button>
        )}
        {isOver && <span className="pointer-events-none absolute inset-y-1 left-1/2 w-1 -translate-x-1/2 bg-accent" />}
      </div>
      <div className={`relative bg-sunken pt-5 ${selected ? 'z-10' : ''}`} style={{ width }}>
        {begins && place && (
          <button
            tabIndex={-1}
            onClick={() => on.whole(page)}
            title="Select the whole document (d)"
            className="absolute top-0.5 left-0 max-w-full truncate text-left text-xs font-semibold whitespace-nowrap text-quiet"
          >
            {place.number + 1} · {inShort(page.glance) ?? count(place.of, 'page')}
          </button>
        )}
        {/* eslint-disable-next-line jsx-a11y/click-events-have-key-events -- the table's keys act on the page in focus */}
        <div
          ref={dragRef}
          {...listeners}
          role="option"
          aria-selected={selected}
          aria-label={label}
          data-index={page.index}
          tabIndex={focused ? 0 : -1}
          onClick={(event) => on.focus(page, event.shiftKey)}
          onDoubleClick={on.peek}
          className="flex items-end justify-center outline-none"
          style={{ width, height, opacity: isDragging ? 0.35 : 1, touchAction: 'manipulation' }}
        >
          <div
            className={`relative ${page.dropped ? 'opacity-30' : 'shadow-paper'} ${selected ? 'outline-3 outline-offset-2 outline-accent' : ''}`}
            style={size}
          >
            <PagePicture page={page} size={sizeFor(size.width, page)} alt="" />
            <WarningMark page={page} />
          </div>
          {page.dropped && (
            <span className="absolute inset-x-0 top-1/2 flex flex-col items-center gap-1 text-center">
              <span className="bg-ground px-2 py-1 text-sm font-semibold">{asideInWords(page)}</span>
              <button
                className="bg-ground px-2 py-1 text-sm underline"
                tabIndex={-1}
                onClick={() => on.bringBack(page)}
              >
                Bring back
              </button>
            </span>
          )}
        </div>
        <div className="flex h-[26px] items-center justify-center gap-2 font-mono text-xs text-quiet">
          {page.index + 1}
          {page.problem && <span className="text-danger">! {page.reading === 'failed' ? 'not read' : 'problem'}</span>}
        </div>
      </div>
    </div>
  );
});

/** Kind and sender as far as they are known. */
function inShort(glance: ArrangedPage['glance']): string | undefined {
  const known = [glance?.kind && KIND_NAMES[glance.kind], glance?.who].filter(Boolean);
  return known.length > 0 ? known.join(', ') : undefined;
}

/** What follows the pointer while pages are dragged. */
export function DraggedPage({ page, width, count: number }: { page: ArrangedPage; width: number; count: number }) {
  return (
    <div
      className="relative opacity-90 shadow-paper"
      style={{ width: width * 0.7, aspectRatio: `${page.width} / ${page.height}` }}
    >
      <PagePicture page={page} size="thumb" alt="" />
      {number > 1 && (
        <span className="absolute -top-3 -right-3 bg-accent px-2 py-0.5 font-semibold text-on-accent">{number}</span>
      )}
    </div>
  );
}
