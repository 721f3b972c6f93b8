import { useEffect, useRef } from 'react';
import { useNavigate } from 'react-router';
import { Stack } from '@crow/contract/stacks';
import { useNotices } from '../../parts/notices';

/** Tells of the label of a box or binder as soon as it is known among the pages taken, with the way to what lies in it. */
export function useLabels(stack: Pick<Stack, 'id' | 'pageList'> | undefined): void {
  const { tell } = useNotices();
  const navigate = useNavigate();
  /** The labels that were told of, or were there before, by their pages; of which stack. */
  const told = useRef<{ stack: string; pages: Set<string> }>(undefined);
  useEffect(() => {
    if (!stack) return;
    const labels = stack.pageList.flatMap(({ id, divider }) => (divider?.place ? [{ id, place: divider.place }] : []));
    if (told.current?.stack !== stack.id) {
      told.current = { stack: stack.id, pages: new Set(labels.map(({ id }) => id)) };
      // The first page of a stack may be what has just been shown.
      if (stack.pageList.length > 1) return;
      told.current.pages.clear();
    }
    const { pages } = told.current;
    for (const { id, place } of labels) {
      if (pages.has(id)) continue;
      pages.add(id);
      tell({
        text: `“${place.name}”: the sheets that come after its label lie in it.`,
        action: { label: 'What lies in it', run: () => void navigate(`/ledger?view=sheets&place=${place.id}`) },
      });
    }
  }, [stack, tell, navigate]);
}
