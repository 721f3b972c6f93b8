import { createContext, ReactNode, useContext, useMemo, useState } from 'react';
import { useShelfPlace } from './shelfPlace';

/** Documents of the list that are chosen for doing something with all of them. */
interface Chosen {
  ids: ReadonlySet<string>;
  /** Chooses or leaves a document; with `through`, those between it and the one before as well. */
  toggle: (id: string, list: readonly string[], through?: boolean) => void;
  set: (ids: Iterable<string>) => void;
}

const ChosenContext = createContext<Chosen>({ ids: new Set(), toggle: () => undefined, set: () => undefined });
export const useChosen = () => useContext(ChosenContext);

/** Holds what is chosen; in another folder, or when something else is looked for, nothing is. */
export function ChosenProvider({ children }: { children: ReactNode }) {
  const { folder, find } = useShelfPlace();
  const place = find === undefined ? `in ${folder}` : `find ${find}`;
  const [held, setHeld] = useState<{ place: string; ids: ReadonlySet<string>; last?: string }>({
    place,
    ids: new Set(),
  });
  const value = useMemo(() => {
    const here = held.place === place;
    const ids = here ? held.ids : new Set<string>();
    const last = here ? held.last : undefined;
    return {
      ids,
      toggle: (id: string, list: readonly string[], through = false) => {
        const to = new Set(ids);
        const [from, until] = [list.indexOf(last ?? ''), list.indexOf(id)].sort((a, b) => a - b);
        if (through && from >= 0) list.slice(from, until + 1).forEach((each) => to.add(each));
        else if (!to.delete(id)) to.add(id);
        setHeld({ place, ids: to, last: id });
      },
      set: (to: Iterable<string>) => setHeld({ place, ids: new Set(to) }),
    };
  }, [held, place]);
  return <ChosenContext value={value}>{children}</ChosenContext>;
}
