import { useInfiniteQuery } from '@tanstack/react-query';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useRef, useState } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { DEEDS_AT_ONCE } from '@crow/contract/history';
import { ask } from '../../api';
import { Choice, Empty } from '../../parts/controls';
import { usePeople } from '../../queries';
import { DeedLine } from './DeedLine';

const ROW = 34;
const ANYBODY = '';

/** Who did what, the latest first; more of it comes as one scrolls. */
export function HistoryList() {
  const { data: people = [] } = usePeople();
  const [who, setWho] = useState(ANYBODY);
  const { data, fetchNextPage, hasNextPage, isFetchingNextPage, isPending } = useInfiniteQuery({
    queryKey: ['history', who],
    queryFn: ({ pageParam }) => ask(endpoints.listHistory, { query: { before: pageParam, who: who || undefined } }),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (last) => (last.length < DEEDS_AT_ONCE ? undefined : last.at(-1)!.id),
  });
  const deeds = data?.pages.flat() ?? [];
  const scrolled = useRef<HTMLDivElement>(null);

  const rows = useVirtualizer({
    count: deeds.length,
    getScrollElement: () => scrolled.current,
    estimateSize: () => ROW,
    overscan: 12,
  });
  const shown = rows.getVirtualItems();
  const end = shown.at(-1)?.index ?? 0;
  useEffect(() => {
    if (hasNextPage && !isFetchingNextPage && end >= deeds.length - 1) void fetchNextPage();
  }, [end, deeds.length, hasNextPage, isFetchingNextPage, fetchNextPage]);
  return (
    <div className="mx-auto flex h-full max-w-5xl flex-col px-4 md:px-8">
      <div className="flex shrink-0 items-center py-3">
        <Choice
          label="Done by"
          shown
          value={who}
          choices={[{ value: ANYBODY, name: 'anybody' }, ...people.map(({ id, name }) => ({ value: id, name }))]}
          onChange={setWho}
        />
      </div>
      {!isPending && deeds.length === 0 ? (
        <Empty title="Nothing was done yet" />
      ) : (
        <div ref={scrolled} className="min-h-0 flex-1 overflow-y-auto border-t border-rule">
          <ol aria-label="What was done" className="relative" style={{ height: rows.getTotalSize() }}>
            {shown.map(({ index, start, key }) => (
              <li
                key={key}
                ref={rows.measureElement}
                data-index={index}
                className="absolute inset-x-0 border-b border-rule py-1.5"
                style={{ transform: `translateY(${start}px)` }}
              >
                <DeedLine deed={deeds[index]} />
              </li>
            ))}
          </ol>
        </div>
      )}
    </div>
  );
}
