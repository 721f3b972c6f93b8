import { useMemo } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';

/** What stands in the address for no folder, for the bin, for what was sent, and for the documents whose files somebody changed. */
const NO_FOLDER = '-';
export const BIN = 'bin';
export const SENT = 'sent';
export const CHANGED = 'changed';

export interface ShelfPlace {
  folder?: string;
  document?: string;
  /** Another document that is read beside it. */
  beside?: string;
  /** What is looked for; undefined when nothing is. */
  find?: string;
  /** A place on the open document that is shown. */
  at?: Place;
  /** Words that are marked on it, when others than those looked for. */
  words?: string;
}

/** A place on a page, as shares of the page. */
export interface Place {
  pageId: string;
  box: [number, number, number, number];
}

const AT = /^([\da-f-]{36}):([\d.]+),([\d.]+),([\d.]+),([\d.]+)$/;
const writeAt = ({ pageId, box }: Place) => `${pageId}:${box.map((share) => share.toFixed(4)).join()}`;
function readAt(text: string | null): Place | undefined {
  const [, pageId, ...box] = AT.exec(text ?? '') ?? [];
  return pageId ? { pageId, box: box.map(Number) as Place['box'] } : undefined;
}

/** Where one is in the shelf, from the address, and how to go elsewhere; `replace` while what is looked for is being typed. */
export function useShelfPlace(): ShelfPlace & { go: (to: ShelfPlace, replace?: boolean) => void } {
  const { folder, document } = useParams();
  const [search] = useSearchParams();
  const navigate = useNavigate();
  const find = search.get('find') ?? undefined;
  const beside = search.get('beside') ?? undefined;
  const written = search.get('at');
  const at = useMemo(() => readAt(written), [written]);
  const words = search.get('words') ?? undefined;
  const go = (to: ShelfPlace, replace = false) => {
    const path = to.document ? `/shelf/${to.folder ?? NO_FOLDER}/${to.document}` : `/shelf/${to.folder ?? ''}`;
    const query = new URLSearchParams({
      ...(to.beside && { beside: to.beside }),
      ...(to.find !== undefined && { find: to.find }),
      ...(to.at && { at: writeAt(to.at) }),
      ...(to.words && { words: to.words }),
    });
    void navigate(
      { pathname: path, search: query.size > 0 ? `?${query}` : '' },
      { replace, state: { typed: replace } },
    );
  };
  return { folder: folder === NO_FOLDER ? undefined : folder, document, beside, find, at, words, go };
}
