import { EntityManager } from 'typeorm';
import { Box } from '@crow/core/geometry';
import { Fact as FoundFact } from '@crow/core/reading/facts/fact';
import { findFacts } from '@crow/core/reading/facts/findFacts';
import { restoreWords, StoredWord } from '@crow/core/reading/words';
import { FACT_NAMES, FactName } from '@crow/contract/shapes';
import { Context } from '../context';
import { rows } from '../store/database';
import { owner } from '../store/history';
import { announce } from '../store/live';

/** The document that a page belongs to, locked until the transaction ends when asked. */
export async function documentOfPage(
  manager: EntityManager,
  pageId: string,
  { lock = false } = {},
): Promise<string | undefined> {
  const [found] = await rows<{ id: string }>(
    manager,
    `select d.id from document d join document_page dp on dp.document_id = d.id where dp.page_id = $1 ${lock ? 'for no key update of d' : ''}`,
    [pageId],
  );
  return found?.id;
}

/** Whether any page of a document is still to be read. */
export async function isBeingRead(manager: EntityManager, documentId: string): Promise<boolean> {
  const [{ waiting }] = await rows<{ waiting: boolean }>(
    manager,
    `select exists (
       select 1 from document_page dp join page p on p.id = dp.page_id where dp.document_id = $1 and p.reading = 'waiting'
     ) as waiting`,
    [documentId],
  );
  return waiting;
}

/**
 * After a page of it was read: finds the facts anew, and binds the PDF if it only waited for that. Needs the document's lock.
 * @param gather whether more changes may come at once, so that the PDF is bound a moment later
 */
export async function pageWasRead(
  { jobs }: Context,
  manager: EntityManager,
  documentId: string,
  { gather = false } = {},
): Promise<void> {
  const [document] = await rows<{ state: string; binned_at: Date | null }>(
    manager,
    'select state, binned_at from document where id = $1',
    [documentId],
  );
  if (document.state === 'check') await refreshFacts(manager, documentId);
  else if (!(await isBeingRead(manager, documentId))) {
    const work = { documentId, actorId: (await owner(manager)).id };
    await (gather ? jobs.askOnce(manager, 'bind', work) : jobs.ask(manager, 'bind', work));
  }
  await announce(manager, 'document', documentId);
}

/** Finds the facts in what has been read so far; what a person has set stays. */
export async function refreshFacts(manager: EntityManager, documentId: string): Promise<void> {
  const pages = await rows<{ page_id: string; width: number; height: number; words: StoredWord[] }>(
    manager,
    `select p.id as page_id, r.width, r.height, r.words
     from document_page dp join page p on p.id = dp.page_id join reading r on r.page_id = p.id and r.turn = p.turn and r.version = p.version
     where dp.document_id = $1 order by dp.number`,
    [documentId],
  );
  const knownVendors = await confirmedVendors(manager);
  const texts = pages.map(({ width, height, words }) => ({ width, height, words: restoreWords(words) }));
  const found = findFacts(texts, { knownVendors });
  await manager.query('delete from fact where document_id = $1 and confirmed_by is null', [documentId]);
  for (const name of FACT_NAMES) {
    const fact: FoundFact<string | number> | null = found[name];
    if (!fact) continue;
    const value = MONEY.includes(name) ? Number(fact.value).toFixed(2) : String(fact.value);
    const page = pages[fact.page - 1];
    await manager.query(
      `insert into fact (document_id, name, value, page_id, box, confidence, why, repaired) values ($1, $2, $3, $4, $5, $6, $7, $8)
       on conflict do nothing`,
      [
        documentId,
        name,
        value,
        page.page_id,
        JSON.stringify(shareOf(fact.box, page)),
        fact.confidence,
        fact.why,
        fact.repaired !== undefined,
      ],
    );
  }
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

/** A box in pixels as shares of the page's width and height. */
function shareOf([x, y, w, h]: Box, { width, height }: { width: number; height: number }): Box {
  return [x / width, y / height, w / width, h / height];
}
