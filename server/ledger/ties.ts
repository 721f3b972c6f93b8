import { EntityManager, In } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { paidBy } from '@crow/core/ledger/books/paid';
import { Tie as FoundTie } from '@crow/core/ledger/matching/entry';
import { habitsOf } from '@crow/core/ledger/matching/habits';
import { matchPayments } from '@crow/core/ledger/matching/match';
import { findTransfers } from '@crow/core/ledger/matching/transfers';
import { Context } from '../platform/context';
import { Account, BookedLine, Entry, Tie, TieEntry, TieLine } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { changed, SURE } from './entries';
import { bookedLines, entriesWithPapers, forgetIdleTies, insertTies, lockTies, tiesIn } from './queries';

/** What a tie holds, to tell whether another holds the same. */
const held = ({ entries, lines }: { entries: readonly string[]; lines: readonly string[] }): string =>
  [...entries].sort().join() + '|' + [...lines].sort().join();

/** Proposes which lines of statements pay which entries, in place of what was proposed before; what was refused is not proposed again. */
export async function proposeTies({ database: { source } }: Context): Promise<void> {
  const { manager } = source;
  const [entries, lines, decided] = await Promise.all([
    entriesWithPapers(manager),
    bookedLines(manager),
    tiesIn(manager, ['made', 'refused']),
  ]);
  const made = decided.filter((tie) => tie.made);
  const lineOf = new Map(lines.map((line) => [line.id, line]));
  const paid = paidBy(
    entries,
    made.map((tie) => ({ ...tie, lines: tie.lines.flatMap((id) => lineOf.get(id) ?? []) })),
  );
  const tiedLines = new Set(made.flatMap((tie) => tie.lines));
  const open = entries.flatMap((entry) => {
    const left = entry.units - (paid.get(entry.id) ?? 0);
    return left === 0 || entry.paidIn === 'cash' ? [] : [{ ...entry, units: left }];
  });
  const all = lines.filter(({ id }) => !tiedLines.has(id));
  const refused = new Set(decided.filter((tie) => !tie.made).map(held));
  const whoOf = new Map(entries.map(({ id, who }) => [id, who]));
  const habits = habitsOf(
    made.map((tie) => ({
      who: tie.entries.flatMap((id) => whoOf.get(id) ?? []),
      lines: tie.lines.flatMap((id) => lineOf.get(id) ?? []),
    })),
  );
  // What lines say themselves to be a transfer is no payment; what only might be one is proposed where nothing else is.
  const accounts = await manager.find(Account);
  const transfers = findTransfers(all, accounts).map(({ from, to, confidence }) => ({
    ...{ entries: [], lines: [all[from].id, all[to].id], confidence },
    why: 'transfer' as const,
  }));
  const allowed = transfers.filter((tie) => !refused.has(held(tie)));
  const told = allowed.filter(({ confidence }) => confidence >= SURE);
  const free = without(all, told);
  const named = ({ entries: own, lines: those, confidence, why }: FoundTie) => ({
    entries: own.map((at) => open[at].id),
    lines: those.map((at) => free[at].id),
    confidence,
    why,
  });
  const payments = matchPayments(open, free, { habits })
    .map(named)
    .filter((tie) => !refused.has(held(tie)));
  const left = new Set(without(free, payments).map(({ id }) => id));
  const others = allowed.filter((tie) => !told.includes(tie) && tie.lines.every((id) => left.has(id)));
  const proposed = [...told, ...payments, ...others];
  await source.transaction(async (inside) => {
    await lockTies(inside);
    await inside.delete(Tie, { state: 'proposed' });
    // What was decided or taken out meanwhile: another proposal, asked for by that, follows.
    const taken = new Set((await tiesIn(inside, ['made'])).flatMap((tie) => tie.lines));
    const there = new Set((await inside.find(BookedLine, { select: { id: true } })).map(({ id }) => id));
    await insertTies(
      inside,
      proposed.filter((tie) => tie.lines.every((id) => there.has(id) && !taken.has(id))),
    );
    await announce(inside, 'ledger', null);
  });
}

/** The lines that ties do not hold. */
function without<Line extends { id: string }>(lines: readonly Line[], ties: readonly { lines: string[] }[]): Line[] {
  const held = new Set(ties.flatMap((tie) => tie.lines));
  return lines.filter(({ id }) => !held.has(id));
}

