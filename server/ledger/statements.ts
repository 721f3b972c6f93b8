import { EntityManager, In, IsNull } from 'typeorm';
import { StatementFile as ShownFile, StatementRead } from '@crow/contract/ledger';
import { Problem } from '@crow/contract/problems';
import { CURRENCY_OF } from '@crow/core/ledger/books/taxCodes';
import { linesAsPaid } from '@crow/core/ledger/matching/turned';
import { balanceGaps } from '@crow/core/ledger/statements/balances';
import { paperStatement } from '@crow/core/ledger/statements/paperStatement';
import { alreadyThere } from '@crow/core/ledger/statements/once';
import { Statement, StatementLine } from '@crow/core/ledger/statements/statement';
import { storeBytes } from '../platform/blobs';
import { Context } from '../platform/context';
import { Account, BookedLine, Document, Fact, StatementFile } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { waysOf } from './books';
import { changed } from './entries';
import { entriesWithPapers, lockAccount, madeTiesAtStatement, papersWithBookings } from './queries';

/** No statement is larger. */
const MOST_BYTES = 50 * 1024 ** 2;
const SAMPLE = 8;
const AT_ONCE = 1000;

export interface StatementWish {
  name: string;
  /** Whether it is only looked at. */
  look?: boolean;
  accountId?: string;
  /** Whether it is of an account that is not there yet. */
  another?: boolean;
  turned?: boolean;
}

/**
 * Reads a statement's file and says what is in it; unless it is only looked at, its lines that are not in the books yet are taken in.
 * @throws Problem 'statement-not-read', 'not-found', 'file-empty'
 */
export async function takeInStatement(
  context: Context,
  actor: ActingAs,
  wish: StatementWish,
  bytes: AsyncIterable<Uint8Array>,
): Promise<StatementRead> {
  const file = await gathered(bytes, (detail) => new Problem('statement-not-read', { name: wish.name, detail }));
  const statement = await context.heavy.statement(wish.name, file);
  const blob = wish.look ? undefined : await storeBytes(context.database, file);
  return context.database.source.transaction((inside) =>
    takeInLines(context, inside, actor, wish, statement, blob && { blobId: blob.id, documentId: null }),
  );
}

/**
 * Says what is in a paper that is a statement, as it was read; unless it is only looked at, its lines that are not in the books yet are taken in.
 * @throws Problem 'not-found', 'statement-not-read' when no bookings were read on it
 */
export function takeInPaper(
  context: Context,
  actor: ActingAs,
  documentId: string,
  wish: Omit<StatementWish, 'name'>,
): Promise<StatementRead> {
  return context.database.source.transaction(async (inside) => {
    const document = await inside.findOneBy(Document, { id: documentId, binnedAt: IsNull() });
    if (!document?.pdfBlobId) throw new Problem('not-found', { what: 'The paper' });
    const facts = await inside.findBy(Fact, { documentId });
    const says = Object.fromEntries(facts.map(({ name, value }) => [name, value]));
    const statement = paperStatement(document.bookings ?? [], says, CURRENCY_OF[(await waysOf(inside)).country]);
    if (statement.lines.length === 0)
      throw new Problem('statement-not-read', { name: document.name, detail: 'No bookings were read on it.' });
    const kept = wish.look ? undefined : { blobId: document.pdfBlobId, documentId };
    return takeInLines(context, inside, actor, { ...wish, name: document.name }, statement, kept);
  });
}

/** Papers on the shelf that are statements and were not taken in yet. */
export const statementsAmongPapers = (manager: EntityManager): ReturnType<typeof papersWithBookings> =>
  papersWithBookings(manager);

/** @param kept where its bytes are; nothing while it is only looked at */
async function takeInLines(
  context: Context,
  inside: EntityManager,
  actor: ActingAs,
  wish: StatementWish,
  statement: Statement,
  kept: { blobId: string; documentId: string | null } | undefined,
): Promise<StatementRead> {
  const account = wish.another ? undefined : await accountFor(inside, statement, wish.accountId);
  if (account && !wish.look) await lockAccount(inside, account.id);
  const currency = statement.currency ?? account?.currency ?? CURRENCY_OF[(await waysOf(inside)).country];
  const lines = await understood(inside, statement, currency, wish.turned ?? false);
  const known = account ? await linesOf(inside, account.id) : [];
  const there = alreadyThere([known, lines])[1];
  const fresh = lines.flatMap((line, at) => (there[at] ? [] : [{ line, at }]));
  const days = lines.map(({ day }) => day).sort();
  const read: StatementRead = {
    name: wish.name,
    format: statement.format,
    number: statement.account ?? '',
    currency,
    first: days[0] ?? null,
    last: days.at(-1) ?? null,
    fresh: fresh.length,
    known: lines.length - fresh.length,
    opening: statement.opening,
    closing: statement.closing,
    sample: lines.slice(0, SAMPLE).map(({ day, units, who, text }) => ({ day, units, who, text })),
    gaps: balanceGaps(lines, statement),
    accountId: account?.id ?? null,
    id: null,
  };
  if (!kept) return read;
  const owner = account ?? (await accountMade(inside, statement, currency));
  const { id } = await inside.save(StatementFile, {
    accountId: owner.id,
    name: wish.name,
    format: statement.format,
    ...kept,
    currency,
    firstDay: read.first ?? null,
    lastDay: read.last ?? null,
    opening: statement.opening,
    closing: statement.closing,
    actorId: actor.id,
  });
  // The next one with this number is of the same account, and one with another is not.
  if (statement.account && !owner.number) await inside.update(Account, { id: owner.id }, { number: statement.account });
  const rows = fresh.map(({ line, at }) => ({
    statementId: id,
    accountId: owner.id,
    number: at + 1,
    day: line.day,
    units: line.units,
    currency: line.currency!,
    who: line.who,
    text: line.text,
    bankId: line.id,
    balance: line.balance,
  }));
  for (let from = 0; from < rows.length; from += AT_ONCE)
    await inside.insert(BookedLine, rows.slice(from, from + AT_ONCE));
  await record(inside, actor, 'took in', 'statement', id, { name: wish.name, lines: fresh.length });
  await changed(context, inside, null);
  return { ...read, accountId: owner.id, id };
}

