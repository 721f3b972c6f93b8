import { EntityManager } from 'typeorm';
import { rows } from '../platform/database';

/** Takes a key away that was made since then; gives whose it is. */
export function takeKey(manager: EntityManager, keyHash: Buffer, since: Date): Promise<{ actorId: string }[]> {
  return rows<{ actorId: string }>(
    manager,
    `delete from entry_key where key_hash = $1 and made_at > $2 returning actor_id as "actorId"`,
    [keyHash, since],
  );
}
