import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import MailComposer from 'nodemailer/lib/mail-composer';
import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { CopyWish } from '@crow/contract/sending';
import { freeName, nameKey, safeName } from '@crow/core/filing/names';
import { documentsById } from '../checking/documents';
import { lockPdf, mergePdfs } from '../engines/qpdf';
import { withScratch } from '../engines/scratch';
import { blobBytes } from '../platform/blobs';
import { Context } from '../platform/context';
import { ActingAs, record } from '../platform/history';
import { zipped } from '../shelf/exporting';
import { flatPdfOf } from '../shelf/marking';
import { pdfOf } from '../shelf/versions';

interface Copy {
  /** With its ending. */
  name: string;
  bytes: Buffer;
}

interface Copies {
  bytes: Buffer;
  name: string;
  mediaType: string;
}

/**
 * Copies of papers, as somebody wishes them: one PDF, a ZIP of several, or a mail that holds them and opens in the mail program.
 * @throws Problem 'not-found' for a paper without a PDF, 'copies-too-large', 'not-marked', 'file-broken', 'took-too-long'
 */
export function makeCopies(context: Context, actor: ActingAs, wish: CopyWish): Promise<Copies> {
  const { manager } = context.database.source;
  return withScratch(async (folder) => {
    const copies = await copiesOf(context, manager, wish, folder);
    const mail = wish.mail?.to || undefined;
    for (const id of wish.ids)
      await record(manager, actor, 'copied', 'document', id, { mail: wish.mail !== null, to: mail });
    if (wish.mail) return mailWith(copies, wish.mail);
    if (copies.length === 1) return { ...copies[0], mediaType: 'application/pdf' };
    return { bytes: await zipOf(copies), name: 'Papers.zip', mediaType: 'application/zip' };
  });
}

/** Copies are made in memory; more than this is a matter of the archive, which goes piece by piece. */
const MOST_BYTES = 300 * 1024 ** 2;

async function copiesOf(context: Context, manager: EntityManager, wish: CopyWish, folder: string): Promise<Copy[]> {
  const documents = await documentsById(manager, wish.ids);
  if (documents.reduce((sum, { bytes }) => sum + (bytes ?? 0), 0) > MOST_BYTES) throw new Problem('copies-too-large');
  const copies: Copy[] = [];
  const taken = new Set<string>();
  for (const id of wish.ids) {
    const { name, blobId } = await pdfOf(manager, id, { bare: wish.marks === 'without' });
    const bytes =
      wish.marks === 'flat' ? Buffer.from(await flatPdfOf(context, id)) : await blobBytes(context.database, blobId);
    const own = freeName(safeName(name || 'Paper'), taken);
    taken.add(nameKey(own));
    copies.push({ name: `${own}.pdf`, bytes });
  }
  const formed = wish.form === 'merged' && copies.length > 1 ? [await merged(copies, folder)] : copies;
  if (!wish.password && wish.mayPrint) return formed;
  const locked: Copy[] = [];
  for (const [at, { name, bytes }] of formed.entries()) {
    const [open, shut] = [join(folder, `${at}-open.pdf`), join(folder, `${at}-shut.pdf`)];
    await writeFile(open, bytes);
    await lockPdf(open, shut, { password: wish.password, mayPrint: wish.mayPrint, folder });
    locked.push({ name, bytes: await readFile(shut) });
  }
  return locked;
}

async function merged(copies: readonly Copy[], folder: string): Promise<Copy> {
  const paths = copies.map((_, at) => join(folder, `${at}.pdf`));
  for (const [at, path] of paths.entries()) await writeFile(path, copies[at].bytes);
  const out = join(folder, 'merged.pdf');
  await mergePdfs(paths, out);
  return { name: `Papers (${copies.length}).pdf`, bytes: await readFile(out) };
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
async function mailWith(
  copies: readonly Copy[],
  { to, subject, text }: NonNullable<CopyWish['mail']>,
): Promise<Copies> {
  const mail = new MailComposer({
    to: to || undefined,
    subject,
    text,
    headers: { 'X-Unsent': '1' },
    attachments: copies.map(({ name, bytes }) => ({ filename: name, content: bytes, contentType: 'application/pdf' })),
  });
  const bytes = await mail.compile().build();
  return { bytes, name: `${safeName(subject || 'Papers')}.eml`, mediaType: 'message/rfc822' };
}
