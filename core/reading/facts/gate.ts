import { printable } from '../printable';
import { Box } from '../../geometry';
import { Booking, Fact, FactLine, Facts, TaxAtRate } from './fact';
import { KIND_NAME } from './kindList';
import { LONGEST_FACT, MONEY, typedFact } from './typedFact';
import { isDay } from '../dayForms';
import { moneyOf } from '../../money';
import { isIban } from './signs';

/** So long the description of a line is at most. */
const LONGEST_DESCRIPTION = 500;
/** Money beyond this is no price, in units of a currency. */
const MOST_MONEY = 1e10;
const MOST_LINES = 2000;
const MOST_TAXES = 20;
const MOST_QUANTITY = 1e9;

function isAmount(value: unknown, most = MOST_MONEY): value is number {
  return typeof value === 'number' && Number.isFinite(value) && Math.abs(value) <= most;
}

const toHundredths = (value: number) => Math.round(value * 100) / 100;

type Clean<Value> = (value: Value) => Value | null;

const text =
  (most = LONGEST_FACT): Clean<string> =>
  (value) =>
    (typeof value === 'string' && printable(value, most)) || null;
const day: Clean<string> = (value) => (isDay(value) ? value : null);
const money: Clean<number> = (value) => (isAmount(value) ? toHundredths(value) : null);
const rate: Clean<number> = (value) => (isAmount(value, 100) && value >= 0 ? toHundredths(value) : null);
const currency: Clean<string> = (value) => (/^[A-Z]{3}$/.test(value) ? value : null);

/** The lines of a bill as far as they can be lines of one. */
export function admitLines(lines: readonly FactLine[]): FactLine[] {
  return lines.slice(0, MOST_LINES).flatMap(({ description, quantity, unitPrice, discount, amount }) =>
    isAmount(amount)
      ? {
          description: text(LONGEST_DESCRIPTION)(description) ?? '',
          quantity: isAmount(quantity, MOST_QUANTITY) ? quantity : null,
          unitPrice: isAmount(unitPrice) ? unitPrice : null,
          ...(isAmount(discount, 100) && { discount }),
          amount: toHundredths(amount),
        }
      : [],
  );
}

/** The bookings of a statement as far as they can be bookings. */
export function admitBookings(bookings: readonly Booking[]): Booking[] {
  return bookings.slice(0, MOST_LINES).flatMap(({ date, text: told, amount, balance }) =>
    isDay(date) && isAmount(amount)
      ? {
          date,
          text: text(LONGEST_DESCRIPTION)(told) ?? '',
          amount: toHundredths(amount),
          balance: balance === null ? null : money(balance),
        }
      : [],
  );
}

/** Taxes by rate as far as they can be such. */
export function admitTaxes(taxes: readonly TaxAtRate[]): TaxAtRate[] {
  return taxes.slice(0, MOST_TAXES).flatMap(({ rate: percent, net, tax }) => {
    const [admittedRate, admittedTax] = [rate(percent), money(tax)];
    return admittedRate === null || admittedTax === null
      ? []
      : { rate: admittedRate, net: net === null ? null : money(net), tax: admittedTax };
  });
}

/**
 * The gate that all facts of papers go through, whatever they were read from: what can't be a fact of its name is dropped, what is
 * too long is cut. A paper may say anything; nothing of it may cost the page, the document, or those beside it.
 */
export function admitFacts(facts: Facts): Facts {
  return {
    kind: admit(facts.kind, (kind) => (KIND_NAME.test(kind) ? kind : null)),
    vendor: admit(facts.vendor, text()),
    date: admit(facts.date, day),
    dueDate: admit(facts.dueDate, day),
    number: admit(facts.number, text()),
    currency: admit(facts.currency, currency),
    net: admit(facts.net, money),
    tax: admit(facts.tax, money),
    taxRate: admit(facts.taxRate, rate),
    total: admit(facts.total, money),
    amountDue: admit(facts.amountDue, money),
    reference: admit(facts.reference, text()),
    customer: admit(facts.customer, text()),
    order: admit(facts.order, text()),
    policy: admit(facts.policy, text()),
    iban: admit(facts.iban, (iban) => (isIban(iban) ? iban : null)),
    period: admit(facts.period, text()),
    ends: admit(facts.ends, day),
    opening: admit(facts.opening, money),
    closing: admit(facts.closing, money),
    taxes: admit(facts.taxes, (taxes) => someOf(admitTaxes(taxes))),
    subject: admit(facts.subject, text()),
    lines: admit(facts.lines, (lines) => someOf(admitLines(lines))),
    bookings: admit(facts.bookings, (bookings) => someOf(admitBookings(bookings))),
  };
}

const someOf = <Item>(items: Item[]): Item[] | null => (items.length > 0 ? items : null);

const NOWHERE: Box = [0, 0, 0, 0];

function admit<Value>(fact: Fact<Value> | null, clean: Clean<Value>): Fact<Value> | null {
  if (!fact) return null;
  const value = clean(fact.value);
  if (value === null) return null;
  return {
    ...fact,
    value,
    // What it may be as well has to be possible, too.
    ...(fact.other !== undefined && { other: clean(fact.other) ?? undefined }),
    page: Number.isInteger(fact.page) && fact.page > 0 ? fact.page : 1,
    box: fact.box.every(Number.isFinite) ? fact.box : NOWHERE,
    confidence: Math.min(1, Math.max(0, fact.confidence || 0)),
  };
}

/** A fact as it is kept, from an archive; null when it can't be one. */
export function admitKept(name: string, value: unknown): string | null {
  if (typeof value !== 'string') return null;
  if (MONEY.includes(name)) {
    const amount = moneyOf(value, null);
    return amount && isAmount(amount.units / 100) ? value : null;
  }
  const admitted = typedFact(name, text()(value) ?? '');
  return ('value' in admitted && admitted.value) || null;
}
