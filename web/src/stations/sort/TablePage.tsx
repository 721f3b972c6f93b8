import { useDraggable, useDroppable } from '@dnd-kit/core';
import { FoldHorizontal } from 'lucide-react';
import { memo } from 'react';
import { Link } from 'react-router';
import { PagePicture, sizeFor } from '../../parts/PagePicture';
import { WarningMark } from '../../parts/Warning';
import { asideInWords, count, kindName } from '../../parts/words';
import { ArrangedPage } from '../../parts/useArrangement';
import { gapInWords, isDoubtful } from './gaps';
import { GAP, LaidPage } from './rows';

/** The table's edge, and the room over each sheet for what its document is, in CSS pixels. */
export const EDGE = 24;
export const LABEL = 22;

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
  laid: LaidPage;
  place: Place | undefined;
  width: number;
  height: number;
  focused: boolean;
  selected: boolean;
  on: TableActions;
}

/** How far a seam reaches to both sides of a sheet's edge, in CSS pixels. */
const SEAM = [10, 18];

/**
 * A page on the light table. Before the first sheet of a document lies the gap, which joins it to the one before; at the edge of every
 * other sheet lies the seam, at which it parts from the sheet under it.
 */
export const TablePage = memo(function TablePage(props: TablePageProps) {
  const { page, laid, place, width, height, focused, selected, on } = props;
  const begins = page.index === 0 || page.cutBefore;
  const { setNodeRef: dropRef, isOver } = useDroppable({ id: `gap-${page.id}` });
  const { setNodeRef: dragRef, listeners, isDragging } = useDraggable({ id: page.id });
  const fit = Math.min(width / page.width, height / page.height);
  const size = { width: page.width * fit, height: page.height * fit };
  const doubtful = isDoubtful(page);
  const why = gapInWords(page);
  const label = `Page ${page.index + 1}${place ? `, document ${place.number + 1}, page ${place.place + 1} of ${place.of}` : `, ${asideInWords(page)}`}${doubtful ? `. ${why}` : ''}`;
  const gap = laid.left > 0 ? GAP : EDGE;
  const before = begins
    ? { left: -gap, width: gap, height: height + laid.top }
    : { left: -SEAM[0], width: SEAM[0] + SEAM[1], height };
  return (
    <div
      className={`absolute transition-transform duration-100 has-[[data-seam]:hover]:translate-x-3 ${selected ? 'z-10' : ''}`}
      style={{ left: laid.left, top: laid.top, width }}
    >
      <div
        ref={dropRef}
        className="pointer-events-none absolute"
        style={{ left: -gap, width: gap + width / 3, top: LABEL, height }}
      />
      {laid.run > 0 && place && (
        <button
          tabIndex={-1}
          onClick={() => on.whole(page)}
          title="Select the whole document (d)"
          className="absolute top-0 left-0 truncate text-left text-xs leading-5 font-semibold text-quiet"
          style={{ width: laid.run }}
        >
          {place.number + 1} · {inShort(page.glance) ?? count(place.of, 'page')}
          {place.place > 0 && ', continued'}
        </button>
      )}
      <div style={{ height: LABEL }} />
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
          className={`relative bg-ground ${page.dropped ? '' : begins ? 'shadow-paper' : 'shadow-over'} ${selected ? 'outline-3 outline-offset-2 outline-accent' : ''}`}
          style={size}
        >
          <div className={`h-full ${page.dropped ? 'opacity-30' : ''}`}>
            <PagePicture page={page} size={sizeFor(size.width, page)} alt="" />
          </div>
          {!page.dropped && <WarningMark page={page} />}
        </div>
        {page.dropped && (
          <span className="absolute inset-x-0 top-1/2 flex flex-col items-center gap-1 text-center">
            <span className="bg-ground px-2 py-1 text-sm font-semibold">{asideInWords(page)}</span>
            {page.divider?.place && (
              <Link
                className="bg-ground px-2 py-1 text-sm underline"
                tabIndex={-1}
                to={`/ledger?view=sheets&place=${page.divider.place.id}`}
              >
                What lies in it
              </Link>
            )}
            <button className="bg-ground px-2 py-1 text-sm underline" tabIndex={-1} onClick={() => on.bringBack(page)}>
              Bring back
            </button>
          </span>
        )}
      </div>
      <div className="flex h-[26px] items-center justify-center gap-2 font-mono text-xs text-quiet">
        {page.index + 1}
        {page.problem && <span className="text-danger">! {page.reading === 'failed' ? 'not read' : 'problem'}</span>}
      </div>
      {page.index > 0 && (
        <button
          tabIndex={-1}
          data-seam={begins ? undefined : true}
          aria-label={
            begins ? `Join page ${page.index + 1} to the document before` : `Cut before page ${page.index + 1}`
          }
          onClick={() => on.cut(page)}
          title={why}
          className="group absolute z-20 flex items-center justify-center"
          style={{ ...before, top: begins ? LABEL - laid.top : LABEL }}
        >
          {doubtful && (
            <span
              className={`absolute inset-y-0 border-l-2 border-attention ${begins ? 'left-1/2' : ''}`}
              style={begins ? undefined : { left: SEAM[0] - 1 }}
            />
          )}
          {doubtful && (
            <span
              className="absolute top-4 flex size-6 -translate-x-1/2 items-center justify-center border-2 border-attention bg-ground font-semibold text-attention"
              style={{ left: begins ? '50%' : SEAM[0] }}
            >
              ?
            </span>
          )}
          {begins ? (
            <span className="flex size-8 items-center justify-center text-accent opacity-0 group-hover:opacity-100">
              <FoldHorizontal size={18} aria-hidden />
            </span>
          ) : (
            <span
              className="absolute inset-y-0 border-l-[3px] border-accent opacity-0 group-hover:opacity-100"
              style={{ left: SEAM[0] - 3 }}
            />
          )}
        </button>
      )}
      {isOver && (
        <span
          className="pointer-events-none absolute w-1 bg-accent"
          style={{ left: begins ? -gap / 2 : -4, top: LABEL, height }}
        />
      )}
    </div>
  );
});

/** Kind and sender as far as they are known. */
function inShort(glance: ArrangedPage['glance']): string | undefined {
  const known = [glance?.kind && kindName(glance.kind), glance?.who].filter(Boolean);
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
