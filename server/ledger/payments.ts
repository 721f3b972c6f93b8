import { EntityManager } from 'typeorm';
import { Entry as ShownEntry, LedgerPayment } from '@crow/contract/ledger';
import { Problem } from '@crow/contract/problems';
import { epcCode, Payment, paymentProblem, PaymentProblem } from '@crow/core/ledger/payments/payment';
import { writePain001 } from '@crow/core/ledger/payments/pain001';
import { isIban } from '@crow/core/reading/facts/signs';
import { squareCode } from '../engines/squareCode';
import { Context } from '../platform/context';
import { Account } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { waysOf } from './books';
import { describeEntry } from './entries';
import { ibanFor, senderNamed } from './queries';

async function paymentOf(manager: EntityManager, entry: ShownEntry): Promise<Payment> {
  const { id, serial, who, number, what, units, paid, currency } = entry;
  return {
    id: `entry ${serial}`,
    name: who,
    iban: (await ibanFor(manager, id, who)) || ((await senderNamed(manager, who))?.iban ?? ''),
    units: units - paid,
    currency,
    reference: number || what || `entry ${serial}`,
  };
}

/** How an entry is paid, with the payment code where it can be one. @throws Problem 'not-found' */
export async function entryPayment(manager: EntityManager, id: string): Promise<LedgerPayment> {
  const { id: _, ...payment } = await paymentOf(manager, await describeEntry(manager, id));
  const problem = paymentProblem({ ...payment, id }) ?? null;
  const squares = problem ? null : squareCode(epcCode({ ...payment, id }), 'M');
  const code = squares && squares.map((row) => row.map((dark) => (dark ? '1' : '0')).join(''));
  const before = (await senderNamed(manager, payment.name))?.iban;
  const ibanBefore = before && payment.iban && before !== payment.iban ? before : null;
  return { ...payment, problem, code, ibanBefore };
}

const WHY: Record<PaymentProblem, string> = {
  'no-iban': 'No paper of this sender says where to pay.',
  'iban-wrong': 'The bank account on its paper is not right: its check figures don’t fit.',
  'nothing-to-pay': 'Nothing of it is still to be paid.',
  'not-euro': 'It is not in euros.',
};

/**
 * What is to be paid of entries, as a file of transfers for a bank.
 * @param on the day on which they are to be made (ISO 8601)
 * @throws Problem 'not-found', 'payer-not-known', 'payment-not-possible'
 */
export async function savePayments(
  { database: { source } }: Context,
  actor: ActingAs,
  { ids, accountId, on }: { ids: string[]; accountId: string; on: string },
): Promise<Buffer> {
  const { manager } = source;
  const { holder } = await waysOf(manager);
  const account = await manager.findOneBy(Account, { id: accountId });
  const iban = account?.number.replace(/\s/g, '').toUpperCase() ?? '';
  if (!holder || !isIban(iban)) throw new Problem('payer-not-known');
  const payments: Payment[] = [];
  for (const id of new Set(ids)) {
    const entry = await describeEntry(manager, id);
    const payment = await paymentOf(manager, entry);
    const problem = paymentProblem(payment);
    if (problem)
      throw new Problem('payment-not-possible', { serial: entry.serial, who: entry.who, detail: WHY[problem] });
    payments.push(payment);
  }
  const at = new Date().toISOString().slice(0, 19);
  await record(manager, actor, 'made payments of', 'books', null, { entries: payments.length });
  const name = `CROW ${at.replace(/\D/g, '')}`;
  return Buffer.from(writePain001(payments, { payer: { name: holder, iban }, on, at, id: name }));
}
