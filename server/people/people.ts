import { hash, verify } from '@node-rs/argon2';
import { EntityManager, IsNull, MoreThan, Not } from 'typeorm';
import { NewPerson, Person } from '@crow/contract/people';
import { Problem } from '@crow/contract/problems';
import { Actor, Session } from '../platform/entities';
import { Asking, record } from '../platform/history';
import { announce } from '../platform/live';
import { countTry } from './queries';
import { activeSince, openSession } from './sessions';

/** After so many wrong pass phrases nobody comes in under that name for a while. */
const MOST_TRIES = 5;
const SHUT_MS = 15 * 60_000;
/**
 * What a pass phrase costs to try (argon2id, RFC 9106; 19 MiB and two passes, as OWASP has it): what is in the database is of little use to
 * whoever gets a copy of it.
 */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

/** Hashed for a name that nobody has, so that it takes as long as for one that somebody has. */
let nobodys: Promise<string> | undefined;

/** Who may come in, the owner first, with the browsers that are in. @param own the session that asks */
export async function listPeople(manager: EntityManager, own: string): Promise<Person[]> {
  const people = await manager.find(Actor, {
    where: { leftAt: IsNull(), role: Not('program') },
    order: { role: 'DESC', name: 'ASC' },
  });
  const sessions = await manager.find(Session, {
    where: { usedAt: MoreThan(activeSince()) },
    order: { usedAt: 'DESC' },
  });
  return people.map(({ id, name, role }) => ({
    id,
    name,
    role,
    sessions: sessions
      .filter(({ actorId }) => actorId === id)
      .map((session) => ({
        id: session.id,
        browser: session.browser,
        since: session.createdAt.toISOString(),
        used: session.usedAt.toISOString(),
        own: session.id === own,
      })),
  }));
}

/** Lets somebody come in by name and pass phrase. @throws Problem 'name-taken' */
export async function addPerson(
  manager: EntityManager,
  actor: Asking,
  { name, role, passPhrase }: NewPerson,
): Promise<Person> {
  const passHash = await hash(passPhrase, COST);
  return manager.transaction(async (inside) => {
    if (await personNamed(inside, name)) throw new Problem('name-taken', { name });
    const { id } = await inside.save(Actor, inside.create(Actor, { name, role, passHash }));
    await record(inside, actor, 'added', 'person', id, { name, role });
    await announce(inside, 'people', null);
    return { id, name, role, sessions: [] };
  });
}

/** @throws Problem 'not-found' */
export async function changePassPhrase(
  manager: EntityManager,
  actor: Asking,
  id: string,
  passPhrase: string,
): Promise<void> {
  const passHash = await hash(passPhrase, COST);
  await manager.transaction(async (inside) => {
    await inside.update(Actor, { id: (await joined(inside, id)).id }, { passHash, tries: 0, triedAt: null });
    await inside.delete(Session, { actorId: id });
    await record(inside, actor, 'gave another pass phrase', 'person', id);
    await announce(inside, 'people', null);
  });
}

/** @throws Problem 'not-found' */
export async function removePerson(manager: EntityManager, actor: Asking, id: string): Promise<void> {
  await manager.transaction(async (inside) => {
    await inside.update(Actor, { id: (await joined(inside, id)).id }, { leftAt: new Date(), passHash: null });
    await inside.delete(Session, { actorId: id });
    await record(inside, actor, 'removed', 'person', id);
    await announce(inside, 'people', null);
  });
}

/** @throws Problem 'not-found' */
export async function endSession(manager: EntityManager, actor: Asking, id: string): Promise<void> {
  await manager.transaction(async (inside) => {
    const { affected } = await inside.delete(Session, { id });
    if (!affected) throw new Problem('not-found', { what: 'This session' });
    await record(inside, actor, 'ended', 'session', id);
    await announce(inside, 'people', null);
  });
}

/** Whether there is anybody who comes in by name. */
export function isAnybodyNamed(manager: EntityManager): Promise<boolean> {
  return manager.existsBy(Actor, { leftAt: IsNull(), passHash: Not(IsNull()) });
}

/**
 * Lets a browser in by name and pass phrase.
 * @returns the session's secret; nothing when name or pass phrase are wrong
 * @throws Problem 'too-many-tries' when they were wrong too often: then the right ones are refused as well, for a while
 */
export async function comeIn(
  manager: EntityManager,
  { name, passPhrase, browser }: { name: string; passPhrase: string; browser: string },
): Promise<string | undefined> {
  const person = await personNamed(manager, name);
  if (person && (await countTry(manager, person.id, MOST_TRIES, new Date(Date.now() - SHUT_MS))).length === 0)
    throw new Problem('too-many-tries');
  nobodys ??= hash('nobody comes in by this', COST);
  const isRight = await verify(person?.passHash ?? (await nobodys), passPhrase);
  if (!person?.passHash || !isRight) return undefined;
  return manager.transaction(async (inside) => {
    await inside.update(Actor, { id: person.id }, { tries: 0, triedAt: null });
    return openSession(inside, person.id, browser);
  });
}

function personNamed(manager: EntityManager, name: string): Promise<Actor | null> {
  return manager
    .createQueryBuilder(Actor, 'actor')
    .where('lower(actor.name) = lower(:name) and actor.leftAt is null', { name: name.trim() })
    .getOne();
}

/** Somebody whom the owner let in. @throws Problem 'not-found' */
async function joined(manager: EntityManager, id: string): Promise<Actor> {
  const person = await manager.findOneBy(Actor, { id, leftAt: IsNull(), passHash: Not(IsNull()) });
  if (!person) throw new Problem('not-found', { what: 'This person' });
  return person;
}
