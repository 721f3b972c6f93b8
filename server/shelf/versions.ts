import { EntityManager } from 'typeorm';
import { DocumentVersion as ShownVersion } from '@crow/contract/documents';
import { Problem } from '@crow/contract/problems';
import { Document, DocumentVersion } from '../platform/entities';

/** A PDF to be given out: its name without ending, and where its bytes are. */
interface NamedPdf {
  name: string;
  blobId: string;
}

/** The PDF that a document has now, with its marks or without. @throws Problem 'not-found' */
export async function pdfOf(manager: EntityManager, documentId: string, { bare = false } = {}): Promise<NamedPdf> {
  const document = await manager.findOneBy(Document, { id: documentId });
  if (!document?.pdfBlobId) throw new Problem('not-found', { what: 'The PDF' });
  return { name: document.name, blobId: (bare && document.bareBlobId) || document.pdfBlobId };
}

/** The PDFs that a document had before or that were signed, the latest first. */
export async function versionsOf(manager: EntityManager, documentId: string): Promise<ShownVersion[]> {
  const found = await manager.find(DocumentVersion, {
    where: { documentId },
    relations: { pdfBlob: true, signedByActor: true },
    order: { number: 'desc' },
  });
  return found.map(({ number, until, pdfBlob, signedByActor, signedAs, certified, reason }) => ({
    number,
    until: until.toISOString(),
    bytes: pdfBlob!.size,
    signed: signedByActor ? { by: signedAs ?? signedByActor.name, certified, reason } : null,
  }));
}

/** One of them. @throws Problem 'not-found' */
export async function versionOf(manager: EntityManager, documentId: string, number: number): Promise<NamedPdf> {
  const version = await manager.findOne(DocumentVersion, {
    where: { documentId, number },
    relations: { document: true },
  });
  if (!version) throw new Problem('not-found', { what: 'This version' });
  return { name: version.document!.name, blobId: version.pdfBlobId };
}
