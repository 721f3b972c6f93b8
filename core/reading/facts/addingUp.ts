import { Booking, FactLine, TaxAtRate } from './fact';

/** Rounding may lead so many hundredths away. */
const ROUNDING = 2;

/**
 * What among the facts of a paper does not add up, in sentences for the person; nothing when all does that can be checked.
 * @param facts values by name, as they are kept: dates in ISO 8601, money with a point
 * @param listed what it lists, tax by rate where there are several, what a statement books
 */
export function whatDoesNotAddUp(
  facts: Readonly<Partial<Record<string, string>>>,
  {
    lines = [],
    taxes = [],
    bookings = [],
  }: { lines?: readonly FactLine[]; taxes?: readonly TaxAtRate[]; bookings?: readonly Booking[] } = {},
): string[] {
  const [net, tax, total] = [facts.net, facts.tax, facts.total].map(centsOf);
  const found: string[] = [];
  const say = (sentence: string) => found.push(sentence);
  const rate = Number(facts.taxRate);
  for (const { description, quantity, unitPrice, discount = 0, amount } of lines) {
    if (quantity === null || unitPrice === null) continue;
    const right = Math.round(quantity * unitPrice * (100 - discount));
    // The price may be without a tax that the amount is with.
    const fits = [right, right * (1 + (rate || 0) / 100)].some((cents) => Math.abs(cents - amount * 100) <= ROUNDING);
    if (!fits)
      say(
        `${quantity} × ${money(unitPrice * 100)}${discount ? ` less ${discount} %` : ''} is ${money(right)}, but ${money(amount * 100)} stands at “${description || 'a line'}”.`,
      );
  }
  const listed = Math.round(lines.reduce((sum, { amount }) => sum + amount * 100, 0));
  const sums = [net, total].filter((cents) => cents !== undefined);
  // A line may be rounded by itself.
  const near = Math.max(1, Math.floor(lines.length / 2));
  // A credit note lists what it gives back as it was billed.
  const isListed = (cents: number) =>
    Math.abs(cents - listed) <= near || (cents < 0 && Math.abs(cents + listed) <= near);
  if (lines.length > 0 && sums.length > 0 && !sums.some(isListed))
    say(
      `The lines make ${money(listed)}, but ${sums.map(money).join(' and ')} ${sums.length > 1 ? 'are' : 'is'} said.`,
    );
  if (net !== undefined && tax !== undefined && total !== undefined && Math.abs(net + tax - total) > 1)
    say(`${money(net)} and ${money(tax)} tax are ${money(net + tax)}, but the total is ${money(total)}.`);
  if (taxes.length < 2 && facts.taxRate && rate >= 0 && tax !== undefined) {
    const taxed = net ?? (total !== undefined ? total - tax : undefined);
    if (taxed !== undefined && Math.abs((taxed * rate) / 100 - tax) > ROUNDING)
      say(`${rate} % of ${money(taxed)} are ${money((taxed * rate) / 100)}, but the tax is ${money(tax)}.`);
  }
  for (const { rate: each, net: on, tax: at } of taxes)
    if (on !== null && Math.abs(on * each - at * 100) > ROUNDING)
      say(`${each} % of ${money(on * 100)} are ${money(on * each)}, but ${money(at * 100)} is said.`);
  if (taxes.length > 1 && tax !== undefined) {
    const sum = Math.round(taxes.reduce((cents, each) => cents + each.tax * 100, 0));
    if (Math.abs(sum - tax) > ROUNDING) say(`The taxes by rate make ${money(sum)}, but the tax is ${money(tax)}.`);
  }
  const [opening, closing] = [facts.opening, facts.closing].map(centsOf);
  if (bookings.length > 0 && opening !== undefined && closing !== undefined) {
    const leadsTo = Math.round(bookings.reduce((cents, { amount }) => cents + amount * 100, opening));
    if (leadsTo !== closing)
      say(
        `From ${money(opening)} the bookings lead to ${money(leadsTo)}, but the closing balance is ${money(closing)}.`,
      );
  }
  if (facts.date && facts.dueDate && facts.dueDate < facts.date) say('It is due before its date.');
  return found;
}

function centsOf(value: string | undefined): number | undefined {
  const number = Number(value);
  return value === undefined || value === '' || Number.isNaN(number) ? undefined : Math.round(number * 100);
}

function money(cents: number): string {
  return (Math.round(cents) / 100).toFixed(2);
}
