import { EntityManager } from 'typeorm';
import { Overview } from '@crow/contract/settings';
import { rows } from './platform/database';
import { CHANGED_ON_DISK } from './shelf/shelfChanges';

/** How much waits at each station, and how much is filed. */
export async function whatWaits(manager: EntityManager): Promise<Omit<Overview, 'watched' | 'strangers' | 'troubles'>> {
  const [counts] = await rows<Omit<Overview, 'watched' | 'strangers' | 'troubles'>>(
    manager,
    `select
       (select count(*)::int from stack where state = 'open' and binned_at is null) as stacks,
       (select count(*)::int from source_file f join stack s on s.id = f.stack_id where f.state = 'waiting' and s.binned_at is null) as arriving,
       (select count(*)::int from document where state = 'check' and binned_at is null) as check,
       (select count(*)::int from document where state = 'filing' and binned_at is null) as filing,
       (select count(*)::int from document where state = 'filed' and binned_at is null) as filed,
       (select count(*)::int from page p join stack s on s.id = p.stack_id where p.reading = 'waiting' and s.binned_at is null) as unread,
       (select count(*)::int from document where binned_at is null and problem->>'code' = any($1)) as "changedOnDisk"`,
    [CHANGED_ON_DISK],
  );
  return counts;
}
