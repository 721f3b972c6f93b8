import { EntityManager } from 'typeorm';
import { Account, BookTie, Entry, Sender } from '@crow/contract/ledger';
import { rows } from '../platform/database';
import { FOLDER_PATHS } from '../platform/queries';

/** Entries as they are shown, but how much of them is paid. */
export type EntryRow = Omit<Entry, 'paid' | 'worth'> & { paidIn: Account['kind'] | null };

/**
 * The entries in the books with their parts and the papers that are not in the bin, by day and as they were made.
 * @param ids only these, whether they are in the books or were taken out
 */
export function entriesWithPapers(manager: EntityManager, ids: readonly string[] | null = null): Promise<EntryRow[]> {
  return rows<EntryRow>(
    manager,
    `select e.id, e.serial, e.revision, e.day::text, e.due::text, e.who, e.what, e.number, e.currency, e.units::float8 as units,
       e.own_units::float8 as "ownUnits", e.account_id as "accountId", a.kind as "paidIn",
       to_char(e.checked_at at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as "checkedAt",
       coalesce(p.parts, '[]') as parts, coalesce(d.papers, '[]') as papers
     from entry e left join account a on a.id = e.account_id
     left join lateral (
       select jsonb_agg(jsonb_build_object('categoryId', category_id, 'taxCode', tax_code, 'rate', rate, 'net', net, 'tax', tax) order by number) as parts
       from entry_part where entry_id = e.id) p on true
     left join lateral (
       select jsonb_agg(jsonb_build_object('documentId', k.document_id, 'name', n.name, 'role', k.role) order by k.role, n.name) as papers
       from entry_paper k join document n on n.id = k.document_id where k.entry_id = e.id and n.binned_at is null) d on true
     where case when $1::uuid[] is null then e.taken_out_at is null else e.id = any($1) end
     order by e.day, e.serial`,
    [ids],
  );
}

/** The lines of all statements, or those given, by day and as they stand in their files. */
export function bookedLines(
  manager: EntityManager,
  ids: readonly string[] | null = null,
): Promise<
  {
    id: string;
    accountId: string;
    day: string;
    units: number;
    currency: string;
    who: string;
    text: string;
    balance: number | null;
  }[]
> {
  return rows(
    manager,
    `select l.id, l.account_id as "accountId", l.day::text, l.units::float8 as units, l.currency, l.who, l.text, l.balance::float8 as balance
     from statement_line l join statement s on s.id = l.statement_id where $1::uuid[] is null or l.id = any($1)
     order by l.day, s.taken_in_at, l.number`,
    [ids],
  );
}

/**
 * Ties in a state that hold an entry which is in the books, or are transfers, with what they hold: those of which all entries were taken out hold nothing, as long
 * as they are.
 * @param entryId only those of this entry
 */
export function tiesIn(
  manager: EntityManager,
  states: readonly ('proposed' | 'made' | 'refused')[],
  entryId: string | null = null,
): Promise<(Omit<BookTie, 'sure'> & { state: string })[]> {
  return rows(
    manager,
    `select t.id, t.state, t.state = 'made' as made, t.confidence::float8 as confidence, t.why, coalesce(h.entries, '{}') as entries,
       array(select line_id from tie_line where tie_id = t.id) as lines
     from tie t cross join lateral (
       select array_agg(x.entry_id) as entries from tie_entry x join entry e on e.id = x.entry_id
       where x.tie_id = t.id and e.taken_out_at is null) h
     where t.state = any($1) and (h.entries is not null or t.why = 'transfer') and ($2::uuid is null or t.id in (select tie_id from tie_entry where entry_id = $2))
     order by t.at, t.id`,
    [states, entryId],
  );
}

/** Forgets ties of which all entries were taken out, where they hold these lines: those are tied to something else now. */
export async function forgetIdleTies(manager: EntityManager, lines: readonly string[]): Promise<void> {
  await manager.query(
    `delete from tie t where state = 'made' and why <> 'transfer' and exists (select 1 from tie_line l where l.tie_id = t.id and l.line_id = any($1))
       and not exists (select 1 from tie_entry x join entry e on e.id = x.entry_id and e.taken_out_at is null where x.tie_id = t.id)`,
    [lines],
  );
}

/** Keeps others from changing ties until the transaction ends. */
export async function lockTies(manager: EntityManager): Promise<void> {
  await manager.query('lock table tie in share row exclusive mode');
}

/** Keeps others from changing what the books begin with until the transaction ends. */
export async function lockCategories(manager: EntityManager): Promise<void> {
  await manager.query('lock table category in share row exclusive mode');
}

