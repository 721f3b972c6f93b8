import { EntityManager } from 'typeorm';
import { Context } from '../platform/context';
import { theProgram } from '../platform/history';
import { announce } from '../platform/live';
import { refreshFacts } from './facts';
import { isMilestone } from '@crow/core/reading/milestones';
import { Document } from '../platform/entities';
import { isItsOwnFile, readingProgress } from './queries';

/** Whether any page of a document is still to be read. */
export async function isBeingRead(manager: EntityManager, documentId: string): Promise<boolean> {
  const { read, pages } = await readingProgress(manager, documentId);
  return read < pages;
}

/**
 * After a page of it was read: finds the facts anew, and binds the PDF if it only waited for that. Needs the document's lock.
 * @param gather whether more changes may come at once, so that the PDF is bound a moment later
 */
export async function pageWasRead(
  { jobs }: Context,
  manager: EntityManager,
  documentId: string,
  { gather = false } = {},
): Promise<void> {
  const document = await manager.findOneBy(Document, { id: documentId });
  const { read, pages } = await readingProgress(manager, documentId);
  if (document?.state === 'check') {
    if (gather || isMilestone(read, pages)) await refreshFacts(manager, documentId);
  } else if (read === pages && (gather || !(await isItsOwnFile(manager, documentId)))) {
    const work = { documentId, actorId: (await theProgram(manager)).id };
    await (gather ? jobs.askOnce(manager, 'bind', work) : jobs.ask(manager, 'bind', work));
  }
  await announce(manager, 'document', documentId);
}
