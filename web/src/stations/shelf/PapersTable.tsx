import { getCoreRowModel, Header, useReactTable } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { KeyboardEvent, useEffect, useMemo, useState } from 'react';
import { DocumentSummary } from '@crow/contract/documents';
import { addUp, Group } from '@crow/core/shelf/addUp';
import { groupBy } from '@crow/core/shelf/groupBy';
import { KeyWords, useKeys } from '../../parts/keys';
import { count, money } from '../../parts/words';
import { useLike, useMay } from '../../queries';
import { useChosen } from './chosen';
import { monthName } from '../../parts/months';
import { takeAlong } from './takeAlong';
import { columnOf, COLUMNS, WIDE_COLUMNS } from './tableColumns';
import { TableForm } from './tableForm';

const ROW = 37;
const KEYS: KeyWords = [
  ['ArrowUp ArrowDown PageUp PageDown Home End', 'From paper to paper, while the table has the focus'],
  ['Enter', 'Open it'],
  ['x', 'Choose it, or not; with Shift and an arrow key the next as well'],
];

type Line = { group: Group } | { paper: DocumentSummary };

interface TableProps {
  /** In the order of the form. */
  documents: readonly DocumentSummary[];
  form: TableForm;
  onForm: (form: TableForm) => void;
  /** The paper that keys act on. */
  current?: string;
  onCurrent: (id: string) => void;
  onOpen: (id: string) => void;
}

