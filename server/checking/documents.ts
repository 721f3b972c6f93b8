import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Document as ShownDocument, DocumentSummary, PdfSize } from '@crow/contract/documents';
import { Fact, FactName } from '@crow/contract/facts';
import { Box } from '@crow/core/geometry';
import { Beside } from '@crow/core/filing/pattern';
import { summaryOf } from '@crow/core/reading/about';
import { typedFact } from '@crow/core/reading/facts/typedFact';
import { whatDoesNotAddUp } from '@crow/core/reading/facts/addingUp';
import { FactLine, KINDS, TaxAtRate } from '@crow/core/reading/facts/fact';
import { admitTaxes } from '@crow/core/reading/facts/gate';
import { Context } from '../platform/context';
import { rows } from '../platform/database';
import { Document } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { summariseDocuments } from './queries';
import { readSettings } from '../platform/settings';
import { pagesOfDocument } from '../stack/queries';
import { duplicatesOf } from './duplicates';
import { emptiedFacts, refreshFacts, textsOf } from './facts';
import { proposeFiling } from './proposedFiling';

const STATE_WORDS = { check: 'waiting in Check', filing: 'being filed', filed: 'on the shelf' };

/** Documents that wait to be checked, in their order. */
export function listWaiting(manager: EntityManager): Promise<DocumentSummary[]> {
  return summariseDocuments(manager, `d.state = 'check' and d.binned_at is null`);
}

/** @throws Problem 'not-found' */
export async function readDocument(manager: EntityManager, id: string): Promise<ShownDocument> {
  const [summary] = await summariseDocuments(manager, 'd.id = $1', [id]);
  if (!summary) throw new Problem('not-found', { what: 'The document' });
  const [{ wantedFolder, lines, taxes, checks, ...more }] = await rows<{
    stackId: string | null;
    stackName: string | null;
    archival: boolean | null;
    shelfPath: string | null;
    wantedFolder: string | null;
    checks: string[];
    lines: FactLine[] | null;
    taxes: TaxAtRate[] | null;
    size: PdfSize;
    beside: Beside[];
  }>(
    manager,
    `select d.stack_id as "stackId", s.name as "stackName", d.archival, f.path as "shelfPath", d.wanted_folder as "wantedFolder", d.pdf_size as size, d.beside, d.checks, d.lines, d.taxes
     from document d left join stack s on s.id = d.stack_id left join shelf_file f on f.document_id = d.id and f.ending = '.pdf' where d.id = $1`,
    [id],
  );
  const facts = await rows<Fact>(
    manager,
    `select f.name, f.value, f.page_id as "pageId", f.box, f.confidence, f.confirmed_by is not null as confirmed, a.name as by, f.why, f.repaired
     from fact f left join actor a on a.id = f.confirmed_by where f.document_id = $1`,
    [id],
  );
  const values = Object.fromEntries(facts.map(({ name, value }) => [name, value]));
  const { days } = await readSettings(manager);
  const proposal = await proposeFiling(manager, summary, values, wantedFolder);
  return {
    ...summary,
    ...more,
    facts,
    emptied: await emptiedFacts(manager, id),
    duplicates: await duplicatesOf(manager, id),
    pageList: await pagesOfDocument(manager, id),
    ...proposal,
    lines: lines ?? [],
    taxes: taxes ?? [],
    checks: [...checks, ...whatDoesNotAddUp(values, lines ?? [], taxes ?? [])],
    summary: summaryOf(values, lines ?? [], await textsOf(manager, id, { most: 1 }), days),
  };
}

/** A document, locked until the transaction ends. @throws Problem 'not-found' */
export async function lockDocument(manager: EntityManager, id: string): Promise<Document> {
  const document = await manager.findOne(Document, { where: { id }, lock: { mode: 'for_no_key_update' } });
  if (!document) throw new Problem('not-found', { what: 'The document' });
  return document;
}

/** @throws Problem 'document-elsewhere' when a document is in another state than it has to be */
export function insist(document: Document, ...states: Document['state'][]): void {
  if (states.includes(document.state) && !document.binnedAt) return;
  const state = document.binnedAt ? 'in the bin' : STATE_WORDS[document.state];
  throw new Problem('document-elsewhere', { name: document.name || 'The document', state });
}

