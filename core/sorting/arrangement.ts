import { addTurns, Turn } from '../geometry';

/** The version of a page that is its picture as it is. */
export const WHOLE_PICTURE = '';

/** How one page lies in a stack. */
export interface Placed {
  id: string;
  /** Whether a new document begins with this page. */
  cutBefore: boolean;
  /** Whether a person has said so, or that none does; otherwise it follows what is proposed. */
  cutDecided: boolean;
  turn: Turn;
  /** The version of its recipe. */
  version: string;
  /** A dropped page goes into no document; it stays visible and can be brought back. */
  dropped: boolean;
  /** Whether a person has dropped it or brought it back; otherwise it is dropped when it is blank. */
  dropDecided: boolean;
}

/** All pages of a stack in their order. Every function here gives a new arrangement and leaves the old one as it is. */
export type Arrangement = Placed[];

/** How pages lie, of whatever else is known about them. */
export function arrangementOf(pages: readonly Placed[]): Arrangement {
  return pages.map(({ id, cutBefore, cutDecided, turn, version, dropped, dropDecided }) => ({
    id,
    cutBefore,
    cutDecided,
    turn,
    version,
    dropped,
    dropDecided,
  }));
}

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
    page.id === id && index > 0 ? { ...page, cutBefore: !page.cutBefore, cutDecided: true } : page,
  );
}

/** Makes one document of these pages: no cut between the first and the last of them. */
export function joinPages(arrangement: Arrangement, ids: ReadonlySet<string>): Arrangement {
  const first = arrangement.findIndex(({ id }) => ids.has(id));
  const last = arrangement.findLastIndex(({ id }) => ids.has(id));
  return arrangement.map((page, index) =>
    index > first && index <= last ? { ...page, cutBefore: false, cutDecided: true } : page,
  );
}

/** Says that the gap before a page is right as it is proposed. */
export function acceptCut(arrangement: Arrangement, id: string): Arrangement {
  return arrangement.map((page) => (page.id === id ? { ...page, cutDecided: true } : page));
}

/** Takes back what was decided about cuts: all gaps follow what is proposed. */
export function asProposed(arrangement: Arrangement): Arrangement {
  return arrangement.map((page) => ({ ...page, cutDecided: false }));
}

/** One document of everything. */
export function keepWhole(arrangement: Arrangement): Arrangement {
  return arrangement.map((page) => ({ ...page, cutBefore: false, cutDecided: true }));
}

/** A document of every page, for stacks of single sheets. */
export function cutEverywhere(arrangement: Arrangement): Arrangement {
  return cutEvery(arrangement, 1);
}

/** A document of every so many pages; dropped ones don't count. */
export function cutEvery(arrangement: Arrangement, pages: number): Arrangement {
  let before = 0;
  return arrangement.map((page) => {
    const cutBefore = !page.dropped && before > 0 && before % pages === 0;
    if (!page.dropped) before++;
    return { ...page, cutBefore, cutDecided: true };
  });
}

/** A new document behind every one of these pages, which are dropped; what follows several of them in a row begins once. */
export function cutBehind(arrangement: Arrangement, ids: ReadonlySet<string>): Arrangement {
  return arrangement.map((page, index) => {
    if (ids.has(page.id)) return { ...page, cutBefore: false, cutDecided: true, dropped: true, dropDecided: true };
    const cutBefore = index > 0 && ids.has(arrangement[index - 1].id);
    return { ...page, cutBefore, cutDecided: true };
  });
}

export function turnPages(arrangement: Arrangement, ids: ReadonlySet<string>, by: Turn): Arrangement {
  return arrangement.map((page) => (ids.has(page.id) ? { ...page, turn: addTurns(page.turn, by) } : page));
}

export function setDropped(arrangement: Arrangement, ids: ReadonlySet<string>, dropped: boolean): Arrangement {
  return arrangement.map((page) => (ids.has(page.id) ? { ...page, dropped, dropDecided: true } : page));
}

/** Whether pages are one or several documents, each with all of its pages. */
function areWholeDocuments(arrangement: Arrangement, ids: ReadonlySet<string>): boolean {
  return documentsOf(arrangement).every(
    (pages) => pages.every(({ id }) => ids.has(id)) || !pages.some(({ id }) => ids.has(id)),
  );
}

/**
 * Moves pages, in their order, to stand before the page `before` (or at the end when null). The cuts stay between the same
 * places: a document keeps its beginning when its first page leaves, and what is moved joins the document it lands in. Whole
 * documents that land between others stay documents.
 */
export function movePages(arrangement: Arrangement, ids: ReadonlySet<string>, before: string | null): Arrangement {
  if (before !== null && ids.has(before)) return arrangement;
  const staying = takenOut(arrangement, ids);
  const place = before === null ? staying.length : staying.findIndex((page) => page.id === before);
  const isBetween = place === 0 || place === staying.length || staying[place]?.cutBefore;
  if (isBetween && staying.length > 0 && areWholeDocuments(arrangement, ids)) {
    const cut = (page: Placed, at: number): Placed =>
      at === 0 ? { ...page, cutBefore: true, cutDecided: true } : page;
    const whole = arrangement.filter((page) => ids.has(page.id)).map(cut);
    return withoutFirstCut([...staying.slice(0, place), ...whole, ...staying.slice(place).map(cut)]);
  }
  const moved = arrangement
    .filter((page) => ids.has(page.id))
    .map((page) => ({ ...page, cutBefore: false, cutDecided: true }));
  const at = before === null ? staying.length : staying.findIndex((page) => page.id === before);
  const target = staying[at];
  if (target?.cutBefore && moved.length > 0) {
    // Landing right before a document's first page means landing in that document.
    moved[0] = { ...moved[0], cutBefore: true };
    staying[at] = { ...target, cutBefore: false, cutDecided: true };
  }
  return withoutFirstCut([...staying.slice(0, at), ...moved, ...staying.slice(at)]);
}

