import { NumberingFault, sayNumberingFault } from '../book';
import type { Reason } from './reason';
import { PageText, plainText } from '../words';

/** What tells a sender beside its name. */
export interface Sign {
  kind: 'iban' | 'tax' | 'web' | 'phone';
  /** Without spaces and punctuation, in capitals (web addresses in small letters). */
  value: string;
  /** For IBANs and tax numbers: whether the check digits fit. */
  fits: boolean;
}

/** IBANs by country: how many characters they have (ISO 13616). */
const IBAN_LENGTHS: Record<string, number> = {
  AT: 20,
  BE: 16,
  CH: 21,
  CZ: 24,
  DE: 22,
  DK: 18,
  ES: 24,
  FI: 18,
  FR: 27,
  GB: 22,
  IE: 22,
  IT: 27,
  LI: 21,
  LU: 20,
  NL: 18,
  NO: 15,
  PL: 28,
  PT: 25,
  SE: 24,
};

/** Before a tax number that is not the sender's: bills between firms name that of whoever pays, too. */
const OF_WHOEVER_PAYS = /\b(ihre?|kunden\S*|your|customer\S*|client|buyer\S*|votre|acheteur)\b/i;
const lineBefore = (text: string, at: number): string => text.slice(text.lastIndexOf('\n', at) + 1, at);

/**
 * Bank accounts, tax numbers, web addresses and phone numbers on a paper, each once.
 * @param pages in order
 */
export function findSigns(pages: readonly Pick<PageText, 'words'>[]): Sign[] {
  const found = new Map<string, Sign>();
  const add = (kind: Sign['kind'], value: string, fits = true) => found.set(`${kind} ${value}`, { kind, value, fits });
  const text = pages.map(({ words }) => plainText(words)).join('\n');
  for (const [, country, rest] of text.matchAll(/\b([A-Z]{2})(\d{2}(?: ?[A-Z0-9]){10,30})\b/g)) {
    const length = IBAN_LENGTHS[country];
    const value = (country + rest.replace(/ /g, '')).slice(0, length);
    if (length && value.length === length) add('iban', value, isIban(value));
  }
  const ibans = [...found.values()].map(({ value }) => value);
  for (const { 0: whole, index } of text.matchAll(
    /\b(?:AT ?U|BE|DE|ES|FR|GB|IT|LU|NL|PT|IE|DK|SE|PL|CHE)[ -]?[A-Z0-9][A-Z0-9 .-]{6,14}\d[A-Z]?\b/g,
  )) {
    const value = whole.replace(/[ .-]/g, '');
    if (OF_WHOEVER_PAYS.test(lineBefore(text, index))) continue;
    if (ibans.some((iban) => iban.startsWith(value.slice(0, 8)))) continue;
    const fits = taxNumberFits(value);
    if (fits !== undefined) add('tax', value, fits);
  }
  for (const [, name] of text.matchAll(/(?:www\.|https?:\/\/(?:www\.)?|@)((?:[a-z0-9-]+\.)+[a-z]{2,})\b/gi))
    add('web', name.toLowerCase());
  for (const [, number] of text.matchAll(
    /\b(?:tel|phone|fon|telefon|t[ée]l[ée]phone|tel[ée]fono|telefoon)\b[.: ]*(\+?[\d()/ -]{6,20}\d)/gi,
  )) {
    const value = number.replace(/\D/g, '').replace(/^0+/, '');
    if (value.length >= 6) add('phone', value);
  }
  return [...found.values()];
}

/** Whether it is known how long the IBANs of a country are. @param country two capitals */
export const isIbanCountry = (country: string): boolean => Object.hasOwn(IBAN_LENGTHS, country);

/** Whether an IBAN is as long as those of its country, and its check digits fit (ISO 7064 MOD 97-10). @param iban without spaces */
export function isIban(iban: string): boolean {
  const length = IBAN_LENGTHS[iban.slice(0, 2)] as number | undefined;
  return (length ?? iban.length) === iban.length && modulo97(iban.slice(4) + iban.slice(0, 4)) === 1;
}

function modulo97(text: string): number {
  let rest = 0;
  for (const character of text) {
    for (const digit of String(parseInt(character, 36))) rest = (rest * 10 + Number(digit)) % 97;
  }
  return rest;
}

