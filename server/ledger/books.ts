import { EntityManager } from 'typeorm';
import { Account as ShownAccount, Books, Category as ShownCategory } from '@crow/contract/ledger';
import { Problem } from '@crow/contract/problems';
import { FIRST_CATEGORIES } from '@crow/core/ledger/books/categories';
import { BOOK_COUNTRIES, BookCountry, CURRENCY_OF } from '@crow/core/ledger/books/taxCodes';
import { Context } from '../platform/context';
import { Account, Category, LineRule, Setting } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { lockCategories, pathsOfFolders } from './queries';

const SETTING = 'books';
const FIRST_COUNTRY: BookCountry = 'GB';

const shownCategory = ({ id, name, side, retired }: Category): ShownCategory => ({ id, name, side, retired });
const shownAccount = ({ id, name, kind, currency, number, retired, opening, openingDay }: Account): ShownAccount => ({
  id,
  name,
  kind,
  currency,
  number,
  retired,
  opening: openingDay === null || opening === null ? null : { day: openingDay, units: opening },
});

interface Ways {
  country: BookCountry;
  byThemselves: boolean;
  holder: string;
  /** The last day of what is closed. */
  closedUntil: string | null;
  /** Folders of which all papers are entered, or none by themselves. */
  folders: { folderId: string; enters: boolean }[];
}

/** The country whose tax the books know first, and whether papers are entered by themselves. */
export async function waysOf(manager: EntityManager): Promise<Ways> {
  const row = await manager.findOneBy(Setting, { name: SETTING });
  const kept = (row?.value ?? {}) as Partial<Ways>;
  return {
    country: BOOK_COUNTRIES.find((each) => each === kept.country) ?? FIRST_COUNTRY,
    byThemselves: kept.byThemselves ?? true,
    holder: kept.holder ?? '',
    closedUntil: kept.closedUntil ?? null,
    folders: kept.folders ?? [],
  };
}

/** The categories in their order; those that books begin with are there when first asked for. */
export async function categoriesOf(manager: EntityManager): Promise<Category[]> {
  const all = await manager.find(Category, { order: { place: 'ASC' } });
  if (all.length > 0) return all;
  return manager.transaction(async (inside) => {
    await lockCategories(inside);
    if ((await inside.count(Category)) === 0) {
      await inside.insert(
        Category,
        FIRST_CATEGORIES.map(({ name, side, words }) => ({ name, side, words })),
      );
      const currency = CURRENCY_OF[(await waysOf(inside)).country];
      await inside.insert(Account, [
        { name: 'Bank account', kind: 'bank', currency },
        { name: 'Cash', kind: 'cash', currency },
      ]);
    }
    return inside.find(Category, { order: { place: 'ASC' } });
  });
}

/** The categories, accounts and country of the books. */
export async function readBooks(manager: EntityManager): Promise<Books> {
  const categories = await categoriesOf(manager);
  const accounts = await manager.find(Account, { order: { place: 'ASC' } });
  const rules = await manager.find(LineRule, { order: { key: 'ASC' } });
  const ways = await waysOf(manager);
  return {
    ...ways,
    folders: await foldersWithPaths(manager, ways.folders),
    categories: categories.map(shownCategory),
    accounts: accounts.map(shownAccount),
    lineRules: rules.map(({ id, key, outward, who, what }) => ({ id, key, outward, who, what })),
  };
}

export async function changeBooks(
  { database: { source } }: Context,
  actor: ActingAs,
  change: Partial<Ways>,
): Promise<Books> {
  return source.transaction(async (manager) => {
    const ways = { ...(await waysOf(manager)), ...given(change) };
    await manager.upsert(Setting, { name: SETTING, value: ways }, ['name']);
    await record(manager, actor, 'changed', 'books', null, given(change));
    await announce(manager, 'ledger', null);
    return readBooks(manager);
  });
}

/** The folders that are still there, with their paths. */
export async function foldersWithPaths(manager: EntityManager, folders: Ways['folders']): Promise<Books['folders']> {
  if (folders.length === 0) return [];
  const ids = folders.map(({ folderId }) => folderId);
  const paths = new Map((await pathsOfFolders(manager, ids)).map(({ id, path }) => [id, path]));
  return folders.flatMap(({ folderId, enters }) => {
    const path = paths.get(folderId);
    return path === undefined ? [] : [{ folderId, path, enters }];
  });
}

/** @throws Problem 'period-closed' when one of the days is in what is closed */
export async function insistOnNotClosed(manager: EntityManager, ...days: string[]): Promise<void> {
  const { closedUntil } = await waysOf(manager);
  const day = days.find((each) => closedUntil !== null && each <= closedUntil);
  if (day) throw new Problem('period-closed', { day, until: closedUntil! });
}

export async function makeCategory(
  { database: { source } }: Context,
  actor: ActingAs,
  { name, side }: Pick<ShownCategory, 'name' | 'side'>,
): Promise<ShownCategory> {
  return source.transaction(async (manager) => {
    await categoriesOf(manager);
    const made = await manager.save(Category, { name, side });
    await record(manager, actor, 'made', 'books', null, { category: name });
    await announce(manager, 'ledger', null);
    return shownCategory(await manager.findOneByOrFail(Category, { id: made.id }));
  });
}

/** @throws Problem 'not-found' */
export async function changeCategory(
  { database: { source } }: Context,
  actor: ActingAs,
  id: string,
  change: { name?: string; retired?: boolean },
): Promise<ShownCategory> {
  return source.transaction(async (manager) => {
    const row = await manager.findOneBy(Category, { id });
    if (!row) throw new Problem('not-found', { what: 'The category' });
    const changed = await manager.save(Category, { ...row, ...given(change) });
    await record(manager, actor, 'changed', 'books', null, { category: row.name, ...given(change) });
    await announce(manager, 'ledger', null);
    return shownCategory(changed);
  });
}

export async function makeAccount(
  { database: { source } }: Context,
  actor: ActingAs,
  account: Pick<ShownAccount, 'name' | 'kind' | 'currency' | 'number'>,
): Promise<ShownAccount> {
  return source.transaction(async (manager) => {
    await categoriesOf(manager);
    const made = await manager.save(Account, account);
    await record(manager, actor, 'made', 'books', null, { account: account.name });
    await announce(manager, 'ledger', null);
    return shownAccount(await manager.findOneByOrFail(Account, { id: made.id }));
  });
}

/** @throws Problem 'not-found' */
export async function changeAccount(
  { database: { source } }: Context,
  actor: ActingAs,
  id: string,
  { opening, ...change }: { name?: string; number?: string; retired?: boolean; opening?: ShownAccount['opening'] },
): Promise<ShownAccount> {
  return source.transaction(async (manager) => {
    const row = await manager.findOneBy(Account, { id });
    if (!row) throw new Problem('not-found', { what: 'The account' });
    const balance = opening === undefined ? {} : { opening: opening?.units ?? null, openingDay: opening?.day ?? null };
    if (opening) await insistOnNotClosed(manager, opening.day);
    await manager.update(Account, { id }, { ...given(change), ...balance, name: change.name ?? row.name });
    await record(manager, actor, 'changed', 'books', null, { account: row.name, ...given({ ...change, opening }) });
    await announce(manager, 'ledger', null);
    return shownAccount(await manager.findOneByOrFail(Account, { id }));
  });
}

/** What of a change was said. */
const given = <Change extends object>(change: Change): Partial<Change> =>
  Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined)) as Partial<Change>;