/** Where in a stack pages go that have just come. */
export interface Landing {
  /** Before this page; at the end when null. */
  before: string | null;
  /** Right behind this page, of which they are another capture. */
  again: string | null;
}

/**
 * The place in a stack for pages that have just come. Files that were sent together may come in any order: those sent earlier
 * stand first.
 * @param there the pages in their order, each with the number in which its file was sent
 * @param number that of the pages which have come
 */
export function landingPlace(
  there: readonly { id: string; number: number }[],
  number: number,
  { before, again }: Landing,
): number {
  const behind = there.findIndex(({ id }) => id === again);
  if (behind >= 0) return behind + 1;
  const anchor = there.findIndex(({ id }) => id === before);
  let place = anchor >= 0 ? anchor : there.length;
  while (place > 0 && there[place - 1].number > number) place--;
  return place;
}

/**
 * The arrangement once pages have landed on purpose, and the one to go back to: there they are dropped, so that undoing loses
 * none. What lands before a document's first page joins that document; a page captured again is dropped for the new one.
 * @param now the arrangement with the pages in their places
 */
export function landed(
  now: Arrangement,
  ids: ReadonlySet<string>,
  again: string | null,
): { before: Arrangement; after: Arrangement } {
  const first = now.findIndex(({ id }) => ids.has(id));
  const next = now[now.findLastIndex(({ id }) => ids.has(id)) + 1];
  const joins = again === null && first > 0 && Boolean(next?.cutBefore);
  const after = now.map((page, index) => {
    if (page.id === again) return { ...page, dropped: true, dropDecided: true };
    if (joins && index === first) return { ...page, cutBefore: true, cutDecided: true };
    if (joins && page.id === next.id) return { ...page, cutBefore: false, cutDecided: true };
    return page;
  });
  return { before: setDropped(now, ids, true), after };
}

/** Adds the pages that an arrangement doesn't name because they came later: each behind the one that it follows now. */
export function completed(arrangement: Arrangement, now: Arrangement): Arrangement {
  const result = [...arrangement];
  const named = new Set(arrangement.map(({ id }) => id));
  for (const [index, page] of now.entries()) {
    if (named.has(page.id)) continue;
    const before = index === 0 ? -1 : result.findIndex(({ id }) => id === now[index - 1].id);
    result.splice(before + 1, 0, page);
  }
  return result;
}

/**
 * Puts the sheets that were found in one picture together again: the first of its pages becomes the whole picture, the others
 * are dropped.
 */
export function putTogether(arrangement: Arrangement, ids: readonly string[]): Arrangement {
  const [first] = arrangement.filter(({ id }) => ids.includes(id));
  return arrangement.map((page) => {
    if (page === first) return { ...page, version: WHOLE_PICTURE, turn: 0, dropped: false, dropDecided: true };
    return ids.includes(page.id) ? { ...page, dropped: true, dropDecided: true } : page;
  });
}

/** What the program proposes about a page. */
export interface Proposed {
  id: string;
  /** Whether a document begins with it. */
  begins: boolean;
  /** Whether it belongs to no document: it is blank, or a divider sheet. */
  aside: boolean;
}

/** The arrangement with what is proposed wherever nobody has decided. */
export function followProposals(arrangement: Arrangement, proposals: readonly Proposed[]): Arrangement {
  const byId = new Map(proposals.map((proposal) => [proposal.id, proposal]));
  return arrangement.map((page, index) => {
    const proposal = byId.get(page.id);
    if (!proposal) return page;
    return {
      ...page,
      cutBefore: page.cutDecided ? page.cutBefore : index > 0 && proposal.begins,
      dropped: page.dropDecided ? page.dropped : proposal.aside,
    };
  });
}

/** Whether a document begins with the page at this place, dropped pages before it counted in. */
export function beginsDocument(arrangement: Arrangement, index: number): boolean {
  return index === 0 || arrangement[index].cutBefore;
}

/** What stays when pages leave: a document whose first page leaves begins with the next one. */
export function takenOut(arrangement: Arrangement, ids: ReadonlySet<string>): Arrangement {
  const staying: Placed[] = [];
  let carriedCut = false;
  for (const page of arrangement) {
    if (ids.has(page.id)) {
      carriedCut ||= page.cutBefore;
      continue;
    }
    staying.push(carriedCut && !page.cutBefore ? { ...page, cutBefore: true, cutDecided: true } : page);
    carriedCut = false;
  }
  return withoutFirstCut(staying);
}

/** Lays pages at the end, as documents of their own: what was cut among them stays so. */
export function sendToBack(arrangement: Arrangement, ids: ReadonlySet<string>): Arrangement {
  const staying = takenOut(arrangement, ids);
  const moved = arrangement.filter(({ id }) => ids.has(id));
  if (moved.length === 0 || staying.length === 0) return arrangement;
  return laidBehind(staying, moved);
}

/** Lays pages behind others, as documents of their own: the first begins one, the gaps among them stay as they are. */
export function laidBehind(there: Arrangement, pages: Arrangement): Arrangement {
  const coming = pages.map((page, at) => (at === 0 ? { ...page, cutBefore: true, cutDecided: true } : page));
  return withoutFirstCut([...there, ...coming]);
}

/** The first page begins a document without a cut. */
function withoutFirstCut(arrangement: Arrangement): Arrangement {
  const [first, ...rest] = arrangement;
  return first?.cutBefore ? [{ ...first, cutBefore: false }, ...rest] : arrangement;
}
