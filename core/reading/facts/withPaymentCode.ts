import { editDistance } from '../../finding/editDistance';
import { Box } from '../../geometry';
import { PaymentCode, readPaymentCode } from '../paymentCode';
import { PageText } from '../words';
import { Fact, Facts } from './fact';
import { kindTraits, likeOf } from './kindList';

/** Names that differ by so large a share of their letters are of two firms. */
const SAME_NAME = 0.25;

/**
 * The facts of a paper with a payment code on it: what the code says is certain, and outweighs what was recognised. A total that is
 * more than it asks for stays; then the code says what is left to pay.
 * @param pages with the codes that stand on them
 */
export function withPaymentCode(facts: Facts, pages: readonly Pick<PageText, 'codes'>[]): Facts {
  const found = pages.flatMap(({ codes = [] }, at) =>
    codes.flatMap(({ text, box }) => {
      const code = readPaymentCode(text);
      return code ? [{ code, box, page: at + 1 }] : [];
    }),
  );
  if (found.length === 0 || !mayAsk(facts)) return facts;
  const [{ code, box, page }] = found;
  const fact = <Value>(value: Value): Fact<Value> => ({
    value,
    page,
    box,
    confidence: 1,
    why: { code: 'payment-code' },
  });
  return {
    ...facts,
    ...asked(facts, code, fact),
    iban: fact(code.iban),
    currency: fact(code.currency),
    vendor: vendorBy(facts.vendor, code.name, box, page),
    reference: facts.reference ?? (code.reference ? fact(code.reference) : null),
  };
}

/** A code that comes with a letter or an advertisement is no bill. */
function mayAsk({ kind }: Facts): boolean {
  return kind === null || kind.value === 'other' || kindTraits[likeOf(kind.value, [])].sums !== undefined;
}

function asked(
  { total, amountDue }: Facts,
  { amount }: PaymentCode,
  fact: (value: number) => Fact<number>,
): Pick<Facts, 'total' | 'amountDue'> {
  if (amount === null || amount === 0) return { total, amountDue };
  if (!total || total.value === amount) {
    const same = total && { page: total.page, box: total.box };
    return { total: { ...fact(amount), ...same }, amountDue };
  }
  return total.value > amount ? { total, amountDue: fact(amount) } : { total: fact(amount), amountDue: null };
}

/** The sender as the paper names it; as the code does, where it was misread or not found. */
function vendorBy(read: Fact | null, name: string, box: Box, page: number): Fact {
  const told: Fact = { value: name, page, box, confidence: 0.95, why: { code: 'payment-code' } };
  if (!read) return told;
  const isSame = editDistance(read.value.toLowerCase(), name.toLowerCase()) <= SAME_NAME * name.length;
  if (isSame) return { ...told, page: read.page, box: read.box };
  return read.confidence >= 0.75 ? read : told;
}
