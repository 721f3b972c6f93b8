import { randomUUID } from 'node:crypto';
import { EntityManager, In } from 'typeorm';
import { changedAs, changedMarks, MarkChanges, Reply } from '@crow/core/pdf/marks/changedMarks';
import { PageMark } from '@crow/core/pdf/marks/markPdf';
import { readAnnotated } from '@crow/core/pdf/marks/readMarks';
import { areSameButForMarks } from '@crow/core/pdf/marks/samePages';
import { Turn } from '@crow/core/geometry';
import { blobBytes } from '../platform/blobs';
import { Context } from '../platform/context';
import { Blob, Mark, MarkReply } from '../platform/entities';
import { ActingAs, record, theProgram } from '../platform/history';
import { announce } from '../platform/live';
import { lockDocument } from '../stack/locks';
import { pagesOfDocument } from '../stack/queries';
import { marksOf, putMark } from './marking';

/**
 * Takes in what somebody marked in another program on a document's file on disk, where nothing else of it was changed: what is new, what
 * was changed, answered or taken away since it was written. What was marked here meanwhile stays.
 * @param file what stands on disk, and the hash of what was written there
 * @returns whether that was all that was changed
 */
export async function takeInMarks(
  context: Context,
  documentId: string,
  { sha256, bytes }: { sha256: string; bytes: Uint8Array },
): Promise<boolean> {
  const { database, jobs } = context;
  const written = await database.source.manager.findOneBy(Blob, { sha256 });
  if (!written) return false;
  const changes = await changesOf(await blobBytes(database, written.id), bytes).catch((error: Error) => {
    context.log.warn({ error }, 'could not read the marks of a changed file');
    return undefined;
  });
  if (!changes) return false;
  await database.source.transaction(async (manager) => {
    await lockDocument(manager, documentId);
    const actor = await theProgram(manager);
    await apply(manager, actor, documentId, changes);
    await record(manager, actor, 'took in marks', 'document', documentId);
    await jobs.askOnce(manager, 'mark', { documentId, actorId: actor.id }, { gatherMs: 0 });
    await announce(manager, 'document', documentId);
  });
  return true;
}

async function changesOf(written: Uint8Array, found: Uint8Array): Promise<MarkChanges | undefined> {
  if (!(await areSameButForMarks(written, found))) return undefined;
  return changedMarks(await readAnnotated(written), await readAnnotated(found));
}

async function apply(
  manager: EntityManager,
  actor: ActingAs,
  documentId: string,
  { added, changed, removed, answered }: MarkChanges,
): Promise<void> {
  const known = new Map((await marksOf(manager, documentId)).map((mark) => [mark.id, mark]));
  const pages = await pagesOfDocument(manager, documentId);
  const turns = new Map(pages.map(({ id, turn }) => [id, turn]));
  const gone = removed.filter((id) => known.has(id));
  if (gone.length > 0) await manager.update(Mark, { id: In(gone) }, { removedAt: new Date() });
  for (const change of changed) {
    const mark = known.get(change.id);
    if (mark) await putMark(manager, actor, changedAs(mark, change), turns.get(mark.pageId)!);
  }
  for (const { id, replies } of answered) if (known.has(id)) await enterReplies(manager, actor, id, replies);
  for (const { page, mark } of added) {
    const at = pages[page];
    if (at) await enterMark(manager, actor, at, mark);
  }
}

const NOBODY = 'another program';

/** Enters a mark that was made elsewhere on a page, as it is shown now, with what was answered to it. */
export async function enterMark(
  manager: EntityManager,
  actor: ActingAs,
  { id: pageId, turn }: { id: string; turn: Turn },
  { kind, ink, boxes, strokes, text, by, at, replies }: Omit<PageMark, 'id'>,
): Promise<void> {
  const id = randomUUID();
  const madeAt = Date.parse(at) > 0 ? new Date(at) : new Date();
  const mark = { id, pageId, kind, ink, boxes, strokes, text, turn, madeAt };
  await manager.insert(Mark, { ...mark, actorId: actor.id, author: by || NOBODY });
  await enterReplies(manager, actor, id, replies);
}

async function enterReplies(
  manager: EntityManager,
  actor: ActingAs,
  markId: string,
  replies: readonly Reply[],
): Promise<void> {
  for (const { by, at, text } of replies) {
    const when = Date.parse(at) > 0 ? new Date(at) : new Date();
    await manager.insert(MarkReply, {
      ...{ id: randomUUID(), markId, text, at: when },
      actorId: actor.id,
      author: by || NOBODY,
    });
  }
}
