import { EntityManager } from 'typeorm';
import { Duplicate } from '@crow/contract/documents';
import { likeness } from '@crow/core/imaging/likeness';
import { lookOfSparse, otherSparse, sameInWords } from './filingQueries';

/** Documents that may be the same paper taken in twice: by what is known of them, or, where little is written, by what they look like. */
export async function duplicatesOf(manager: EntityManager, documentId: string): Promise<Duplicate[]> {
  const same = await sameInWords(manager, documentId);
  const alike = await alikeFromAfar(manager, documentId);
  return [...same, ...alike.filter(({ id }) => !same.some((each) => each.id === id))];
}

/** So alike are two scans of the same paper. */
const ALIKE = 0.88;

/** Documents of a single page with few words that look alike: notes by hand, drawings, photos. */
async function alikeFromAfar(manager: EntityManager, documentId: string): Promise<Duplicate[]> {
  const own = await lookOfSparse(manager, documentId);
  if (!own) return [];
  const others = await otherSparse(manager, documentId);
  return others
    .filter(({ look }) => likeness(own, look) >= ALIKE)
    .map(({ id, name, state, folderId }) => ({ id, name, state, folderId, why: 'the same look' }));
}
