import { EntityManager } from 'typeorm';
import { Context } from '../platform/context';
import { rows } from '../platform/database';
import { theProgram } from '../platform/history';
import { announce } from '../platform/live';
import { refreshFacts } from './facts';

/** Whether any page of a document is still to be read. */
export async function isBeingRead(manager: EntityManager, documentId: string): Promise<boolean> {
  const [{ waiting }] = await rows<{ waiting: boolean }>(
    manager,
    `select exists (
       select 1 from document_page dp join page p on p.id = dp.page_id where dp.document_id = $1 and p.reading = 'waiting'
     ) as waiting`,
    [documentId],
  );
  return waiting;
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
  const [document] = await rows<{ state: string; binned_at: Date | null }>(
    manager,
    'select state, binned_at from document where id = $1',
    [documentId],
  );
  if (document.state === 'check') await refreshFacts(manager, documentId);
  else if (!(await isBeingRead(manager, documentId)) && (gather || !(await isItsOwnFile(manager, documentId)))) {
    const work = { documentId, actorId: (await theProgram(manager)).id };
    await (gather ? jobs.askOnce(manager, 'bind', work) : jobs.ask(manager, 'bind', work));
  }
  await announce(manager, 'document', documentId);
}

/** Whether a document's PDF is the very file that its pages come from, all of them as they are: there is nothing to be bound. */
async function isItsOwnFile(manager: EntityManager, documentId: string): Promise<boolean> {
  const [{ own }] = await rows<{ own: boolean }>(
    manager,
    `select coalesce(bool_and(f.blob_id = d.pdf_blob_id and p.version = '' and p.turn = 0 and dp.number = p.source_number + 1), false)
       and count(*) = (select count(*) from page all_of where all_of.source_file_id = (array_agg(f.id))[1]) as own
     from document d join document_page dp on dp.document_id = d.id join page p on p.id = dp.page_id
     join source_file f on f.id = p.source_file_id where d.id = $1`,
    [documentId],
  );
  return own;
}
