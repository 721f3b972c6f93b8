import { EntityManager, In, IsNull } from 'typeorm';
import { Entry as ShownEntry, EntryFields, Ledger, PAPER_ROLES } from '@crow/contract/ledger';
import { Problem } from '@crow/contract/problems';
import { sumOf } from '@crow/core/ledger/books/draft';
import { paidBy, worthOf } from '@crow/core/ledger/books/paid';
import { CURRENCY_OF } from '@crow/core/ledger/books/taxCodes';
import { Context } from '../platform/context';
import { Account, Category, Document, Entry, EntryPaper, EntryPart, EntryVersion } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { insistOnNotClosed, waysOf } from './books';
import { linesAsBefore } from './lineRules';
import { bookedLines, entriesWithPapers, EntryRow, tiesIn } from './queries';

/** From here on a proposed tie is called sure; see docs/decisions/0039. */
export const SURE = 0.95;

/** The whole book: entries with what is paid of them, lines of statements, and ties. */
export async function readLedger(manager: EntityManager): Promise<Ledger> {
  const [entries, lines, ties, { country }] = await Promise.all([
    entriesWithPapers(manager),
    bookedLines(manager),
    tiesIn(manager, ['proposed', 'made']),
    waysOf(manager),
  ]);
  const shownTies = ties
    .filter((tie) => tie.lines.length > 0)
    .map(({ state: _, ...tie }) => ({ ...tie, sure: tie.made || tie.confidence >= SURE }));
  const tied = new Set(shownTies.flatMap((tie) => tie.lines));
  return {
    entries: withPaid(entries, lines, shownTies, CURRENCY_OF[country]),
    lines,
    ties: shownTies,
    asBefore: await linesAsBefore(
      manager,
      lines.filter(({ id }) => !tied.has(id)),
    ),
  };
}

function withPaid(
  entries: EntryRow[],
  lines: readonly { id: string; units: number; currency: string }[],
  ties: readonly { made: boolean; entries: string[]; lines: string[]; why: string }[],
  own: string,
): ShownEntry[] {
  const lineOf = new Map(lines.map((line) => [line.id, line]));
  const made = ties.flatMap((tie) =>
    tie.made ? [{ ...tie, lines: tie.lines.flatMap((id) => lineOf.get(id) ?? []) }] : [],
  );
  const paid = paidBy(entries, made);
  const worth = worthOf(entries, made, own);
  return entries.map(({ paidIn, ...entry }) => ({
    ...entry,
    // What is paid in cash is paid at once.
    paid: paidIn === 'cash' ? entry.units : (paid.get(entry.id) ?? 0),
    worth: worth.get(entry.id) ?? null,
  }));
}

/** An entry as it is shown. @throws Problem 'not-found' */
export async function describeEntry(manager: EntityManager, id: string): Promise<ShownEntry> {
  const [row] = await entriesWithPapers(manager, [id]);
  if (!row) throw new Problem('not-found', { what: 'The entry' });
  const money = CURRENCY_OF[(await waysOf(manager)).country];
  const own = await tiesIn(manager, ['made'], id);
  if (own.length === 0) return withPaid([row], [], [], money)[0];
  const all = await entriesWithPapers(manager, [...new Set(own.flatMap(({ entries }) => entries))]);
  const lines = await bookedLines(
    manager,
    own.flatMap((each) => each.lines),
  );
  return withPaid(all, lines, own, money).find((each) => each.id === id)!;
}

/** Whether an entry adds up and names what there is. @throws Problem 'entry-sums', 'not-found' */
async function insistOnWhole(manager: EntityManager, { parts, units, accountId }: EntryFields): Promise<void> {
  if (sumOf(parts) !== units) throw new Problem('entry-sums');
  await insistOnCategories(manager, parts);
  if (accountId && !(await manager.existsBy(Account, { id: accountId })))
    throw new Problem('not-found', { what: 'The account' });
}

/** Whether shares name categories that there are. @throws Problem 'not-found' */
export async function insistOnCategories(
  manager: EntityManager,
  parts: readonly { categoryId?: string | null }[],
): Promise<void> {
  const ids = [...new Set(parts.flatMap(({ categoryId }) => categoryId ?? []))];
  if ((await manager.countBy(Category, { id: In(ids) })) < ids.length)
    throw new Problem('not-found', { what: 'The category' });
}

const plain = ({ day, due, who, what, number, currency, units, accountId, ownUnits }: EntryFields) => ({
  day,
  due,
  who,
  what,
  number,
  currency,
  units,
  accountId,
  ownUnits,
});

async function writeParts(manager: EntityManager, entryId: string, { parts }: EntryFields): Promise<void> {
  await manager.delete(EntryPart, { entryId });
  await manager.insert(
    EntryPart,
    parts.map(({ rate, ...part }, at) => ({
      ...part,
      entryId,
      number: at + 1,
      rate: rate === null ? null : String(rate),
    })),
  );
}

