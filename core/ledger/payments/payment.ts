import { isIban } from '../../reading/facts/signs';
import { writeMoney } from '../../money';

/** What is to be transferred; money in the smallest unit of its currency. */
export interface Payment {
  /** What tells it from the others, of 35 signs at most. */
  id: string;
  /** Who is to be paid. */
  name: string;
  /** Without spaces. */
  iban: string;
  units: number;
  currency: string;
  /** What the one who is paid knows it by: a creditor reference (ISO 11649), or the number of a bill. */
  reference: string;
}

/** Why something can't be paid so. */
export type PaymentProblem = 'no-iban' | 'iban-wrong' | 'nothing-to-pay' | 'not-euro';

/** What keeps a payment from a transfer in euros; nothing when it can be one. */
export function paymentProblem({ iban, units, currency }: Payment): PaymentProblem | undefined {
  if (units <= 0) return 'nothing-to-pay';
  if (currency !== 'EUR') return 'not-euro';
  if (iban === '') return 'no-iban';
  return isIban(iban) ? undefined : 'iban-wrong';
}

/**
 * The signs that banks pass on everywhere (EPC217-08): letters without accents, figures and a few more; ä as ae, ß as ss.
 * @param most so many of them
 */
export function transferText(text: string, most: number): string {
  return text
    .replace(/[äöüÄÖÜ]/g, (letter) => ({ ä: 'ae', ö: 'oe', ü: 'ue', Ä: 'Ae', Ö: 'Oe', Ü: 'Ue' })[letter]!)
    .replaceAll('ß', 'ss')
    .replaceAll('&', '+')
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/[^A-Za-z0-9/\-?:().,'+ ]/g, ' ')
    .replace(/ +/g, ' ')
    .trim()
    .slice(0, most)
    .trim();
}

/** Whether a reference is one of creditors (ISO 11649): its check figures fit (ISO 7064, MOD 97-10). */
export function isCreditorReference(reference: string): boolean {
  const plain = reference.replace(/\s/g, '').toUpperCase();
  if (!/^RF\d{2}[A-Z0-9]{1,21}$/.test(plain)) return false;
  const turned = plain.slice(4) + plain.slice(0, 4);
  const figures = [...turned].map((sign) => parseInt(sign, 36)).join('');
  return [...figures].reduce((rest, figure) => (rest * 10 + Number(figure)) % 97, 0) === 1;
}

/**
 * What a payment code says that a banking app reads from the screen (European Payments Council, EPC069-12, version 002).
 * @throws Error when it is no transfer in euros: see paymentProblem
 */
export function epcCode(payment: Payment): string {
  const problem = paymentProblem(payment);
  if (problem) throw new Error(`No payment code can be made: ${problem}.`);
  const { name, iban, units, currency, reference } = payment;
  const isStructured = isCreditorReference(reference);
  return [
    'BCD',
    '002',
    '1',
    'SCT',
    '',
    name.slice(0, 70),
    iban,
    `EUR${writeMoney({ units, currency })}`,
    '',
    isStructured ? reference.replace(/\s/g, '').toUpperCase() : '',
    isStructured ? '' : reference.slice(0, 140),
  ].join('\n');
}
