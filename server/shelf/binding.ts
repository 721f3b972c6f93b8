import { createHash } from 'node:crypto';
import { EntityManager, IsNull } from 'typeorm';
import { BindPage, bindPdf, BoundPdf } from '@crow/core/pdf/bindPdf';
import { markPdf } from '@crow/core/pdf/marks/markPdf';
import { Recipe } from '@crow/core/imaging/recipe';
import { Turn, turnSize } from '@crow/core/geometry';
import { headingsOf, printedNumbers } from '@crow/core/reading/book';
import { PageText, restoreWords, turnPageText } from '@crow/core/reading/words';
import { languageTag } from '@crow/core/reading/otherLanguages';
import { Context } from '../platform/context';
import { BINDING_SIZES, BindingSize, bindingPicture } from '../engines/bindingPictures';
import { markFonts } from '../engines/markFonts';
import { extractPdfPages } from '../engines/qpdf';
import { withScratch } from '../engines/scratch';
import { isScanUnderText } from '../engines/scanUnderText';
import { SourceInfo } from '../engines/sourceFile';
import { storeBytes } from '../platform/blobs';
import { announce } from '../platform/live';
import { makeBesides } from './besides';
import { marksToBind } from './marking';
import { SourceShelf } from '../capture/sources';
import { Document, DocumentFile, DocumentSize } from '../platform/entities';
import { lockDocumentIfThere } from '../stack/locks';
import { contentOf, enterPdf, keepSize, keepVersionBefore, pagesToBind, sizesOf, toBeWeighed } from './queries';

/** A page to be bound: which page of which file, how it is turned, what it says. */
export interface PageToBind {
  info: SourceInfo;
  /** From 0. */
  number: number;
  turn: Turn;
  /** Whether the text is the page's own, which it keeps. */
  own: boolean;
  text?: Pick<PageText, 'width' | 'height' | 'words'>;
  /** Whether a PDF page is taken over as it is; else its picture is. A page with text of its own that is no good is drawn anew. */
  asIs: boolean;
  recipe?: Recipe | null;
}

/**
 * Turns pages of files into what a PDF is bound from. Pages of the same PDF are taken out of it together; those that are only
 * scanned, with or without text over them, are drawn anew when the PDF is to be smaller than in full.
 */
export async function preparePages(given: PageToBind[], size: BindingSize, folder: string): Promise<BindPage[]> {
  const pages: PageToBind[] = [];
  for (const page of given) pages.push({ ...page, asIs: page.asIs && (await staysAsItIs(page, size, folder)) });
  const taken = new Map<SourceInfo, { bytes: Uint8Array; order: Map<number, number> }>();
  for (const info of new Set(pages.filter((page) => page.asIs).map((page) => page.info))) {
    const numbers = [...new Set(pages.filter((page) => page.asIs && page.info === info).map((page) => page.number))];
    const bytes = await extractPdfPages(
      info.path,
      info.name,
      numbers.map((number) => number + 1),
      folder,
    );
    taken.set(info, { bytes, order: new Map(numbers.map((number, index) => [number, index])) });
  }
  const prepared: BindPage[] = [];
  for (const { info, number, turn, own, text, asIs, recipe } of pages) {
    if (asIs) {
      const { bytes, order } = taken.get(info)!;
      prepared.push({ kind: 'pdf', bytes, index: order.get(number)!, turn, text: own ? undefined : text });
      continue;
    }
    const { pointWidth, pointHeight } = info.pages[number];
    const [width, height] = recipe?.paper ?? [pointWidth, pointHeight];
    const picture = await bindingPicture(info, number, turn, size, folder, recipe ?? null);
    prepared.push({ kind: 'picture', picture, size: turnSize(width, height, turn), text });
  }
  return prepared;
}

