import { Problem } from '@crow/contract/problems';
import { SigningWish } from '@crow/contract/signing';
import { signPdf } from '@crow/core/pdf/signing/signedPdf';
import { insist } from '../checking/documents';
import { nameIn, signDetached } from '../engines/cms';
import { blobBytes, storeBytes } from '../platform/blobs';
import { Context } from '../platform/context';
import { Document } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { lockDocument } from '../stack/locks';
import { keepSignedVersion } from './queries';
import { markDocument } from './marking';
import { openSigningKey } from './signingKeys';

/**
 * Keeps the PDF of a document, with the marks that are on it now, as a version that never changes: signed digitally where a key is given.
 * What is done to the document afterwards goes into its own PDF.
 * @throws Problem 'not-found', 'document-elsewhere', 'key-not-opened', 'key-over', 'not-signed'
 */
export async function signDocument(
  context: Context,
  actor: ActingAs,
  documentId: string,
  { key, reason }: SigningWish,
): Promise<void> {
  const { database } = context;
  const { manager } = database.source;
  const opened = key && (await openSigningKey(manager, actor, key));
  // Marks that were put a moment ago are in it, too.
  await markDocument(context, documentId, actor.id);
  const document = await manager.findOneBy(Document, { id: documentId });
  if (!document?.pdfBlobId) throw new Problem('not-found', { what: 'The PDF' });
  const bytes = await blobBytes(database, document.pdfBlobId);
  const certified = opened && nameIn(opened.certificate);
  const at = new Date();
  const signed = opened
    ? await signPdf(bytes, { name: certified!, at, reason }, async (all) => signDetached(all, opened)).catch(
        (error: unknown) => {
          context.log.warn({ error }, 'could not sign');
          throw new Problem('not-signed', { name: document.name });
        },
      )
    : bytes;
  const { id: blobId } = await storeBytes(database, signed);
  await database.source.transaction(async (inside) => {
    insist(await lockDocument(inside, documentId), 'filing', 'filed');
    await keepSignedVersion(inside, documentId, { blobId, signedBy: actor.id, certified, reason });
    await record(inside, actor, 'signed', 'document', documentId, { certified, reason });
    await announce(inside, 'document', documentId);
  });
}
