/** Signs and short names that papers print for currencies, the longer before those that they hold. */
const SIGNS: [string, RegExp][] = [
  ['GBP', /£/],
  ['EUR', /€|\beuros?\b/i],
  ['CHF', /\bsfr\.?(?=\W|$)|\bfr\.(?=\s*\d)|^Fr\.$/i],
  ['CAD', /\bc(?:an|a)?\$/i],
  ['AUD', /\bau?\$/i],
  ['NZD', /\bnz\$/i],
  ['HKD', /\bhk\$/i],
  ['SGD', /\bs\$/i],
  ['BRL', /\br\$/i],
  ['USD', /\$/],
  ['INR', /₹|^Rs\.?(?=\d|$)/],
  ['JPY', /¥|￥/],
  ['TRY', /₺/],
  ['KRW', /₩/],
  ['ILS', /₪/],
  ['PLN', /\bzł/i],
  ['CZK', /\bKč/],
  ['HUF', /\bFt\b/],
];

/** Codes that papers print in small letters as well. */
const OFTEN = ['EUR', 'GBP', 'CHF', 'USD', 'CAD', 'AUD', 'NZD', 'SEK', 'NOK', 'DKK', 'PLN'];

/** Codes of ISO 4217 besides, without those that are words as well (ALL, CUP, MAD, PEN, TOP, TRY and the like). */
const SELDOM = (
  'AED AFN AOA ARS AWG AZN BBD BDT BGN BHD BMD BND BRL BSD BWP BYN BZD CLP CNY CZK DJF DZD EGP ETB FJD GHS GIP GMD GTQ GYD HKD HNL HUF IDR ILS INR ' +
  'IQD ISK JMD JOD JPY KES KGS KHR KRW KWD KYD KZT LBP LKR LYD MDL MGA MKD MMK MVR MWK MXN MYR MZN NAD NGN NIO NPR OMR PGK PHP PKR PYG QAR ' +
  'RON RSD RUB RWF SAR SCR SGD SZL THB TND TTD TWD TZS UAH UGX UYU UZS VES VND VUV XAF XCD XOF XPF YER ZAR ZMW'
).split(' ');

/** How the sign of a currency, or its code, stands before or behind figures (a part of a pattern). */
export const SIGN = `(?:[£€₹¥￥₺₩₪]|(?:C[Aa]?|A[Uu]?|NZ|US|HK|S|R)?\\$|${OFTEN.map((code) => `[${code[0]}${code[0].toLowerCase()}](?:${code.slice(1)}|${code.slice(1).toLowerCase()})`).join('|')}|[Ss]?F[Rr]\\.|Rs\\.?|${SELDOM.join('|')})`;

/** Signs with which figures are an amount though they have no decimals. */
export const SURE_SIGN = new RegExp(SIGN);

/** Dollars of other countries, which their papers print with the sign alone as well. */
export const DOLLARS = ['CAD', 'AUD', 'NZD', 'HKD', 'SGD'];

const CODE = new RegExp(`(?<!\\p{L})(?:${OFTEN.join('|')})(?!\\p{L})`, 'iu');
const SELDOM_CODE = new RegExp(`(?<!\\p{L})(?:${SELDOM.join('|')})(?!\\p{L})`, 'u');

/** The currency (ISO 4217) that a text names, if any. @param paper the currency of the paper: a dollar's sign alone may be one of its */
export function currencyIn(text: string, paper?: string): string | undefined {
  const named =
    SIGNS.find(([, sign]) => sign.test(text))?.[0] ?? (CODE.exec(text) ?? SELDOM_CODE.exec(text))?.[0].toUpperCase();
  return named === 'USD' && paper && DOLLARS.includes(paper) && !/us/i.test(text) ? paper : named;
}

/** Whether a currency counts only where it stands beside figures: three capitals may be anything. */
export const isSeldom = (currency: string) => SELDOM.includes(currency);