/** Puts ties, given by columns, with what they hold. */
export async function insertTies(
  manager: EntityManager,
  ties: readonly { entries: readonly string[]; lines: readonly string[]; confidence: number; why: string }[],
): Promise<void> {
  await manager.query(
    `with given as (select gen_random_uuid() as id, t.* from jsonb_to_recordset($1::jsonb) as t(entries uuid[], lines uuid[], confidence real, why text)),
       made as (insert into tie (id, state, confidence, why) select id, 'proposed', confidence, why from given),
       held as (insert into tie_entry (tie_id, entry_id) select id, unnest(entries) from given)
     insert into tie_line (tie_id, line_id) select id, unnest(lines) from given`,
    [JSON.stringify(ties)],
  );
}

/** What entries of a sender are usually under and paid from: of the last ones, what most have; and how many those were. */
export async function usualOf(
  manager: EntityManager,
  who: string,
): Promise<{ categoryId: string; accountId: string | null; times: number } | undefined> {
  const [found] = await rows<{ categoryId: string; accountId: string | null; times: number }>(
    manager,
    `with lately as (
       select e.id, e.day, e.account_id, p.category_id from entry e join entry_part p on p.entry_id = e.id and p.number = 1
       where lower(e.who) = lower($1) and e.taken_out_at is null and p.category_id is not null order by e.day desc, e.serial desc limit 12)
     select category_id as "categoryId", (array_agg(account_id order by day desc))[1] as "accountId", count(*)::int as times
     from lately group by category_id order by count(*) desc, max(day) desc limit 1`,
    [who],
  );
  return found;
}

/** The entry that a paper reminds of: that of the same sender with the number that it names, or with what is still to be paid. */
export async function entryRemindedOf(
  manager: EntityManager,
  { who, number, units, currency }: { who: string; number: string; units: number; currency: string },
): Promise<string | undefined> {
  const [found] = await rows<{ id: string }>(
    manager,
    `select id from entry where taken_out_at is null and lower(who) = lower($1)
       and (($2 <> '' and number = $2) or (units = $3 and currency = $4))
     order by ($2 <> '' and number = $2) desc, day desc limit 1`,
    [who, number, units, currency],
  );
  return found?.id;
}

/** So many papers are looked through for the one of an entry. */
const MOST_LOOKED_THROUGH = 3000;

/** Papers that are in no entry, the latest first, with what they say; of some kinds only, or of all. @param kinds null for all */
export function papersInNoEntry(
  manager: EntityManager,
  kinds: readonly string[] | null,
): Promise<
  {
    documentId: string;
    name: string;
    state: string;
    who: string;
    number: string;
    day: string;
    units: number | null;
    currency: string;
  }[]
> {
  return rows(
    manager,
    `select d.id as "documentId", d.name, d.state, coalesce(f.vendor, '') as who, coalesce(f.number, '') as number, coalesce(f.day, '') as day,
       f.units::float8 as units, coalesce(f.currency, '') as currency
     from document d left join lateral (
       select max(value) filter (where name = 'kind') as kind, max(value) filter (where name = 'vendor') as vendor,
         max(value) filter (where name = 'number') as number, max(day::text) filter (where name = 'date') as day,
         max(units) filter (where name = 'total') as units, max(value) filter (where name = 'currency') as currency
       from fact where document_id = d.id) f on true
     where d.binned_at is null and ($1::text[] is null or (d.state <> 'check' and f.kind = any($1)))
       and not exists (select 1 from entry_paper p join entry e on e.id = p.entry_id and e.taken_out_at is null where p.document_id = d.id)
     order by coalesce(d.filed_at, d.created_at) desc limit ${MOST_LOOKED_THROUGH}`,
    [kinds],
  );
}

/** What a person said last of whether papers of a sender are entered, of another one than this. */
export async function lastSaidOf(
  manager: EntityManager,
  who: string,
  documentId: string,
): Promise<boolean | undefined> {
  const [found] = await rows<{ enters: boolean }>(
    manager,
    `select b.enters from paper_books b join document d on d.id = b.document_id
     join fact v on v.document_id = d.id and v.name = 'vendor' and lower(v.value) = lower($1)
     where b.enters is not null and d.id <> $2 and d.state <> 'check' and d.binned_at is null order by d.filed_at desc limit 1`,
    [who, documentId],
  );
  return found?.enters;
}

/** Whether the same bill is in the books already: of the same sender with the same number and sum, from another paper. */
export async function isEnteredAlready(
  manager: EntityManager,
  {
    who,
    number,
    units,
    currency,
    exceptOf,
  }: { who: string; number: string; units: number; currency: string; exceptOf: string },
): Promise<boolean> {
  const found = await rows(
    manager,
    `select 1 from entry e join entry_paper p on p.entry_id = e.id and p.role = 'proof' and p.document_id <> $5
     where e.taken_out_at is null and lower(e.who) = lower($1) and e.number <> '' and e.number = $2 and e.units = $3 and e.currency = $4 limit 1`,
    [who, number, units, currency, exceptOf],
  );
  return found.length > 0;
}

/** The entries that have no paper to prove them. */
export function entriesWithoutPaper(
  manager: EntityManager,
): Promise<
  { id: string; serial: number; who: string; number: string; day: string; units: number; currency: string }[]
