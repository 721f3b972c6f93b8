/**
 * Money as it is kept and reckoned with: a whole number of the smallest unit of its currency, never a fraction of a binary number.
 * Decimals by ISO 4217; two where the currency is not known.
 */
export interface Money {
  /** How many of the smallest unit: cents, pence, yen, fils. */
  units: number;
  /** By ISO 4217; null where it is not known. */
  currency: string | null;
}

const WITHOUT_DECIMALS = 'BIF CLP DJF GNF ISK JPY KMF KRW PYG RWF UGX UYI VND VUV XAF XOF XPF'.split(' ');
const THREE_DECIMALS = 'BHD IQD JOD KWD LYD OMR TND'.split(' ');
const DECIMAL = /^([-+]?)(\d{1,13})(?:\.(\d{1,8}))?$/;

/** How many decimals a currency has. */
export function digitsOf(currency: string | null): number {
  if (currency === null) return 2;
  return WITHOUT_DECIMALS.includes(currency) ? 0 : THREE_DECIMALS.includes(currency) ? 3 : 2;
}

/**
 * The money that a decimal number says, such as `1184.20` or `-3`; digits that the currency lacks are rounded, half away from zero.
 * Nothing when the text is no such number.
 */
export function moneyOf(decimal: string, currency: string | null): Money | undefined {
  const found = DECIMAL.exec(decimal);
  if (!found) return undefined;
  const [, sign, whole, fraction = ''] = found;
  const digits = digitsOf(currency);
  const kept = Number(whole + fraction.slice(0, digits).padEnd(digits, '0'));
  const units = kept + (Number(fraction[digits] ?? 0) >= 5 ? 1 : 0);
  return { units: sign === '-' && units !== 0 ? -units : units, currency };
}

/** Money as a decimal number with all decimals of its currency: `1184.20`, `-3.00`, `1200` yen. */
export function writeMoney({ units, currency }: Money): string {
  const digits = digitsOf(currency);
  const all = String(Math.abs(units)).padStart(digits + 1, '0');
  const text = digits === 0 ? all : `${all.slice(0, -digits)}.${all.slice(-digits)}`;
  return units < 0 ? `-${text}` : text;
}
