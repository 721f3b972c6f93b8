import { readDateRange } from '../reading/dates';
import { readAmount } from '../reading/facts/money';
import { fold } from '../reading/facts/rows';
import { tokenise } from './tokens';

export type Comparison = '<' | '<=' | '=' | '>=' | '>';

/** A condition on what is known of a document, as it was typed: `total>100`, `date>=2026-03`, `who:marlowe`. */
export type Condition =
  | { field: 'total' | 'net' | 'tax'; comparison: Comparison; amount: number }
  | { field: 'date' | 'dueDate'; comparison: Comparison; from: string; to: string }
  | { field: 'vendor' | 'kind' | 'number' | 'subject' | 'folder' | 'tag'; text: string };

/** What somebody typed into Find: rows of tokens, one token each unless several stood in quotes. */
export interface Query {
  phrases: string[][];
  /** Words that must not stand in the document. */
  without: string[];
  conditions: Condition[];
  /** Whether the last token may be the beginning of a longer word, as it is while typing. */
  open: boolean;
}

const MOST_PARTS = 12;

/** What fields are called when typed. */
const FIELDS: Record<string, Condition['field']> = {
  total: 'total',
  amount: 'total',
  net: 'net',
  tax: 'tax',
  vat: 'tax',
  date: 'date',
  due: 'dueDate',
  who: 'vendor',
  from: 'vendor',
  kind: 'kind',
  number: 'number',
  about: 'subject',
  subject: 'subject',
  folder: 'folder',
  in: 'folder',
  tag: 'tag',
};
const CONDITION = new RegExp(
  `(?<![^\\s])(${Object.keys(FIELDS).join('|')})(<=|>=|<|>|=|:)(?:["“„«]([^"“”„«»]*)["”“»]|(\\S+))`,
  'giu',
);
const WITHOUT = /(?<![^\s])[-–−](\p{L}[\p{L}\p{N}]*)/gu;

/**
 * Takes a typed query apart; words in double quotes (any country's) belong together, all parts must be on a page. What looks like
 * a condition but isn't one (`date>soon`) is searched as words.
 */
export function parseQuery(typed: string): Query {
  const conditions: Condition[] = [];
  const without: string[] = [];
  const rest = typed
    .replace(CONDITION, (whole, name: string, sign: string, quoted?: string, plain?: string) => {
      const condition = conditionOf(FIELDS[name.toLowerCase()], sign, quoted ?? plain ?? '');
      if (!condition || conditions.length === MOST_PARTS) return whole;
      conditions.push(condition);
      return ' ';
    })
    .replace(WITHOUT, (whole, word: string) => {
      if (without.length === MOST_PARTS) return whole;
      without.push(...tokenise(word).map((token) => token.text));
      return ' ';
    });
  const phrases: string[][] = [];
  for (const [, quoted, plain] of rest.matchAll(/["“„«]([^"“”„«»]*)["”“»]|([^"“„«]+)/g)) {
    const tokens = tokenise(quoted ?? plain).map((token) => token.text);
    if (quoted !== undefined) {
      if (tokens.length) phrases.push(tokens);
    } else phrases.push(...tokens.map((token) => [token]));
  }
  return { phrases: phrases.slice(0, MOST_PARTS), without, conditions, open: /[\p{L}\p{N}]$/u.test(rest) };
}

function conditionOf(field: Condition['field'], sign: string, value: string): Condition | undefined {
  const comparison = sign === ':' ? '=' : (sign as Comparison);
  if (field === 'total' || field === 'net' || field === 'tax') {
    const amount = readAmount(value);
    return amount && { field, comparison, amount: amount.cents / 100 };
  }
  if (field === 'date' || field === 'dueDate') {
    const range = readDateRange(value);
    return range && { field, comparison, ...range };
  }
  const text = fold(value).trim();
  return comparison === '=' && text ? { field, text } : undefined;
}
