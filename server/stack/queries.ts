import { EntityManager } from 'typeorm';
import { Turn, turnSize } from '@crow/core/geometry';
import { Recipe } from '@crow/core/imaging/recipe';
import { sayReasons } from '@crow/core/sorting/cuts';
import { Arrangement } from '@crow/core/sorting/arrangement';
import { Page as ShownPage } from '@crow/contract/pages';
import { toldProblem } from '@crow/contract/problems';
import { StackSummary } from '@crow/contract/stacks';
import { rows } from '../platform/database';
import { Page } from '../platform/entities';

type PageRow = Omit<Page, 'waved'> & { fileId: string; fileName: string; recipe: Recipe | null; waved: boolean };

const PAGE_COLUMNS = `
  p.id, p.turn, p.width, p.height, p.point_width as "pointWidth", p.point_height as "pointHeight", p.dropped,
  p.cut_before as "cutBefore", p.cut_decided as "cutDecided", p.drop_decided as "dropDecided", p.cut_chance as "cutChance", p.cut_sure as "cutSure",
  p.cut_why as "cutWhy", p.blank, p.divider, p.glance, p.pictured, p.reading, p.problem, p.source_number as "sourceNumber", p.version, p.confidence, p.legibility, p.damaged,
  coalesce(p.waved = p.version, false) as waved, p.again_of as "againOf", f.id as "fileId", c.recipe, f.name as "fileName"`;

/** All pages of a stack, in their order, as the web application shows them. */
export async function pagesOfStack(manager: EntityManager, stackId: string): Promise<ShownPage[]> {
  const found = await rows<PageRow>(
    manager,
    `select ${PAGE_COLUMNS} from page p join source_file f on f.id = p.source_file_id left join recipe c on c.version = p.version where p.stack_id = $1 order by p.position`,
    [stackId],
  );
  return found.map(shown);
}

/** The pages of a document, in their order. */
export async function pagesOfDocument(manager: EntityManager, documentId: string): Promise<ShownPage[]> {
  const found = await rows<PageRow>(
    manager,
    `select ${PAGE_COLUMNS} from document_page dp join page p on p.id = dp.page_id
     join source_file f on f.id = p.source_file_id left join recipe c on c.version = p.version where dp.document_id = $1 order by dp.number`,
    [documentId],
  );
  return found.map(shown);
}

function shown(page: PageRow): ShownPage {
  const [width, height] = turnSize(page.width, page.height, page.turn);
  const [pointWidth, pointHeight] = turnSize(page.pointWidth, page.pointHeight, page.turn);
  const {
    id,
    turn,
    dropped,
    cutBefore,
    cutDecided,
    dropDecided,
    cutChance,
    cutSure,
    cutWhy,
    blank,
    divider,
    glance,
    pictured,
    reading,
    problem,
    fileName,
    version,
    recipe,
    confidence,
    legibility,
    damaged,
    waved,
    againOf,
    fileId,
  } = page;
  return {
    id,
    turn,
    dropped,
    cutBefore,
    cutDecided,
    dropDecided,
    proposal: cutChance === null ? null : { chance: cutChance, sure: cutSure, why: sayReasons(cutWhy, cutChance) },
    blank: blank ?? false,
    divider,
    glance,
    pictured,
    reading,
    problem: problem && toldProblem(problem),
    version,
    recipe,
    confidence,
    legibility,
    damaged,
    waved,
    againOf,
    fileId,
    fileName,
    fileNumber: page.sourceNumber + 1,
    width,
    height,
    pointWidth,
    pointHeight,
  };
}

/** How the pages of a stack lie now. */
export async function currentArrangement(manager: EntityManager, id: string): Promise<Arrangement> {
  return rows(
    manager,
    `select id, cut_before as "cutBefore", cut_decided as "cutDecided", turn, version, dropped, drop_decided as "dropDecided" from page where stack_id = $1 order by position`,
    [id],
  );
}

const FIRST_PAGES = 4;

