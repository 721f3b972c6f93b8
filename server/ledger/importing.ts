import { randomUUID } from 'node:crypto';
import { EntityManager } from 'typeorm';
import { EntriesRead, MOST_ENTRIES } from '@crow/contract/ledgerLines';
import { Problem } from '@crow/contract/problems';
import {
  EntriesTable,
  EntriesTableError,
  entriesIn,
  ENTRY_COLUMNS,
  EntryColumn,
  guessColumns,
  ReadEntry,
  readEntriesTable,
} from '@crow/core/ledger/books/entriesTable';
import { CURRENCY_OF } from '@crow/core/ledger/books/taxCodes';
import { textOf } from '@crow/core/ledger/statements/readStatement';
import { fold } from '@crow/core/reading/facts/rows';
import { Context } from '../platform/context';
import { Entry, EntryPart, Setting } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { categoriesOf, waysOf } from './books';
import { changed } from './entries';
import { entryKeys } from './queries';
import { gathered } from './statements';

const SETTING = 'entry-columns';
/** Of so many kinds of files it is remembered what their columns hold. */
const MOST_REMEMBERED = 50;
const SAMPLE = 8;
const PROBLEMS = 20;
const AT_ONCE = 1000;

interface Remembered {
  columns: (EntryColumn | null)[];
  turned: boolean;
}

/**
 * Reads entries that were made elsewhere, and takes those in that are not in the books yet, unless they are only looked at. What columns hold
 * is remembered by their heads.
 * @throws Problem 'entries-not-read'
 */
export async function takeInEntries(
  context: Context,
  actor: ActingAs,
  wish: { name: string; look?: boolean; columns?: string; turned?: boolean },
  bytes: AsyncIterable<Uint8Array>,
): Promise<EntriesRead> {
  const refuse = (detail: string) => new Problem('entries-not-read', { name: wish.name, detail });
  const table = tableOf(await gathered(bytes, refuse), refuse);
  return context.database.source.transaction(async (manager) => {
    const before = (await rememberedOf(manager))[keyOf(table)] as Remembered | undefined;
    const columns = columnsSaid(wish.columns, table) ?? before?.columns ?? guessColumns(table);
    const turned = wish.turned ?? before?.turned ?? false;
    const { country, closedUntil } = await waysOf(manager);
    const categories = new Map((await categoriesOf(manager)).map(({ id, name }) => [fold(name), id]));
    const read = entriesIn(table, columns, {
      ...{ country, turned, currency: CURRENCY_OF[country] },
      categoryOf: (name) => categories.get(fold(name)) ?? null,
    }).map((each) =>
      'day' in each && closedUntil !== null && each.day <= closedUntil
        ? { problem: 'the books are closed for its time' }
        : each,
    );
    const { fresh, known } = await apart(
      manager,
      read.filter((each) => 'day' in each),
    );
    const problems = read.flatMap((each, at) => ('problem' in each ? [{ row: at + 1, why: each.problem }] : []));
    const ids = wish.look ? [] : await enterAll(context, manager, actor, fresh);
    if (!wish.look) {
      await remember(manager, table, { columns, turned });
      await record(manager, actor, 'brought in', 'books', null, { name: wish.name, entries: ids.length });
    }
    return {
      ...{ head: table.head, columns, turned, remembered: before !== undefined && wish.columns === undefined },
      ...{ fresh: fresh.length, known, wrong: problems.length, ids },
      problems: problems.slice(0, PROBLEMS),
      sample: (fresh.length > 0 ? fresh : read.filter((each) => 'day' in each))
        .slice(0, SAMPLE)
        .map(({ day, who, what, number, units, currency, parts: [{ tax }] }) => ({
          ...{ day, who, what, number, units, currency, tax },
        })),
    };
  });
}

function tableOf(bytes: Buffer, refuse: (detail: string) => Problem): EntriesTable {
  try {
    const table = readEntriesTable(textOf(bytes));
    if (table.rows.length > MOST_ENTRIES) throw refuse(`It has more than ${MOST_ENTRIES} rows.`);
    return table;
  } catch (error) {
    if (error instanceof EntriesTableError) throw refuse(error.message);
    throw error;
  }
}

/** What somebody says that columns hold; each is held by one at most. */
function columnsSaid(said: string | undefined, { head }: EntriesTable): (EntryColumn | null)[] | undefined {
  if (said === undefined) return undefined;
  const names = said.split(',');
  const seen = new Set<string>();
  return head.map((_, at) => {
    const column = ENTRY_COLUMNS.find((each) => each === names[at]);
    if (!column || seen.has(column)) return null;
    seen.add(column);
    return column;
  });
}

const keyOf = ({ head }: EntriesTable): string => head.map(fold).join('\t');

async function rememberedOf(manager: EntityManager): Promise<Record<string, Remembered>> {
  const row = await manager.findOneBy(Setting, { name: SETTING });
  return (row?.value ?? {}) as Record<string, Remembered>;
}

async function remember(manager: EntityManager, table: EntriesTable, as: Remembered): Promise<void> {
  const { [keyOf(table)]: _, ...others } = await rememberedOf(manager);
  const kept = Object.entries(others).slice(-(MOST_REMEMBERED - 1));
  const value = Object.fromEntries([...kept, [keyOf(table), as]]);
  await manager.upsert(Setting, { name: SETTING, value }, ['name']);
}

/** Those that are not in the books; what is in a file twice is new as often as the books lack it. */
async function apart(
  manager: EntityManager,
  entries: readonly ReadEntry[],
): Promise<{ fresh: ReadEntry[]; known: number }> {
  const there = new Map<string, number>();
  for (const key of await entryKeys(manager)) there.set(key, (there.get(key) ?? 0) + 1);
  const fresh = entries.filter(({ day, who, number, units, currency }) => {
    const key = [day, who.toLowerCase(), number, units, currency].join('|');
    const left = there.get(key) ?? 0;
    there.set(key, left - 1);
    return left <= 0;
  });
  return { fresh, known: entries.length - fresh.length };
}

async function enterAll(
  context: Context,
  manager: EntityManager,
  actor: ActingAs,
  entries: readonly ReadEntry[],
): Promise<string[]> {
  const rows = entries.map((entry) => ({ ...entry, id: randomUUID() }));
  for (let from = 0; from < rows.length; from += AT_ONCE) {
    const some = rows.slice(from, from + AT_ONCE);
    await manager.insert(
      Entry,
      some.map(({ parts: _, ...entry }) => ({ ...entry, accountId: null, ownUnits: null, madeBy: actor.id })),
    );
    await manager.insert(
      EntryPart,
      some.flatMap(({ id, parts }) =>
        parts.map(({ rate, ...part }, at) => ({
          ...part,
          entryId: id,
          number: at + 1,
          rate: rate === null ? null : String(rate),
        })),
      ),
    );
  }
  await changed(context, manager, null);
  return rows.map(({ id }) => id);
}
