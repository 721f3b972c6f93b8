import { EntityManager } from 'typeorm';
import { rows } from '../platform/database';

/**
 * Counts a try to come in by a pass phrase before it is known whether it is right, so that many at once are as many tries; gives nothing
 * when there were too many since the last right one or the last pause.
 * @param most tries before a pause @param since what was tried before this is forgotten
 */
export function countTry(
  manager: EntityManager,
  actorId: string,
  most: number,
  since: Date,
): Promise<{ id: string }[]> {
  return rows<{ id: string }>(
    manager,
    `update actor set tries = case when tried_at > $3 then tries + 1 else 1 end, tried_at = now()
     where id = $1 and not (tries >= $2 and coalesce(tried_at > $3, false)) returning id`,
    [actorId, most, since],
  );
}

/** Takes a key away that was made since then; gives whose it is. */
export function takeKey(manager: EntityManager, keyHash: Buffer, since: Date): Promise<{ actorId: string }[]> {
  return rows<{ actorId: string }>(
    manager,
    `delete from entry_key where key_hash = $1 and made_at > $2 returning actor_id as "actorId"`,
    [keyHash, since],
  );
}
