import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { EntityManager } from 'typeorm';
import MailComposer from 'nodemailer/lib/mail-composer';
import { PdfSize } from '@crow/contract/documents';
import { Problem } from '@crow/contract/problems';
import { CopyWish, PackedWish } from '@crow/contract/sending';
import { freeName, nameKey, safeName } from '@crow/core/filing/names';
import { Box } from '@crow/core/geometry';
import { SourceShelf } from '../capture/sources';
import { documentsById } from '../checking/documents';
import { lockPdf, mergePdfs } from '../engines/qpdf';
import { withScratch } from '../engines/scratch';
import { PictureDesk } from '../pages/pagePictures';
import { blobBytes } from '../platform/blobs';
import { Context } from '../platform/context';
import { Document } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { bindPages, withPages } from '../shelf/binding';
import { documentText, epubOfDocuments, picturesOf, zipped } from '../shelf/exporting';
import { flatPdfOf, markedPdfOf } from '../shelf/marking';
import { pdfOf, versionOf } from '../shelf/versions';
import { copyWithHidden } from './hiding';

type MailOptions = ConstructorParameters<typeof MailComposer>[0];

/** What copies are made of and with. */
export interface CopyDesks {
  sources: SourceShelf;
  pictures: PictureDesk;
}

interface Copy {
  /** With its ending. */
  name: string;
  bytes: Buffer;
  mediaType: string;
}

/**
 * Copies of papers, as somebody wishes them: one file, a ZIP of several, or a mail that holds them and opens in the mail program.
 * @throws Problem 'not-found' for a paper without a PDF, 'copies-too-large', 'not-marked', 'file-broken', 'took-too-long'
 */
export function makeCopies(context: Context, desks: CopyDesks, actor: ActingAs, wish: CopyWish): Promise<Copy> {
  const { manager } = context.database.source;
  return withScratch(async (folder) => {
    const copies = await copiesOf(context, desks, { ...wish, size: 'filed', hidden: null }, folder);
    const mail = wish.mail?.to || undefined;
    for (const id of wish.ids)
      await record(manager, actor, 'copied', 'document', id, { mail: wish.mail !== null, to: mail });
    return wish.mail ? mailWith(copies, wish.mail) : inOneFile(copies);
  });
}

/** Copies as one file: the only one, or a ZIP of all. */
export async function inOneFile(copies: readonly Copy[]): Promise<Copy> {
  if (copies.length === 1) return copies[0];
  return { bytes: await zipOf(copies), name: 'Papers.zip', mediaType: 'application/zip' };
}

/** Copies are made in memory; more than this is a matter of the archive, which goes piece by piece. */
const MOST_BYTES = 300 * 1024 ** 2;

/**
 * The copies that somebody wishes, each by itself or merged, locked where that is wished.
 * @throws Problem as `makeCopies`
 */
export async function copiesOf(context: Context, desks: CopyDesks, wish: PackedWish, folder: string): Promise<Copy[]> {
  const { manager } = context.database.source;
  const documents = await documentsById(manager, wish.ids);
  if (documents.reduce((sum, { bytes }) => sum + (bytes ?? 0), 0) > MOST_BYTES) throw new Problem('copies-too-large');
  if (wish.as === 'epub' && wish.form === 'merged' && wish.ids.length > 1) {
    const title = `${wish.ids.length} papers`;
    return [{ name: `${title}.epub`, bytes: await bookOf(manager, desks, wish.ids, title), mediaType: TYPES.epub }];
  }
  const copies: Copy[] = [];
  const taken = new Set<string>();
  for (const id of wish.ids) {
    const { name, ending, bytes } = await oneCopy(context, desks, id, wish);
    const own = freeName(safeName(name || 'Paper'), taken);
    taken.add(nameKey(own));
    copies.push({ name: `${own}.${ending}`, bytes, mediaType: TYPES[ending] });
  }
  if (wish.as !== 'pdf') return copies;
  const formed = wish.form === 'merged' && copies.length > 1 ? [await merged(copies, folder)] : copies;
  if (!wish.password && wish.mayPrint) return formed;
  const locked: Copy[] = [];
  for (const [at, { bytes, ...copy }] of formed.entries()) {
    const [open, shut] = [join(folder, `${at}-open.pdf`), join(folder, `${at}-shut.pdf`)];
    await writeFile(open, bytes);
    await lockPdf(open, shut, { password: wish.password, mayPrint: wish.mayPrint, folder });
    locked.push({ ...copy, bytes: await readFile(shut) });
  }
  return locked;
}

const TYPES: Record<string, string> = {
  pdf: 'application/pdf',
  jpg: 'image/jpeg',
  zip: 'application/zip',
  txt: 'text/plain; charset=utf-8',
  epub: 'application/epub+zip',
};

