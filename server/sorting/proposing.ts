import { EntityManager } from 'typeorm';
import { turnSize } from '@crow/core/geometry';
import { readSettings } from '../platform/settings';
import { findFacts } from '@crow/core/reading/facts/findFacts';
import { isMilestone } from '@crow/core/reading/milestones';
import { PageCode, Word } from '@crow/core/reading/words';
import { followProposals } from '@crow/core/sorting/arrangement';
import { backsOf } from '@crow/core/sorting/backs';
import { proposeCuts } from '@crow/core/sorting/cuts';
import { callsItselfDivider, Divider, MOST_WORDS, readDividerCode } from '@crow/core/sorting/divider';
import { PilePage } from '@crow/core/sorting/gaps';
import { signsOf } from '@crow/core/sorting/signs';
import { announce } from '../platform/live';
import { keepSignsOf, PageToSort, pagesProgress, pagesToSort, textOfPage } from './queries';
import { Page, Stack } from '../platform/entities';

/** What is less sure is not shown on the light table. */
const LEAST_AT_A_GLANCE = 0.5;

/** Keeps what a page's text shows of beginnings and ends, once it has been read as it is. */
export async function keepSigns(manager: EntityManager, pageId: string): Promise<void> {
  const page = await textOfPage(manager, pageId);
  if (!page) return;
  const { words, codes = [] } = page;
  const signs = signsOf(page, turnSize(page.pointWidth, page.pointHeight, page.turn));
  const { ownKinds } = await readSettings(manager);
  const { kind, vendor } = findFacts([page], { ownKinds });
  const glance = {
    kind: kind && kind.confidence >= LEAST_AT_A_GLANCE ? kind.value : null,
    who: vendor && vendor.confidence >= LEAST_AT_A_GLANCE ? vendor.value : null,
  };
  const divider = dividerInCodes(words, codes) ?? dividerInText(words, page.own);
  await keepSignsOf(manager, pageId, { signs, glance, divider });
}

/** What a divider sheet, or a label, says by its code, where that was not found at first sight: labels have little black on them. */
function dividerInCodes(words: Word[], codes: PageCode[]): Divider | undefined {
  if (words.length > MOST_WORDS) return undefined;
  for (const { text } of codes) {
    const divider = readDividerCode(text);
    if (divider) return divider;
  }
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
  const { whole } = await manager.findOneByOrFail(Stack, { id: stackId });
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
    await manager.update(Page, { id: page.id }, { cutBefore, dropped, cutChance: chance, cutSure: sure, cutWhy: why });
  }
  return changed;
}

type StackPage = Omit<PageToSort, 'blank' | 'divider' | 'back'> &
  PilePage & {
    /** Whether it is blank or a divider sheet by itself, whatever a person did. */
    aside: boolean;
  };

/** The pages of a stack, in their order, as cuts are proposed from them. */
export async function pileOf(manager: EntityManager, stackId: string): Promise<StackPage[]> {
  const pages = await pagesToSort(manager, stackId);
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
function backsIn(pages: PageToSort[]): Map<string, boolean> {
  const files = new Map<string, PageToSort[]>();
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

/** After a page of it was prepared: proposes for a stack that is locked, unless it has been sorted. */
export async function proposeForOpen(manager: EntityManager, stackId: string): Promise<void> {
  const { prepared, pages } = await pagesProgress(manager, stackId);
  if (!isMilestone(prepared, pages)) return;
  if (await manager.existsBy(Stack, { id: stackId, state: 'open' })) await proposeForStack(manager, stackId);
}

/** After a page of it was read: locks an open stack and proposes for it; nothing happens when it has been sorted. */
export async function proposeAnew(manager: EntityManager, stackId: string): Promise<void> {
  const open = await manager.findOne(Stack, {
    where: { id: stackId, state: 'open' },
    lock: { mode: 'for_no_key_update' },
  });
  if (!open) return;
  const { read, pages } = await pagesProgress(manager, stackId);
  if (isMilestone(read, pages) && (await proposeForStack(manager, stackId))) await announce(manager, 'stack', stackId);
}
