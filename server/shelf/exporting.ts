import { randomUUID } from 'node:crypto';
import { Readable } from 'node:stream';
import sharp from 'sharp';
import { Zip, ZipPassThrough, strToU8 } from 'fflate';
import { EntityManager, IsNull, Not } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { ALL_MARKS_TOLD, FACTS_FILE, MOST_MARKS_TOLD, ToldDocument } from '@crow/contract/shelfArchive';
import { Turn } from '@crow/core/geometry';
import { Block, BookPart, epubOf } from '@crow/core/epub/epub';
import { textOnlyPdf } from '@crow/core/pdf/textOnlyPdf';
import { guessLanguage, TOLD_APART } from '@crow/core/reading/language';
import { languageTag } from '@crow/core/reading/otherLanguages';
import { paragraphsOf } from '@crow/core/reading/paragraphs';
import { plainText } from '@crow/core/reading/words';
import { csvOf } from '@crow/core/filing/csv';
import { FACT_NAMES } from '@crow/contract/facts';
import { Page } from '@crow/contract/pages';
import { Context } from '../platform/context';
import { cutFigures } from '../engines/figures';
import { readBlob } from '../platform/blobs';
import { DocumentVersion } from '../platform/entities';
import { pagesOfDocument } from '../stack/queries';
import { ReadPage, textsOf } from '../checking/facts';
import { PictureDesk } from '../pages/pagePictures';
import { marksByPage } from './marking';
import { shelvedDocuments } from './queries';

/** Stands at the end of a page's text when there is more on the page. */
const BY_HAND = '[something is written by hand that was not read]';

/** The text of a document, page after page, with a form feed between them as in plain text files. */
export async function documentText(manager: EntityManager, documentId: string): Promise<string> {
  const pages = await textsOf(manager, documentId);
  return pages
    .map(({ words, handwriting }) => `${plainText(words)}\n${handwriting.length > 0 ? `${BY_HAND}\n` : ''}`)
    .join('\f');
}

/** Gives the picture of a page as it is shown, turned and made (JPEG). */
type PictureOf = (page: { id: string; turn: Turn; version: string }) => Promise<Uint8Array>;

/** The text of a document and the pictures in it as a PDF for a small screen. */
export async function textPdfOf(
  manager: EntityManager,
  documentId: string,
  title: string,
  pictureOf: PictureOf,
): Promise<Uint8Array> {
  const pages = await setPages(manager, documentId, pictureOf);
  const set = pages.map((blocks) => blocks.map((block) => ('text' in block ? block.text : block)));
  return textOnlyPdf(set, { title, created: new Date() });
}

/** The text of documents, their headings and the pictures in them, as one book for reading devices (EPUB). @param title of the book */
export async function epubOfDocuments(
  manager: EntityManager,
  title: string,
  documents: readonly { id: string; name: string; vendor: string | null }[],
  pictureOf: PictureOf,
): Promise<Uint8Array> {
  const parts: BookPart[] = [];
  for (const { id, name } of documents)
    parts.push({ title: name || 'Paper', pages: await setPages(manager, id, pictureOf) });
  const text = parts.flatMap(({ pages }) => pages.flat().flatMap((block) => ('text' in block ? block.text : [])));
  const language = languageTag(guessLanguage(text.join('\n'), TOLD_APART));
  const [{ id, vendor }] = documents;
  const creator = documents.every((each) => each.vendor === vendor) ? vendor : null;
  // A book of several papers is another one than that of the first.
  const own = documents.length === 1 ? id : randomUUID();
  return epubOf({ id: own, title, creator, language, modified: new Date() }, parts);
}

/** What stands on the pages of a document to be set anew: text and pictures, each where it stands among the others. */
async function setPages(manager: EntityManager, documentId: string, pictureOf: PictureOf): Promise<Block[][]> {
  const figuresOf = async (page: Page, text: ReadPage) => {
    try {
      return await cutFigures(await pictureOf(page), text);
    } catch (error) {
      // A page that can't be drawn any more still has its text.
      if (error instanceof Problem) return [];
      throw error;
    }
  };
  const texts = new Map((await textsOf(manager, documentId)).map((text) => [text.pageId, text]));
  const pages: Block[][] = [];
  for (const page of await pagesOfDocument(manager, documentId)) {
    const text = texts.get(page.id);
    if (!text) continue;
    const written = paragraphsOf(text.words);
    const set: Block[] = written.map(({ text: words, heading }) => ({ text: words, heading }));
    // From the last one up, each before the text that begins below it: what is read in columns keeps its order.
    for (const { top, ...figure } of (await figuresOf(page, text)).reverse()) {
      const below = written.findIndex((paragraph) => paragraph.top >= top);
      set.splice(below < 0 ? written.length : below, 0, figure);
    }
    pages.push(set);
  }
  return pages;
}

/**
 * The pages of a document as pictures, made one after the other while they are sent: the picture itself when it is one, else a ZIP.
 * @returns what is sent, and the ending of its file's name
 */
