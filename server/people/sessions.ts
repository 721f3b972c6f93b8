import { createHash, randomBytes } from 'node:crypto';
import { EntityManager, LessThan, MoreThan } from 'typeorm';
import { Asking, record } from '../platform/history';
import { Actor, EntryKey, Session } from '../platform/entities';
import { takeKey } from './queries';

const KEY_BYTES = 32;
const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** A key that nobody used is worth nothing after this. */
const KEY_LASTS_MS = DAY_MS;
/** A browser that was not seen for so long has to be let in again. */
const SESSION_LASTS_MS = 90 * DAY_MS;
/** When a session was last used is written down this exactly. */
const USED_EXACTLY_MS = HOUR_MS;

/** Sessions that were used before this have ended. */
export const activeSince = () => before(SESSION_LASTS_MS);
const before = (milliseconds: number) => new Date(Date.now() - milliseconds);

function hashOf(secret: string): Buffer {
  return createHash('sha256').update(secret).digest();
}

/** Makes a key with which one browser is let in, once, as the owner. */
export async function makeEntryKey(manager: EntityManager): Promise<string> {
  const key = randomBytes(KEY_BYTES).toString('base64url');
  await manager.delete(EntryKey, { madeAt: LessThan(before(KEY_LASTS_MS)) });
  const { id } = await manager.findOneByOrFail(Actor, { role: 'owner' });
  await manager.insert(EntryKey, { keyHash: hashOf(key), actorId: id });
  return key;
}

/** Lets a browser in that brings a key. @returns the session's secret; nothing when the key is none, or none any more */
export async function letIn(manager: EntityManager, key: string, browser: string): Promise<string | undefined> {
  return manager.transaction(async (inside) => {
    const [found] = await takeKey(inside, hashOf(key), before(KEY_LASTS_MS));
    if (!found) return undefined;
    return openSession(inside, found.actorId, browser);
  });
}

/** @returns the new session's secret */
export async function openSession(manager: EntityManager, actorId: string, browser: string): Promise<string> {
  const secret = randomBytes(KEY_BYTES).toString('base64url');
  await manager.delete(Session, { usedAt: LessThan(activeSince()) });
  await manager.insert(Session, { actorId, tokenHash: hashOf(secret), browser });
  await record(manager, { id: actorId }, 'let in', 'session', null);
  return secret;
}

/** Whose session it is that a browser brings the secret of; nobody's when it is none, or has ended. */
export async function actorOf(
  manager: EntityManager,
  secret: string,
): Promise<{ asking: Asking; sessionId: string } | undefined> {
  const found = await manager.findOne(Session, {
    where: { tokenHash: hashOf(secret), usedAt: MoreThan(activeSince()) },
    relations: { actor: true },
  });
  if (!found?.actor || found.actor.leftAt) return undefined;
  if (found.usedAt < before(USED_EXACTLY_MS)) await manager.update(Session, { id: found.id }, { usedAt: new Date() });
  const { id, name, role } = found.actor;
  return { asking: { id, name, role }, sessionId: found.id };
}
