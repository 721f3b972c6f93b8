import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { Arrangement, arrangementOf, completed } from '@crow/core/sorting/arrangement';
import { endpoints } from '@crow/contract/endpoints';
import { Page } from '@crow/contract/pages';
import { Stack } from '@crow/contract/stacks';
import { ask, reportOf } from '../api';
import { useNotices } from './notices';

export interface ArrangedPage extends Page {
  /** Place in the stack, from 0. */
  index: number;
}

type Alter = (before: Arrangement) => Arrangement;
type Deed = { alter: Alter } | { step: 'undo' | 'redo' };

/**
 * The arrangement of a stack as it is on the table: changes show at once and are saved one after the other, each as a step
 * that can be undone. Each is made on what the one before it left, also when that is an undoing still on its way. When
 * saving fails the table goes back to what is saved.
 */
export function useArrangement(stack: Stack) {
  const client = useQueryClient();
  const { tell } = useNotices();
  /** What the server has answered that is not in `stack` yet, and the deeds that it has not answered. */
  const [state, setState] = useState<{ seen: Stack; answered?: Stack; waiting: Deed[] }>({ seen: stack, waiting: [] });
  if (state.seen !== stack) setState({ seen: stack, waiting: state.waiting });
  const queue = useRef(Promise.resolve());
  const unanswered = useRef(0);
  const latest = useRef(stack);
  useLayoutEffect(() => {
    if (unanswered.current === 0) latest.current = stack;
  }, [stack]);

  const enqueue = useCallback(
    (deed: Deed) => {
      unanswered.current++;
      setState((before) => ({ ...before, waiting: [...before.waiting, deed] }));
      const save = async () => {
        const after = await carryOut(deed, latest.current);
        latest.current = after;
        client.setQueryData(['stack', stack.id], after);
        setState((before) => ({ ...before, answered: after, waiting: before.waiting.slice(1) }));
      };
      const giveUp = async (error: unknown) => {
        tell({ error });
        setState((before) => ({ ...before, waiting: before.waiting.slice(1) }));
        const params = { id: stack.id };
        latest.current = await ask(endpoints.readStack, { params });
        client.setQueryData(['stack', stack.id], latest.current);
      };
      queue.current = queue.current
        .then(save)
        .catch(giveUp)
        .catch(() => undefined)
        .finally(() => unanswered.current--);
    },
    [client, stack.id, tell],
  );
  const change = useCallback((alter: Alter) => enqueue({ alter }), [enqueue]);
  const undo = useCallback(() => enqueue({ step: 'undo' }), [enqueue]);
  const redo = useCallback(() => enqueue({ step: 'redo' }), [enqueue]);
  /** Resolves once everything done so far is saved. */
  const settled = useCallback(() => queue.current, []);

  const arrangement = useMemo(
    () =>
      state.waiting.reduce(
        (before, deed) => ('alter' in deed ? deed.alter(before) : before),
        arrangementOf((state.answered ?? stack).pageList),
      ),
    [stack, state.answered, state.waiting],
  );

  const pages = useMemo<ArrangedPage[]>(() => {
    const byId = new Map(stack.pageList.map((page) => [page.id, page]));
    const shown = completed(arrangement, stack.pageList).flatMap((place) => {
      const page = byId.get(place.id);
      if (!page) return [];
      // Turned but not saved yet: the sides change places.
      const sideways = (page.turn - place.turn) % 180 !== 0;
      return [
        { ...page, ...place, width: sideways ? page.height : page.width, height: sideways ? page.width : page.height },
      ];
    });
    return shown.map((page, index) => ({ ...page, index }));
  }, [arrangement, stack.pageList]);

  return { pages, arrangement, change, undo, redo, settled };
}

async function carryOut(deed: Deed, now: Stack, { again = true } = {}): Promise<Stack> {
  const params = { id: now.id };
  if ('step' in deed) return ask(deed.step === 'undo' ? endpoints.undoStack : endpoints.redoStack, { params });
  const before = arrangementOf(now.pageList);
  const pages = deed.alter(before);
  if (JSON.stringify(pages) === JSON.stringify(before)) return now;
  try {
    return await ask(endpoints.arrangeStack, { params, body: { base: now.step, pages } });
  } catch (error) {
    // Pages have come to their places meanwhile: what is altered is said about pages, so it holds for the stack as it is now.
    if (!again || reportOf(error).code !== 'stack-changed') throw error;
    return carryOut(deed, await ask(endpoints.readStack, { params }), { again: false });
  }
}