/** One paper in the form that is wished for. @returns its name without ending, the ending, its bytes */
async function oneCopy(
  context: Context,
  desks: CopyDesks,
  id: string,
  { as, marks, size, hidden, version }: PackedWish,
): Promise<{ name: string; ending: string; bytes: Buffer }> {
  const { manager } = context.database.source;
  if (hidden) {
    const areas = hidden.map(({ pageId, box }) => ({ pageId, box: box as Box }));
    const { bytes, name } = await copyWithHidden(context, desks, id, areas);
    return { name, ending: 'pdf', bytes: Buffer.from(bytes) };
  }
  if (version) {
    const { name, blobId } = await versionOf(manager, id, version);
    return { name: `${name}, version ${version}`, ending: 'pdf', bytes: await blobBytes(context.database, blobId) };
  }
  const { name, blobId } = await pdfOf(manager, id, { bare: marks === 'without' });
  if (as === 'text') return { name, ending: 'txt', bytes: Buffer.from(await documentText(manager, id)) };
  if (as === 'pictures') {
    const { content, ending } = await picturesOf(manager, desks.pictures, id, 'jpeg');
    return { name, ending, bytes: Buffer.isBuffer(content) ? content : await buffer(content) };
  }
  if (as === 'epub') return { name, ending: 'epub', bytes: await bookOf(manager, desks, [id], name || 'Paper') };
  const own = size === 'filed' ? undefined : await boundAnew(context, desks, id, { name, size });
  if (marks === 'flat') return { name, ending: 'pdf', bytes: Buffer.from(await flatPdfOf(context, id, own)) };
  if (own && marks === 'with') return { name, ending: 'pdf', bytes: Buffer.from(await markedPdfOf(context, id, own)) };
  return { name, ending: 'pdf', bytes: own ? Buffer.from(own) : await blobBytes(context.database, blobId) };
}

/** Papers as one book for reading devices, in the order named. */
async function bookOf(
  manager: EntityManager,
  { pictures }: CopyDesks,
  ids: readonly string[],
  title: string,
): Promise<Buffer> {
  const byId = new Map((await documentsById(manager, [...ids])).map((each) => [each.id, each]));
  const papers = ids.flatMap((id) => byId.get(id) ?? []);
  const pictureOf: Parameters<typeof epubOfDocuments>[3] = async ({ id, turn, version }) =>
    (await pictures.picture(id, 'full', turn, version)).bytes;
  return Buffer.from(await epubOfDocuments(manager, title, papers, pictureOf));
}

/** The PDF of a paper, without marks, bound in another size than it is filed in. */
async function boundAnew(
  { database }: Context,
  { sources }: CopyDesks,
  id: string,
  { name, size }: { name: string; size: PdfSize },
): Promise<Uint8Array> {
  const { manager } = database.source;
  const { filedAt } = await manager.findOneByOrFail(Document, { id });
  const bound = await withPages(manager, sources, id, (pages, language) =>
    bindPages(pages, { title: name, created: filedAt ?? new Date(), language, size }),
  );
  return bound.bytes;
}

async function merged(copies: readonly Copy[], folder: string): Promise<Copy> {
  const paths = copies.map((_, at) => join(folder, `${at}.pdf`));
  for (const [at, path] of paths.entries()) await writeFile(path, copies[at].bytes);
  const out = join(folder, 'merged.pdf');
  await mergePdfs(paths, out);
  return { name: `Papers (${copies.length}).pdf`, bytes: await readFile(out), mediaType: TYPES.pdf };
}

async function zipOf(copies: readonly Copy[]): Promise<Buffer> {
  const entries = copies.map(({ name, bytes }) => ({
    name,
    pieces: async function* () {
      yield await Promise.resolve(bytes);
    },
  }));
  const pieces: Uint8Array[] = [];
  for await (const piece of zipped(entries)) pieces.push(piece);
  return Buffer.concat(pieces);
}

/** A mail (RFC 5322) that is not sent yet: mail programs open it for writing on. */
async function mailWith(copies: readonly Copy[], { to, subject, text }: NonNullable<CopyWish['mail']>): Promise<Copy> {
  const bytes = await mailOf(copies, { to: to || undefined, subject, text, headers: { 'X-Unsent': '1' } });
  return { bytes, name: `${safeName(subject || 'Papers')}.eml`, mediaType: 'message/rfc822' };
}

/** A mail with copies attached, as it is sent (RFC 5322). @param head from whom, to whom, about what, and what it says */
export function mailOf(copies: readonly Copy[], head: MailOptions): Promise<Buffer> {
  const attachments = copies.map(({ name, bytes, mediaType }) => ({
    filename: name,
    content: bytes,
    contentType: mediaType,
  }));
  return new MailComposer({ ...head, attachments }).compile().build();
}