/** The bytes of a file, as far as it is no larger than any statement. @param refuse makes a problem of a sentence that says why not */
export async function gathered(bytes: AsyncIterable<Uint8Array>, refuse: (detail: string) => Problem): Promise<Buffer> {
  const pieces: Uint8Array[] = [];
  let size = 0;
  for await (const piece of bytes) {
    size += piece.length;
    if (size > MOST_BYTES) throw refuse('It is larger than any statement.');
    pieces.push(piece);
  }
  if (size === 0) throw refuse('It is empty.');
  return Buffer.concat(pieces);
}

/** The lines with their currency, the right way round. @param turned whether a person says that they go the other way */
async function understood(
  manager: EntityManager,
  { format, lines, signed }: Statement,
  currency: string,
  turned: boolean,
): Promise<StatementLine[]> {
  const named = lines.map((line) => ({ ...line, currency: line.currency ?? currency }));
  const fitting = linesAsPaid({ format, signed, lines: named }, await entriesWithPapers(manager));
  return turned ? fitting.map((line) => ({ ...line, units: -line.units })) : fitting;
}

const compact = (number: string) => number.replace(/\s/g, '').toUpperCase();

/** The account that a statement is of: the one said, the one with its number, or the only one of a bank. @throws Problem 'not-found' */
async function accountFor(
  manager: EntityManager,
  { account, currency }: Statement,
  accountId: string | undefined,
): Promise<Account | undefined> {
  const all = await manager.find(Account, { order: { place: 'ASC' } });
  if (accountId) {
    const said = all.find(({ id }) => id === accountId);
    if (!said) throw new Problem('not-found', { what: 'The account' });
    return said;
  }
  if (account) {
    const byNumber = all.find(({ number }) => number && sameAccount(number, account));
    if (byNumber) return byNumber;
  }
  const banks = all.filter(
    (each) => each.kind !== 'cash' && !each.retired && each.currency === (currency ?? each.currency),
  );
  return banks.length === 1 && (!account || !banks[0].number) ? banks[0] : undefined;
}

/** Whether two numbers are of one account: alike, or the one at the end of the other, as in an IBAN. */
function sameAccount(one: string, other: string): boolean {
  const [a, b] = [compact(one), compact(other)].sort((x, y) => x.length - y.length);
  return a === b || (a.length >= 6 && b.endsWith(a));
}

/** The account that a statement is of that is of none yet. */
async function accountMade(manager: EntityManager, { account }: Statement, currency: string): Promise<Account> {
  const number = account ?? '';
  const name = number ? `Account … ${number.slice(-4)}` : 'Another account';
  return manager.save(Account, { name, kind: 'bank', currency, number });
}

/** The lines of an account that are in the books, as a file would have them. */
async function linesOf(manager: EntityManager, accountId: string): Promise<StatementLine[]> {
  const all = await manager.findBy(BookedLine, { accountId });
  return all.map(({ day, units, currency, who, text, bankId, balance }) => ({
    day,
    units,
    currency,
    who,
    text,
    id: bankId,
    balance,
  }));
}

/** The statements that were taken in, the latest first. */
export async function listStatements(manager: EntityManager): Promise<ShownFile[]> {
  const all = await manager.find(StatementFile, { order: { takenInAt: 'DESC' } });
  const counts = await countLines(
    manager,
    all.map(({ id }) => id),
  );
  return all.map(({ id, name, format, accountId, firstDay, lastDay, opening, closing, currency, takenInAt }) => ({
    id,
    name,
    format,
    accountId,
    first: firstDay,
    last: lastDay,
    lines: counts.get(id) ?? 0,
    opening,
    closing,
    currency,
    takenInAt: takenInAt.toISOString(),
  }));
}

async function countLines(manager: EntityManager, ids: string[]): Promise<Map<string, number>> {
  const found = await manager
    .createQueryBuilder(BookedLine, 'l')
    .select('l.statement_id', 'id')
    .addSelect('count(*)::int', 'count')
    .where({ statementId: In(ids) })
    .groupBy('l.statement_id')
    .getRawMany<{ id: string; count: number }>();
  return new Map(found.map(({ id, count }) => [id, count]));
}

/** Takes a statement and its lines out again. @throws Problem 'not-found', 'statement-tied' */
export function takeOutStatement(context: Context, actor: ActingAs, id: string): Promise<void> {
  return context.database.source.transaction(async (manager) => {
    const file = await manager.findOne(StatementFile, { where: { id }, lock: { mode: 'for_no_key_update' } });
    if (!file) throw new Problem('not-found', { what: 'The statement' });
    const tied = await madeTiesAtStatement(manager, id);
    if (tied > 0) throw new Problem('statement-tied', { count: tied });
    await manager.delete(StatementFile, { id });
    await record(manager, actor, 'took out', 'statement', id, { name: file.name });
    await changed(context, manager, null);
  });
}
