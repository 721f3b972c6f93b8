import { EntityManager } from 'typeorm';
import { Fact, FactName } from '@crow/contract/facts';
import { KnownSign } from '@crow/core/reading/facts/findFacts';
import { Check, Sign } from '@crow/core/reading/facts/signs';
import { Box } from '@crow/core/geometry';
import { Reason, sayReason } from '@crow/core/reading/facts/reason';
import { Booking, FactLine, TaxAtRate } from '@crow/core/reading/facts/fact';
import { KeptValue } from '@crow/core/reading/facts/typedFact';
import { MailData } from '@crow/core/reading/facts/mailData';
import { InvoiceData } from '@crow/core/reading/facts/invoiceData';
import { PageCode, PageText, restoreWords, StoredWord } from '@crow/core/reading/words';
import { rows } from '../platform/database';

/** What a document says, with who set it; nobody did what a divider sheet says. */
export async function factsOf(manager: EntityManager, id: string): Promise<Fact[]> {
  const found = await rows<Omit<Fact, 'why'> & { why: Reason | null }>(
    manager,
    `select f.name, f.value, f.page_id as "pageId", f.box, f.confidence, f.confirmed_by is not null as confirmed, case when f.why->>'code' = 'divider-sheet' then null else a.name end as by, f.why, f.repaired, f.other
     from fact f left join actor a on a.id = f.confirmed_by where f.document_id = $1`,
    [id],
  );
  return found.map((fact) => ({ ...fact, why: fact.why && sayReason(fact.why) }));
}

/** Puts a document behind all that wait. */
export async function takeLastTurn(manager: EntityManager, id: string): Promise<void> {
  await manager.query(`update document set turn_in_line = nextval('document_turn') where id = $1`, [id]);
}

/** What the facts of a document say by their types; those that say so already stay as they are. */
export async function keepTyped(
  manager: EntityManager,
  documentId: string,
  facts: (KeptValue & { name: FactName })[],
): Promise<void> {
  await manager.query(
    `update fact set value = t.value, day = t.day, units = t.units, digits = t.digits, currency = t.currency, rate = t.rate
     from unnest($2::text[], $3::text[], $4::date[], $5::bigint[], $6::smallint[], $7::text[], $8::numeric[])
       as t (name, value, day, units, digits, currency, rate)
     where fact.document_id = $1 and fact.name = t.name
       and (fact.value, fact.day, fact.units, fact.digits, fact.currency, fact.rate)
         is distinct from (t.value, t.day, t.units, t.digits, t.currency, t.rate)`,
    [
      documentId,
      facts.map(({ name }) => name),
      facts.map(({ value }) => value),
      facts.map(({ day }) => day),
      facts.map(({ units }) => units),
      facts.map(({ digits }) => digits),
      facts.map(({ currency }) => currency),
      facts.map(({ rate }) => rate),
    ],
  );
}

/** What else was read of a document; taxes that a person set stay. */
export async function keepRead(
  manager: EntityManager,
  documentId: string,
  {
    checks,
    lines,
    taxes,
    bookings,
    kindRead,
  }: {
    checks: Check[];
    lines: FactLine[] | null;
    taxes: TaxAtRate[] | null;
    bookings: Booking[] | null;
    kindRead: string | null;
  },
): Promise<void> {
  await manager.query(
    `update document set checks = $2, lines = $3, taxes = case when taxes_by is null then $4::jsonb else taxes end,
       bookings = $5, kind_read = $6 where id = $1`,
    [documentId, ...[checks, lines, taxes, bookings].map((value) => value && JSON.stringify(value)), kindRead],
  );
}

export interface ReadPage extends Pick<PageText, 'width' | 'height' | 'words'> {
  pageId: string;
  /** In its document, from 1. */
  number: number;
  handwriting: Box[];
  codes: PageCode[];
}

/** What has been read of a document's pages so far, in their order. */
export async function textsOf(
  manager: EntityManager,
  documentId: string,
  { most = 100_000 } = {},
): Promise<ReadPage[]> {
  const pages = await rows<Omit<ReadPage, 'words'> & { words: StoredWord[] }>(
    manager,
    `select p.id as "pageId", dp.number, r.width, r.height, r.words, r.handwriting, r.codes
     from document_page dp join page p on p.id = dp.page_id join reading r on r.page_id = p.id and r.turn = p.turn and r.version = p.version
     where dp.document_id = $1 order by dp.number limit $2`,
    [documentId, most],
  );
  return pages.map((page) => ({ ...page, words: restoreWords(page.words) }));
}

/** The electronic invoice that all pages of a document came with, or the head of the mail that they are, if it is so. */
export async function dataOf(
  manager: EntityManager,
  documentId: string,
): Promise<{ invoice: InvoiceData | null; mail: MailData | null }> {
  const files = await rows<{ invoice: InvoiceData | null; mail: MailData | null }>(
    manager,
    `select f.invoice, f.mail from source_file f where f.id in (
       select p.source_file_id from document_page dp join page p on p.id = dp.page_id where dp.document_id = $1
     )`,
    [documentId],
  );
  return files.length === 1 ? files[0] : { invoice: null, mail: null };
}

/** Who has these signs on papers other than this one. */
export function sendersWithSigns(manager: EntityManager, documentId: string, signs: Sign[]): Promise<KnownSign[]> {
  return rows(
    manager,
    `select distinct s.kind, s.value, s.vendor from sender_sign s
     join unnest($2::text[], $3::text[]) as sought (kind, value) using (kind, value) where s.document_id <> $1`,
    [documentId, signs.map(({ kind }) => kind), signs.map(({ value }) => value)],
  );
}

/** Remembers the signs on a document as its sender's. */
export async function rememberSigns(
  manager: EntityManager,
  documentId: string,
  vendor: string,
  signs: Sign[],
): Promise<void> {
  await manager.query(
    `insert into sender_sign (kind, value, vendor, document_id)
     select kind, value, $1, $2 from unnest($3::text[], $4::text[]) as sign (kind, value) on conflict do nothing`,
    [vendor, documentId, signs.map(({ kind }) => kind), signs.map(({ value }) => value)],
  );
}

/** What a person said that the latest paper of the same sender was, of which the same was read; undefined when nobody said anything. */
export async function kindSaidOf(
  manager: EntityManager,
  documentId: string,
  vendor: string,
  kindRead: string,
): Promise<string | undefined> {
  const [said] = await rows<{ value: string }>(
    manager,
    `select k.value from document d
       join fact v on v.document_id = d.id and v.name = 'vendor' and v.value = $2
       join fact k on k.document_id = d.id and k.name = 'kind' and k.confirmed_by is not null and k.why is null
     where d.kind_read = $3 and d.id <> $1 and d.binned_at is null order by k.at desc limit 1`,
    [documentId, vendor, kindRead],
  );
  return said?.value;
}

const MOST_VENDORS = 2000;

/** The senders that a person has confirmed on some paper, the latest first. */
export async function confirmedVendors(manager: EntityManager): Promise<string[]> {
  const found = await rows<{ value: string }>(
    manager,
    `select value from fact where name = 'vendor' and confirmed_by is not null
     group by value order by max(at) desc limit ${MOST_VENDORS}`,
  );
  return found.map(({ value }) => value);
}
