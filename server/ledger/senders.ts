import { EntityManager } from 'typeorm';
import { PaperBooks, Sender as ShownSender, SenderFields } from '@crow/contract/ledger';
import { Problem } from '@crow/contract/problems';
import { findSigns } from '@crow/core/reading/facts/signs';
import { senderAddress } from '@crow/core/reading/senderAddress';
import { textsOf } from '../checking/facts';
import { Context } from '../platform/context';
import { Category, Fact, Sender } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';
import { senderNamed, sendersWithEntries, taxNumbersOfOthers } from './queries';

/** What a paper says of whoever it is from. */
async function saidOnPaper(manager: EntityManager, documentId: string, name: string): Promise<SenderFields> {
  const pages = await textsOf(manager, documentId);
  const signs = findSigns(pages);
  const iban = await manager.findOneBy(Fact, { documentId, name: 'iban' });
  const taxNumbers = signs.flatMap(({ kind, fits, value }) => (kind === 'tax' && fits ? value : []));
  // What stands on papers of others, too, is of whoever gets them.
  const others = await taxNumbersOfOthers(manager, taxNumbers, name);
  return {
    address: pages.length > 0 ? senderAddress(pages[0].words, name) : '',
    taxNumber: taxNumbers.find((each) => !others.has(each)) ?? '',
    iban: iban?.value.replace(/\s/g, '') ?? '',
  };
}

/** Who a paper is from, as known, or as it will be once it is entered. */
export async function senderOf(
  manager: EntityManager,
  documentId: string,
  name: string,
): Promise<PaperBooks['sender']> {
  const [known, says] = [await senderNamed(manager, name), await saidOnPaper(manager, documentId, name)];
  if (!known) return { ...says, known: false, ibanBefore: null };
  const { address, taxNumber, iban } = known;
  const ibanBefore = iban && says.iban && iban !== says.iban ? iban : null;
  return { address, taxNumber, iban, known: true, ibanBefore };
}

/** Makes whoever a paper is from known by what it says, or adds to what is known what it says beside that. A bank account that is known stays. */
export async function knowSender(manager: EntityManager, documentId: string, name: string): Promise<void> {
  const says = await saidOnPaper(manager, documentId, name);
  const known = await senderNamed(manager, name);
  if (!known) {
    await manager.insert(Sender, { name, ...says, documentId });
    return;
  }
  const { address, taxNumber, iban } = known;
  const [more, better] = [
    { address: address || says.address, taxNumber: taxNumber || says.taxNumber, iban: iban || says.iban },
    { address, taxNumber, iban },
  ];
  if (JSON.stringify(more) !== JSON.stringify(better)) await manager.update(Sender, { id: known.id }, more);
}

export function listSenders(manager: EntityManager): Promise<ShownSender[]> {
  return sendersWithEntries(manager);
}

/** Changes what is known of somebody. @throws Problem 'not-found' */
export function changeSender(
  { database: { source } }: Context,
  actor: ActingAs,
  id: string,
  change: Partial<SenderFields> & { categoryId?: string | null },
): Promise<void> {
  return source.transaction(async (manager) => {
    const sender = await manager.findOneBy(Sender, { id });
    if (!sender) throw new Problem('not-found', { what: 'The sender' });
    if (change.categoryId && !(await manager.existsBy(Category, { id: change.categoryId })))
      throw new Problem('not-found', { what: 'The category' });
    const said = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined));
    await manager.update(Sender, { id }, { ...said, name: sender.name });
    await record(manager, actor, 'changed', 'books', null, { sender: sender.name, ...said });
    await announce(manager, 'ledger', null);
  });
}
