import { EntityManager, In, IsNull, MoreThan, Not } from 'typeorm';
import { JOINING, NewDevice, NewPerson, Person } from '@crow/contract/people';
import { Problem } from '@crow/contract/problems';
import { Role } from '@crow/contract/roles';
import { Actor, EntryKey, Folder, Session } from '../platform/entities';
import { Asking, record } from '../platform/history';
import { announce } from '../platform/live';
import { hashPhrase, isPhrase } from '../platform/phrases';
import { pathsOfFolders } from '../platform/queries';
import { countTry, deleteDevicesThatNeverCame } from './queries';
import { activeSince, makeKey, openSession } from './sessions';

/** After so many wrong pass phrases nobody comes in under that name for a while. */
const MOST_TRIES = 5;
const SHUT_MS = 15 * 60_000;
/** Hashed for a name that nobody has, so that it takes as long as for one that somebody has. */
let nobodys: Promise<string> | undefined;

/** Who may come in, the owner first, with the browsers that are in. @param own the session that asks */
export async function listPeople(manager: EntityManager, own: string): Promise<Person[]> {
  const people = await manager.find(Actor, {
    where: { leftAt: IsNull(), role: Not('program') },
    relations: { folders: true },
    order: { name: 'ASC' },
  });
  people.sort((a, b) => Number(b.role === 'owner') - Number(a.role === 'owner'));
  const sessions = await manager.find(Session, {
    where: { usedAt: MoreThan(activeSince()) },
    order: { usedAt: 'DESC' },
  });
  const paths = new Map((await pathsOfFolders(manager)).map(({ id, path }) => [id, path]));
  return people.map(({ id, name, role, passHash, allFolders, folders = [] }) => ({
    id,
    name,
    role,
    byPhrase: passHash !== null,
    allFolders,
    folders: folders.map((folder) => ({ id: folder.id, path: paths.get(folder.id)! })),
    sessions: sessions
      .filter(({ actorId }) => actorId === id)
      .map((session) => ({
        id: session.id,
        browser: session.browser,
        device: session.device,
        since: session.createdAt.toISOString(),
        used: session.usedAt.toISOString(),
        own: session.id === own,
      })),
  }));
}

/** Lets somebody come in by name and pass phrase. @throws Problem 'name-taken', 'not-found' when a folder is not there */
export async function addPerson(
  manager: EntityManager,
  actor: Asking,
  { name, role, passPhrase, allFolders, folders }: NewPerson,
): Promise<void> {
  const passHash = await hashPhrase(passPhrase);
  await manager.transaction(async (inside) => {
    await insistOnFreeName(inside, name);
    const granted = await grantable(inside, role, { allFolders, folders });
    const { id } = await inside.save(Actor, inside.create(Actor, { name, role, passHash, ...granted }));
    await record(inside, actor, 'added', 'person', id, { name, role });
    await announce(inside, 'people', null);
  });
}

/** Which folders a reader sees. @throws Problem 'not-found' */
export async function changeFolders(
  manager: EntityManager,
  actor: Asking,
  id: string,
  wanted: { allFolders: boolean; folders: string[] },
): Promise<void> {
  await manager.transaction(async (inside) => {
    const person = await joined(inside, id);
    if (person.role !== 'reader') throw new Problem('not-found', { what: 'This reader' });
    await inside.save(Actor, { ...person, ...(await grantable(inside, 'reader', wanted)) });
    await record(inside, actor, 'changed the folders of', 'person', id, { name: person.name });
    await announce(inside, 'people', null);
  });
}

async function grantable(
  manager: EntityManager,
  role: Role,
  { allFolders, folders }: { allFolders: boolean; folders: string[] },
): Promise<Pick<Actor, 'allFolders'> & { folders: Folder[] }> {
  if (role !== 'reader') return { allFolders: false, folders: [] };
  const found = await manager.findBy(Folder, { id: In(folders) });
  if (found.length < new Set(folders).size) throw new Problem('not-found', { what: 'The folder' });
  return { allFolders, folders: allFolders ? [] : found };
}

