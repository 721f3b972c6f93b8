import { EntityManager } from 'typeorm';
import { turnSize } from '@crow/core/geometry';
import { Recipe } from '@crow/core/imaging/recipe';
import { Arrangement } from '@crow/core/sorting/arrangement';
import { Page as ShownPage } from '@crow/contract/pages';
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
    proposal: cutChance === null ? null : { chance: cutChance, sure: cutSure, why: cutWhy },
    blank: blank ?? false,
    divider,
    glance,
    pictured,
    reading,
    problem,
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
export async function summariseStacks(
  manager: EntityManager,
  where: string,
  values: unknown[] = [],
): Promise<StackSummary[]> {
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
    firstPages: stack.firstPages.slice(0, FIRST_PAGES),
    createdAt: stack.createdAt.toISOString(),
  }));
}
