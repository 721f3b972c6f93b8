import { leastSure } from './fact';
import { Named } from './namedSums';

/** Figures that are taken for each other, and how sure an amount may be and still be doubted. */
const MISTAKEN = ['0689', '17', '27', '3589', '49', '56', '1469'];
const DOUBTED = 0.985;

/** Every reading of an amount in which one figure is another that it may be mistaken for, in hundredths. */
function otherReadings(cents: number): number[] {
  const digits = String(cents);
  return [...digits].flatMap((digit, at) => {
    const others = new Set(MISTAKEN.filter((set) => set.includes(digit)).join(''));
    others.delete(digit);
    return [...others].map((other) => Number(digits.slice(0, at) + other + digits.slice(at + 1)));
  });
}

/**
 * Puts a misread figure right: when net and tax don't make the total, and exactly one other reading of one doubtful amount makes
 * them, and makes the tax what its rate says where it says it, that is what stands there.
 * @param confirmed whether the lines make the net sum, so that only the total can be wrong where the tax is what its rate says
 */
export function repair(total: Named, net: Named, tax: Named, confirmed: boolean): Named | undefined {
  const fits = (t: number, n: number, x: number) =>
    n + x === t && (!tax.rate || Math.abs((n * tax.rate.percent) / 100 - x) <= 1);
  const [t, n, x] = [total, net, tax].map(({ amount }) => amount.cents);
  if (fits(t, n, x)) return undefined;
  const found = [
    ...(confirmed && tax.rate && fits(n + x, n, x) ? otherReadings(t) : readings(total))
      .filter((each) => fits(each, n, x))
      .map((cents) => ({ of: total, cents })),
    ...readings(net)
      .filter((each) => fits(t, each, x))
      .map((cents) => ({ of: net, cents })),
    ...readings(tax)
      .filter((each) => fits(t, n, each))
      .map((cents) => ({ of: tax, cents })),
  ];
  if (found.length !== 1) return undefined;
  const [{ of, cents }] = found;
  of.printed = of.amount.words.map(({ text }) => text).join(' ');
  of.amount = { ...of.amount, cents };
  return of;
}

/**
 * Puts back a comma or a point that was not read, where only so the net sum and the tax make the total: “713” was “7,13”. The sums are
 * changed in place.
 */
export function putBackPoints({ total, net, tax }: Record<'total' | 'net' | 'tax', readonly Named[]>): void {
  for (const sum of tax) {
    const text = sum.amount.words.map((word) => word.text).join('');
    const cents = sum.amount.cents / 100;
    if (!/^\D*\d{3,}\D*$/.test(text) || !Number.isInteger(cents)) continue;
    if (!net.some((one) => total.some((other) => one.amount.cents + cents === other.amount.cents))) continue;
    sum.printed = text;
    sum.amount = { ...sum.amount, cents };
  }
}

/** No tax is higher, in percent. */
const HIGHEST_RATE = 30;

/** Puts back a point that was not read in a rate, where only so the rate fits the sums: “81 %” was “8.1 %”. The sums are changed in place. */
export function putBackPointsOfRates({ total, net, tax }: Record<'total' | 'net' | 'tax', readonly Named[]>): void {
  for (const sum of tax) {
    if (!sum.rate || sum.rate.percent <= HIGHEST_RATE) continue;
    const percent = sum.rate.percent / 10;
    const fits = (part: number) => Math.abs(part - sum.amount.cents) <= 1;
    const isIn = total.some(({ amount }) => fits((amount.cents * percent) / (100 + percent)));
    if (isIn || net.some(({ amount }) => fits((amount.cents * percent) / 100))) sum.rate = { ...sum.rate, percent };
  }
}

function readings({ amount }: Named): number[] {
  return leastSure(amount.words) < DOUBTED ? otherReadings(amount.cents) : [];
}
