import { useNavigate, useParams, useSearchParams } from 'react-router';

/** What stands in the address for no folder, for the bin, and for the documents whose files somebody changed. */
const NO_FOLDER = '-';
export const BIN = 'bin';
export const CHANGED = 'changed';

export interface ShelfPlace {
  folder?: string;
  document?: string;
  /** Another document that is read beside it. */
  beside?: string;
  /** What is looked for; undefined when nothing is. */
  find?: string;
}

/** Where one is in the shelf, from the address, and how to go elsewhere. */
export function useShelfPlace(): ShelfPlace & { go: (to: ShelfPlace, replace?: boolean) => void } {
  const { folder, document } = useParams();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const find = search.get('find') ?? undefined;
  const beside = search.get('beside') ?? undefined;
  const go = (to: ShelfPlace, replace = false) => {
    const path = to.document ? `/shelf/${to.folder ?? NO_FOLDER}/${to.document}` : `/shelf/${to.folder ?? ''}`;
    const query = new URLSearchParams({
      ...(to.beside && { beside: to.beside }),
      ...(to.find !== undefined && { find: to.find }),
    });
    void navigate({ pathname: path, search: query.size > 0 ? `?${query}` : '' }, { replace });
  };
  return { folder: folder === NO_FOLDER ? undefined : folder, document, beside, find, go };
}
