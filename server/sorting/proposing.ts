import { EntityManager } from 'typeorm';
import { Turn, turnSize } from '@crow/core/geometry';
import { findFacts } from '@crow/core/reading/facts/findFacts';
import { PageText, restoreWords, StoredWord, Word } from '@crow/core/reading/words';
import { followProposals } from '@crow/core/sorting/arrangement';
import { backsOf } from '@crow/core/sorting/backs';
import { proposeCuts } from '@crow/core/sorting/cuts';
import { callsItselfDivider, Divider, readDividerCode } from '@crow/core/sorting/divider';
import { PilePage } from '@crow/core/sorting/gaps';
import { PageSigns, signsOf } from '@crow/core/sorting/signs';
import { rows } from '../platform/database';
import { announce } from '../platform/live';

interface PageRow {
  id: string;
  fileId: string;
  fileNumber: number;
  turn: Turn;
  version: string;
  pointWidth: number;
  pointHeight: number;
  blank: boolean | null;
  divider: Divider | null;
  back: boolean | null;
  signs: PageSigns | null;
  cutBefore: boolean;
  cutDecided: boolean;
  dropped: boolean;
  dropDecided: boolean;
  chance: number | null;
  sure: boolean;
  why: string[];
}

/** What is less sure is not shown on the light table. */
const LEAST_AT_A_GLANCE = 0.5;

/** Keeps what a page's text shows of beginnings and ends, once it has been read as it is. */
export async function keepSigns(manager: EntityManager, pageId: string): Promise<void> {
  const [page] = await rows<PageText & { own: boolean; turn: Turn; pointWidth: number; pointHeight: number }>(
    manager,
    `select r.words, r.width, r.height, r.language, r.own, p.turn, p.point_width as "pointWidth", p.point_height as "pointHeight"
     from page p join reading r on r.page_id = p.id and r.turn = p.turn and r.version = p.version where p.id = $1`,
    [pageId],
  );
  if (!page) return;
  const words = restoreWords(page.words as unknown as StoredWord[]);
  const signs = signsOf({ ...page, words }, turnSize(page.pointWidth, page.pointHeight, page.turn));
  const { kind, vendor } = findFacts([{ ...page, words }]);
  const glance = {
    kind: kind && kind.confidence >= LEAST_AT_A_GLANCE ? kind.value : null,
    who: vendor && vendor.confidence >= LEAST_AT_A_GLANCE ? vendor.value : null,
  };
  const divider = dividerInText(words, page.own);
  await manager.query('update page set signs = $2, glance = $3, divider = coalesce(divider, $4::jsonb) where id = $1', [
    pageId,
    JSON.stringify(signs),
    JSON.stringify(glance),
    divider && JSON.stringify(divider),
  ]);
}

/** What a divider sheet says by its text, where its code can't be read: what it names only from text that is exact. */
function dividerInText(words: Word[], exact: boolean): Divider | null {
  const texts = words.map(({ text }) => text);
  if (!callsItselfDivider(texts)) return null;
  return (exact && readDividerCode(texts.join(' '))) || { folder: null, kind: null };
}

/**
 * Proposes anew where the documents of a stack begin and which pages are blank, from what is known of its pages by now; what a
 * person has decided stays. The stack is locked by whoever calls.
 * @returns whether anything is proposed otherwise than before
 */
export async function proposeForStack(manager: EntityManager, stackId: string): Promise<boolean> {
  const pages = await pileOf(manager, stackId);
  const [{ whole }] = await rows<{ whole: boolean }>(manager, 'select whole from stack where id = $1', [stackId]);
  const cuts = whole ? pages.map(() => null) : proposeCuts(pages);
  const arranged = followProposals(
    pages,
    pages.map(({ id, aside }, index) => ({ id, begins: (cuts[index]?.chance ?? 0) >= 0.5, aside })),
  );
  let changed = false;
  for (const [index, page] of pages.entries()) {
    const { cutBefore, dropped } = arranged[index];
    const cut = cuts[index];
    const chance = cut ? Math.round(cut.chance * 1000) / 1000 : null;
    const [sure, why] = [cut?.sure ?? false, cut?.why ?? []];
    const same =
      cutBefore === page.cutBefore &&
      dropped === page.dropped &&
      sure === page.sure &&
      (chance === null) === (page.chance === null) &&
      Math.abs((chance ?? 0) - (page.chance ?? 0)) < 0.0006 &&
      JSON.stringify(why) === JSON.stringify(page.why);
    if (same) continue;
    changed = true;
    await manager.query(
      'update page set cut_before = $2, dropped = $3, cut_chance = $4, cut_sure = $5, cut_why = $6 where id = $1',
      [page.id, cutBefore, dropped, chance, sure, JSON.stringify(why)],
    );
  }
  return changed;
}

type StackPage = Omit<PageRow, 'blank' | 'divider' | 'back'> &
  PilePage & {
    /** Whether it is blank or a divider sheet by itself, whatever a person did. */
    aside: boolean;
  };

/** The pages of a stack, in their order, as cuts are proposed from them. */
export async function pileOf(manager: EntityManager, stackId: string): Promise<StackPage[]> {
  const pages = await rows<PageRow>(
    manager,
    `select id, source_file_id as "fileId", source_number as "fileNumber", turn, version, point_width as "pointWidth",
       point_height as "pointHeight", blank, divider, back, signs, cut_before as "cutBefore", cut_decided as "cutDecided", dropped,
       drop_decided as "dropDecided", cut_chance as chance, cut_sure as sure, cut_why as why
     from page where stack_id = $1 order by position`,
    [stackId],
  );
  const backs = backsIn(pages);
  // A page that a person dropped, or had back, is gone or there, whatever is on it.
  return pages.map(({ blank, divider, back, ...page }) => ({
    ...page,
    size: turnSize(page.pointWidth, page.pointHeight, page.turn),
    blank: page.dropDecided ? page.dropped && !divider : (blank ?? false),
    divider: divider !== null && (page.dropped || !page.dropDecided),
    back: back ?? backs.get(page.id),
    aside: Boolean(blank || divider),
  }));
}

/** Which pages are backs of those before them, told by the blank ones of their file. */
function backsIn(pages: PageRow[]): Map<string, boolean> {
  const files = new Map<string, PageRow[]>();
  for (const page of pages) files.set(page.fileId, [...(files.get(page.fileId) ?? []), page]);
  const backs = new Map<string, boolean>();
  for (const those of files.values()) {
    const inOrder = [...those].sort((a, b) => a.fileNumber - b.fileNumber);
    backsOf(inOrder.map(({ blank }) => blank ?? false)).forEach((back, at) => {
      if (back !== undefined) backs.set(inOrder[at].id, back);
    });
  }
  return backs;
}

/** Proposes for a stack that is locked, unless it has been sorted. */
export async function proposeForOpen(manager: EntityManager, stackId: string): Promise<void> {
  const [open] = await rows(manager, `select 1 from stack where id = $1 and state = 'open'`, [stackId]);
  if (open) await proposeForStack(manager, stackId);
}

/** Locks an open stack and proposes for it; nothing happens when it has been sorted. */
export async function proposeAnew(manager: EntityManager, stackId: string): Promise<void> {
  const [open] = await rows(manager, `select 1 from stack where id = $1 and state = 'open' for no key update`, [
    stackId,
  ]);
  if (open && (await proposeForStack(manager, stackId))) await announce(manager, 'stack', stackId);
}
