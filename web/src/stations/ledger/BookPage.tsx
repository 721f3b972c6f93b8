import { getCoreRowModel, getSortedRowModel, SortingState, useReactTable } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp, Lock } from 'lucide-react';
import { KeyboardEvent, useEffect, useMemo, useState } from 'react';
import { BookedLine, BookTie, Entry } from '@crow/contract/ledger';
import { nameOfCode } from '@crow/core/ledger/books/taxCodes';
import { isProven, tieInWords } from '../../parts/books/words';
import { shownDay } from '../../parts/days';
import { KeyWords, useKeys } from '../../parts/keys';
import { count, figure, money } from '../../parts/words';
import { monthName } from '../../parts/months';
import { BookRow, BookSums, drawnTies, rowsByDay, rowsInOrder } from './bookRows';
import { BOOK_COLUMNS, BookColumn, sortColumns } from './bookColumns';

export const ROW = 40;
/** Where the lines between entries and statements run. */
const GUTTER = 48;
const LINES_WIDTH = 264;
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

export interface PageProps {
  entries: readonly Entry[];
  lines: readonly BookedLine[];
  ties: readonly BookTie[];
  sorting: SortingState;
  onSorting: (sorting: SortingState) => void;
  categoryName: (id: string) => string;
  /** The entry that keys act on. */
  current?: string;
  onCurrent: (id: string) => void;
  chosen: ReadonlySet<string>;
  chosenLines: ReadonlySet<string>;
  onChoose: (id: string) => void;
  onChooseLine: (id: string) => void;
  onOpen: (entry: Entry) => void;
  onEdit: (entry: Entry) => void;
  onCheck: (entry: Entry) => void;
  onTakeOut: (entry: Entry) => void;
  onTake: (tie: BookTie) => void;
  onTakeOff: (tie: BookTie) => void;
  /** Whether there is room for the lines of statements beside the entries. */
  wide: boolean;
  /** Whether there is hardly room for the entries themselves. */
  small: boolean;
}

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
          ),
    [by, desc, entries, lines, ties, ordered, wide],
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
                {row.kind === 'month' ? (
                  <MonthHead row={row} wide={wide} small={small} />
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
        title={`Sort by ${column.name.toLowerCase()}`}
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

function MonthHead({ row, wide, small }: { row: Extract<BookRow, { kind: 'month' }>; wide: boolean; small: boolean }) {
  if (small)
    return (
      <div role="gridcell" className="col-span-3 flex items-end justify-between border-b-2 border-rule px-3 pb-1">
        <span className="text-lg font-semibold">{monthName(row.month)}</span>
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
        <span className="text-lg font-semibold">{monthName(row.month)}</span>
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

/** The corner of an entry's paper: drawn with its fold where there is one, dotted where there is none. */
function Corner({ entry, onOpen }: { entry: Entry; onOpen: () => void }) {
  const proven = isProven(entry);
  const name = proven
    ? `Lay the paper of entry ${entry.serial} open`
    : `Entry ${entry.serial} has no paper: find one, or ask for one`;
  return (
    <button
      tabIndex={-1}
      aria-label={name}
      title={name}
      className="flex h-full w-full items-center justify-center"
      onClick={(event) => {
        event.stopPropagation();
        onOpen();
      }}
    >
      <svg width="20" height="24" viewBox="0 0 20 24" aria-hidden>
        <path
          d="M2.5 1.5 H13 L17.5 6 V22.5 H2.5 Z M13 1.5 V6 H17.5"
          fill={proven ? '#ffffff' : 'none'}
          stroke={proven ? '#5d5966' : 'var(--attention)'}
          strokeWidth="1.2"
          strokeDasharray={proven ? undefined : '1.5 2.5'}
        />
        {proven && <path d="M5.5 10 H14.5 M5.5 13.5 H14.5 M5.5 17 H11" stroke="#8b8694" strokeWidth="1" />}
      </svg>
    </button>
  );
}

const cell =
  'flex h-full min-w-0 flex-col justify-center overflow-hidden border-b border-rule px-2 leading-tight whitespace-nowrap';
const figures = `${cell} items-end font-mono border-l border-l-rule`;

function EntryCells({ entry, categoryName, chosen, current, onOpen, onChoose }: { entry: Entry } & PageProps) {
  const { day, who, what, number, currency, units, parts, checkedAt, serial, id } = entry;
  const [net, tax] = [parts.reduce((sum, part) => sum + part.net, 0), parts.reduce((sum, part) => sum + part.tax, 0)];
  const look = `${chosen.has(id) ? 'bg-accent-soft' : id === current ? 'bg-raised' : ''}`;
  const edge = id === current ? 'shadow-[inset_3px_0_0_var(--accent)]' : '';
  const categories = [...new Set(parts.map(({ categoryId }) => (categoryId ? categoryName(categoryId) : '')))];
  const show = (amount: number) => figure({ units: amount, currency });
  return (
    <>
      <span role="gridcell" className={`border-b border-rule ${look} ${edge}`}>
        <Corner entry={entry} onOpen={() => onOpen(entry)} />
      </span>
      <span role="gridcell" className={`${cell} font-mono ${look}`}>
        {shownDay(day)}
        <span className="flex items-center gap-1 text-xs text-quiet">
          {checkedAt && <Lock size={11} aria-label="checked" />}
          <input
            type="checkbox"
            tabIndex={-1}
            aria-label={`Choose entry ${serial}`}
            className="size-3 accent-accent"
            checked={chosen.has(id)}
            onClick={(event) => event.stopPropagation()}
            onChange={() => onChoose(id)}
          />
          {serial}
        </span>
      </span>
      <span role="gridcell" className={`${cell} ${look}`} title={[who, what].filter(Boolean).join(' · ')}>
        <span className="truncate font-semibold">{who}</span>
        <span className="truncate text-xs">
          {!isProven(entry) && <span className="text-attention">no paper</span>}
          {!isProven(entry) && what && ' · '}
          <span className="text-quiet">{what}</span>
        </span>
      </span>
      <span role="gridcell" className={`${cell} ${look}`} title={[number, ...categories].filter(Boolean).join(' · ')}>
        <span className="truncate font-mono">{number || ' '}</span>
        <span className={`truncate text-xs ${categories.includes('') ? 'text-attention' : 'text-quiet'}`}>
          {categories.map((name) => name || 'no category').join(', ')}
        </span>
      </span>
      <span role="gridcell" className={`${figures} ${look}`}>
        {show(net)}
      </span>
      <span
        role="gridcell"
        className={`${figures} ${look}`}
        title={parts.map(({ taxCode }) => (taxCode ? nameOfCode(taxCode, day) : 'tax not known')).join(', ')}
      >
        {tax === 0 ? '–' : show(tax)}
      </span>
      <span role="gridcell" className={`${figures} font-semibold ${look}`}>
        {show(units)}
        <span className="font-sans text-xs font-normal text-quiet">{currency}</span>
      </span>
      <span role="gridcell" className={`${figures} ${look}`}>
        <Paid entry={entry} />
      </span>
    </>
  );
}

function SmallCells({ entry, categoryName, chosen, current, onOpen, onChoose }: { entry: Entry } & PageProps) {
  const { id, serial, who, day, parts, units, currency } = entry;
  const look = chosen.has(id) ? 'bg-accent-soft' : id === current ? 'bg-raised' : '';
  const [{ categoryId }] = parts;
  return (
    <>
      <span role="gridcell" className={`border-b border-rule ${look}`}>
        <Corner entry={entry} onOpen={() => onOpen(entry)} />
      </span>
      <span role="gridcell" className={`${cell} ${look}`}>
        <span className="truncate font-semibold">{who}</span>
        <span className="flex items-center gap-1.5 truncate text-xs text-quiet">
          <input
            type="checkbox"
            tabIndex={-1}
            aria-label={`Choose entry ${serial}`}
            className="size-3 accent-accent"
            checked={chosen.has(id)}
            onClick={(event) => event.stopPropagation()}
            onChange={() => onChoose(id)}
          />
          {shownDay(day)}
          {!isProven(entry) && <span className="text-attention">no paper</span>}
          <span className="truncate">{categoryId ? categoryName(categoryId) : 'no category'}</span>
        </span>
      </span>
      <span role="gridcell" className={`${figures} ${look}`}>
        <span className="font-semibold">{figure({ units, currency })}</span>
        <span className="text-xs">
          <Paid entry={{ ...entry, due: null }} />
        </span>
      </span>
    </>
  );
}

function Paid({ entry: { paid, units, currency, due } }: { entry: Entry }) {
  if (paid === units) return <span className="text-sure">✓ paid</span>;
  if (paid !== 0)
    return (
      <>
        {figure({ units: paid, currency })}
        <span className="text-xs text-attention">in part</span>
      </>
    );
  return (
    <>
      open
      {due && <span className="font-sans text-xs text-quiet">due {shownDay(due)}</span>}
    </>
  );
}

function LineCell({
  line,
  tie,
  chosenLines,
  onChooseLine,
  onTake,
  onTakeOff,
}: { line: BookedLine | undefined; tie: BookTie | undefined } & PageProps) {
  if (!line) return <span role="gridcell" className="border-b border-rule" />;
  const { id, day, who, text, units, currency } = line;
  return (
    <span
      role="gridcell"
      className={`${cell} ${chosenLines.has(id) ? 'bg-accent-soft' : ''}`}
      title={[who, text].filter(Boolean).join(' · ')}
    >
      <span className="flex items-baseline justify-between gap-2">
        <span className="truncate">
          <span className="mr-1.5 font-mono text-xs text-quiet">{shownDay(day).slice(-5)}</span>
          {who || text}
        </span>
        <span className="shrink-0 font-mono">{figure({ units, currency })}</span>
      </span>
      <span className="flex items-baseline justify-between gap-2 text-xs text-quiet">
        <span className="truncate">{tie ? tieInWords(tie) : who && text}</span>
        <span className="flex shrink-0 gap-2">
          {!tie?.made && (
            <button
              tabIndex={-1}
              className="underline underline-offset-2 hover:text-ink"
              aria-pressed={chosenLines.has(id)}
              aria-label={`Choose the line of ${shownDay(day)}, ${who || text}, ${money({ units, currency })}`}
              onClick={() => onChooseLine(id)}
            >
              {chosenLines.has(id) ? 'chosen' : 'choose'}
            </button>
          )}
          {tie && !tie.made && (
            <button
              tabIndex={-1}
              className="text-accent underline underline-offset-2"
              aria-label={`Tie ${who || text}, ${money({ units, currency })}: ${tieInWords(tie)}`}
              onClick={() => onTake(tie)}
            >
              tie
            </button>
          )}
          {tie && (
            <button
              tabIndex={-1}
              className="underline underline-offset-2 hover:text-ink"
              aria-label={`Take the tie off ${who || text}, ${money({ units, currency })}`}
              onClick={() => onTakeOff(tie)}
            >
              {tie.made ? 'take off' : 'no'}
            </button>
          )}
        </span>
      </span>
    </span>
  );
}

/** The threads from entries to the lines that pay them: dashed while only proposed. Those that leave the page at an edge are drawn to there. */
function Threads({
  rows,
  ties,
  from,
  to,
  current,
}: {
  rows: readonly BookRow[];
  ties: readonly BookTie[];
  from: number;
  to: number;
  current?: string;
}) {
  const drawn = useMemo(() => drawnTies(rows, ties), [rows, ties]);
  const top = from * ROW;
  const middle = (row: number) => row * ROW + ROW / 2 - top;
  const seen = drawn.flatMap(({ tie, pairs }) =>
    pairs
      .filter(([entry, line]) => Math.min(entry, line) <= to && Math.max(entry, line) >= from)
      .map(([entry, line]) => ({ tie, entry, line })),
  );
  return (
    <svg
      aria-hidden
      className="pointer-events-none absolute z-10 overflow-hidden"
      style={{ right: LINES_WIDTH, top, width: GUTTER, height: (to - from + 1) * ROW }}
    >
      {seen.map(({ tie, entry, line }) => {
        const mine = current !== undefined && tie.entries.includes(current);
        const [y, z] = [middle(entry), middle(line)];
        return (
          <path
            key={`${tie.id} ${entry} ${line}`}
            d={`M0,${y} C${GUTTER * 0.6},${y} ${GUTTER * 0.4},${z} ${GUTTER},${z}`}
            fill="none"
            stroke={mine ? 'var(--accent)' : '#8b8694'}
            strokeWidth={mine ? 1.8 : 1}
            strokeDasharray={tie.made ? undefined : '4 3'}
          />
        );
      })}
    </svg>
  );
}