/** Enters something, within a transaction. @throws Problem 'entry-sums', 'not-found', 'period-closed' */
export async function enter(
  { jobs }: Pick<Context, 'jobs'>,
  manager: EntityManager,
  actor: ActingAs,
  fields: EntryFields,
): Promise<string> {
  await insistOnWhole(manager, fields);
  await insistOnNotClosed(manager, fields.day);
  const { id } = await manager.save(Entry, { ...plain(fields), madeBy: actor.id });
  await writeParts(manager, id, fields);
  await record(manager, actor, 'entered', 'entry', id, { who: fields.who });
  await changed({ jobs }, manager, id);
  return id;
}

/** Tells of a change, and has ties proposed anew. */
export async function changed(
  { jobs }: Pick<Context, 'jobs'>,
  manager: EntityManager,
  id: string | null,
): Promise<void> {
  await jobs.askOnce(manager, 'match', {});
  await announce(manager, 'ledger', id);
}

export function makeEntry(context: Context, actor: ActingAs, fields: EntryFields): Promise<ShownEntry> {
  return context.database.source.transaction(async (manager) =>
    describeEntry(manager, await enter(context, manager, actor, fields)),
  );
}

/** An entry that can be changed, locked until the transaction ends. @throws Problem 'not-found', 'entry-checked' */
async function lockEntry(manager: EntityManager, id: string): Promise<Entry> {
  const entry = await manager.findOne(Entry, { where: { id }, lock: { mode: 'for_no_key_update' } });
  if (!entry) throw new Problem('not-found', { what: 'The entry' });
  if (entry.checkedAt) throw new Problem('entry-checked', { serial: entry.serial });
  return entry;
}

/** Changes an entry; what it was is kept as a version. @throws Problem 'not-found', 'entry-checked', 'entry-changed', 'entry-sums' */
export function changeEntry(
  context: Context,
  actor: ActingAs,
  id: string,
  { revision, ...fields }: EntryFields & { revision: number },
): Promise<ShownEntry> {
  return context.database.source.transaction(async (manager) => {
    const entry = await lockEntry(manager, id);
    if (entry.revision !== revision) throw new Problem('entry-changed', { serial: entry.serial });
    await writeEntry(context, manager, actor, id, fields);
    return describeEntry(manager, id);
  });
}

/** Writes an entry, which is locked, anew, in the books in any case; what it was is kept. @throws Problem 'entry-sums', 'not-found' */
export async function writeEntry(
  context: Pick<Context, 'jobs'>,
  manager: EntityManager,
  actor: ActingAs,
  id: string,
  fields: EntryFields,
): Promise<void> {
  const entry = await lockEntry(manager, id);
  await insistOnWhole(manager, fields);
  await insistOnNotClosed(manager, entry.day, fields.day);
  await keepVersion(manager, actor, entry);
  await manager.update(Entry, { id }, { ...plain(fields), revision: entry.revision + 1, takenOutAt: null });
  await writeParts(manager, id, fields);
  await record(manager, actor, 'changed', 'entry', id, { who: fields.who });
  await changed(context, manager, id);
}

async function keepVersion(manager: EntityManager, actor: ActingAs, { id, revision }: Entry): Promise<void> {
  const [{ day, due, who, what, number, currency, units, accountId, ownUnits, parts }] = await entriesWithPapers(
    manager,
    [id],
  );
  await manager.insert(EntryVersion, {
    entryId: id,
    revision,
    actorId: actor.id,
    was: { day, due, who, what, number, currency, units, accountId, ownUnits, parts },
  });
}

/** Takes an entry out of the books; it can be put back. @throws Problem 'not-found', 'entry-checked', 'period-closed' */
export function takeOutEntry(context: Context, actor: ActingAs, id: string): Promise<void> {
  return context.database.source.transaction(async (manager) => {
    const { day } = await lockEntry(manager, id);
    await insistOnNotClosed(manager, day);
    await manager.update(Entry, { id }, { takenOutAt: new Date() });
    await record(manager, actor, 'took out', 'entry', id);
    await changed(context, manager, id);
  });
}

/** @throws Problem 'not-found' */
export function putBackEntry(context: Context, actor: ActingAs, id: string): Promise<ShownEntry> {
  return context.database.source.transaction(async (manager) => {
    const { day } = await lockEntry(manager, id);
    await insistOnNotClosed(manager, day);
    await manager.update(Entry, { id }, { takenOutAt: null });
    await record(manager, actor, 'put back', 'entry', id);
    await changed(context, manager, id);
    return describeEntry(manager, id);
  });
}

