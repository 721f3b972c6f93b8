import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, Ref, useEffect, useImperativeHandle, useState } from 'react';
import { ArrangedPage } from '../../parts/useArrangement';
import { FAN, LaidPage } from './rows';
import { EDGE, LABEL, Place, TableActions, TablePage } from './TablePage';

const CAPTION = 26;
const ROW_GAP = 14;
/** Rows that are there already when they come into view: scrolling moves what is drawn, and draws ahead of it. */
const OVERSCAN = 4;

export interface SheetsHandle {
  /** Brings a page into view and puts the keyboard's focus on it. */
  show: (index: number) => void;
}

interface SheetsProps {
  pages: ArrangedPage[];
  places: ReadonlyMap<string, Place>;
  pageWidth: number;
  rows: LaidPage[][];
  currentId: string | undefined;
  selected: ReadonlySet<string>;
  on: TableActions;
  handle: Ref<SheetsHandle>;
}

/** The pages on the table in rows, as many as can be seen; on its own, so that scrolling touches nothing else. */
export const Sheets = memo(function Sheets(props: SheetsProps) {
  const { pages, places, pageWidth, rows, currentId, selected, on, handle } = props;
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const height = Math.round(pageWidth * 1.414);
  const rowHeight = LABEL + height + FAN + CAPTION + ROW_GAP;
  const virtualizer = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller,
    estimateSize: () => rowHeight,
    overscan: OVERSCAN,
    paddingStart: 12,
    paddingEnd: 12,
  });
  useEffect(() => virtualizer.measure(), [virtualizer, rowHeight]);
  useImperativeHandle(
    handle,
    () => ({
      show: (index) => {
        virtualizer.scrollToIndex(rows.findIndex((row) => row.some((page) => page.index === index)));
        requestAnimationFrame(() =>
          scroller?.querySelector<HTMLElement>(`[data-index="${index}"]`)?.focus({ preventScroll: true }),
        );
      },
    }),
    [virtualizer, rows, scroller],
  );
  return (
    <div
      ref={setScroller}
      role="listbox"
      aria-label="Pages"
      aria-multiselectable
      // Opaque, so that the compositor scrolls it by itself.
      className="relative min-h-0 flex-1 overflow-y-auto bg-ground outline-none"
      style={{ paddingInline: EDGE }}
    >
      <div className="relative" style={{ height: virtualizer.getTotalSize() }}>
        {virtualizer.getVirtualItems().map((row) => (
          <div
            key={row.key}
            role="presentation"
            className="absolute left-0"
            style={{ transform: `translateY(${row.start}px)`, height: rowHeight - ROW_GAP }}
          >
            {rows[row.index].map((laid) => {
              const page = pages[laid.index];
              return (
                <TablePage
                  key={page.id}
                  page={page}
                  laid={laid}
                  place={places.get(page.id)}
                  width={pageWidth}
                  height={height}
                  focused={page.id === currentId}
                  selected={selected.has(page.id)}
                  on={on}
                />
              );
            })}
          </div>
        ))}
      </div>
    </div>
  );
});
