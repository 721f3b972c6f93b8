import { readAmount } from '../../reading/facts/money';
import { Text } from './text';
import { Understood } from './understood';

const CURRENCIES: [currency: string, names: string][] = [
  ['GBP', '£|pounds?|quid|gbp|pfund|livres?(?: sterling)?'],
  ['EUR', '€|euros?|eur'],
  ['USD', '\\$|dollars?|usd'],
  ['CHF', 'chf|francs?|franken|fr'],
];
const MONEY = `(?:(£|€|\\$|gbp|eur|chf|usd) ?)?(\\d[\\d.,']*)(?: ?(£|€|\\$|pounds?|quid|gbp|pfund|livres?(?: sterling)?|euros?|eur|dollars?|usd|chf|francs?|franken))?(?![\\p{L}\\p{N}])`;
const OVER =
  'over|above|more than|(?:higher|dearer|larger|bigger) than|greater than|at least|exceeding|exceeds?|from|uber|mehr als|mindestens|ab|plus de|au moins|superieure?s? a|depass(?:ent|e|ant)|de plus de|hoher als|teurer als';
const UNDER =
  'under|below|less than|(?:lower|smaller) than|up to|at most|unter|weniger als|bis zu|hochstens|moins de|au plus|inferieure?s? a|de moins de|billiger als|cheaper than';

function currencyOf(name: string | undefined): string | null {
  return name === undefined
    ? null
    : (CURRENCIES.find(([, names]) => new RegExp(`^(?:${names})$`).test(name))?.[0] ?? null);
}

/** Takes between which amounts papers are to be. */
export function takeAmounts(text: Text): Understood['amounts'] {
  const between = new RegExp(`(?:between|zwischen|entre) ${MONEY} (?:and|und|et) ${MONEY}`, 'u').exec(text.rest);
  const value = (digits: string) => (readAmount(digits)?.cents ?? NaN) / 100;
  const isYear = (digits: string, ...units: (string | undefined)[]) =>
    /^(19|20)\d\d$/.test(digits) && units.every((unit) => unit === undefined);
  if (between && (between[1] ?? between[3] ?? between[4] ?? between[6])) {
    text.rest = text.rest.replace(between[0], ' ');
    const [, a, low, b, c, high, d] = between;
    return { least: value(low), most: value(high), currency: currencyOf(a ?? b ?? c ?? d) };
  }
  for (const [words, isOver] of [
    [OVER, true],
    [UNDER, false],
  ] as const) {
    const found = new RegExp(`(?<![\\p{L}\\p{N}])(?:${words}) ${MONEY}`, 'u').exec(text.rest);
    if (!found) continue;
    const [whole, before, digits, after] = found;
    // “From 2024” and “until 12” are days unless a currency stands beside them.
    const isPlain = /^(from|ab|bis zu|up to) /.test(whole) && before === undefined && after === undefined;
    if (isPlain || isYear(digits, before, after) || Number.isNaN(value(digits))) continue;
    text.rest = text.rest.replace(whole, ' ').replace(/ {2,}/g, ' ');
    const currency = currencyOf(before ?? after);
    return isOver ? { least: value(digits), most: null, currency } : { least: null, most: value(digits), currency };
  }
  return null;
}
