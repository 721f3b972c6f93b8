import { EntityManager } from 'typeorm';
import { FACT_NAMES, FactName } from '@crow/contract/facts';
import { Box, shareOf } from '@crow/core/geometry';
import { Fact as FoundFact } from '@crow/core/reading/facts/fact';
import { findFacts, KnownSign } from '@crow/core/reading/facts/findFacts';
import { InvoiceData, withInvoiceData } from '@crow/core/reading/facts/invoiceData';
import { checksOf, findSigns, Sign } from '@crow/core/reading/facts/signs';
import { PageText, restoreWords, StoredWord } from '@crow/core/reading/words';
import { rows } from '../platform/database';

/** Finds the facts in what has been read so far; what a person has set stays. */
export async function refreshFacts(manager: EntityManager, documentId: string): Promise<void> {
  const texts = await textsOf(manager, documentId);
  const knownVendors = await confirmedVendors(manager);
  const signs = findSigns(texts);
  const read = findFacts(texts, { knownVendors, knownSigns: await knownSigns(manager, documentId, signs) });
  const invoice = await invoiceOf(manager, documentId);
  const found = invoice ? withInvoiceData(read, invoice) : read;
  await manager.query('delete from fact where document_id = $1 and confirmed_by is null', [documentId]);
  const emptied = await emptiedFacts(manager, documentId);
  for (const name of FACT_NAMES) {
    const fact = (found as Partial<Record<FactName, FoundFact<string | number> | null>>)[name];
    if (!fact || emptied.includes(name)) continue;
    const value = MONEY.includes(name) ? Number(fact.value).toFixed(2) : String(fact.value);
    const page: ReadPage | undefined = texts[fact.page - 1];
    await manager.query(
      `insert into fact (document_id, name, value, page_id, box, confidence, why, repaired) values ($1, $2, $3, $4, $5, $6, $7, $8)
       on conflict do nothing`,
      [
        documentId,
        name,
        value,
        page?.pageId ?? null,
        // What is known from elsewhere stands nowhere on the page.
        page && fact.box[2] > 0 ? JSON.stringify(shareOf(fact.box, page)) : null,
        fact.confidence,
        fact.why,
        fact.repaired !== undefined,
      ],
    );
  }
  await manager.query(
    'update document set checks = $2, lines = $3, taxes = case when taxes_by is null then $4::jsonb else taxes end where id = $1',
    [
      documentId,
      JSON.stringify(checksOf(signs)),
      found.lines && JSON.stringify(found.lines.value),
      found.taxes && JSON.stringify(found.taxes.value),
    ],
  );
}

/** What a person says that a document does not say. */
export async function emptiedFacts(manager: EntityManager, documentId: string): Promise<FactName[]> {
  const found = await rows<{ name: FactName }>(manager, 'select name from fact_emptied where document_id = $1', [
    documentId,
  ]);
  return found.map(({ name }) => name);
}

export interface ReadPage extends Pick<PageText, 'width' | 'height' | 'words'> {
  pageId: string;
  handwriting: Box[];
}

/** What has been read of a document's pages so far, in their order. */
export async function textsOf(
  manager: EntityManager,
  documentId: string,
  { most = 100_000 } = {},
): Promise<ReadPage[]> {
  const pages = await rows<Omit<ReadPage, 'words'> & { words: StoredWord[] }>(
    manager,
    `select p.id as "pageId", r.width, r.height, r.words, r.handwriting
     from document_page dp join page p on p.id = dp.page_id join reading r on r.page_id = p.id and r.turn = p.turn and r.version = p.version
     where dp.document_id = $1 order by dp.number limit $2`,
    [documentId, most],
  );
  return pages.map((page) => ({ ...page, words: restoreWords(page.words) }));
}

/** The electronic invoice that all pages of a document came with, if they did. */
async function invoiceOf(manager: EntityManager, documentId: string): Promise<InvoiceData | null> {
  const files = await rows<{ invoice: InvoiceData | null }>(
    manager,
    `select f.invoice from source_file f where f.id in (
       select p.source_file_id from document_page dp join page p on p.id = dp.page_id where dp.document_id = $1
     )`,
    [documentId],
  );
  return files.length === 1 ? files[0].invoice : null;
}

/** Which senders' confirmed papers have these signs. */
function knownSigns(manager: EntityManager, documentId: string, signs: Sign[]): Promise<KnownSign[]> {
  return rows(
    manager,
    `select distinct s.kind, s.value, s.vendor from sender_sign s
     join unnest($2::text[], $3::text[]) as sought (kind, value) using (kind, value) where s.document_id <> $1`,
    [documentId, signs.map(({ kind }) => kind), signs.map(({ value }) => value)],
  );
}

/** Remembers which signs stand on the papers of a sender that a person has confirmed. */
export async function rememberSender(manager: EntityManager, documentId: string): Promise<void> {
  const [sender] = await rows<{ value: string }>(
    manager,
    `select value from fact where document_id = $1 and name = 'vendor' and confirmed_by is not null`,
    [documentId],
  );
  await manager.query('delete from sender_sign where document_id = $1', [documentId]);
  if (!sender) return;
  const signs = findSigns(await textsOf(manager, documentId)).filter(({ kind, fits }) => fits || kind !== 'iban');
  await manager.query(
    `insert into sender_sign (kind, value, vendor, document_id)
     select kind, value, $1, $2 from unnest($3::text[], $4::text[]) as sign (kind, value) on conflict do nothing`,
    [sender.value, documentId, signs.map(({ kind }) => kind), signs.map(({ value }) => value)],
  );
}

const MONEY: FactName[] = ['net', 'tax', 'total'];
const MOST_VENDORS = 2000;

/** The senders that a person has confirmed on some paper, the latest first. */
async function confirmedVendors(manager: EntityManager): Promise<string[]> {
  const found = await rows<{ value: string }>(
    manager,
    `select value from fact where name = 'vendor' and confirmed_by is not null
     group by value order by max(at) desc limit ${MOST_VENDORS}`,
  );
  return found.map(({ value }) => value);
}
