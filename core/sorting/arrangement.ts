import { addTurns, Turn } from '../geometry';

/** How one page lies in a stack. */
export interface Placed {
  id: string;
  /** Whether a new document begins with this page. */
  cutBefore: boolean;
  turn: Turn;
  /** The version of its recipe. */
  version: string;
  /** A dropped page goes into no document; it stays visible and can be brought back. */
  dropped: boolean;
}

/** All pages of a stack in their order. Every function here gives a new arrangement and leaves the old one as it is. */
export type Arrangement = Placed[];

/** The documents that the cuts make: pages in order, dropped ones left out, no document empty. */
export function documentsOf(arrangement: Arrangement): Placed[][] {
  const documents: Placed[][] = [];
  let pendingCut = true;
  for (const page of arrangement) {
    pendingCut ||= page.cutBefore;
    if (page.dropped) continue;
    if (pendingCut) documents.push([]);
    pendingCut = false;
    documents[documents.length - 1].push(page);
  }
  return documents;
}

/** Makes the cut before a page, or takes it away; the first page always begins a document. */
export function toggleCut(arrangement: Arrangement, id: string): Arrangement {
  return arrangement.map((page, index) =>
    page.id === id && index > 0 ? { ...page, cutBefore: !page.cutBefore } : page,
  );
}

/** One document of everything. */
export function keepWhole(arrangement: Arrangement): Arrangement {
  return arrangement.map((page) => ({ ...page, cutBefore: false }));
}

/** A document of every page, for stacks of single sheets. */
export function cutEverywhere(arrangement: Arrangement): Arrangement {
  return arrangement.map((page, index) => ({ ...page, cutBefore: index > 0 }));
}

export function turnPages(arrangement: Arrangement, ids: ReadonlySet<string>, by: Turn): Arrangement {
  return arrangement.map((page) => (ids.has(page.id) ? { ...page, turn: addTurns(page.turn, by) } : page));
}

export function setDropped(arrangement: Arrangement, ids: ReadonlySet<string>, dropped: boolean): Arrangement {
  return arrangement.map((page) => (ids.has(page.id) ? { ...page, dropped } : page));
}

/**
 * Moves pages, in their order, to stand before the page `before` (or at the end when null). The cuts stay between the same
 * places: a document keeps its beginning when its first page leaves, and what is moved joins the document it lands in.
 */
export function movePages(arrangement: Arrangement, ids: ReadonlySet<string>, before: string | null): Arrangement {
  if (before !== null && ids.has(before)) return arrangement;
  const staying: Placed[] = [];
  let carriedCut = false;
  for (const page of arrangement) {
    if (ids.has(page.id)) {
      carriedCut ||= page.cutBefore;
      continue;
    }
    staying.push(carriedCut && !page.cutBefore ? { ...page, cutBefore: true } : page);
    carriedCut = false;
  }
  const moved = arrangement.filter((page) => ids.has(page.id)).map((page) => ({ ...page, cutBefore: false }));
  const at = before === null ? staying.length : staying.findIndex((page) => page.id === before);
  const target = staying[at];
  if (target?.cutBefore && moved.length > 0) {
    // Landing right before a document's first page means landing in that document.
    moved[0] = { ...moved[0], cutBefore: true };
    staying[at] = { ...target, cutBefore: false };
  }
  const result = [...staying.slice(0, at), ...moved, ...staying.slice(at)];
  if (result[0]?.cutBefore) result[0] = { ...result[0], cutBefore: false };
  return result;
}

/** Whether a document begins with the page at this place, dropped pages before it counted in. */
export function beginsDocument(arrangement: Arrangement, index: number): boolean {
  return index === 0 || arrangement[index].cutBefore;
}