/** Stacks with their files and how far their reading is; which ones is said in `where`, about the alias s. */
async function summarise(manager: EntityManager, where: string, values: unknown[] = []): Promise<StackSummary[]> {
  const found = await rows<Omit<StackSummary, 'createdAt'> & { createdAt: Date }>(
    manager,
    `select s.id, s.name, s.state, s.created_at as "createdAt", s.reading_stopped as "readingStopped", s.onward,
       coalesce(files.list, '[]') as files, coalesce(p.pages, 0) as pages, coalesce(p.read, 0) as read, coalesce(p.failed, 0) as failed,
       coalesce(p.documents, 0) as documents, coalesce(p.doubtful, 0) as doubtful,
       coalesce(p.first, '[]') as "firstPages"
     from stack s
     left join lateral (
       select json_agg(json_build_object('id', f.id, 'name', f.name, 'position', f.position, 'bytes', b.size, 'state', f.state, 'problem', f.problem,
         'pages', (select count(*) from page where page.source_file_id = f.id)) order by f.position) as list
       from source_file f join blob b on b.id = f.blob_id where f.stack_id = s.id and not f.dismissed
     ) files on true
     left join lateral (
       select count(*)::int as pages, (count(*) filter (where reading <> 'waiting' and reading <> 'stopped'))::int as read,
         (count(*) filter (where reading = 'failed' or problem is not null))::int as failed,
         (count(distinct document) filter (where not dropped))::int as documents,
         (count(*) filter (where not dropped and position > 0 and not cut_decided and reading <> 'waiting' and cut_chance is not null
            and not cut_sure))::int as doubtful,
         (json_agg(json_build_object('id', id, 'version', version, 'turn', turn) order by position) filter (where not dropped)) as first
       from (
         select page.*, count(*) filter (where cut_before) over (order by position) as document from page where page.stack_id = s.id
       ) as cut
     ) p on true
     where ${where} order by s.created_at desc`,
    values,
  );
  return found.map((stack) => ({
    ...stack,
    files: stack.files.map((file) => ({ ...file, problem: file.problem && toldProblem(file.problem) })),
    firstPages: stack.firstPages.slice(0, FIRST_PAGES),
    createdAt: stack.createdAt.toISOString(),
  }));
}

/** Puts the pages of a stack as they are wanted. */
export async function layPages(manager: EntityManager, id: string, wanted: Arrangement): Promise<void> {
  await manager.query(
    `update page set position = wanted.number - 1, cut_before = wanted.cut, cut_decided = wanted.cut_decided,
       dropped = wanted.dropped, drop_decided = wanted.drop_decided
     from unnest($2::uuid[], $3::boolean[], $4::boolean[], $5::boolean[], $6::boolean[]) with ordinality
       as wanted (id, cut, cut_decided, dropped, drop_decided, number)
     where wanted.id = page.id and page.stack_id = $1`,
    [
      id,
      wanted.map((page) => page.id),
      wanted.map((page) => page.cutBefore),
      wanted.map((page) => page.cutDecided),
      wanted.map((page) => page.dropped),
      wanted.map((page) => page.dropDecided),
    ],
  );
}

/** Has pages that were taken for blank wait for reading; gives those that were. */
export function bringBackBlank(
  manager: EntityManager,
  ids: string[],
): Promise<{ id: string; turn: Turn; version: string }[]> {
  return rows<{ id: string; turn: Turn; version: string }>(
    manager,
    `update page set blank = false, reading = 'waiting' where id = any($1) and blank returning id, turn, version`,
    [ids],
  );
}

/** The files that pages are from, and whether all pages of each are among them. */
export function filesOfPages(manager: EntityManager, pageIds: string[]): Promise<{ id: string; all: boolean }[]> {
  return rows<{ id: string; all: boolean }>(
    manager,
    `select source_file_id as id, bool_and(id = any($1)) as all from page
     where source_file_id in (select source_file_id from page where id = any($1)) group by source_file_id`,
    [pageIds],
  );
}

/** The place behind the files of the stack $2. */
const BEHIND_ITS_FILES = `(select coalesce(max(position) + 1, 0) from source_file where stack_id = $2)`;

/** Takes a file over to another stack, behind its files. */
export async function carryFile(manager: EntityManager, id: string, to: string): Promise<void> {
  await manager.query(`update source_file set stack_id = $2, position = ${BEHIND_ITS_FILES} where id = $1`, [id, to]);
}

/** Enters a file in another stack too, behind its files. */
export function copyFile(manager: EntityManager, id: string, to: string): Promise<{ id: string }[]> {
  return rows<{ id: string }>(
    manager,
    `insert into source_file (stack_id, name, position, blob_id, state, format, actor_id, back, created_at)
       select $2, name, ${BEHIND_ITS_FILES}, blob_id, state, format, actor_id, back, created_at from source_file where id = $1 returning id`,
    [id, to],
  );
}

/** The document that a page belongs to. @param lock whether it stays locked until the transaction ends */
export function documentHolding(manager: EntityManager, pageId: string, lock: boolean): Promise<{ id: string }[]> {
  return rows<{ id: string }>(
    manager,
    `select d.id from document d join document_page dp on dp.document_id = d.id where dp.page_id = $1 ${lock ? 'for no key update of d' : ''}`,
    [pageId],
  );
}

/** The stacks on the light table, those that came last first. @param begunBy who began them; whoever did, without */
export function stacksOnTable(manager: EntityManager, begunBy: string | null = null): Promise<StackSummary[]> {
  return summarise(manager, `s.state = 'open' and s.binned_at is null and ($1::uuid is null or s.actor_id = $1)`, [
    begunBy,
  ]);
}

/** A stack, unless it is in the bin. */
export async function stackById(manager: EntityManager, id: string): Promise<StackSummary | undefined> {
  const [found] = await summarise(manager, 's.id = $1 and s.binned_at is null', [id]);
  return found;
}

/** The stacks in the bin. */
export function stacksInBin(manager: EntityManager): Promise<StackSummary[]> {
  return summarise(manager, 's.binned_at is not null');
}
