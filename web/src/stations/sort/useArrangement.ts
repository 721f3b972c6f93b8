import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Arrangement } from '@crow/core/sorting/arrangement';
import { endpoints } from '@crow/contract/endpoints';
import { Page, Stack } from '@crow/contract/shapes';
import { ask } from '../../api';
import { useNotices } from '../../parts/notices';

export interface ArrangedPage extends Page {
  /** Place in the stack, from 0. */
  index: number;
}

/**
 * The arrangement of a stack as it is on the table: changes show at once and are saved one after the other, each as a step
 * that can be undone. When saving fails the table goes back to what is saved.
 */
export function useArrangement(stack: Stack) {
  const client = useQueryClient();
  const { tell } = useNotices();
  const [ahead, setAhead] = useState<Arrangement>();
  const queue = useRef(Promise.resolve());
  const waiting = useRef(0);
  const step = useRef(stack.step);
  useEffect(() => {
    if (waiting.current === 0) step.current = stack.step;
  }, [stack.step]);

  const saved = useMemo<Arrangement>(
    () => stack.pageList.map(({ id, cutBefore, turn, dropped }) => ({ id, cutBefore, turn, dropped })),
    [stack.pageList],
  );
  const arrangement = ahead ?? saved;

  const { mutateAsync } = useMutation({
    mutationFn: (work: () => Promise<Stack>) => work(),
    onSuccess: (after) => {
      step.current = after.step;
      client.setQueryData(['stack', stack.id], after);
    },
  });

  const enqueue = useCallback(
    (work: () => Promise<Stack>) => {
      waiting.current++;
      queue.current = queue.current
        .then(() => mutateAsync(work))
        .then(
          () => undefined,
          (error: unknown) => {
            tell({ error });
            return client.invalidateQueries({ queryKey: ['stack', stack.id] });
          },
        )
        .finally(() => {
          waiting.current--;
          if (waiting.current === 0) setAhead(undefined);
        });
    },
    [client, mutateAsync, stack.id, tell],
  );

  const latest = useRef(arrangement);
  useEffect(() => {
    latest.current = arrangement;
  }, [arrangement]);
  const change = useCallback(
    (alter: (before: Arrangement) => Arrangement) => {
      const before = latest.current;
      const after = alter(before);
      if (after === before || JSON.stringify(after) === JSON.stringify(before)) return;
      latest.current = after;
      setAhead(after);
      enqueue(() =>
        ask(endpoints.arrangeStack, { params: { id: stack.id }, body: { base: step.current, pages: after } }),
      );
    },
    [enqueue, stack.id],
  );
  const undo = useCallback(
    () => enqueue(() => ask(endpoints.undoStack, { params: { id: stack.id } })),
    [enqueue, stack.id],
  );
  const redo = useCallback(
    () => enqueue(() => ask(endpoints.redoStack, { params: { id: stack.id } })),
    [enqueue, stack.id],
  );
  /** Resolves once everything done so far is saved. */
  const settled = useCallback(() => queue.current, []);

  const pages = useMemo<ArrangedPage[]>(() => {
    const byId = new Map(stack.pageList.map((page) => [page.id, page]));
    const placed = new Set(arrangement.map(({ id }) => id));
    const missing = stack.pageList.filter(({ id }) => !placed.has(id));
    const shown = arrangement.flatMap((place) => {
      const page = byId.get(place.id);
      if (!page) return [];
      // Turned but not saved yet: the sides change places.
      const sideways = (page.turn - place.turn) % 180 !== 0;
      return [
        { ...page, ...place, width: sideways ? page.height : page.width, height: sideways ? page.width : page.height },
      ];
    });
    return [...shown, ...missing].map((page, index) => ({ ...page, index }));
  }, [arrangement, stack.pageList]);

  return { pages, arrangement, change, undo, redo, settled };
}
