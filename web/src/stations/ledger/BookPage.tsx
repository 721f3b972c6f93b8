import { getCoreRowModel, getSortedRowModel, useReactTable } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { KeyboardEvent, useEffect, useMemo, useState } from 'react';
import { Entry } from '@crow/contract/ledger';
import { KeyWords, useKeys } from '../../parts/keys';
import { count, money } from '../../parts/words';
import { EntryCells, LineCell, SmallCells } from './BookCells';
import { BookRow, BookSums, rowsByDay, rowsInOrder } from './bookRows';
import { BOOK_COLUMNS, BookColumn, groupsBy, sortColumns } from './bookColumns';
import { GUTTER, LINES_WIDTH, PageProps, ROW } from './pageForm';
import { Threads } from './Threads';

/** Each column of the page, as wide as what stands in it; who it is has what is left. */
const COLUMNS = '40px 96px minmax(120px, 1fr) minmax(96px, 140px) 88px 76px 96px 112px';

/** On a phone who, with when and under what, and how much. */
const SMALL_COLUMNS = '40px minmax(0, 1fr) 104px';
const SMALL_SORTED = ['day', 'who', 'total'];

const KEYS: KeyWords = [
  ['ArrowUp ArrowDown PageUp PageDown Home End', 'From entry to entry, while the page has the focus'],
  ['Enter', 'Lay its paper open'],
  ['x', 'Choose it, or not'],
  ['e', 'Change it'],
  ['c', 'It is checked, or not any more'],
  ['Delete', 'Take it out of the books'],
];

/**
 * The page: entries under their months, each with the corner of its paper; lines of statements in a column beside them, at the height of their
 * date, tied to the entries that they pay.
 */
export function BookPage(props: PageProps) {
  const { entries, lines, ties, sorting, onSorting, current, wide, small, categoryName } = props;
  const columns = useMemo(() => sortColumns(categoryName), [categoryName]);
  const table = useReactTable({
    data: entries as Entry[],
    columns,
    getRowId: ({ id }) => id,
    state: { sorting },
    onSortingChange: (to) => onSorting(typeof to === 'function' ? to(sorting) : to),
    enableMultiSort: false,
    enableSortingRemoval: false,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  const { id: by, desc } = sorting[0];
  const ordered = table.getRowModel().rows;
  const rows = useMemo(
    () =>
      by === 'day'
        ? rowsByDay(entries, wide ? lines : [], desc)
        : rowsInOrder(
            ordered.map(({ original }) => original),
            wide ? lines : [],
            ties,
            groupsBy(by, categoryName),
          ),
    [by, desc, entries, lines, ties, ordered, wide, categoryName],
  );
  const order = useMemo(() => rows.flatMap((row) => (row.kind === 'rule' && row.entry ? [row.entry] : [])), [rows]);
  const tieOfLine = useMemo(() => new Map(ties.flatMap((tie) => tie.lines.map((id) => [id, tie] as const))), [ties]);
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const virtualizer = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller,
    estimateSize: () => ROW,
    overscan: 10,
  });
  useEffect(() => {
    const at = rows.findIndex((row) => row.kind === 'rule' && row.entry?.id === current);
    if (at >= 0) virtualizer.scrollToIndex(at);
    // Not when the rows change under it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [current]);

  useKeys({}, KEYS);
  const key = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget || event.ctrlKey || event.altKey || event.metaKey) return;
    const at = order.findIndex(({ id }) => id === current);
    const page = Math.max(1, Math.floor((scroller?.clientHeight ?? ROW) / ROW) - 2);
    const steps: Record<string, number> = {
      ArrowDown: at + 1,
      ArrowUp: at - 1,
      PageDown: at + page,
      PageUp: at - page,
      Home: 0,
      End: order.length - 1,
    };
    const own = order[at];
    const does: Record<string, (entry: Entry) => void> = {
      Enter: props.onOpen,
      x: ({ id }) => props.onChoose(id),
      ' ': ({ id }) => props.onChoose(id),
      e: props.onEdit,
      c: props.onCheck,
      Delete: props.onTakeOut,
    };
    if (event.key in steps) {
      const to = order[Math.max(0, Math.min(order.length - 1, steps[event.key]))];
      if (to) props.onCurrent(to.id);
    } else if (own && event.key in does) does[event.key](own);
    else return;
    event.preventDefault();
  };
  const items = virtualizer.getVirtualItems();
  const template = small ? SMALL_COLUMNS : wide ? `${COLUMNS} ${GUTTER}px ${LINES_WIDTH}px` : COLUMNS;
  return (
    <div ref={setScroller} className="min-h-0 flex-1 overflow-auto bg-ground">
      <div
        role="grid"
        aria-label="The book"
        aria-rowcount={rows.length + 1}
        aria-multiselectable
        tabIndex={0}
        onKeyDown={key}
        onFocus={(event) =>
          event.target === event.currentTarget && !current && order[0] && props.onCurrent(order[0].id)
        }
        aria-activedescendant={current && `entry-${current}`}
        className={`relative text-sm outline-none ${small ? '' : 'min-w-[760px]'}`}
      >
        <div
          role="row"
          aria-rowindex={1}
          className="sticky top-0 z-20 grid border-b border-rule bg-ground"
          style={{ gridTemplateColumns: template }}
        >
          <span role="columnheader" className="sr-only">
            Paper
          </span>
          <span aria-hidden />
          {headsFor(small).map((together) => (
            <span key={together[0].id} className={`flex ${together[0].figures ? 'justify-end' : ''}`}>
              {together.map((column) => (
                <Head
                  key={column.id}
                  column={column}
                  sorted={by === column.id ? (desc ? 'descending' : 'ascending') : 'none'}
                  onSort={() =>
                    onSorting([{ id: column.id, desc: by === column.id ? !desc : Boolean(column.latestFirst) }])
                  }
                />
              ))}
            </span>
          ))}
          {wide && (
            <>
              <span aria-hidden />
              <span role="columnheader" className="flex h-8 items-center px-2 font-semibold">
                On statements
              </span>
            </>
          )}
        </div>
        <div role="rowgroup" className="relative" style={{ height: virtualizer.getTotalSize() }}>
          {items.map(({ index, start }) => {
            const row = rows[index];
            return (
              <div
                key={index}
                role="row"
                aria-rowindex={index + 2}
                className="absolute inset-x-0 grid"
                style={{ height: ROW, top: start, gridTemplateColumns: template }}
                {...(row.kind === 'rule' && row.entry && entryRow(row.entry, props))}
              >
                {row.kind === 'group' ? (
                  <GroupHead row={row} wide={wide} small={small} />
                ) : (
                  <>
                    {row.entry && small ? (
                      <SmallCells entry={row.entry} {...props} />
                    ) : row.entry ? (
                      <EntryCells entry={row.entry} {...props} />
                    ) : (
                      <span role="gridcell" className="col-span-8 border-b border-rule" />
                    )}
                    {wide && <span aria-hidden className="border-r border-rule" />}
                    {wide && <LineCell line={row.line} tie={row.line && tieOfLine.get(row.line.id)} {...props} />}
                  </>
                )}
              </div>
            );
          })}
          {wide && by === 'day' && items.length > 0 && (
            <Threads
              rows={rows}
              ties={ties}
              from={items[0].index}
              to={items[items.length - 1].index}
              current={current}
            />
          )}
        </div>
      </div>
    </div>
  );
}