> {
  return rows(
    manager,
    `select e.id, e.serial, e.who, e.number, e.day::text, e.units::float8 as units, e.currency from entry e
     where e.taken_out_at is null and not exists (
       select 1 from entry_paper p join document d on d.id = p.document_id and d.binned_at is null
       where p.entry_id = e.id and p.role = 'proof')
     order by e.day desc limit 5000`,
  );
}

/** Keeps others from taking in lines of an account until the transaction ends. */
export async function lockAccount(manager: EntityManager, id: string): Promise<void> {
  await manager.query('select 1 from account where id = $1 for update', [id]);
}

/** How many lines of a statement are in ties that were made. */
export async function madeTiesAtStatement(manager: EntityManager, id: string): Promise<number> {
  const [{ count }] = await rows<{ count: number }>(
    manager,
    `select count(*)::int as count from statement_line l join tie_line x on x.line_id = l.id join tie t on t.id = x.tie_id and t.state = 'made'
     where l.statement_id = $1`,
    [id],
  );
  return count;
}

/** The account that an entry is paid to: as its papers say, else as the last paper of that sender does. */
export async function ibanFor(manager: EntityManager, entryId: string, who: string): Promise<string> {
  const [found] = await rows<{ iban: string }>(
    manager,
    `select i.value as iban from fact i join document d on d.id = i.document_id and d.binned_at is null
     left join entry_paper p on p.document_id = d.id and p.entry_id = $1
     where i.name = 'iban' and (p.entry_id is not null
       or exists (select 1 from fact v where v.document_id = d.id and v.name = 'vendor' and lower(v.value) = lower($2)))
     order by (p.entry_id is not null) desc, d.filed_at desc nulls last limit 1`,
    [entryId, who],
  );
  return found?.iban ?? '';
}

/** What tells entries in the books from others, by day, name, number, sum and currency. */
export async function entryKeys(manager: EntityManager): Promise<string[]> {
  const found = await rows<{ key: string }>(
    manager,
    `select concat_ws('|', day::text, lower(who), number, units::text, currency) as key from entry where taken_out_at is null`,
  );
  return found.map(({ key }) => key);
}

/** Papers on the shelf that book something and are in no statement that was taken in, the latest first. */
export function papersWithBookings(
  manager: EntityManager,
): Promise<{ documentId: string; name: string; lines: number; first: string; last: string }[]> {
  return rows(
    manager,
    `select d.id as "documentId", d.name, jsonb_array_length(d.bookings) as lines,
       (select min(b->>'date') from jsonb_array_elements(d.bookings) b) as first,
       (select max(b->>'date') from jsonb_array_elements(d.bookings) b) as last
     from document d where d.state <> 'check' and d.binned_at is null and d.pdf_blob_id is not null
       and jsonb_typeof(d.bookings) = 'array' and jsonb_array_length(d.bookings) > 0
       and not exists (select 1 from statement s where s.document_id = d.id)
     order by last desc limit 500`,
  );
}

/** Whoever has this name, however it is written. */
export async function senderNamed(
  manager: EntityManager,
  name: string,
): Promise<{ id: string; address: string; taxNumber: string; iban: string; categoryId: string | null } | undefined> {
  const [found] = await rows<{
    id: string;
    address: string;
    taxNumber: string;
    iban: string;
    categoryId: string | null;
  }>(
    manager,
    `select id, address, tax_number as "taxNumber", iban, category_id as "categoryId" from sender where lower(name) = lower($1)`,
    [name],
  );
  return found;
}

/** Who sends bills, by name, with their entries. */
export function sendersWithEntries(manager: EntityManager): Promise<Sender[]> {
  return rows<Sender>(
    manager,
    `select s.id, s.name, s.address, s.tax_number as "taxNumber", s.iban, s.category_id as "categoryId", coalesce(e.entries, 0) as entries, e.last
     from sender s left join (
       select lower(who) as who, count(*)::int as entries, max(day)::text as last from entry where taken_out_at is null group by lower(who)
     ) e on e.who = lower(s.name)
     order by lower(s.name)`,
  );
}

/** The paths of folders, those that are there. */
export function pathsOfFolders(
  manager: EntityManager,
  ids: readonly string[],
): Promise<{ id: string; path: string }[]> {
  return rows(manager, `${FOLDER_PATHS} select id, path from paths where id = any($1)`, [ids]);
}

/** Which of these tax numbers stand on papers of others than this sender. */
export async function taxNumbersOfOthers(
  manager: EntityManager,
  numbers: readonly string[],
  name: string,
): Promise<Set<string>> {
  const found = await rows<{ value: string }>(
    manager,
    `select distinct value from sender_sign where kind = 'tax' and value = any($1) and lower(vendor) <> lower($2)`,
    [numbers, name],
  );
  return new Set(found.map(({ value }) => value));
}
