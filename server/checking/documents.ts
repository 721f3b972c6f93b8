import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Document as ShownDocument, DocumentSummary } from '@crow/contract/documents';
import { FactName } from '@crow/contract/facts';
import { Box } from '@crow/core/geometry';
import { summaryOf } from '@crow/core/reading/about';
import { sayCheck } from '@crow/core/reading/facts/signs';
import { typedFact } from '@crow/core/reading/facts/typedFact';
import { whatDoesNotAddUp } from '@crow/core/reading/facts/addingUp';
import { KINDS, TaxAtRate } from '@crow/core/reading/facts/fact';
import { admitTaxes } from '@crow/core/reading/facts/gate';
import { Context } from '../platform/context';
import { Document, DocumentPage, Fact as FactRow, FactEmptied } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { lockDocument } from '../stack/locks';
import { factsOf, takeLastTurn } from './factQueries';
import { documentBesides, documentsById, documentsInCheck } from './queries';

export {
  documentsById,
  documentsDueBetween,
  documentsFiledLast,
  documentsInBin,
  documentsInFolders,
  documentsTroubledBy,
} from './queries';

import { EVERYTHING, Sight } from '../platform/sight';
import { readSettings } from '../platform/settings';
import { pagesOfDocument } from '../stack/queries';
import { duplicatesOf } from './duplicates';
import { emptiedFacts, refreshFacts, textsOf, typeFacts } from './facts';
import { proposeFiling } from './proposedFiling';

const STATE_WORDS = { check: 'waiting in Check', filing: 'being filed', filed: 'on the shelf' };

/** Documents that wait to be checked, in their order. */
export function listWaiting(manager: EntityManager): Promise<DocumentSummary[]> {
  return documentsInCheck(manager);
}

/** @throws Problem 'not-found' */
export async function readDocument(
  manager: EntityManager,
  id: string,
  sight: Sight = EVERYTHING,
): Promise<ShownDocument> {
  const [summary] = await documentsById(manager, [id]);
  if (!summary) throw new Problem('not-found', { what: 'The document' });
  const { wantedFolder, lines, taxes, bookings, checks, ...more } = await documentBesides(manager, id);
  const facts = await factsOf(manager, id);
  const listed = { lines: lines ?? [], taxes: taxes ?? [], bookings: bookings ?? [] };
  const values = Object.fromEntries(facts.map(({ name, value }) => [name, value]));
  const { days } = await readSettings(manager);
  // Who sees only some papers is told neither of others nor of folders.
  const sees = sight.of === 'everything';
  const proposal = sees
    ? await proposeFiling(manager, summary, values, wantedFolder)
    : { proposedName: '', suggestion: null, likely: [] };
  return {
    ...summary,
    ...more,
    facts,
    emptied: await emptiedFacts(manager, id),
    duplicates: sees ? await duplicatesOf(manager, id) : [],
    pageList: await pagesOfDocument(manager, id),
    ...proposal,
    ...listed,
    checks: [...checks.map(sayCheck), ...whatDoesNotAddUp(values, listed)],
    summary: summaryOf(values, listed.lines, await textsOf(manager, id, { most: 1 }), days),
  };
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
    if (name === 'kind' && value) await insistOnKind(manager, value);
    await lockDocument(manager, id);
    if (place.pageId && !(await manager.existsBy(DocumentPage, { documentId: id, pageId: place.pageId })))
      throw new Problem('not-found', { what: 'That page of the document' });
    await manager.delete(FactRow, { documentId: id, name });
    await manager.delete(FactEmptied, { documentId: id, name });
    if (!value) await manager.insert(FactEmptied, { documentId: id, name, emptiedBy: actor.id });
    else {
      await manager.insert(FactRow, {
        documentId: id,
        name,
        value,
        pageId: place.pageId ?? null,
        box: place.box ?? null,
        confidence: 1,
        confirmedBy: actor.id,
      });
    }
    // What a paper of another kind says is asked of it anew.
    if (name === 'kind') await refreshFacts(manager, id);
    else await typeFacts(manager, id);
    await record(manager, actor, 'set a fact', 'document', id, { name, value });
    await announce(manager, 'document', id);
  });
}

/** Takes a fact back to what was read, or to nothing where nothing was. @throws Problem 'not-found' */
export async function restoreFact({ database }: Context, actor: ActingAs, id: string, name: FactName): Promise<void> {
  await database.source.transaction(async (manager) => {
    await lockDocument(manager, id);
    await manager.delete(FactRow, { documentId: id, name });
    await manager.delete(FactEmptied, { documentId: id, name });
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
    await manager.update(Document, { id }, { taxes: admitted, taxesBy: actor.id });
    await record(manager, actor, 'set the taxes', 'document', id, { taxes: admitted });
    await announce(manager, 'document', id);
  });
}

/** @throws Problem 'not-valid' when there is no such kind */
async function insistOnKind(manager: EntityManager, kind: string): Promise<void> {
  const kinds: string[] = [...KINDS, ...(await readSettings(manager)).ownKinds.map(({ name }) => name)];
  if (!kinds.includes(kind)) throw new Problem('not-valid', { detail: `the kind must be one of ${kinds.join(', ')}` });
}

/** Asks what waits in Check anew, when there are other kinds; what a person said stays. */
export async function askAgain(manager: EntityManager): Promise<void> {
  for (const { id } of await documentsInCheck(manager)) {
    await lockDocument(manager, id);
    await refreshFacts(manager, id);
    await announce(manager, 'document', id);
  }
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
      throw new Problem('not-valid', { detail: 'a kind is named by letters, figures, blanks and hyphens' });
    case 'currency':
      throw new Problem('not-valid', { detail: 'a currency is named by three letters, such as EUR' });
  }
}

/** Lets a document wait behind all others. */
export async function putToBack({ database }: Context, actor: ActingAs, id: string): Promise<void> {
  await database.source.transaction(async (manager) => {
    insist(await lockDocument(manager, id), 'check');
    await takeLastTurn(manager, id);
    await record(manager, actor, 'put to the back', 'document', id);
    await announce(manager, 'document', id);
  });
}