/** Says that entries are checked, or not any more. @throws Problem 'not-found' when one of them is not in the books, 'period-closed' */
export function checkEntries(
  { database: { source } }: Context,
  actor: ActingAs,
  ids: readonly string[],
  checked: boolean,
): Promise<void> {
  return source.transaction(async (manager) => {
    const those = await manager.find(Entry, {
      where: { id: In([...ids]), takenOutAt: IsNull() },
      lock: { mode: 'for_no_key_update' },
      order: { id: 'ASC' },
    });
    if (those.length < new Set(ids).size) throw new Problem('not-found', { what: 'An entry' });
    if (!checked) await insistOnNotClosed(manager, ...those.map(({ day }) => day));
    const turned = those.filter(({ checkedAt }) => Boolean(checkedAt) !== checked);
    await manager.update(
      Entry,
      { id: In(turned.map(({ id }) => id)) },
      checked ? { checkedAt: new Date(), checkedBy: actor.id } : { checkedAt: null, checkedBy: null },
    );
    for (const { id } of turned) await record(manager, actor, checked ? 'checked' : 'unlocked', 'entry', id);
    await announce(manager, 'ledger', null);
  });
}

/** What an entry was before, the latest first. */
export async function entryVersions(
  manager: EntityManager,
  id: string,
): Promise<{ revision: number; until: string; by: string; was: EntryFields }[]> {
  const all = await manager.find(EntryVersion, {
    where: { entryId: id },
    relations: { actor: true },
    order: { revision: 'DESC' },
  });
  return all.map(({ revision, until, actor, was }) => ({
    revision,
    until: until.toISOString(),
    by: actor!.name,
    was,
  }));
}

/** Attaches a paper to an entry; it comes off the one that it was at. @throws Problem 'not-found' */
export function attachPaper(
  context: Context,
  actor: ActingAs,
  entryId: string,
  { documentId, role }: { documentId: string; role: (typeof PAPER_ROLES)[number] },
): Promise<ShownEntry> {
  return context.database.source.transaction(async (manager) => {
    await attach(context, manager, actor, { entryId, documentId, role });
    return describeEntry(manager, entryId);
  });
}

/** Attaches several papers, each to the entry that it proves. @throws Problem 'not-found' */
export function attachPapers(
  context: Context,
  actor: ActingAs,
  pairs: readonly { documentId: string; entryId: string }[],
): Promise<void> {
  return context.database.source.transaction(async (manager) => {
    for (const pair of inOrder(pairs)) await attach(context, manager, actor, { ...pair, role: 'proof' });
  });
}

/** By their entries, so that two who do this at once don't wait for each other. */
const inOrder = <Pair extends { entryId: string }>(pairs: readonly Pair[]): Pair[] =>
  [...pairs].sort((a, b) => (a.entryId < b.entryId ? -1 : 1));

async function attach(
  context: Context,
  manager: EntityManager,
  actor: ActingAs,
  { entryId, documentId, role }: { entryId: string; documentId: string; role: (typeof PAPER_ROLES)[number] },
): Promise<void> {
  await lockThere(manager, entryId);
  if (!(await manager.existsBy(Document, { id: documentId, binnedAt: IsNull() })))
    throw new Problem('not-found', { what: 'The document' });
  await manager.upsert(EntryPaper, { documentId, entryId, role, entered: false }, ['documentId']);
  await record(manager, actor, 'attached a paper to', 'entry', entryId, { documentId });
  await changed(context, manager, entryId);
  await announce(manager, 'document', documentId);
}

/** An entry, checked or not: what proves it may come when everything else is done. @throws Problem 'not-found' */
async function lockThere(manager: EntityManager, id: string): Promise<void> {
  const there = await manager.findOne(Entry, { where: { id }, lock: { mode: 'for_no_key_update' } });
  if (!there || there.takenOutAt) throw new Problem('not-found', { what: 'The entry' });
}

/** @throws Problem 'not-found' */
export function detachPaper(
  context: Context,
  actor: ActingAs,
  entryId: string,
  documentId: string,
): Promise<ShownEntry> {
  return context.database.source.transaction(async (manager) => {
    await detach(context, manager, actor, { entryId, documentId });
    return describeEntry(manager, entryId);
  });
}

/** Takes several papers off their entries. @throws Problem 'not-found' */
export function detachPapers(
  context: Context,
  actor: ActingAs,
  pairs: readonly { documentId: string; entryId: string }[],
): Promise<void> {
  return context.database.source.transaction(async (manager) => {
    for (const pair of inOrder(pairs)) await detach(context, manager, actor, pair);
  });
}

async function detach(
  context: Context,
  manager: EntityManager,
  actor: ActingAs,
  { entryId, documentId }: { entryId: string; documentId: string },
): Promise<void> {
  await lockThere(manager, entryId);
  await manager.delete(EntryPaper, { documentId, entryId });
  await record(manager, actor, 'took a paper off', 'entry', entryId, { documentId });
  await changed(context, manager, entryId);
  await announce(manager, 'document', documentId);
}
