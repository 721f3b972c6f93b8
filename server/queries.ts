import { EntityManager } from 'typeorm';
import { Overview } from '@crow/contract/settings';
import { rows } from './platform/database';
import { foldersOf, Sight } from './platform/sight';
import { CHANGED_ON_DISK } from './shelf/shelfChanges';

/** Stacks, by the alias s, that are seen: all, or those that $3 began. */
const BEGUN = '($2 or s.actor_id = $3)';
/** Documents that are seen: all, or those in the folders $4. */
const FILED = '($5 and ($4::uuid[] is null or folder_id = any($4)))';

/** How much waits at each station, and how much is filed, of what somebody sees. */
export async function whatWaits(
  manager: EntityManager,
  sight: Sight,
): Promise<Omit<Overview, 'watched' | 'strangers' | 'troubles'>> {
  const [counts] = await rows<Omit<Overview, 'watched' | 'strangers' | 'troubles'>>(
    manager,
    `select
       (select count(*)::int from stack s where state = 'open' and binned_at is null and ${BEGUN}) as stacks,
       (select count(*)::int from source_file f join stack s on s.id = f.stack_id where f.state = 'waiting' and s.binned_at is null and ${BEGUN}) as arriving,
       (select count(*)::int from document where state = 'check' and binned_at is null and $2) as check,
       (select count(*)::int from document where state = 'filing' and binned_at is null and ${FILED}) as filing,
       (select count(*)::int from document where state = 'filed' and binned_at is null and ${FILED}) as filed,
       (select count(*)::int from page p join stack s on s.id = p.stack_id where p.reading = 'waiting' and s.binned_at is null and ${BEGUN}) as unread,
       (select count(*)::int from tie where state = 'proposed' and $2) as ties,
       (select count(*)::int from document where binned_at is null and problem->>'code' = any($1) and $2) as "changedOnDisk"`,
    [
      CHANGED_ON_DISK,
      sight.of === 'everything',
      sight.of === 'own stacks' ? sight.actorId : null,
      foldersOf(sight),
      sight.of !== 'own stacks',
    ],
  );
  return counts;
}