/** Papers as a table: sorted by any column both ways, grouped by month or by who; names and all else are shown whole. */
export function PapersTable({ documents, form, onForm, current, onCurrent, onOpen }: TableProps) {
  const { ids: chosen, toggle } = useChosen();
  const works = useMay('work');
  const table = useReactTable({
    data: documents as DocumentSummary[],
    columns: COLUMNS,
    getRowId: ({ id }) => id,
    state: {
      sorting: form.sorted,
      columnSizing: form.widths,
      columnVisibility: Object.fromEntries([...columnOf.keys()].map((id) => [id, form.columns.includes(id)])),
    },
    onSortingChange: (to) => onForm({ ...form, sorted: typeof to === 'function' ? to(form.sorted) : to }),
    onColumnSizingChange: (to) => onForm({ ...form, widths: typeof to === 'function' ? to(form.widths) : to }),
    columnResizeMode: 'onChange',
    enableMultiSort: false,
    getCoreRowModel: getCoreRowModel(),
    manualSorting: true,
  });
  const like = useLike();
  const lines = useMemo(() => grouped(documents, form, like), [documents, form, like]);
  const order = useMemo(() => lines.flatMap((line) => ('paper' in line ? line.paper.id : [])), [lines]);
  const [scroller, setScroller] = useState<HTMLDivElement | null>(null);
  const virtualizer = useVirtualizer({
    count: lines.length,
    getScrollElement: () => scroller,
    estimateSize: () => ROW,
    overscan: 12,
  });
  // A paper that keys have come to is brought into view.
  useEffect(() => {
    const at = lines.findIndex((line) => 'paper' in line && line.paper.id === current);
    if (at >= 0) virtualizer.scrollToIndex(at);
    // Not when the lines change under it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [current]);

  useKeys({}, KEYS);
  const key = (event: KeyboardEvent) => {
    if (event.target !== event.currentTarget) return;
    const at = order.indexOf(current ?? '');
    const page = Math.max(1, Math.floor((scroller?.clientHeight ?? ROW) / ROW) - 2);
    const steps: Record<string, number> = {
      ArrowDown: at + 1,
      ArrowUp: at - 1,
      PageDown: at + page,
      PageUp: at - page,
      Home: 0,
      End: order.length - 1,
    };
    if (event.key in steps && !event.ctrlKey && !event.altKey) {
      event.preventDefault();
      const to = order[Math.max(0, Math.min(order.length - 1, steps[event.key]))];
      if (!to) return;
      onCurrent(to);
      if (event.shiftKey && works && !chosen.has(to)) toggle(to, order, true);
    } else if (event.key === 'Enter' && current) {
      event.preventDefault();
      onOpen(current);
    } else if ((event.key === ' ' || event.key === 'x') && current && works) {
      event.preventDefault();
      toggle(current, order);
    }
  };
  const items = virtualizer.getVirtualItems();
  const before = items[0]?.start ?? 0;
  const after = virtualizer.getTotalSize() - (items.at(-1)?.end ?? 0);
  const columns = table.getVisibleLeafColumns();
  const wide = WIDE_COLUMNS.find((id) => form.columns.includes(id));
  return (
    <div ref={setScroller} className="min-h-0 flex-1 overflow-auto bg-ground">
      <table
        role="grid"
        aria-label="Papers"
        tabIndex={0}
        onKeyDown={key}
        onFocus={(event) => event.target === event.currentTarget && !current && order[0] && onCurrent(order[0])}
        aria-activedescendant={current && `paper-${current}`}
        aria-rowcount={lines.length + 1}
        aria-multiselectable={works}
        // Where the keys are, the current line shows.
        className="w-full table-fixed border-separate border-spacing-0 text-sm outline-none"
        style={{ minWidth: table.getTotalSize() + 36 }}
      >
        <colgroup>
          <col style={{ width: 36 }} />
          {columns.map((column) => (
            <col key={column.id} style={column.id === wide ? undefined : { width: column.getSize() }} />
          ))}
        </colgroup>
        <thead>
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id}>
              <th className="sticky top-0 z-10 border-b border-rule bg-ground">
                <span className="sr-only">Chosen</span>
              </th>
              {group.headers.map((header) => (
                <Head key={header.id} header={header} fixed={header.column.id !== wide} />
              ))}
            </tr>
          ))}
        </thead>
        <tbody>
          {before > 0 && (
            <tr aria-hidden>
              <td colSpan={columns.length + 1} style={{ height: before }} />
            </tr>
          )}
          {items.map(({ index, key: at }) => {
            const line = lines[index];
            return 'group' in line ? (
              <tr key={at} ref={virtualizer.measureElement} data-index={index} aria-rowindex={index + 2}>
                <th
                  scope="rowgroup"
                  colSpan={columns.length + 1}
                  className="border-b border-rule bg-sunken px-3 py-1.5 text-left font-semibold"
                >
                  <span className="flex justify-between gap-4">
                    <span>
                      {groupName(line.group.key, form.group)}
                      <span className="ml-3 font-normal text-quiet">{count(line.group.papers, 'paper')}</span>
                    </span>
                    <span className="font-mono font-normal">{line.group.sums.map(money).join(' · ')}</span>
                  </span>
                </th>
              </tr>
            ) : (
              <PaperLine
                key={at}
                measure={virtualizer.measureElement}
                index={index}
                paper={line.paper}
                columns={columns.map(({ id }) => id)}
                current={line.paper.id === current}
                chosen={chosen.has(line.paper.id)}
                dragged={chosen.has(line.paper.id) ? [...chosen] : [line.paper.id]}
                onToggle={works ? (through) => toggle(line.paper.id, order, through) : undefined}
                onOpen={() => onOpen(line.paper.id)}
              />
            );
          })}
          {after > 0 && (
            <tr aria-hidden>
              <td colSpan={columns.length + 1} style={{ height: after }} />
            </tr>
          )}
        </tbody>
      </table>
    </div>
  );
}

const ARIA_SORT = { asc: 'ascending', desc: 'descending' } as const;

function Head({ header, fixed }: { header: Header<DocumentSummary, unknown>; fixed: boolean }) {
  const { column } = header;
  const { name, figures } = columnOf.get(column.id)!;
  const sorted = column.getIsSorted();
  return (
    <th
      scope="col"
      aria-sort={sorted ? ARIA_SORT[sorted] : 'none'}
      className="sticky top-0 z-10 border-b border-rule bg-ground p-0 font-semibold"
    >
      <button
        className={`flex h-8 w-full items-center gap-1 px-2 hover:bg-sunken ${figures ? 'flex-row-reverse' : ''}`}
        onClick={column.getToggleSortingHandler()}
        title={`Sort by ${name.toLowerCase()}`}
      >
        <span className="truncate">{name}</span>
        {sorted === 'asc' && <ArrowUp size={13} aria-hidden className="shrink-0" />}
        {sorted === 'desc' && <ArrowDown size={13} aria-hidden className="shrink-0" />}
      </button>
      {fixed && (
        <span
          aria-hidden
          onMouseDown={header.getResizeHandler()}
          onTouchStart={header.getResizeHandler()}
          onDoubleClick={() => column.resetSize()}
          className={`absolute inset-y-0 -right-1 z-10 w-2 cursor-col-resize touch-none border-r-2 select-none ${column.getIsResizing() ? 'border-accent' : 'border-transparent hover:border-rule'}`}
        />
      )}
    </th>
  );
}

