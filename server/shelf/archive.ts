import { createWriteStream } from 'node:fs';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { EntityManager, In } from 'typeorm';
import { ValidationError } from 'yup';
import { Output } from '@crow/contract/endpoint';
import { endpoints } from '@crow/contract/endpoints';
import { FACT_NAMES } from '@crow/contract/facts';
import { Problem } from '@crow/contract/problems';
import { LONGEST_NOTE, MOST_TAGS, tag } from '@crow/contract/documents';
import { BroughtDocument, FACTS_FILE, MOST_MARKS_TOLD, ToldDocument, toldDocument } from '@crow/contract/shelfArchive';
import { PageMark } from '@crow/core/pdf/marks/markPdf';
import { nameKey, safeName } from '@crow/core/filing/names';
import { admitKept, admitBookings, admitLines, admitTaxes } from '@crow/core/reading/facts/gate';
import { Context } from '../platform/context';
import { withScratch } from '../engines/scratch';
import { jsonList } from '../engines/jsonList';
import { MOST_BYTES, withZip, ZippedFile } from '../engines/zip';
import { MOST_FILE_BYTES, storeBlob } from '../platform/blobs';
import { insertNew } from '../platform/database';
import { Document, DocumentPage, Fact, Page, SourceFile, Stack } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { rememberSender, typeFacts } from '../checking/facts';
import { folderAt } from './folders';
import { settleName } from './filingDocuments';
import { enterMark } from './foreignMarks';
import { holdsBytes, keepSignedVersion } from './queries';
import { keepRemark } from './remarks';

/** Where documents go whose archive names no folder. */
const WITHOUT_FOLDER = 'Brought in';
const MOST_FACTS_BYTES = 200 * 1024 * 1024;
/** What an archive tells of one document, and of how many. */
const MOST_TOLD_BYTES = 2 * MOST_MARKS_TOLD;
const MOST_DOCUMENTS = 100_000;

/** What became of the documents that an archive tells of. */
type Brought = Output<typeof endpoints.sendArchive>;

/**
 * Brings an archive of the shelf in again: its documents go back to the shelf with their PDFs as they are, their facts, names and
 * folders.
 * @throws Problem 'archive-strange' when it is not an archive of the shelf, 'archive-broken', 'archive-too-large', 'file-encrypted'
 */
export async function bringIn(
  context: Context,
  actor: ActingAs,
  name: string,
  bytes: AsyncIterable<Uint8Array>,
): Promise<Brought> {
  return withArchive(name, bytes, (documents) => putBack(context, actor, name, documents));
}

/**
 * What is made of each PDF of a paper in an archive of the shelf, one after the other.
 * @throws Problem as `bringIn` does
 */
export function archivedPdfs<Made>(
  name: string,
  bytes: AsyncIterable<Uint8Array>,
  make: (file: ZippedFile) => Promise<Made>,
): Promise<Made[]> {
  return withArchive(name, bytes, async (documents) => {
    const made: Made[] = [];
    for (const { file } of documents) if (file) made.push(await make(file));
    return made;
  });
}

function withArchive<Result>(
  name: string,
  bytes: AsyncIterable<Uint8Array>,
  work: (documents: InArchive[]) => Promise<Result>,
): Promise<Result> {
  return withScratch(async (folder) => {
    const path = join(folder, 'archive.zip');
    await pipeline(Readable.from(upTo(MOST_BYTES, bytes, name)), createWriteStream(path));
    return withZip(path, name, async (files) => {
      const documents = await documentsIn(files, name);
      if (!documents) throw new Problem('archive-strange', { name });
      return work(documents);
    });
  });
}

async function* upTo(most: number, bytes: AsyncIterable<Uint8Array>, name: string): AsyncGenerator<Uint8Array> {
  let sum = 0;
  for await (const piece of bytes) {
    sum += piece.length;
    if (sum > most) throw new Problem('archive-too-large', { name });
    yield piece;
  }
}

/** A document that an archive tells of, and its PDF if that is in it. */
interface InArchive {
  file?: ZippedFile;
  told: ToldDocument;
  /** Those of its signed copies that are in it. */
  signed: { file: ZippedFile; told: ToldDocument['signed'][number] }[];
}

/** Whether an archive says itself what is in it, and what. */
async function documentsIn(files: ZippedFile[], name: string): Promise<InArchive[] | undefined> {
  const list = files.find(({ path }) => path === FACTS_FILE);
  if (!list || list.bytes > MOST_FACTS_BYTES) return undefined;
  const byPath = new Map(files.map((file) => [file.path, file]));
  const documents: InArchive[] = [];
  try {
    for await (const entry of jsonList(list.read(), { mostBytes: MOST_TOLD_BYTES, most: MOST_DOCUMENTS })) {
      const valid = await toldDocument.validate(entry, { stripUnknown: true });
      const signed = valid.signed.flatMap((each) => {
        const file = byPath.get(each.file);
        return file ? [{ file, told: each }] : [];
      });
      documents.push({ file: byPath.get(valid.file), told: valid, signed });
    }
  } catch (error) {
    if (error instanceof RangeError) throw new Problem('archive-too-large', { name });
    if (error instanceof SyntaxError || error instanceof ValidationError) throw new Problem('archive-broken', { name });
    throw error;
  }
  return documents;
}

