import sharp from 'sharp';
import { Problem, ProblemReport } from '@crow/contract/problems';
import { Turn } from '@crow/core/geometry';
import { lookOf } from '@crow/core/imaging/likeness';
import { DerivedPicture, PictureSize } from '../engines/pictures';
import { rasterOf } from '../engines/rasters';
import { Context } from '../platform/context';
import { blobBytes, storeBytes } from '../platform/blobs';
import { insertNew } from '../platform/database';
import { announce } from '../platform/live';
import { AS_IT_IS, recipeOf } from './recipes';
import { judgePage, preparePage } from './preparing';
import { SourceShelf } from '../capture/sources';
import { keepPictured, PageSource, pageSource } from './queries';
import { DerivedPicture as KeptPicture, Page } from '../platform/entities';

/** The name of what is done to a page to show it: part of the key under which its picture is kept. */
function pictureKey(size: PictureSize, turn: Turn, version: string): string {
  return version === AS_IT_IS ? `${size}-${turn}` : `${size}-${turn}-${version}`;
}

/**
 * Finds out how a page is made from its picture, makes the pictures with which it is shown in rows and on the screen unless
 * they are there already, and has it read.
 */
export async function picturePage(context: Context, sources: SourceShelf, pageId: string): Promise<void> {
  await preparePage(context, sources, pageId);
  const page = await pageSource(context.database.source.manager, pageId);
  if (!page) return;
  const { version } = page;
  let problem: ProblemReport | null = null;
  if (!(await stored(context, page, 'screen', 0, version)) || !(await stored(context, page, 'thumb', 0, version))) {
    try {
      // Decoding HEIC would hold up the server, so what it may need later is made here.
      const sizes: PictureSize[] = page.format === 'heic' ? ['thumb', 'screen', 'full'] : ['thumb', 'screen'];
      const pictures = await derive(context, sources, page, 0, version, sizes);
      for (const [size, picture] of pictures) await keep(context, page, size, 0, version, picture);
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      problem = error.report;
    }
  }
  if (!problem) await judgePage(context, sources, pageId);
  const look = problem ? undefined : await lookFromAfar(context, page);
  await context.database.source.transaction(async (inside) => {
    if (look) await inside.update(Page, { id: pageId }, { look: Buffer.from(look) });
    await keepPictured(inside, pageId, problem);
    const toRead = await inside.findOneBy(Page, { id: pageId, reading: 'waiting' });
    if (toRead) await context.jobs.ask(inside, 'read', { pageId, turn: toRead.turn, version: toRead.version });
    await announce(inside, 'stack', page.stackId);
  });
}

/** What a page looks like from afar, from its small picture. */
async function lookFromAfar(context: Context, page: PageSource): Promise<Uint8Array | undefined> {
  const thumb = await stored(context, page, 'thumb', 0, page.version);
  if (!thumb) return undefined;
  const bytes = await blobBytes(context.database, thumb.pictureBlobId);
  return lookOf(await rasterOf(sharp(bytes).toColourspace('b-w')));
}

async function derive(
  { database, heavy }: Context,
  sources: SourceShelf,
  page: PageSource,
  turn: Turn,
  version: string,
  sizes: PictureSize[],
): Promise<Map<PictureSize, DerivedPicture>> {
  const recipe = await recipeOf(database.source.manager, version);
  if (recipe === undefined) throw new Problem('not-found', { what: 'That version of the page' });
  return sources.use(page.fileId, (info) => heavy.pictures(info, page.sourceNumber, turn, sizes, recipe));
}

async function stored({ database }: Context, page: PageSource, size: PictureSize, turn: Turn, version: string) {
  return database.source.manager.findOneBy(KeptPicture, {
    blobId: page.blobId,
    sourceNumber: page.sourceNumber,
    recipe: pictureKey(size, turn, version),
  });
}

async function keep(
  { database }: Context,
  page: PageSource,
  size: PictureSize,
  turn: Turn,
  version: string,
  { bytes, mediaType }: DerivedPicture,
) {
  const { id } = await storeBytes(database, bytes);
  await insertNew(database.source.manager, KeptPicture, {
    blobId: page.blobId,
    sourceNumber: page.sourceNumber,
    recipe: pictureKey(size, turn, version),
    pictureBlobId: id,
    mediaType,
  });
}

/** Pictures of pages on request: from the store, or made, kept and then given. */
export class PictureDesk {
  private readonly underWay = new Map<string, Promise<DerivedPicture>>();

  constructor(
    private readonly context: Context,
    private readonly sources: SourceShelf,
  ) {}

  /** @throws Problem 'not-found', 'page-not-drawn', 'picture-waiting' */
  async picture(pageId: string, size: PictureSize, turn: Turn, version: string): Promise<DerivedPicture> {
    const page = await pageSource(this.context.database.source.manager, pageId);
    if (!page) throw new Problem('not-found', { what: 'The page' });
    const found = await stored(this.context, page, size, turn, version);
    if (found)
      return { bytes: await blobBytes(this.context.database, found.pictureBlobId), mediaType: found.mediaType };
    if (page.format === 'heic' && !page.pictured) throw new Problem('picture-waiting');
    const key = `${page.blobId} ${page.sourceNumber} ${pictureKey(size, turn, version)}`;
    let making = this.underWay.get(key);
    if (!making) {
      making = this.make(page, size, turn, version).finally(() => this.underWay.delete(key));
      this.underWay.set(key, making);
    }
    return making;
  }

  private async make(page: PageSource, size: PictureSize, turn: Turn, version: string): Promise<DerivedPicture> {
    const upright = turn === 0 ? undefined : await stored(this.context, page, size, 0, version);
    let picture: DerivedPicture;
    if (upright) {
      // Turning the picture that is there is far quicker than drawing the page again.
      const turned = sharp(await blobBytes(this.context.database, upright.pictureBlobId)).rotate(turn);
      const bytes =
        upright.mediaType === 'image/webp' ? turned.webp({ quality: 82, effort: 2 }) : turned.jpeg({ quality: 90 });
      picture = { bytes: await bytes.toBuffer(), mediaType: upright.mediaType };
    } else picture = (await derive(this.context, this.sources, page, turn, version, [size])).get(size)!;
    await keep(this.context, page, size, turn, version, picture);
    return picture;
  }
}
