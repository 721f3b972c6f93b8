import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { Document, Stack } from '../platform/entities';
import { documentHolding } from './queries';

// Rows are locked in one order everywhere, so that nobody waits for each other in a circle: stacks, documents, pages.

/**
 * The stack, locked until the transaction ends; not for its key, as all locks are that don't delete: PostgreSQL looks a page's
 * stack up again when the page is changed twice in one transaction, and that must not wait for whoever waits for the page.
 * @throws Problem 'not-found', 'stack-sorted'
 */
export async function lockOpen(manager: EntityManager, id: string): Promise<Stack> {
  const stack = await manager.findOne(Stack, { where: { id }, lock: { mode: 'for_no_key_update' } });
  if (!stack || stack.binnedAt) throw new Problem('not-found', { what: 'The stack' });
  if (stack.state !== 'open') throw new Problem('stack-sorted');
  return stack;
}

/** A document, locked until the transaction ends, if it is there. */
export function lockDocumentIfThere(manager: EntityManager, id: string): Promise<Document | null> {
  return manager.findOne(Document, { where: { id }, lock: { mode: 'for_no_key_update' } });
}

/** A document, locked until the transaction ends. @throws Problem 'not-found' */
export async function lockDocument(manager: EntityManager, id: string): Promise<Document> {
  const document = await lockDocumentIfThere(manager, id);
  if (!document) throw new Problem('not-found', { what: 'The document' });
  return document;
}

/** The document that a page belongs to, locked until the transaction ends when asked. */
export async function documentOfPage(
  manager: EntityManager,
  pageId: string,
  { lock = false } = {},
): Promise<string | undefined> {
  const [found] = await documentHolding(manager, pageId, lock);
  return found?.id;
}