/** Whether a page of a PDF is taken over: in full, or with text and drawings of its own that a picture would coarsen. */
async function staysAsItIs(
  { info, number, turn, own, text }: PageToBind,
  size: BindingSize,
  folder: string,
): Promise<boolean> {
  if (size === 'full') return true;
  if (!own || !text) return own;
  return !(await isScanUnderText(
    info,
    number,
    turnPageText({ language: '', ...text }, ((360 - turn) % 360) as Turn),
    folder,
  ));
}

/** Binds pages into a searchable PDF. */
export function bindPages(
  pages: PageToBind[],
  { title, created, language, size }: { title: string; created: Date; language: string; size: BindingSize },
): Promise<BoundPdf> {
  return withScratch(async (folder) => {
    const prepared = inOneSize(pages, await preparePages(pages, size, folder));
    const texts = pages.map(({ text }) => text ?? { width: 1, height: 1, words: [] });
    const contents = { labels: printedNumbers(texts), headings: headingsOf(texts) };
    const fileId = createHash('md5').update(`${title} ${created.toISOString()} ${pages.length}`).digest();
    const metadata = { title, created, language: language ? languageTag(language) : undefined, fileId };
    return bindPdf(prepared, metadata, contents);
  });
}

/** Pages of a book that are nearly as large as most of its pages are as large. */
const NEARLY = 0.08;

/** The pages of a bound book, whose size is measured one by one, in the size that most of those have of which two are in one picture. */
function inOneSize(pages: PageToBind[], prepared: BindPage[]): BindPage[] {
  const isBent = (at: number) => pages[at].recipe?.bend !== undefined;
  const isOfSpread = (at: number) =>
    pages.some(({ info, number }, other) => other !== at && info === pages[at].info && number === pages[at].number);
  const sizes = prepared.flatMap((page, at) =>
    page.kind === 'picture' && isBent(at) && isOfSpread(at) ? [page.size] : [],
  );
  // Sheets that are curled, each by itself, are as large as they are.
  if (sizes.length === 0) return prepared;
  const middle = (side: 0 | 1) => sizes.map((size) => size[side]).sort((a, b) => a - b)[sizes.length >> 1];
  const usual: [number, number] = [middle(0), middle(1)];
  return prepared.map((page, at) => {
    if (page.kind !== 'picture' || !isBent(at)) return page;
    const isNear = page.size.every((side, which) => Math.abs(side / usual[which] - 1) < NEARLY);
    return isNear ? { ...page, size: usual } : page;
  });
}

/** Binds a document that is being filed, or is filed and has changed, and stores its PDF. */
export async function bindDocument(
  context: Context,
  sources: SourceShelf,
  documentId: string,
  actorId: string,
): Promise<void> {
  const { database, jobs } = context;
  const { manager } = database.source;
  const document = await manager.findOneBy(Document, { id: documentId, binnedAt: IsNull() });
  if (!document || document.state === 'check') return;
  const madeFrom = await contentOf(manager, documentId);
  const bound = await withPages(manager, sources, documentId, (pages, language) =>
    bindPages(pages, {
      title: document.name,
      created: document.filedAt ?? new Date(),
      language,
      size: document.pdfSize,
    }),
  );
  const bare = await storeBytes(database, bound.bytes);
  const marks = await marksToBind(manager, documentId);
  const blob = marks.some
    ? await storeBytes(database, await markPdf(bound.bytes, marks.pages, await markFonts()))
    : bare;
  const besides = await makeBesides(context, sources, documentId, { title: document.name, forms: document.beside });
  await database.source.transaction(async (inside) => {
    // Whoever changes a document or a page of it locks the document first.
    const now = await lockDocumentIfThere(inside, documentId);
    if ((await contentOf(inside, documentId)) !== madeFrom) {
      // Changed meanwhile: this PDF is of how it was, and is thrown away.
      await jobs.askOnce(inside, 'bind', { documentId, actorId });
      return;
    }
    // The one before stays, in case that something is wrong with the new one.
    if (now?.state === 'filed') await keepVersionBefore(inside, documentId, blob.id);
    const pdf = { pdfBlobId: blob.id, bareBlobId: marks.some ? bare.id : null, archival: bound.archival };
    if (!(await enterPdf(inside, documentId, pdf))) return;
    if ((await marksToBind(inside, documentId)).key !== marks.key)
      await jobs.askOnce(inside, 'mark', { documentId, actorId });
    await inside.delete(DocumentFile, { documentId });
    await inside.insert(
      DocumentFile,
      besides.map(({ ending, blobId }) => ({ documentId, ending, blobId })),
    );
    await jobs.ask(inside, 'shelve', { documentId, actorId });
    await announce(inside, 'document', documentId);
  });
}

