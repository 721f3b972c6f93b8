import { EntityManager } from 'typeorm';
import { Problem } from '@crow/contract/problems';
import { rows } from '../platform/database';
import { Stack } from '../platform/entities';

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
