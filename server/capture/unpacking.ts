import { randomUUID } from 'node:crypto';
import { basename } from 'node:path';
import { Readable } from 'node:stream';
import { EntityManager, MoreThan } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { mailPdf } from '@crow/core/pdf/mailPdf';
import { MailData } from '@crow/core/reading/facts/mailData';
import { mailsIn } from '../engines/mail';
import { MOST_BYTES, withZip } from '../engines/zip';
import { MOST_FILE_BYTES, storeBlob } from '../platform/blobs';
import { Context } from '../platform/context';
import { SourceFile } from '../platform/entities';
import { announce } from '../platform/live';
import { deleteStackIfBare } from './queries';

/** So many papers of an archive become a stack. */
const MOST_PAPERS = 2000;
/** So many mails that can't be read are named by their numbers. */
const MOST_NAMED = 8;
/** What the papers of an archive have together, at most. */
const MOST_ARCHIVE_BYTES = MOST_BYTES;

/**
 * Takes the papers out of an archive that was taken in: each becomes a file of the same stack, in the archive's place.
 * @throws Problem 'archive-broken', 'archive-too-large', 'archive-empty', 'file-encrypted', 'file-unknown'
 */
export async function unpackPapers(context: Context, file: SourceFile, path: string): Promise<void> {
  const { database } = context;
  await withZip(path, file.name, async (files) => {
    if (await context.happenings.tell(database.source.manager, 'archive-opened', { file, files }))
      return database.source.transaction((manager) => leave(manager, file));
    if (files.some((each) => each.path === '[Content_Types].xml'))
      throw new Problem('file-unknown', { name: file.name, looksLike: ', it looks like an office document' });
    const papers = files.toSorted((a, b) => a.path.localeCompare(b.path, 'en', { numeric: true }));
    if (papers.length === 0) throw new Problem('archive-empty', { name: file.name });
    if (papers.length > MOST_PAPERS) throw new Problem('archive-too-large', { name: file.name });
    await putInPlace(
      context,
      file,
      papers.map(({ path: inside, read }) => ({ name: basename(inside), read })),
    );
  });
}

/** A paper that comes out of a file with several in it. */
interface Paper {
  name: string;
  read: () => AsyncIterable<Uint8Array>;
  mail?: MailData;
}

/**
 * Takes the papers out of a mail, or a mailbox, that was taken in: what is attached, and mails with nothing attached themselves. A
 * mailbox with mails that can't be read stays, and says so; the others are taken in.
 * @throws Problem 'archive-too-large', 'file-broken', 'mail-too-large', 'mail-empty'
 */
export async function unpackMails(context: Context, file: SourceFile, path: string): Promise<void> {
  const unread: number[] = [];
  await putInPlace(context, file, papersInMails(path, file.name, unread), () =>
    unread.length > 0
      ? new Problem('mails-not-read', {
          name: file.name,
          numbers: unread.slice(0, MOST_NAMED).join(', ') + (unread.length > MOST_NAMED ? ' and others' : ''),
        })
      : undefined,
  );
}

/** @param unread takes the numbers of mails that can't be read, counted from 1 */
async function* papersInMails(path: string, name: string, unread: number[]): AsyncGenerator<Paper> {
  let found = 0;
  let number = 0;
  for await (const mail of mailsIn(path, name)) {
    number++;
    if (!mail) {
      unread.push(number);
      continue;
    }
    const { head, text, papers } = mail;
    for (const { name: attached, bytes } of papers) yield { name: attached, read: () => Readable.from([bytes]) };
    found += papers.length;
    if (papers.length > 0 || (!text.trim() && !head.subject)) continue;
    const pdf = await mailPdf(head, text);
    yield { name: `${head.subject || head.from || 'Mail'}.pdf`, read: () => Readable.from([pdf]), mail: head };
    found++;
  }
  if (found === 0 && unread.length === 0) throw new Problem('mail-empty', { name });
}

/**
 * Puts papers into a stack in the place of the file that they come out of; they are kept one after the other, as they come.
 * @param stays asked when all have come: why the file itself stays with them, if it does
 */
async function putInPlace(
  { database, jobs }: Context,
  file: SourceFile,
  papers: Iterable<Paper> | AsyncIterable<Paper>,
  stays: () => Problem | undefined = () => undefined,
): Promise<void> {
  const stored: { id: string; blobId: string; name: string; mail: MailData | null }[] = [];
  let bytes = 0;
  for await (const { name, read, mail = null } of papers) {
    const { id, size } = await storeBlob(database, read(), {
      mostBytes: MOST_FILE_BYTES,
      tooLarge: () => new Problem('archive-too-large', { name: file.name }),
    });
    bytes += size;
    stored.push({ id: randomUUID(), blobId: id, name, mail });
    if (stored.length > MOST_PAPERS || bytes > MOST_ARCHIVE_BYTES)
      throw new Problem('archive-too-large', { name: file.name });
  }
  await database.source.transaction(async (manager) => {
    await manager.increment(
      SourceFile,
      { stackId: file.stackId, position: MoreThan(file.position) },
      'position',
      stored.length,
    );
    await manager.insert(
      SourceFile,
      stored.map(({ id, name, blobId, mail }, at) => ({
        id,
        stackId: file.stackId,
        name,
        position: file.position + at + 1,
        blobId,
        beforePage: file.beforePage,
        documentId: file.documentId,
        actorId: file.actorId,
        unpacked: true,
        mail,
      })),
    );
    await jobs.ask(manager, 'take-in', ...stored.map(({ id }) => ({ fileId: id })));
    const problem = stays()?.report;
    if (!problem) return leave(manager, file);
    await manager.update(SourceFile, { id: file.id }, { state: 'refused', problem });
    await announce(manager, 'stack', file.stackId);
  });
}

/** The archive itself has done its work; a stack that has nothing else goes with it. */
async function leave(manager: EntityManager, { id, stackId }: SourceFile): Promise<void> {
  await manager.delete(SourceFile, { id });
  await deleteStackIfBare(manager, stackId);
  await announce(manager, 'stack', stackId);
}
