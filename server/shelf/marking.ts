import { createHash, randomUUID } from 'node:crypto';
import { EntityManager, In, IsNull } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { NewMark, ShownMark } from '@crow/contract/marks';
import { addTurns, Turn } from '@crow/core/geometry';
import { flattenMarks, markPdf, PageMark } from '@crow/core/pdf/marks/markPdf';
import { Stroke } from '@crow/core/pdf/marks/mark';
import { turnMark } from '@crow/core/pdf/marks/turnMark';
import { insist } from '../checking/documents';
import { markFonts } from '../engines/markFonts';
import { blobBytes, storeBytes } from '../platform/blobs';
import { Context } from '../platform/context';
import { Document, Mark, MarkReply } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { lockDocument, lockDocumentIfThere } from '../stack/locks';
import { pagesOfDocument } from '../stack/queries';

/** The marks on a document's pages, each page's in the order in which they were made, as the pages are shown now. */
export async function marksOf(manager: EntityManager, documentId: string): Promise<ShownMark[]> {
  return (await marksByPage(manager, documentId)).flat();
}

export async function marksByPage(manager: EntityManager, documentId: string): Promise<ShownMark[][]> {
  const pages = await pagesOfDocument(manager, documentId);
  const found = await manager.find(Mark, {
    where: { pageId: In(pages.map(({ id }) => id)), removedAt: IsNull() },
    relations: { actor: true, replies: { actor: true } },
    order: { number: 'asc', replies: { at: 'asc' } },
  });
  return pages.map(({ id, turn, pointWidth, pointHeight }) =>
    found
      .filter(({ pageId }) => pageId === id)
      .map((mark) => {
        const since = addTurns(turn, (360 - mark.turn) % 360);
        // As wide as the page was when the mark was put there.
        const [width, height] = since % 180 === 0 ? [pointWidth, pointHeight] : [pointHeight, pointWidth];
        return turnMark(shown(mark), since, width, height);
      }),
  );
}

function shown({ id, pageId, kind, ink, boxes, strokes, text, author, actor, madeAt, replies }: Mark): ShownMark {
  return {
    ...{ id, pageId, kind, ink, boxes, strokes, text },
    by: author ?? actor!.name,
    at: madeAt.toISOString(),
    replies: replies!.map((reply) => ({
      by: reply.author ?? reply.actor!.name,
      at: reply.at.toISOString(),
      text: reply.text,
    })),
  };
}

/**
 * Puts marks on the pages of a document, changes and removes some, all or none of them; its PDF follows.
 * @throws Problem 'not-found' for a page that is none of the document's, 'document-elsewhere' for one that is not on the shelf
 */
export async function changeMarks(
  { database, jobs }: Context,
  actor: ActingAs,
  documentId: string,
  { put, remove }: { put: readonly NewMark[]; remove: readonly string[] },
): Promise<ShownMark[]> {
  return database.source.transaction(async (manager) => {
    insist(await lockDocument(manager, documentId), 'filing', 'filed');
    const turns = new Map((await pagesOfDocument(manager, documentId)).map(({ id, turn }) => [id, turn]));
    if (put.some(({ pageId }) => !turns.has(pageId)))
      throw new Problem('not-found', { what: 'That page of the document' });
    // Only what is on its pages: an identifier of a mark elsewhere is none of this document's.
    const onPages = { pageId: In([...turns.keys()]) };
    if (remove.length > 0) await manager.update(Mark, { id: In([...remove]), ...onPages }, { removedAt: new Date() });
    for (const mark of put) await putMark(manager, actor, mark, turns.get(mark.pageId)!);
    await record(manager, actor, 'marked', 'document', documentId, { put: put.length, removed: remove.length });
    await jobs.askOnce(manager, 'mark', { documentId, actorId: actor.id });
    await announce(manager, 'document', documentId);
    return marksOf(manager, documentId);
  });
}

/** Puts a mark, changes it, or puts it back with what was answered to it. */
export async function putMark(manager: EntityManager, actor: ActingAs, mark: NewMark, turn: Turn): Promise<void> {
  const { id, pageId, kind, ink, text } = mark;
  const given = { pageId, kind, ink, boxes: mark.boxes, strokes: mark.strokes as Stroke[], text, turn };
  const before = await manager.findOneBy(Mark, { id });
  if (before && before.pageId !== pageId) throw new Problem('not-found', { what: 'The mark' });
  if (before) await manager.update(Mark, { id }, { ...given, removedAt: null });
  else await manager.insert(Mark, { id, ...given, actorId: actor.id });
}

