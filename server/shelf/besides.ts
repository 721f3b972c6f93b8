import sharp from 'sharp';
import { Turn } from '@crow/core/geometry';
import { Beside } from '@crow/core/filing/pattern';
import { Context } from '../platform/context';
import { derivePictures } from '../engines/pictures';
import { withScratch } from '../engines/scratch';
import { storeBytes } from '../platform/blobs';
import { recipeOf } from '../pages/recipes';
import { pagesOfDocument } from '../stack/queries';
import { documentText, textPdfOf } from './exporting';
import { SourceShelf } from '../capture/sources';
import { Page } from '../platform/entities';

/** A file that is kept beside a PDF: the end of its name, and its bytes in the store. */
export interface BesideFile {
  ending: string;
  blobId: string;
}

/** What the end of a file's name says of how it was made; see `makeBesides`. */
export function formOf(ending: string): Beside {
  if (ending === '.txt') return 'text';
  if (ending.endsWith('.pdf')) return 'text-pdf';
  return ending.endsWith('.jpg') ? 'jpeg' : 'png';
}

/** Makes what is kept beside a document's PDF, one after the other, and stores it. */
export async function makeBesides(
  context: Context,
  sources: SourceShelf,
  documentId: string,
  { title, forms }: { title: string; forms: Beside[] },
): Promise<BesideFile[]> {
  const { database } = context;
  const { manager } = database.source;
  const made: BesideFile[] = [];
  const keep = async (ending: string, bytes: Uint8Array) =>
    made.push({ ending, blobId: (await storeBytes(database, bytes)).id });
  if (forms.includes('text')) await keep('.txt', Buffer.from(await documentText(manager, documentId)));
  if (forms.includes('text-pdf'))
    await keep(
      ' (text).pdf',
      await textPdfOf(manager, documentId, title, (page) => fullPicture(context, sources, page)),
    );
  for (const form of ['jpeg', 'png'] as const)
    if (forms.includes(form))
      for await (const { ending, bytes } of pageFiles(context, sources, documentId, form)) await keep(ending, bytes);
  return made;
}

/** A picture of each page, numbered where there are several. */
async function* pageFiles(
  context: Context,
  sources: SourceShelf,
  documentId: string,
  form: 'jpeg' | 'png',
): AsyncGenerator<{ ending: string; bytes: Uint8Array }> {
  const pages = await pagesOfDocument(context.database.source.manager, documentId);
  const digits = String(pages.length).length;
  for (const [at, page] of pages.entries()) {
    const bytes = await fullPicture(context, sources, page);
    const place = pages.length > 1 ? ` ${String(at + 1).padStart(digits, '0')}` : '';
    yield form === 'jpeg'
      ? { ending: `${place}.jpg`, bytes }
      : { ending: `${place}.png`, bytes: await sharp(bytes).png().toBuffer() };
  }
}

/** The picture of a page as it is shown, with all its pixels (JPEG). */
async function fullPicture(
  { database }: Context,
  sources: SourceShelf,
  { id, turn, version }: { id: string; turn: Turn; version: string },
): Promise<Uint8Array> {
  const { manager } = database.source;
  const { sourceFileId, sourceNumber } = await manager.findOneByOrFail(Page, { id });
  const recipe = (await recipeOf(manager, version)) ?? null;
  const made = await sources.use(sourceFileId, (info) =>
    withScratch((folder) => derivePictures(info, sourceNumber, turn, ['full'], folder, recipe)),
  );
  return made.get('full')!.bytes;
}