interface LineProps {
  measure: (element: Element | null) => void;
  index: number;
  paper: DocumentSummary;
  columns: string[];
  current: boolean;
  chosen: boolean;
  /** The papers that go with it when it is dragged. */
  dragged: string[];
  onToggle?: (through: boolean) => void;
  onOpen: () => void;
}

function PaperLine({ measure, index, paper, columns, current, chosen, dragged, onToggle, onOpen }: LineProps) {
  return (
    <tr
      ref={measure}
      data-index={index}
      aria-rowindex={index + 2}
      aria-current={current || undefined}
      id={`paper-${paper.id}`}
      title={paper.name}
      aria-selected={onToggle ? chosen : undefined}
      draggable={onToggle && paper.state !== 'check'}
      onDragStart={(event) => takeAlong(event.dataTransfer, paper, dragged)}
      onClick={(event) => {
        if (event.ctrlKey || event.metaKey || event.shiftKey) onToggle?.(event.shiftKey);
        else onOpen();
      }}
      className={`cursor-pointer align-top ${chosen ? 'bg-accent-soft' : 'hover:bg-raised'} ${current ? 'outline-2 -outline-offset-2 outline-accent' : ''}`}
    >
      <td className="border-b border-rule py-2 pl-3" onClick={(event) => event.stopPropagation()}>
        {onToggle && (
          <input
            type="checkbox"
            tabIndex={-1}
            aria-label={`Choose ${paper.name}`}
            className="accent-accent"
            checked={chosen}
            onChange={() => onToggle(false)}
          />
        )}
      </td>
      {columns.map((id, at) => {
        const { figures, shows } = columnOf.get(id)!;
        return (
          <td
            key={id}
            className={`border-b border-rule px-2 py-2 break-words ${figures ? 'text-right font-mono whitespace-nowrap' : ''} ${WIDE_COLUMNS.includes(id) ? 'font-semibold' : ''}`}
          >
            {at === 0 ? (
              <button
                tabIndex={-1}
                className="text-left"
                data-document={paper.id}
                aria-label={paper.name}
                onClick={(event) => {
                  if (event.ctrlKey || event.metaKey || event.shiftKey) return;
                  event.stopPropagation();
                  onOpen();
                }}
              >
                {shows(paper) || '–'}
              </button>
            ) : (
              shows(paper)
            )}
            {at === 1 && paper.problem && <p className="font-normal text-danger">! {paper.problem.happened}</p>}
            {at === 1 && paper.state === 'filing' && <p className="font-normal text-quiet">on its way to the shelf</p>}
          </td>
        );
      })}
    </tr>
  );
}

function groupName(key: string | null, by: TableForm['group']): string {
  if (by === 'month') return key === null ? 'Without a date' : monthName(key);
  return key ?? 'Not known from whom';
}

/** Papers in their order, under headings if they are grouped: months as the papers are sorted by date, senders by name. */
function grouped(
  papers: readonly DocumentSummary[],
  { group, sorted }: TableForm,
  like: Parameters<typeof addUp>[1],
): Line[] {
  if (group === 'none') return papers.map((paper) => ({ paper }));
  const keyOf = ({ date, vendor }: DocumentSummary) => (group === 'month' ? (date?.slice(0, 7) ?? null) : vendor);
  const added = addUp(papers, like);
  const groups = group === 'month' ? added.byMonth : added.byWho;
  const back = group === 'month' && !(sorted[0]?.id === 'date' && !sorted[0].desc);
  const inOrder = groups.toSorted((a, b) =>
    a.key === null ? 1 : b.key === null ? -1 : (back ? -1 : 1) * a.key.localeCompare(b.key),
  );
  const by = groupBy(papers, keyOf);
  return inOrder.flatMap((each) => [{ group: each }, ...(by.get(each.key) ?? []).map((paper) => ({ paper }))]);
}