/** Answers to a mark. @throws Problem 'not-found' */
export async function replyToMark(
  { database, jobs }: Context,
  actor: ActingAs,
  documentId: string,
  markId: string,
  text: string,
): Promise<ShownMark[]> {
  return database.source.transaction(async (manager) => {
    insist(await lockDocument(manager, documentId), 'filing', 'filed');
    if (!(await marksOf(manager, documentId)).some(({ id }) => id === markId))
      throw new Problem('not-found', { what: 'The mark' });
    await manager.insert(MarkReply, { id: randomUUID(), markId, actorId: actor.id, text });
    await record(manager, actor, 'answered to a mark', 'document', documentId);
    await jobs.askOnce(manager, 'mark', { documentId, actorId: actor.id });
    await announce(manager, 'document', documentId);
    return marksOf(manager, documentId);
  });
}

/** Marks of each page, and a hash over all that is to be seen of them. */
export async function marksToBind(
  manager: EntityManager,
  documentId: string,
): Promise<{ pages: PageMark[][]; key: string; some: boolean }> {
  const pages = (await marksByPage(manager, documentId)) as PageMark[][];
  const key = createHash('md5').update(JSON.stringify(pages)).digest('hex');
  return { pages, key, some: pages.some((marks) => marks.length > 0) };
}

/** A PDF with marks. @throws Problem 'not-marked' when it is one that can't be changed */
async function withMarks(
  name: string,
  put: typeof markPdf,
  bytes: Uint8Array,
  marks: readonly (readonly PageMark[])[],
): Promise<Uint8Array> {
  const fonts = await markFonts();
  return put(bytes, marks, fonts).catch((error: Error) => {
    throw new Problem('not-marked', { name, detail: error.message });
  });
}

/** Puts the marks of a document into its PDF, or takes them out, by what they are now; the PDF as it is without them is kept. */
export async function markDocument(context: Context, documentId: string, actorId: string): Promise<void> {
  const { database, jobs } = context;
  const document = await database.source.manager.findOneBy(Document, { id: documentId });
  const bare = document && (document.bareBlobId ?? document.pdfBlobId);
  // What is not bound yet gets its marks when it is.
  if (!bare) return;
  const marks = await marksToBind(database.source.manager, documentId);
  const marked = marks.some
    ? await storeBytes(database, await withMarks(document.name, markPdf, await blobBytes(database, bare), marks.pages))
    : undefined;
  await database.source.transaction(async (manager) => {
    const now = await lockDocumentIfThere(manager, documentId);
    if (!now || (now.bareBlobId ?? now.pdfBlobId) !== bare) return;
    if ((await marksToBind(manager, documentId)).key !== marks.key)
      return jobs.askOnce(manager, 'mark', { documentId, actorId });
    await manager.update(
      Document,
      { id: documentId },
      { pdfBlobId: marked?.id ?? bare, bareBlobId: marked ? bare : null },
    );
    await jobs.ask(manager, 'shelve', { documentId, actorId });
    await announce(manager, 'document', documentId);
  });
}

/** A document's PDF with its marks as part of the pages. @param own a PDF of it without marks, for its own @throws Problem 'not-found' while it has none */
export function flatPdfOf(context: Context, documentId: string, own?: Uint8Array): Promise<Uint8Array> {
  return pdfWith(context, documentId, flattenMarks, own);
}

/** A PDF of a document, with its marks. @param own without them */
export function markedPdfOf(context: Context, documentId: string, own: Uint8Array): Promise<Uint8Array> {
  return pdfWith(context, documentId, markPdf, own);
}

async function pdfWith(
  { database }: Context,
  documentId: string,
  put: typeof markPdf,
  own?: Uint8Array,
): Promise<Uint8Array> {
  const document = await database.source.manager.findOneBy(Document, { id: documentId });
  const bare = document && (document.bareBlobId ?? document.pdfBlobId);
  if (!bare) throw new Problem('not-found', { what: 'The PDF' });
  const { pages, some } = await marksToBind(database.source.manager, documentId);
  const bytes = own ?? (await blobBytes(database, bare));
  return some || !own ? withMarks(document.name, put, bytes, pages) : bytes;
}
