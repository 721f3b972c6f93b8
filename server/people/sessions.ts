import { createHash, randomBytes } from 'node:crypto';
import { EntityManager, LessThan, MoreThan } from 'typeorm';
import { Asking, record } from '../platform/history';
import { Actor, EntryKey, Session } from '../platform/entities';
import { announce } from '../platform/live';
import { takeKey } from './queries';
import { sightOf } from './sight';

const KEY_BYTES = 32;
/** Of a key that is good for minutes: a code that holds it is coarser, and easier to read from a screen. */
const CODE_BYTES = 16;
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
  const { id } = await manager.findOneByOrFail(Actor, { role: 'owner' });
  return makeKey(manager, { actorId: id, device: '', goodUntil: new Date(Date.now() + KEY_LASTS_MS) });
}

/** Makes a key with which one browser is let in as somebody, once. @param device what that browser's device is called */
export async function makeKey(
  manager: EntityManager,
  wanted: { actorId: string; device: string; goodUntil: Date },
): Promise<string> {
  const key = randomBytes(wanted.device ? CODE_BYTES : KEY_BYTES).toString('base64url');
  await manager.delete(EntryKey, { goodUntil: LessThan(new Date()) });
  await manager.insert(EntryKey, { keyHash: hashOf(key), ...wanted });
  return key;
}

/** Lets a browser in that brings a key. @returns the session's secret; nothing when the key is none, or none any more */
export async function letIn(manager: EntityManager, key: string, browser: string): Promise<string | undefined> {
  return manager.transaction(async (inside) => {
    const [found] = await takeKey(inside, hashOf(key));
    if (!found) return undefined;
    return openSession(inside, found.actorId, browser, found.device);
  });
}

/** @returns the new session's secret */
export async function openSession(
  manager: EntityManager,
  actorId: string,
  browser: string,
  device = '',
): Promise<string> {
  const secret = randomBytes(KEY_BYTES).toString('base64url');
  await manager.delete(Session, { usedAt: LessThan(activeSince()) });
  await manager.insert(Session, { actorId, tokenHash: hashOf(secret), browser, device });
  await record(manager, { id: actorId }, 'came in', 'session', null, { browser, device });
  await announce(manager, 'people', null);
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
  return { asking: { id, name, role, sight: await sightOf(manager, found.actor) }, sessionId: found.id };
}
