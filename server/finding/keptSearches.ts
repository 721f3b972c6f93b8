import { EntityManager } from 'typeorm';
import { KeptSearch as Shown } from '@crow/contract/finding';
import { Problem } from '@crow/contract/problems';
import { insertNew } from '../platform/database';
import { KeptSearch } from '../platform/entities';
import { ActingAs } from '../platform/history';
import { announce } from '../platform/live';

/** The searches that somebody keeps, in the order of the alphabet. */
export async function keptSearches(manager: EntityManager, actor: ActingAs): Promise<Shown[]> {
  const found = await manager.find(KeptSearch, { where: { actorId: actor.id }, order: { query: 'asc' } });
  return found.map(({ id, query }) => ({ id, query }));
}

/** Keeps a search; one that is kept already stays as it is. */
export async function keepSearch(manager: EntityManager, actor: ActingAs, query: string): Promise<Shown[]> {
  await insertNew(manager, KeptSearch, { actorId: actor.id, query });
  await announce(manager, 'search', null);
  return keptSearches(manager, actor);
}

/** Keeps a search of one's own no longer. @throws Problem 'not-found' */
export async function forgetSearch(manager: EntityManager, actor: ActingAs, id: string): Promise<void> {
  const { affected } = await manager.delete(KeptSearch, { id, actorId: actor.id });
  if (affected === 0) throw new Problem('not-found', { what: 'The search' });
  await announce(manager, 'search', null);
}
