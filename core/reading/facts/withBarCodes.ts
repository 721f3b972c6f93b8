import { readPaymentCode } from '../paymentCode';
import { PageText } from '../words';
import { Fact, Facts } from './fact';

const NUMBERS = ['number', 'customer', 'order', 'policy', 'reference'] as const;
/** A code says a number again if so many of its letters and figures are the same. */
const LEAST_LETTERS = 5;
/** Letters that are taken for figures: two numbers that differ in nothing else are one. */
const LOOK_ALIKE: Record<string, string> = { O: '0', Q: '0', D: '0', I: '1', L: '1', Z: '2', S: '5', G: '6', B: '8' };
const alike = (letters: string) => letters.replace(/[A-Z]/g, (letter) => LOOK_ALIKE[letter] ?? letter);
/** Papers that a code alone may give a number, and what such a number looks like. */
const NUMBERED_BY_CODE = ['ticket', 'delivery note', 'receipt', 'notice'];
const NUMBER = /^(?=.*\d)[A-Z\d][A-Z\d /-]{5,29}$/i;
/** Numbers of articles (GTIN-8, GTIN-13) are of what is sold. */
const ARTICLE = /^(?:\d{8}|\d{13})$/;

const squeezed = (text: string) => text.toUpperCase().replace(/[^A-Z\d]/g, '');

/**
 * The facts of a paper with bar codes on it, which are certain by their check digits: a number that a code says again is sure, one
 * that was misread is as the code says, and a ticket or parcel without any has the one of its code.
 */
export function withBarCodes(facts: Facts, pages: readonly Pick<PageText, 'codes'>[]): Facts {
  const codes = pages.flatMap(({ codes: on = [] }, at) =>
    on.flatMap(({ text, box }) => (readPaymentCode(text) ? [] : [{ text: text.trim(), box, page: at + 1 }])),
  );
  if (codes.length === 0) return facts;
  const checked = { ...facts };
  for (const name of NUMBERS) {
    const read = facts[name];
    if (read)
      checked[name] =
        bySomeCode(
          read,
          codes.map(({ text }) => text),
        ) ?? read;
  }
  const kind = facts.kind?.value;
  const own = codes.filter(({ text }) => NUMBER.test(text) && !ARTICLE.test(text));
  const isNumbered = kind !== undefined && NUMBERED_BY_CODE.includes(kind);
  if (isNumbered && !checked.number && own.length === 1) {
    const [{ text: value, page, box }] = own;
    checked.number = { value, page, box, confidence: 0.9, why: { code: 'bar-code' } };
  }
  return checked;
}

/** A number as a code says it; undefined when none does. */
function bySomeCode(read: Fact, codes: readonly string[]): Fact | undefined {
  const letters = squeezed(read.value);
  if (letters.length < LEAST_LETTERS) return undefined;
  const sure = { confidence: 0.99, why: { code: 'bar-code' as const } };
  for (const code of codes) {
    const said = squeezed(code);
    if (said.includes(letters)) return { ...read, ...sure };
    if (alike(said) === alike(letters)) return { ...read, ...sure, value: code };
  }
  return undefined;
}
