import { EntityManager } from 'typeorm';
import { Turn } from '@crow/core/geometry';
import { PageText, restoreWords, StoredWord } from '@crow/core/reading/words';
import { CutReason } from '@crow/core/sorting/cuts';
import { Divider } from '@crow/core/sorting/divider';
import { PageSigns } from '@crow/core/sorting/signs';
import { Page } from '../platform/entities';
import { rows } from '../platform/database';

/** Which pages of a stack are backs. */
export async function markBacks(manager: EntityManager, stackId: string, backs: string[]): Promise<void> {
  await manager.query('update page set back = id = any($2) where stack_id = $1', [stackId, backs]);
}

/** Stacks, locked, all in one order. */
export function lockStacksInOrder(
  manager: EntityManager,
  ids: string[],
): Promise<{ id: string; state: string; step: number; binned: boolean }[]> {
  return rows<{ id: string; state: string; step: number; binned: boolean }>(
    manager,
    `select id, state, step, binned_at is not null as binned from stack where id = any($1) order by id for no key update`,
    [ids],
  );
}

/** Puts a stack into the bin in which nothing is left. */
export async function binStackIfBare(manager: EntityManager, id: string): Promise<void> {
  await manager.query(
    `update stack set binned_at = now() where id = $1 and not exists (select 1 from page where stack_id = $1)
     and not exists (select 1 from source_file where stack_id = $1 and not dismissed and state <> 'taken')`,
    [id],
  );
}

type SizedText = PageText & { own: boolean; turn: Turn; pointWidth: number; pointHeight: number };

/** What was read of a page, with its size. */
export async function textOfPage(manager: EntityManager, pageId: string): Promise<SizedText | undefined> {
  const [found] = await rows<Omit<SizedText, 'words'> & { words: StoredWord[] }>(
    manager,
    `select r.words, r.width, r.height, r.language, r.own, r.codes, p.turn, p.point_width as "pointWidth", p.point_height as "pointHeight"
     from page p join reading r on r.page_id = p.id and r.turn = p.turn and r.version = p.version where p.id = $1`,
    [pageId],
  );
  return found && { ...found, words: restoreWords(found.words) };
}

/** What the text of a page tells of beginnings and ends; a divider that was found by sight stays. */
export async function keepSignsOf(
  manager: EntityManager,
  pageId: string,
  { signs, glance, divider }: Pick<Page, 'signs' | 'glance' | 'divider'>,
): Promise<void> {
  await manager.query('update page set signs = $2, glance = $3, divider = coalesce(divider, $4::jsonb) where id = $1', [
    pageId,
    JSON.stringify(signs),
    JSON.stringify(glance),
    divider && JSON.stringify(divider),
  ]);
}

export interface PageToSort {
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
  why: CutReason[];
}

/** The pages of a stack, in their order, with what cuts are proposed from. */
export function pagesToSort(manager: EntityManager, stackId: string): Promise<PageToSort[]> {
  return rows<PageToSort>(
    manager,
    `select id, source_file_id as "fileId", source_number as "fileNumber", turn, version, point_width as "pointWidth",
       point_height as "pointHeight", blank, divider, back, signs, cut_before as "cutBefore", cut_decided as "cutDecided", dropped,
       drop_decided as "dropDecided", cut_chance as chance, cut_sure as sure, cut_why as why
     from page where stack_id = $1 order by position`,
    [stackId],
  );
}

/** How many pages a stack has, and how far they are. */
export async function pagesProgress(
  manager: EntityManager,
  stackId: string,
): Promise<{ pages: number; prepared: number; read: number }> {
  const [progress] = await rows<{ pages: number; prepared: number; read: number }>(
    manager,
    `select count(*)::int as pages, (count(*) filter (where prepared))::int as prepared,
       (count(*) filter (where reading <> 'waiting'))::int as read
     from page where stack_id = $1`,
    [stackId],
  );
  return progress;
}

/** The step that a stack is at, and the last one that can be done again. */
export async function stepsOf(manager: EntityManager, id: string): Promise<{ step: number; last: number }> {
  const [found] = await rows<{ step: number; last: number }>(
    manager,
    `select s.step, coalesce((select max(a.step) from arrangement a where a.stack_id = s.id), 0) as last from stack s where s.id = $1`,
    [id],
  );
  return found;
}

/** Has what was stopped or failed wait for reading; gives those pages. */
export function readAgain(manager: EntityManager, id: string): Promise<{ id: string; turn: Turn; version: string }[]> {
  return rows<{ id: string; turn: Turn; version: string }>(
    manager,
    `update page set reading = 'waiting', problem = case when pictured then null else problem end
       where stack_id = $1 and reading in ('stopped', 'failed') returning id, turn, version`,
    [id],
  );
}
