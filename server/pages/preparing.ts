import { randomUUID } from 'node:crypto';
import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Turn } from '@crow/core/geometry';
import { judgeLegibility, Legibility } from '@crow/core/imaging/legibility';
import { isBlank } from '@crow/core/sorting/blank';
import { Divider } from '@crow/core/sorting/divider';
import { Proposal } from '@crow/core/imaging/proposing/proposal';
import { proposePages, Seen } from '@crow/core/imaging/proposing/proposals';
import { judgeRecipe, pageSizeOf, Recipe } from '@crow/core/imaging/recipe';
import { Context } from '../platform/context';
import { readDivider } from '../engines/codes';
import { hasOwnText } from '../engines/ownText';
import { atAGlance, lookedAtPicture } from '../engines/pictures';
import { withScratch } from '../engines/scratch';
import { isDamaged, SourceInfo } from '../engines/sourceFile';
import { Page, SourceFile, Stack } from '../platform/entities';
import { announce } from '../platform/live';
import { AS_IT_IS, keepRecipe, recipeOf } from './recipes';
import { documentOfPage } from '../stack/locks';
import { SourceShelf } from '../capture/sources';
import { insertPart, makeRoomForPart } from './queries';

interface Prepared {
  /** Whether its picture is shown only as far as it could be decoded. */
  damaged: boolean;
  recipe: Recipe | null;
  turn: Turn;
  confidence: number;
  legibility: Legibility | null;
  /** Whether nothing is on it. */
  blank: boolean;
  divider: Divider | null;
}

/**
 * Finds out how a page is made from its picture: where the sheet is, how far it is turned, how it should look. Several sheets
 * in one picture become several pages. Done once for each picture; what a person changes stays.
 */
export async function preparePage(context: Context, sources: SourceShelf, pageId: string): Promise<void> {
  const { manager } = context.database.source;
  const page = await manager.findOneBy(Page, { id: pageId });
  if (!page || page.prepared) return;
  const seen = seenOn(await manager.findOneBy(SourceFile, { id: page.sourceFileId }));
  const prepared = await sources
    .use(page.sourceFileId, (info) => prepare(info, page.sourceNumber, seen))
    .catch((error) => {
      // A page that can't be drawn is told of where its picture is made.
      if (error instanceof Problem) return [untouched(null)];
      throw error;
    });
  await context.database.source.transaction((inside) => enter(context, inside, page, prepared));
}

function untouched(legibility: Prepared['legibility'], confidence = 1): Prepared {
  return { recipe: null, turn: 0, confidence, legibility, blank: false, divider: null, damaged: false };
}

/** What a file is known to be pictures of: of a book only where that was said. */
export function seenOn(file: Pick<SourceFile, 'bound'> | null): Exclude<Seen, 'papers'> {
  if (!file?.bound) return 'sheets';
  return file.bound === 'right' ? 'right-bound book' : 'book';
}

async function prepare(info: SourceInfo, number: number, seen: Seen): Promise<Prepared[]> {
  if (info.format === 'pdf' && (await hasOwnText(info, number))) return [untouched(null)];
  const { scanned, width, height, pointWidth, pointHeight } = info.pages[number];
  const [picture, damaged] = await withScratch(async (folder) => [
    await lookedAtPicture(info, number, folder),
    await isDamaged(info, number, folder),
  ]);
  const small = await atAGlance(picture);
  // Of a damaged one nobody knows whether there was nothing on it.
  if (damaged && isBlank(small)) return [{ ...untouched(null), damaged }];
  if (scanned && isBlank(small)) return [{ ...untouched(null), blank: true }];
  const divider = await readDivider(small);
  if (divider) return [{ ...untouched(null), divider, damaged }];
  const asScan: [number, number] | undefined = scanned ? [pointWidth, pointHeight] : undefined;
  const proposals = proposePages(picture, seen, asScan);
  const enlarged = Math.max(width, height) / Math.max(picture.width, picture.height);
  return proposals.map((proposal): Prepared => {
    const legibility = judgeRecipe(picture, proposal.recipe, { enlarged });
    const recipe = worthWhile(proposal);
    return { recipe, turn: proposal.turn, confidence: proposal.confidence, legibility, blank: false, divider, damaged };
  });
}

