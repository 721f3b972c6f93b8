import { EntityManager } from 'typeorm';
import { Context } from '../platform/context';
import { theProgram } from '../platform/history';
import { announce } from '../platform/live';
import { refreshFacts } from './facts';
import { isBeingRead, isItsOwnFile } from './queries';

export { isBeingRead };
import { Document } from '../platform/entities';

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
  if (document?.state === 'check') await refreshFacts(manager, documentId);
  else if (!(await isBeingRead(manager, documentId)) && (gather || !(await isItsOwnFile(manager, documentId)))) {
    const work = { documentId, actorId: (await theProgram(manager)).id };
    await (gather ? jobs.askOnce(manager, 'bind', work) : jobs.ask(manager, 'bind', work));
  }
  await announce(manager, 'document', documentId);
}