/** The heads of the columns, those that stand one below the other together. */
function headsFor(small: boolean): BookColumn[][] {
  if (!small) return BOOK_COLUMNS;
  const [day, who, total] = SMALL_SORTED.map((id) => BOOK_COLUMNS.flat().find((column) => column.id === id)!);
  return [[day, who], [total]];
}

function entryRow(entry: Entry, { current, chosen, onCurrent }: PageProps) {
  return {
    id: `entry-${entry.id}`,
    'aria-current': entry.id === current || undefined,
    'aria-selected': chosen.has(entry.id),
    onClick: () => onCurrent(entry.id),
  };
}

function Head({
  column,
  sorted,
  onSort,
}: {
  column: BookColumn;
  sorted: 'ascending' | 'descending' | 'none';
  onSort: () => void;
}) {
  return (
    <span role="columnheader" aria-sort={sorted}>
      <button
        className={`flex h-8 items-center gap-1 px-2 font-semibold hover:bg-sunken ${column.figures ? 'flex-row-reverse' : ''}`}
        title={`Sort ${column.groups ? 'and group ' : ''}by ${column.name.toLowerCase()}`}
        onClick={onSort}
      >
        {column.name}
        {sorted === 'ascending' && <ArrowUp size={13} aria-hidden />}
        {sorted === 'descending' && <ArrowDown size={13} aria-hidden />}
      </button>
    </span>
  );
}

/** What sums come to, in words: spent, received, and what of both is open. */
export function sumsInWords(sums: readonly BookSums[]): string {
  return sums
    .map(({ currency, out, in: received, toPay, toCome }) =>
      [
        `${money({ units: out, currency })} out`,
        ...(received > 0 ? [`${money({ units: received, currency })} in`] : []),
        ...(toPay > 0 ? [`${money({ units: toPay, currency })} to pay`] : []),
        ...(toCome > 0 ? [`${money({ units: toCome, currency })} to come`] : []),
      ].join(', '),
    )
    .join(' · ');
}

function GroupHead({ row, wide, small }: { row: Extract<BookRow, { kind: 'group' }>; wide: boolean; small: boolean }) {
  if (small)
    return (
      <div role="gridcell" className="col-span-3 flex items-end justify-between border-b-2 border-rule px-3 pb-1">
        <span className="truncate text-lg font-semibold">{row.title}</span>
        <span className="font-mono">
          {row.sums.map(({ out, currency }) => money({ units: out, currency })).join(' · ')}
        </span>
      </div>
    );
  return (
    <>
      <div
        role="gridcell"
        className="col-span-8 flex items-end justify-between gap-4 overflow-hidden border-b-2 border-rule px-3 pb-1 whitespace-nowrap"
      >
        <span className="truncate text-lg font-semibold">{row.title}</span>
        <span>
          <span className="text-quiet">{count(row.entries, 'entry', 'entries')}</span>
          <span className="ml-4 font-mono">{sumsInWords(row.sums)}</span>
        </span>
      </div>
      {wide && <span aria-hidden />}
      {wide && <span role="gridcell" className="border-b-2 border-rule" />}
    </>
  );
}