/** Judges how legible a page is after it was made by another recipe. */
export async function judgePage({ database }: Context, sources: SourceShelf, pageId: string): Promise<void> {
  const { manager } = database.source;
  const page = await manager.findOneBy(Page, { id: pageId });
  if (!page || page.judged === page.version) return;
  const recipe = await recipeOf(manager, page.version);
  const legibility = await sources.use(page.sourceFileId, async (info) => {
    const picture = await withScratch((folder) => lookedAtPicture(info, page.sourceNumber, folder));
    const enlarged = Math.max(page.sourceWidth, page.sourceHeight) / Math.max(picture.width, picture.height);
    return recipe ? judgeRecipe(picture, recipe, { enlarged }) : judgeLegibility(picture, { enlarged });
  });
  await manager.update(Page, { id: pageId, version: page.version }, { legibility, judged: page.version });
}

/** A flat scan, or a picture in which no sheet was found, keeps its look, and stays as it is unless it is crooked. */
function worthWhile({ recipe, confidence }: Proposal): Recipe | null {
  if (recipe.corners) return recipe;
  return recipe.angle !== 0 && confidence === 1 ? { ...recipe, look: 'asShot' } : null;
}

async function enter(context: Context, manager: EntityManager, page: Page, prepared: Prepared[]): Promise<void> {
  const stack = await manager.findOne(Stack, { where: { id: page.stackId }, lock: { mode: 'for_no_key_update' } });
  // A document is locked before its pages, everywhere.
  await documentOfPage(manager, page.id, { lock: true });
  const current = await manager.findOne(Page, { where: { id: page.id }, lock: { mode: 'for_no_key_update' } });
  if (!stack || !current || current.prepared) return;
  const [first, ...others] = prepared;
  // Somebody who was quicker has decided.
  const touched = current.turn !== 0 || current.version !== AS_IT_IS;
  const version = touched ? null : await remake(manager, page, first.recipe, first.turn);
  await manager.update(
    Page,
    { id: page.id },
    {
      prepared: true,
      confidence: first.confidence,
      legibility: first.legibility,
      judged: version,
      blank: first.blank,
      divider: first.divider,
      damaged: first.damaged,
    },
  );
  for (const [index, other] of others.entries()) await addPart(context, manager, page, index + 1, other);
  await context.happenings.tell(manager, 'page-prepared', { stackId: page.stackId });
  await announce(manager, 'stack', page.stackId);
}

/** Another sheet of the same picture becomes a page behind those before it. */
export async function addPart(
  { jobs, happenings }: Context,
  manager: EntityManager,
  page: Page,
  part: number,
  { recipe, turn, confidence, legibility, damaged }: Prepared,
): Promise<void> {
  const id = randomUUID();
  await makeRoomForPart(manager, page.stackId, page.sourceFileId, page.sourceNumber);
  await insertPart(manager, id, page.id, part, { confidence, legibility, damaged });
  const added = await manager.findOneByOrFail(Page, { id });
  const version = await remake(manager, added, recipe, turn);
  await manager.update(Page, { id }, { judged: version });
  await happenings.tell(manager, 'page-parted', { pageId: page.id, partId: id });
  await jobs.ask(manager, 'picture', { pageId: id });
}

/** Has a page made by a recipe from now on: enters the recipe, and the size that the page then has. Gives its version. */
export async function remake(
  manager: EntityManager,
  { id, sourceWidth, sourceHeight, sourcePointWidth, sourcePointHeight }: Page,
  recipe: Recipe | null,
  turn: Turn,
): Promise<string> {
  const version = await keepRecipe(manager, recipe);
  const [width, height] = recipe ? pageSizeOf(recipe, sourceWidth, sourceHeight) : [sourceWidth, sourceHeight];
  const [pointWidth, pointHeight] = recipe?.paper ?? [sourcePointWidth, sourcePointHeight];
  await manager.update(Page, { id }, { version, turn, width, height, pointWidth, pointHeight });
  return version;
}
