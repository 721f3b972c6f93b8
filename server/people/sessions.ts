import { createHash, randomBytes } from 'node:crypto';
import { EntityManager } from 'typeorm';
import { rows } from '../platform/database';
import { Asking, record } from '../platform/history';

const KEY_BYTES = 32;
/** A key that nobody used is worth nothing after this. */
const KEY_LASTS = '1 day';
/** A browser that was not seen for so long has to be let in again. */
const SESSION_LASTS = '90 days';
/** When a session was last used is written down this exactly. */
const USED_EXACTLY = '1 hour';

function hashOf(secret: string): Buffer {
  return createHash('sha256').update(secret).digest();
}

/** Makes a key with which one browser is let in, once, as the owner. */
export async function makeEntryKey(manager: EntityManager): Promise<string> {
  const key = randomBytes(KEY_BYTES).toString('base64url');
  await manager.query(`delete from entry_key where made_at < now() - interval '${KEY_LASTS}'`);
  const [{ id }] = await rows<{ id: string }>(manager, `select id from actor where role = 'owner'`);
  await manager.query('insert into entry_key (key_hash, actor_id) values ($1, $2)', [hashOf(key), id]);
  return key;
}

/** Lets a browser in that brings a key. @returns the session's secret; nothing when the key is none, or none any more */
export async function letIn(manager: EntityManager, key: string): Promise<string | undefined> {
  return manager.transaction(async (inside) => {
    const [found] = await rows<{ actor_id: string }>(
      inside,
      `delete from entry_key where key_hash = $1 and made_at > now() - interval '${KEY_LASTS}' returning actor_id`,
      [hashOf(key)],
    );
    if (!found) return undefined;
    const secret = randomBytes(KEY_BYTES).toString('base64url');
    await inside.query(`delete from session where used_at < now() - interval '${SESSION_LASTS}'`);
    await inside.query('insert into session (actor_id, token_hash) values ($1, $2)', [found.actor_id, hashOf(secret)]);
    await record(inside, { id: found.actor_id }, 'let in', 'session', null);
    return secret;
  });
}

/** Whose session it is that a browser brings the secret of; nobody's when it is none, or has ended. */
export async function actorOf(manager: EntityManager, secret: string): Promise<Asking | undefined> {
  const [found] = await rows<Asking & { sessionId: string; stale: boolean }>(
    manager,
    `select a.id, a.name, a.role, s.id as "sessionId", s.used_at < now() - interval '${USED_EXACTLY}' as stale
     from session s join actor a on a.id = s.actor_id
     where s.token_hash = $1 and s.used_at > now() - interval '${SESSION_LASTS}'`,
    [hashOf(secret)],
  );
  if (!found) return undefined;
  if (found.stale) await manager.query('update session set used_at = now() where id = $1', [found.sessionId]);
  return { id: found.id, name: found.name, role: found.role };
}
