import { useMemo } from 'react';
import { endpoints } from '@crow/contract/endpoints';
import { Document } from '@crow/contract/documents';
import { Page } from '@crow/contract/pages';
import { Stack } from '@crow/contract/stacks';
import { movePages, putTogether, setDropped } from '@crow/core/sorting/arrangement';
import { useNotices } from '../../parts/notices';
import { useArrangement } from '../../parts/useArrangement';
import { useChange } from '../../queries';

/** The pages that the ribbon shows, and what can be done with them there. */
export interface PagesInHand {
  pages: Page[];
  move: (id: string, before: string | null) => void;
  drop: (page: Page) => void;
  undo?: () => void;
  redo?: () => void;
  /** Puts the sheets of one picture together again. */
  together?: (ids: string[]) => void;
  /** Makes several pages of one that holds several papers. */
  apart?: (id: string) => void;
  /** Makes two pages of one that shows an open book. */
  cutBook?: (id: string) => void;
  /** Whether one of the two is being done: it takes seconds, and is not to be asked for again meanwhile. */
  parting?: boolean;
}

/** The pages of a stack that is not sorted yet: every change is a step that can be undone. */
export function useStackPages(stack: Stack): PagesInHand {
  const { pages, change, undo, redo, settled } = useArrangement(stack);
  const takeApart = useChange(endpoints.takeApart, ['stack']);
  const cutBook = useChange(endpoints.cutBook, ['stack']);
  const parting = takeApart.isPending || cutBook.isPending;
  const part = (how: typeof takeApart | typeof cutBook) => (id: string) => {
    if (!parting) void settled().then(() => how.mutate({ params: { id } }));
  };
  return {
    pages,
    undo,
    redo,
    move: (id, before) => change((now) => movePages(now, new Set([id]), before)),
    drop: ({ id, dropped }) => change((now) => setDropped(now, new Set([id]), !dropped)),
    apart: part(takeApart),
    cutBook: part(cutBook),
    parting,
    together: (ids) => change((now) => putTogether(now, ids)),
  };
}

/** The pages of a document. */
export function useDocumentPages(document: Document): PagesInHand {
  const { tell } = useNotices();
  const arrange = useChange(endpoints.arrangeDocument, ['document', 'stack']);
  const ids = useMemo(() => document.pageList.map(({ id }) => id), [document.pageList]);
  const put = (pages: string[]) => arrange.mutate({ params: { id: document.id }, body: { pages } });
  return {
    pages: document.pageList,
    move: (id, before) => {
      const others = ids.filter((each) => each !== id);
      put(others.toSpliced(before === null ? others.length : others.indexOf(before), 0, id));
    },
    drop: ({ id }) => {
      if (ids.length === 1) return tell({ text: 'A document needs at least one page.' });
      put(ids.filter((each) => each !== id));
      tell({ text: 'The page is no longer in the document.', action: { label: 'Bring it back', run: () => put(ids) } });
    },
  };
}