/** @throws Problem 'name-taken' */
async function insistOnFreeName(manager: EntityManager, name: string): Promise<void> {
  if (await personNamed(manager, name)) throw new Problem('name-taken', { name });
}

/** A code lets a device in for so long. */
const CODE_LASTS_MS = 5 * 60_000;

/**
 * Makes a key that lets a device in, once, within five minutes: as the person named, or as a device of its own that only captures.
 * @throws Problem 'not-found', 'name-taken'
 */
export async function letDeviceIn(
  manager: EntityManager,
  actor: Asking,
  { name, person }: NewDevice,
): Promise<{ key: string; goodUntil: Date }> {
  return manager.transaction(async (inside) => {
    const goodUntil = new Date(Date.now() + CODE_LASTS_MS);
    const actorId = person ? (await asWhom(inside, person)).id : await newDevice(inside, name);
    const key = await makeKey(inside, { actorId, device: name, goodUntil });
    await record(inside, actor, 'made a code for', 'session', null, { device: name });
    await announce(inside, 'people', null);
    return { key, goodUntil };
  });
}

/** Whoever is in that a device can come in as. */
async function asWhom(manager: EntityManager, id: string): Promise<Actor> {
  const person = await manager.findOneBy(Actor, { id, leftAt: IsNull(), role: In(['owner', ...JOINING]) });
  if (!person) throw new Problem('not-found', { what: 'This person' });
  return person;
}

async function newDevice(manager: EntityManager, name: string): Promise<string> {
  // Devices for which a code was made that nobody used.
  await deleteDevicesThatNeverCame(manager);
  await insistOnFreeName(manager, name);
  return (await manager.save(Actor, manager.create(Actor, { name, role: 'device' }))).id;
}

/** @throws Problem 'not-found' */
export async function changePassPhrase(
  manager: EntityManager,
  actor: Asking,
  id: string,
  passPhrase: string,
): Promise<void> {
  const passHash = await hashPhrase(passPhrase);
  await manager.transaction(async (inside) => {
    const { name } = await joined(inside, id);
    await inside.update(Actor, { id }, { passHash, tries: 0, triedAt: null });
    await inside.delete(Session, { actorId: id });
    await inside.delete(EntryKey, { actorId: id });
    await record(inside, actor, 'gave another pass phrase', 'person', id, { name });
    await announce(inside, 'people', null);
  });
}

/** @throws Problem 'not-found' */
export async function removePerson(manager: EntityManager, actor: Asking, id: string): Promise<void> {
  await manager.transaction(async (inside) => {
    const person = await inside.findOneBy(Actor, { id, leftAt: IsNull(), role: In([...JOINING, 'device']) });
    if (!person) throw new Problem('not-found', { what: 'This person' });
    await inside.update(Actor, { id }, { leftAt: new Date(), passHash: null });
    await inside.delete(Session, { actorId: id });
    await inside.delete(EntryKey, { actorId: id });
    await record(inside, actor, 'removed', 'person', id, { name: person.name });
    await announce(inside, 'people', null);
  });
}

/** @throws Problem 'not-found' */
export async function endSession(manager: EntityManager, actor: Asking, id: string): Promise<void> {
  await manager.transaction(async (inside) => {
    const session = await inside.findOne(Session, { where: { id }, relations: { actor: true } });
    const { affected } = await inside.delete(Session, { id });
    if (!session || !affected) throw new Problem('not-found', { what: 'This session' });
    const { browser, device } = session;
    await record(inside, actor, 'ended', 'session', id, { name: session.actor!.name, browser, device });
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
  nobodys ??= hashPhrase('nobody comes in by this');
  const isRight = await isPhrase(person?.passHash ?? (await nobodys), passPhrase);
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

/** Somebody whom the owner let in, by name. @throws Problem 'not-found' */
async function joined(manager: EntityManager, id: string): Promise<Actor> {
  const person = await manager.findOneBy(Actor, { id, leftAt: IsNull(), passHash: Not(IsNull()) });
  if (!person) throw new Problem('not-found', { what: 'This person' });
  return person;
}
