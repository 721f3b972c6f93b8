import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, Ref, useEffect, useImperativeHandle, useState } from 'react';
import { ArrangedPage } from '../../parts/useArrangement';
import { Place, TableActions, TablePage } from './TablePage';

export const EDGE = 24;
const CAPTION = 26;
const BAND = 20;
const ROW_GAP = 16;

export interface SheetsHandle {
  /** Brings a page into view and puts the keyboard's focus on it. */
  show: (index: number) => void;
}

interface SheetsProps {
  pages: ArrangedPage[];
  places: ReadonlyMap<string, Place>;
  pageWidth: number;
  columns: number;
  currentId: string | undefined;
  selected: ReadonlySet<string>;
  on: TableActions;
  handle: Ref<SheetsHandle>;
}

/** The pages on the table in rows, as many as can be seen; on its own, so that scrolling touches nothing else. */
export const Sheets = memo(function Sheets(props: SheetsProps) {
  const { pages, places, pageWidth, columns, currentId, selected, on, handle } = props;
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const height = Math.round(pageWidth * 1.414);
  const bandHeight = height + CAPTION + BAND;
  const rowHeight = bandHeight + ROW_GAP;
  const virtualizer = useVirtualizer({
    count: Math.ceil(pages.length / columns),
    getScrollElement: () => scroller,
    estimateSize: () => rowHeight,
    overscan: 1,
    paddingStart: 12,
    paddingEnd: 12,
  });
  useEffect(() => virtualizer.measure(), [virtualizer, rowHeight]);
  useImperativeHandle(
    handle,
    () => ({
      show: (index) => {
        virtualizer.scrollToIndex(Math.floor(index / columns));
        requestAnimationFrame(() =>
          scroller?.querySelector<HTMLElement>(`[data-index="${index}"]`)?.focus({ preventScroll: true }),
        );
      },
    }),
    [virtualizer, columns, scroller],
  );
  return (
    <div
      ref={setScroller}
      role="listbox"
      aria-label="Pages"
      aria-multiselectable
      className="relative min-h-0 flex-1 overflow-y-auto outline-none"
      style={{ paddingInline: EDGE }}
    >
      <div className="relative" style={{ height: virtualizer.getTotalSize() }}>
        {virtualizer.getVirtualItems().map((row) => (
          <div
            key={row.key}
            role="presentation"
            className="absolute left-0 flex"
            style={{ top: row.start, height: bandHeight }}
          >
            {pages.slice(row.index * columns, (row.index + 1) * columns).map((page) => (
              <TablePage
                key={page.id}
                page={page}
                place={places.get(page.id)}
                width={pageWidth}
                height={height}
                focused={page.id === currentId}
                selected={selected.has(page.id)}
                on={on}
              />
            ))}
          </div>
        ))}
      </div>
    </div>
  );
});
