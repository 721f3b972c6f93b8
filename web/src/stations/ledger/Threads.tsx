import { useMemo } from 'react';
import { BookTie } from '@crow/contract/ledger';
import { BookRow, drawnTies } from './bookRows';
import { GUTTER, LINES_WIDTH, ROW } from './pageForm';

/** The threads from entries to the lines that pay them: dashed while only proposed. Those that leave the page at an edge are drawn to there. */
export function Threads({
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