/**
 * Ties entries and lines by hand, or two lines alone as the ends of a transfer between own accounts; what was proposed for these lines goes.
 * @throws Problem 'not-found', 'line-tied', 'no-transfer'
 */
export function makeTie(
  context: Context,
  actor: ActingAs,
  { entries, lines }: { entries: string[]; lines: string[] },
): Promise<{ id: string }> {
  return context.database.source.transaction(async (manager) => {
    await lockTies(manager);
    const [own, those] = [[...new Set(entries)], [...new Set(lines)]];
    if ((await manager.countBy(Entry, { id: In(own) })) < own.length)
      throw new Problem('not-found', { what: 'The entry' });
    const found = await manager.findBy(BookedLine, { id: In(those) });
    if (found.length < those.length) throw new Problem('not-found', { what: 'The line of the statement' });
    if (own.length === 0) insistOnTransfer(found);
    const id = await tieTogether(manager, actor, { entries: own, lines: those });
    await changed(context, manager, null);
    return { id };
  });
}

/** @throws Problem 'no-transfer' when lines are not the two ends of one */
function insistOnTransfer(lines: readonly BookedLine[]): void {
  const [one, other] = lines;
  const isOne =
    lines.length === 2 &&
    one.accountId !== other.accountId &&
    one.currency === other.currency &&
    one.units + other.units === 0;
  if (!isOne) throw new Problem('no-transfer');
}

/** Makes a tie of entries and lines that there are, within a transaction that has locked ties. @returns its id @throws Problem 'line-tied' */
export async function tieTogether(
  manager: EntityManager,
  actor: ActingAs,
  { entries, lines }: { entries: readonly string[]; lines: readonly string[] },
): Promise<string> {
  await insistOnFree(manager, lines);
  await forgetIdleTies(manager, lines);
  const why = entries.length > 0 ? 'by-hand' : 'transfer';
  const { id } = await manager.save(Tie, { state: 'made', confidence: 1, why, actorId: actor.id });
  await manager.insert(
    TieEntry,
    entries.map((entryId) => ({ tieId: id, entryId })),
  );
  await manager.insert(
    TieLine,
    lines.map((lineId) => ({ tieId: id, lineId })),
  );
  await dropProposals(manager, lines);
  await record(manager, actor, 'tied', 'books', null, { entries: entries.length, lines: lines.length });
  return id;
}

/** @throws Problem 'line-tied' when one of the lines is in a tie that was made */
async function insistOnFree(manager: EntityManager, lines: readonly string[]): Promise<void> {
  const made = new Set((await tiesIn(manager, ['made'])).flatMap((tie) => tie.lines));
  if (lines.some((id) => made.has(id))) throw new Problem('line-tied');
}

async function dropProposals(manager: EntityManager, lines: readonly string[]): Promise<void> {
  const those = (await tiesIn(manager, ['proposed'])).filter((tie) => tie.lines.some((id) => lines.includes(id)));
  if (those.length > 0) await manager.delete(Tie, { id: In(those.map(({ id }) => id)) });
}

/** Makes proposed ties; those that are not proposed any more are left out. */
export function takeTies(context: Context, actor: ActingAs, ids: readonly string[]): Promise<void> {
  return context.database.source.transaction(async (manager) => {
    await lockTies(manager);
    const held = await manager.findBy(TieLine, { tieId: In([...ids]) });
    await forgetIdleTies(
      manager,
      held.map(({ lineId }) => lineId),
    );
    const { affected } = await manager.update(
      Tie,
      { id: In([...ids]), state: 'proposed' },
      { state: 'made', actorId: actor.id, at: new Date() },
    );
    await record(manager, actor, 'tied', 'books', null, { ties: affected ?? 0 });
    await changed(context, manager, null);
  });
}

/** Takes ties off. @param refuse whether they are not to be proposed again */
export function takeOffTies(context: Context, actor: ActingAs, ids: readonly string[], refuse: boolean): Promise<void> {
  return context.database.source.transaction(async (manager) => {
    await lockTies(manager);
    if (refuse)
      await manager.update(Tie, { id: In([...ids]) }, { state: 'refused', actorId: actor.id, at: new Date() });
    else await manager.delete(Tie, { id: In([...ids]) });
    await record(manager, actor, 'untied', 'books', null, { ties: ids.length });
    await changed(context, manager, null);
  });
}
