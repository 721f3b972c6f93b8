import { around, Box } from '../../geometry';
import { Word } from '../words';
import { Kind, KINDS } from './kindList';
import type { Reason } from './reason';

export { type Kind, KINDS };

/** Something that was read from a document: what, where, and how sure. */
export interface Fact<Value = string> {
  value: Value;
  /** The page that it stands on, from 1. */
  page: number;
  /** Where it stands there, in pixels of the page's picture. */
  box: Box;
  /** From 0 to 1. */
  confidence: number;
  /** Why it is taken for this. */
  why: Reason;
  /** As it is printed, when a figure was misread and put right because only so everything adds up. */
  repaired?: string;
  /** What it may be as well, such as a day whose month may come first. */
  other?: Value;
}

/** A line of an invoice or a receipt; what is not printed is null. Money in units of the currency. */
export interface FactLine {
  description: string;
  quantity: number | null;
  unitPrice: number | null;
  /** In percent, where one was taken off. */
  discount?: number;
  amount: number;
}

/** Tax at one rate, in percent; what it is on is null where the paper does not say it. Money in units of the currency. */
export interface TaxAtRate {
  rate: number;
  net: number | null;
  tax: number;
}

/** A booking of an account's statement: what its balance changes by, and what it is then, if that is printed. */
export interface Booking {
  /** ISO 8601. */
  date: string;
  text: string;
  amount: number;
  balance: number | null;
}

/** What is known of a document; null for what was not found. */
export interface Facts {
  /** One of the list, or one that a person added. */
  kind: Fact | null;
  vendor: Fact | null;
  /** ISO 8601. */
  date: Fact | null;
  dueDate: Fact | null;
  number: Fact | null;
  /** ISO 4217. */
  currency: Fact | null;
  /** Money in units of the currency. */
  net: Fact<number> | null;
  tax: Fact<number> | null;
  /** In percent; of several rates the one with most tax. */
  taxRate: Fact<number> | null;
  /** Negative on a credit note. */
  total: Fact<number> | null;
  /** What is left to pay, where that is not the total. */
  amountDue: Fact<number> | null;
  /** The paper that this one is about: the bill of a reminder or a credit note, or what the other side calls it. */
  reference: Fact | null;
  /** What the sender calls whom it goes to. */
  customer: Fact | null;
  order: Fact | null;
  /** Of an insurance or a contract. */
  policy: Fact | null;
  /** The account to be paid to, without spaces. */
  iban: Fact | null;
  /** The time that it is for, as two days (ISO 8601) with a stroke between them. */
  period: Fact | null;
  /** The day on which a contract ends or until which an offer holds; ISO 8601. */
  ends: Fact | null;
  /** The balances of an account. */
  opening: Fact<number> | null;
  closing: Fact<number> | null;
  /** Tax by rate, where there are several. */
  taxes: Fact<TaxAtRate[]> | null;
  /** What a letter is about. */
  subject: Fact | null;
  lines: Fact<FactLine[]> | null;
  /** Of an account's statement. */
  bookings: Fact<Booking[]> | null;
}

/** The place of some words of one page. */
export function placeOf(words: readonly Word[]): Box {
  return around(words.map(({ box }) => box));
}

/** As sure as the least sure of some words, each of which must be right. */
export function leastSure(words: readonly Word[]): number {
  return words.reduce((least, { confidence }) => Math.min(least, confidence), 1);
}
