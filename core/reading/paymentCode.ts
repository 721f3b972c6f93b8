import { isIban } from './facts/signs';

/** What a payment code asks for; null for what it leaves open. */
export interface PaymentCode {
  /** Who is to be paid. */
  name: string;
  /** Without spaces. */
  iban: string;
  /** In units of the currency. */
  amount: number | null;
  /** ISO 4217. */
  currency: string;
  reference: string | null;
}

/** What stands in a square code of a bill, if that is what it is: a payment code of the EPC (EPC069-12) or a Swiss QR-bill. */
export function readPaymentCode(text: string): PaymentCode | null {
  const lines = text.split(/\r?\n/).map((line) => line.trim());
  const code = lines[0] === 'BCD' ? fromEpc(lines) : lines[0] === 'SPC' ? fromSwiss(lines) : null;
  return code && code.name !== '' && isIban(code.iban) ? code : null;
}

/** Lines of EPC069-12: service tag, version, character set, identification, BIC, name, IBAN, amount, purpose, reference, text. */
function fromEpc([
  ,
  ,
  ,
  identification,
  ,
  name = '',
  iban = '',
  amount = '',
  ,
  reference = '',
  text = '',
]: string[]): PaymentCode | null {
  if (identification !== 'SCT') return null;
  const asked = /^EUR(\d{1,9}(?:\.\d{1,2})?)$/.exec(amount);
  return {
    name,
    iban: bare(iban),
    amount: asked ? Number(asked[1]) : null,
    currency: 'EUR',
    reference: reference || text || null,
  };
}

/** Places of lines in the Swiss Implementation Guidelines QR-bill, version 2: account, creditor's name, amount, currency, reference. */
const SWISS = { iban: 3, name: 5, amount: 18, currency: 19, reference: 28, text: 29 };

function fromSwiss(lines: string[]): PaymentCode | null {
  const at = (name: keyof typeof SWISS) => lines[SWISS[name]] ?? '';
  if (!/^(?:CHF|EUR)$/.test(at('currency'))) return null;
  return {
    name: at('name'),
    iban: bare(at('iban')),
    amount: /^\d{1,9}(?:\.\d{1,2})?$/.test(at('amount')) ? Number(at('amount')) : null,
    currency: at('currency'),
    reference: at('reference') || at('text') || null,
  };
}

const bare = (iban: string) => iban.replace(/\s/g, '').toUpperCase();