async function putBack(
  { database, jobs }: Context,
  actor: ActingAs,
  name: string,
  documents: InArchive[],
): Promise<Brought> {
  const stackId = randomUUID();
  let [brought, known, missing] = [0, 0, 0];
  for (const { file, told, signed } of documents) {
    if (!file) {
      missing++;
      continue;
    }
    const store = (bytes: AsyncIterable<Uint8Array>) =>
      storeBlob(database, bytes, {
        mostBytes: MOST_FILE_BYTES,
        tooLarge: () => new Problem('file-too-large', { name: told.name }),
      });
    const whole = await store(file.read());
    const bare = told.marks && (await store(beginning(file.read(), told.marks.bytes)));
    // Marks are put on again where the PDF is known without them; else they stay part of it.
    const marks = bare?.sha256 === told.marks?.sha256 ? told.marks : null;
    const blob = marks ? bare! : whole;
    const entry: BroughtDocument = { ...told, marks, signedBlobs: [] };
    for (const each of signed) entry.signedBlobs.push({ ...each.told, blobId: (await store(each.file.read())).id });
    const isKnown = await database.source.transaction(async (manager) => {
      if ((await holdsBytes(manager, blob.id)) || (await holdsBytes(manager, whole.id))) return true;
      await insertNew(manager, Stack, { id: stackId, name, state: 'sorted', actorId: actor.id });
      const fileId = randomUUID();
      await manager.insert(SourceFile, {
        id: fileId,
        stackId,
        name: `${entry.name}.pdf`,
        position: brought,
        blobId: blob.id,
        actorId: actor.id,
        told: entry,
      });
      await jobs.ask(manager, 'take-in', { fileId });
      return false;
    });
    if (isKnown) known++;
    else brought++;
  }
  await record(database.source.manager, actor, 'brought in', 'stack', brought > 0 ? stackId : null, { name, brought });
  return { brought, known, missing };
}

/** So many of the first bytes. */
async function* beginning(bytes: AsyncIterable<Uint8Array>, many: number): AsyncGenerator<Uint8Array> {
  let left = many;
  for await (const piece of bytes) {
    yield piece.subarray(0, left);
    left -= piece.length;
    if (left <= 0) return;
  }
}

/**
 * Makes the document that a file of an archive is, once its pages are there. A PDF is put on the shelf as it is; of anything else one
 * is bound once it is read.
 */
export async function restoreDocument(
  { jobs }: Context,
  manager: EntityManager,
  file: SourceFile,
  entry: BroughtDocument,
  { pageIds, isPdf }: { pageIds: string[]; isPdf: boolean },
): Promise<void> {
  const actor = { id: file.actorId, name: '' };
  const folder = entry.folder.split('/').some((name) => safeName(name, '')) ? entry.folder : WITHOUT_FOLDER;
  const folderId = await folderAt(manager, actor, folder);
  const id = randomUUID();
  await manager.insert(Document, {
    id,
    stackId: file.stackId,
    lines: admitLines(entry.lines),
    taxes: admitTaxes(entry.taxes),
    bookings: admitBookings(entry.bookings),
  });
  await manager.insert(
    DocumentPage,
    pageIds.map((pageId, at) => ({ documentId: id, number: at + 1, pageId })),
  );
  const name = await settleName(manager, folderId, safeName(entry.name), id);
  const filed = Number.isNaN(Date.parse(entry.filed)) ? new Date() : new Date(entry.filed);
  await manager.update(
    Document,
    { id },
    { state: 'filing', folderId, name, nameKey: nameKey(name), filedAt: filed, pdfBlobId: isPdf ? file.blobId : null },
  );
  for (const fact of FACT_NAMES) {
    const value = admitKept(fact, entry.facts[fact]);
    if (value === null) continue;
    await manager.insert(Fact, { documentId: id, name: fact, value, confidence: 1, confirmedBy: actor.id });
  }
  await keepRemark(manager, id, {
    tags: entry.tags.filter((each) => tag.isValidSync(each)).slice(0, MOST_TAGS),
    note: entry.note.slice(0, LONGEST_NOTE),
  });
  await typeFacts(manager, id);
  await rememberSender(manager, id);
  const turns = new Map((await manager.findBy(Page, { id: In(pageIds) })).map((page) => [page.id, page.turn]));
  for (const { page, ...mark } of entry.marks?.list ?? []) {
    const pageId = pageIds[page];
    if (pageId) await enterMark(manager, actor, { id: pageId, turn: turns.get(pageId)! }, mark as Omit<PageMark, 'id'>);
  }
  for (const { blobId, at, by, certified, reason } of entry.signedBlobs ?? [])
    await keepSignedVersion(manager, id, {
      ...{ blobId, certified, reason },
      signedBy: actor.id,
      signedAs: by,
      at: Number.isNaN(Date.parse(at)) ? null : new Date(at),
    });
  if (isPdf) await jobs.ask(manager, entry.marks ? 'mark' : 'shelve', { documentId: id, actorId: actor.id });
  await record(manager, actor, 'brought in', 'document', id, { name, folderId });
  await announce(manager, 'document', id);
}

/**
 * Brings in what an archive holds that was taken in with other files, if it is an archive of the shelf.
 * @returns whether it is
 * @throws Problem 'archive-broken', 'archive-too-large', 'archive-known', 'archive-empty'
 */
export async function bringInOpened(context: Context, file: SourceFile, files: ZippedFile[]): Promise<boolean> {
  const documents = await documentsIn(files, file.name);
  if (!documents) return false;
  const { brought, known } = await putBack(context, { id: file.actorId, name: '' }, file.name, documents);
  if (brought === 0) throw new Problem(known > 0 ? 'archive-known' : 'archive-empty', { name: file.name });
  return true;
}