/** How many bytes a document's PDF has in each size, as far as that is known. */
export async function documentSizes(
  manager: EntityManager,
  documentId: string,
): Promise<{ size: BindingSize; bytes: number | null }[]> {
  const known = await sizesOf(manager, documentId);
  return BINDING_SIZES.map((size) => {
    const found = known.find((each) => each.size === size);
    return { size, bytes: found ? Number(found.bytes) : null };
  });
}

/** Has it found out in the background how many bytes a document's PDF has in each size, unless that is known or asked for already. */
export async function askForSizes({ database, jobs }: Context, documentId: string): Promise<void> {
  const { manager } = database.source;
  const known = await documentSizes(manager, documentId);
  if (known.some(({ bytes }) => bytes === null)) await jobs.askOnce(manager, 'weigh', { documentId }, { gatherMs: 0 });
}

/** Of a long document, so many pages are weighed for all of them. */
const MOST_WEIGHED = 16;

/** At most so many of some things, evenly from the first to the last. */
function spread<Item>(items: readonly Item[], most: number): Item[] {
  if (items.length <= most) return [...items];
  return Array.from({ length: most }, (_, at) => items[Math.round((at * (items.length - 1)) / (most - 1))]);
}

/** Binds a document in every size that has not been weighed yet, to tell how large it is. */
export async function weighDocument({ database }: Context, sources: SourceShelf, documentId: string): Promise<void> {
  const { manager } = database.source;
  const document = await toBeWeighed(manager, documentId);
  if (!document?.pages) return;
  for (const size of BINDING_SIZES) {
    if (await manager.existsBy(DocumentSize, { documentId, pages: document.pages, size })) continue;
    const bytes = await withPages(manager, sources, documentId, async (pages, language) => {
      const some = spread(pages, MOST_WEIGHED);
      const bound = await bindPages(some, { title: document.name, created: new Date(), language, size });
      return Math.round((bound.bytes.length * pages.length) / some.length);
    });
    await keepSize(manager, documentId, document.pages, size, bytes);
  }
  // Once, at the end: whoever looks asks again then, and would have it weighed twice before.
  await announce(manager, 'document', documentId);
}

/** The pages of a document as they are bound, while their files lie open. */
export async function withPages<Result>(
  manager: EntityManager,
  sources: SourceShelf,
  documentId: string,
  work: (pages: PageToBind[], language: string) => Promise<Result>,
): Promise<Result> {
  const pages = await pagesToBind(manager, documentId);
  return withFiles(sources, [...new Set(pages.map((page) => page.fileId))], (files) =>
    work(
      pages.map((page) => ({
        info: files.get(page.fileId)!,
        number: page.number,
        turn: page.turn,
        own: page.own === true,
        text: page.words ? { width: page.width!, height: page.height!, words: restoreWords(page.words) } : undefined,
        asIs: page.format === 'pdf' && !page.recipe,
        recipe: page.recipe,
      })),
      pages.find((page) => page.language)?.language ?? '',
    ),
  );
}

/** Lays several source files out at once. */
async function withFiles<Result>(
  sources: SourceShelf,
  ids: string[],
  work: (files: Map<string, SourceInfo>) => Promise<Result>,
  laid = new Map<string, SourceInfo>(),
): Promise<Result> {
  const [next, ...others] = ids;
  if (!next) return work(laid);
  return sources.use(next, (info) => withFiles(sources, others, work, laid.set(next, info)));
}
