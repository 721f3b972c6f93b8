import { EntityManager } from 'typeorm';
import { Deed } from '@crow/contract/history';
import { deedsBefore, deedsOfDocument, DeedRow } from './queries';

/** Who did what, the latest first. @param wish from where on, and by whom */
export async function listDeeds(
  manager: EntityManager,
  { before, who }: { before?: number; who?: string },
): Promise<Deed[]> {
  return (await deedsBefore(manager, before ?? null, who ?? null)).map(shown);
}

/** Who did what to a document, the latest first. */
export async function documentDeeds(manager: EntityManager, documentId: string): Promise<Deed[]> {
  return (await deedsOfDocument(manager, documentId)).map(shown);
}

const shown = ({ id, at, ...rest }: DeedRow): Deed => ({ id: Number(id), at: at.toISOString(), ...rest });
