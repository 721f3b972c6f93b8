import { useLocation, useNavigate } from 'react-router';

/** Where somebody was before a page was opened, kept with it in the browser's history. */
interface CameFrom {
  from?: string;
  /** Pages that were selected there. */
  selected?: string[];
}

/** Goes to a view that leads back to this one. @param from the address to come back to, if it isn't the one shown */
export function useGo() {
  const navigate = useNavigate();
  const { pathname, search } = useLocation();
  return (to: string, { from = pathname + search, selected }: CameFrom = {}) =>
    void navigate(to, { state: { from, selected } satisfies CameFrom });
}

/** The way back to where somebody came from. @param otherwise where it leads when they came by its address */
export function useWayBack(otherwise: string) {
  const navigate = useNavigate();
  const state = (useLocation().state ?? {}) as CameFrom;
  const from = state.from ?? otherwise;
  return {
    selected: state.selected ?? [],
    back: () => void navigate(from),
    /** Goes on to another view that leads back to the same place. */
    onTo: (to: string) => void navigate(to, { state }),
  };
}

/** Where pages are added to a document. @param from where “Done” leads */
export function addPagesAddress(documentId: string, from: string): string {
  return `/capture?${new URLSearchParams({ document: documentId, from })}`;
}