/**
 * Sets a fact by hand, as the actor's; an empty value takes it away.
 * @param place where on a page it was picked up
 * @throws Problem 'not-found', 'date-unclear', 'not-valid'
 */
export async function changeFact(
  { database }: Context,
  actor: ActingAs,
  id: string,
  name: FactName,
  typed: string,
  place: { pageId?: string | null; box?: Box | null },
): Promise<void> {
  const value = valueOf(name, typed);
  await database.source.transaction(async (manager) => {
    await lockDocument(manager, id);
    if (place.pageId) {
      const own = await rows(manager, 'select 1 from document_page where document_id = $1 and page_id = $2', [
        id,
        place.pageId,
      ]);
      if (own.length === 0) throw new Problem('not-found', { what: 'That page of the document' });
    }
    await manager.query('delete from fact where document_id = $1 and name = $2', [id, name]);
    await manager.query('delete from fact_emptied where document_id = $1 and name = $2', [id, name]);
    if (!value)
      await manager.query('insert into fact_emptied (document_id, name, emptied_by) values ($1, $2, $3)', [
        id,
        name,
        actor.id,
      ]);
    else {
      await manager.query(
        `insert into fact (document_id, name, value, page_id, box, confidence, confirmed_by) values ($1, $2, $3, $4, $5, 1, $6)`,
        [id, name, value, place.pageId ?? null, place.box ? JSON.stringify(place.box) : null, actor.id],
      );
    }
    await record(manager, actor, 'set a fact', 'document', id, { name, value });
    await announce(manager, 'document', id);
  });
}

/** Takes a fact back to what was read, or to nothing where nothing was. @throws Problem 'not-found' */
export async function restoreFact({ database }: Context, actor: ActingAs, id: string, name: FactName): Promise<void> {
  await database.source.transaction(async (manager) => {
    await lockDocument(manager, id);
    await manager.query('delete from fact where document_id = $1 and name = $2', [id, name]);
    await manager.query('delete from fact_emptied where document_id = $1 and name = $2', [id, name]);
    await refreshFacts(manager, id);
    await record(manager, actor, 'took back a fact', 'document', id, { name });
    await announce(manager, 'document', id);
  });
}

/** Sets the tax by rate by hand. @throws Problem 'not-found' */
export async function changeTaxes(
  { database }: Context,
  actor: ActingAs,
  id: string,
  taxes: readonly TaxAtRate[],
): Promise<void> {
  await database.source.transaction(async (manager) => {
    await lockDocument(manager, id);
    const admitted = admitTaxes(taxes);
    await manager.query('update document set taxes = $2, taxes_by = $3 where id = $1', [
      id,
      JSON.stringify(admitted),
      actor.id,
    ]);
    await record(manager, actor, 'set the taxes', 'document', id, { taxes: admitted });
    await announce(manager, 'document', id);
  });
}

/** @throws Problem 'date-unclear', 'amount-unclear', 'not-valid' */
function valueOf(name: FactName, text: string): string {
  const typed = typedFact(name, text);
  if ('value' in typed) return typed.value;
  switch (typed.unclear) {
    case 'date':
      throw new Problem('date-unclear', { text });
    case 'amount':
      throw new Problem('amount-unclear', { text });
    case 'kind':
      throw new Problem('not-valid', { detail: `the kind must be one of ${KINDS.join(', ')}` });
    case 'currency':
      throw new Problem('not-valid', { detail: 'a currency is named by three letters, such as EUR' });
  }
}

/** Lets a document wait behind all others. */
export async function putToBack({ database }: Context, actor: ActingAs, id: string): Promise<void> {
  await database.source.transaction(async (manager) => {
    insist(await lockDocument(manager, id), 'check');
    await manager.query(`update document set turn_in_line = nextval('document_turn') where id = $1`, [id]);
    await record(manager, actor, 'put to the back', 'document', id);
    await announce(manager, 'document', id);
  });
}