/** Whether the check digits of a VAT number fit; undefined for what has not the form of one. @param number with its country */
export function taxNumberFits(number: string): boolean | undefined {
  const country = number.startsWith('CHE') ? 'CHE' : number.slice(0, 2);
  const rest = number.slice(country.length);
  const digits = [...rest].map(Number);
  const weighted = (weights: number[]) => weights.reduce((sum, weight, place) => sum + weight * digits[place], 0);
  switch (country) {
    case 'DE': {
      if (!/^\d{9}$/.test(rest)) return undefined;
      // ISO 7064 MOD 11, 10
      let product = 10;
      for (const digit of digits.slice(0, 8)) {
        const sum = (digit + product) % 10 || 10;
        product = (2 * sum) % 11;
      }
      return (11 - product) % 10 === digits[8];
    }
    case 'GB': {
      if (!/^\d{9}$/.test(rest)) return undefined;
      const sum = weighted([8, 7, 6, 5, 4, 3, 2]) + Number(rest.slice(7));
      return sum % 97 === 0 || (sum + 55) % 97 === 0;
    }
    case 'FR':
      if (!/^\d{11}$/.test(rest)) return undefined;
      return Number(rest.slice(0, 2)) === (12 + 3 * (Number(rest.slice(2)) % 97)) % 97;
    case 'BE':
      if (!/^[01]\d{9}$/.test(rest)) return undefined;
      return 97 - (Number(rest.slice(0, 8)) % 97) === Number(rest.slice(8));
    case 'AT': {
      if (!/^U\d{8}$/.test(rest)) return undefined;
      const own = [...rest.slice(1)].map(Number);
      const sum = own.slice(0, 7).reduce((total, digit, place) => {
        const doubled = place % 2 === 0 ? digit : 2 * digit;
        return total + Math.floor(doubled / 10) + (doubled % 10);
      }, 4);
      return (10 - (sum % 10)) % 10 === own[7];
    }
    case 'IT': {
      if (!/^\d{11}$/.test(rest)) return undefined;
      const sum = digits.reduce((total, digit, place) => {
        const doubled = place % 2 === 0 ? digit : 2 * digit;
        return total + (doubled > 9 ? doubled - 9 : doubled);
      }, 0);
      return sum % 10 === 0;
    }
    case 'NL': {
      if (!/^\d{9}B\d{2}$/.test(rest)) return undefined;
      const old = weighted([9, 8, 7, 6, 5, 4, 3, 2]) % 11;
      return old === digits[8] || modulo97(`NL${rest}`) === 1;
    }
    case 'PT': {
      if (!/^\d{9}$/.test(rest)) return undefined;
      const check = 11 - (weighted([9, 8, 7, 6, 5, 4, 3, 2]) % 11);
      return (check > 9 ? 0 : check) === digits[8];
    }
    case 'LU':
      if (!/^\d{8}$/.test(rest)) return undefined;
      return Number(rest.slice(0, 6)) % 89 === Number(rest.slice(6));
    case 'CHE': {
      if (!/^\d{9}(MWST|TVA|IVA)?$/.test(rest)) return undefined;
      return (11 - (weighted([5, 4, 3, 2, 7, 6, 5, 4]) % 11)) % 11 === digits[8];
    }
    default:
      return undefined;
  }
}

/**
 * The sender whose signs are on a paper: the one that most of them belong to. Signs of several senders say nothing: they are the
 * reader's own, or a bank's.
 * @param known which senders have each of these signs, of papers that were confirmed
 */
export function senderBySigns(
  signs: readonly Sign[],
  known: readonly { kind: string; value: string; vendor: string }[],
): { vendor: string; why: Reason } | undefined {
  const votes = new Map<string, Sign[]>();
  for (const sign of signs) {
    const vendors = new Set(
      known.filter(({ kind, value }) => kind === sign.kind && value === sign.value).map(({ vendor }) => vendor),
    );
    if (vendors.size === 1) for (const vendor of vendors) votes.set(vendor, [...(votes.get(vendor) ?? []), sign]);
  }
  const [best, second] = [...votes].sort((a, b) => b[1].length - a[1].length);
  if (!best || best[1].length === second?.[1].length) return undefined;
  return { vendor: best[0], why: { code: 'known-sign', kind: best[1][0].kind } };
}

/** What is wrong with what a paper says by itself, as a code with what it is about. */
export type Check = { code: 'iban'; iban: string } | NumberingFault;

/** Which check digits on a paper do not fit. */
export function checksOf(signs: readonly Sign[]): Check[] {
  const wrong = signs.filter(({ kind, fits }) => kind === 'iban' && !fits);
  return wrong.map(({ value }) => ({ code: 'iban', iban: value }));
}

/** A check in a sentence for the person. */
export function sayCheck(check: Check): string {
  if (check.code !== 'iban') return sayNumberingFault(check);
  const inFours = check.iban.replace(/(.{4})(?=.)/g, '$1 ');
  return `The check digits of the IBAN ${inFours} do not fit: a figure was misread, or misprinted.`;
}
