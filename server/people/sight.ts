import { EntityManager } from 'typeorm';
import { Seen } from '@crow/contract/endpoint';
import { Problem } from '@crow/contract/problems';
import { Actor, Stack } from '../platform/entities';
import { Sight } from '../platform/sight';
import { foldersGranted, isFiled, isPageFiled, isPageOfStackBegunBy } from './queries';

/** What of everything somebody sees: a device what it captured, a reader what is filed where they were let in, everybody else all. */
export async function sightOf(manager: EntityManager, { id, role, allFolders }: Actor): Promise<Sight> {
  if (role === 'device') return { of: 'own stacks', actorId: id };
  if (role !== 'reader') return { of: 'everything' };
  const folders = allFolders ? null : (await foldersGranted(manager, id)).map((folder) => folder.id);
  return { of: 'what is filed', folders };
}

const WORDS: Record<Seen, string> = {
  stack: 'The stack',
  page: 'The page',
  document: 'The document',
  folder: 'The folder',
};

/** @throws Problem 'not-found' when somebody does not see it, whether it is there or not */
export async function insistOnSight(manager: EntityManager, sight: Sight, of: Seen, id: string): Promise<void> {
  if (!(await sees(manager, sight, of, id))) throw new Problem('not-found', { what: WORDS[of] });
}

async function sees(manager: EntityManager, sight: Sight, of: Seen, id: string): Promise<boolean> {
  if (sight.of === 'everything') return true;
  if (sight.of === 'own stacks') {
    if (of === 'stack') return manager.existsBy(Stack, { id, actorId: sight.actorId, state: 'open' });
    return of === 'page' && isPageOfStackBegunBy(manager, id, sight.actorId);
  }
  if (of === 'document') return isFiled(manager, id, sight.folders);
  if (of === 'page') return isPageFiled(manager, id, sight.folders);
  return of === 'folder' && (sight.folders === null || sight.folders.includes(id));
}