export async function picturesOf(
  manager: EntityManager,
  desk: PictureDesk,
  documentId: string,
  form: 'jpeg' | 'png',
): Promise<{ content: Readable | Buffer; ending: string }> {
  const pages = await pagesOfDocument(manager, documentId);
  const ending = form === 'jpeg' ? 'jpg' : 'png';
  const made = async ({ id, turn, version }: (typeof pages)[number]): Promise<Buffer> => {
    const { bytes } = await desk.picture(id, 'full', turn, version);
    return form === 'jpeg' ? bytes : sharp(bytes).png().toBuffer();
  };
  if (pages.length === 1) return { content: await made(pages[0]), ending };
  const width = String(pages.length).length;
  const entries = pages.map((page, at) => ({
    name: `${String(at + 1).padStart(width, '0')}.${ending}`,
    pieces: async function* () {
      yield await made(page);
    },
  }));
  return { content: Readable.from(zipped(entries), { objectMode: false }), ending: 'zip' };
}

/** A file in a ZIP: its pieces are asked for when it is its turn. */
export interface Entry {
  name: string;
  at?: Date;
  pieces: () => AsyncIterable<Uint8Array>;
}

/** Files as a ZIP, piece by piece; what is packed is packed already. */
export async function* zipped(entries: Iterable<Entry> | AsyncIterable<Entry>): AsyncGenerator<Uint8Array> {
  const ready: Uint8Array[] = [];
  let failed: Error | undefined;
  const zip = new Zip((error, data) => {
    if (error) failed = error;
    else ready.push(data);
  });
  const taken = function* () {
    if (failed) throw failed;
    yield* ready.splice(0);
  };
  for await (const { name, at, pieces } of entries) {
    const entry = new ZipPassThrough(name);
    if (at) entry.mtime = at;
    zip.add(entry);
    for await (const piece of pieces()) {
      entry.push(piece);
      yield* taken();
    }
    entry.push(new Uint8Array(), true);
    yield* taken();
  }
  zip.end();
  yield* taken();
}

/**
 * The whole shelf, or a folder and those inside it, as a ZIP: the PDFs in their folders, and what is known of them in facts.csv and
 * facts.json. Made while it is sent: nothing of it is held in memory but the piece that is on its way.
 */
export async function shelfArchive({ database }: Context, folders: readonly string[] | null): Promise<Readable> {
  const { manager } = database.source;
  const documents = await shelvedDocuments(manager, folders);
  return Readable.from(zipped(entries()), { objectMode: false });

  async function* entries(): AsyncGenerator<Entry> {
    const told: ToldDocument[] = [];
    let room = ALL_MARKS_TOLD;
    for (const { id, name, folder, pdfBlobId, bare, filedAt, facts, lines, taxes, bookings, tags, note } of documents) {
      const file = `${folder}/${name}.pdf`;
      yield { name: file, at: filedAt, pieces: () => readBlob(database, pdfBlobId) };
      const marks = bare ? await toldMarks(manager, id) : [];
      const size = JSON.stringify(marks).length;
      const list = size <= Math.min(MOST_MARKS_TOLD, room) ? marks : null;
      room -= list ? size : 0;
      const signed = await signedCopies(manager, { id, file: `${SIGNED}/${folder}/${name}` });
      for (const { file: copy, at, pieces } of signed)
        yield { name: copy, at: new Date(at), pieces: () => readBlob(database, pieces) };
      told.push({
        file,
        name,
        folder,
        filed: filedAt.toISOString(),
        facts: facts ?? {},
        lines: lines ?? [],
        taxes: taxes ?? [],
        bookings: bookings ?? [],
        tags,
        note,
        marks: list && bare && { ...bare, list },
        signed: signed.map(({ pieces: _, ...each }) => each),
      });
    }
    // A line for each document: marks have thousands of numbers.
    yield textEntry(FACTS_FILE, `[\n${told.map((each) => JSON.stringify(each)).join(',\n')}\n]\n`);
    yield textEntry('facts.csv', csvOf([['file', 'filed', ...FACT_NAMES], ...told.map(rowOf)]));
  }
}

/** Where copies that were signed lie in an archive, in folders as their papers do. */
const SIGNED = 'Signed copies';

/** The signed copies of a document as an archive has them, and the blobs that hold their pieces. */
async function signedCopies(
  manager: EntityManager,
  { id, file }: { id: string; file: string },
): Promise<(ToldDocument['signed'][number] & { pieces: string })[]> {
  const found = await manager.find(DocumentVersion, {
    where: { documentId: id, signedBy: Not(IsNull()) },
    relations: { signedByActor: true },
    order: { number: 'asc' },
  });
  return found.map(({ number, until, signedAs, signedByActor, certified, reason, pdfBlobId }) => ({
    file: `${file}, ${number} (${id}).pdf`,
    at: until.toISOString(),
    by: signedAs ?? signedByActor!.name,
    certified,
    reason,
    pieces: pdfBlobId,
  }));
}

async function toldMarks(
  manager: EntityManager,
  documentId: string,
): Promise<NonNullable<ToldDocument['marks']>['list']> {
  const pages = await marksByPage(manager, documentId);
  return pages.flatMap((marks, page) => marks.map(({ id: _, pageId: __, ...mark }) => ({ ...mark, page })));
}

export function textEntry(name: string, text: string): Entry {
  return {
    name,
    pieces: async function* () {
      yield await Promise.resolve(strToU8(text));
    },
  };
}

function rowOf({ file, filed, facts }: ToldDocument): (string | null)[] {
  return [file, filed, ...FACT_NAMES.map((name) => facts[name] ?? null)];
}
