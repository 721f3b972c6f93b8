/** Countries whose tax on sales is known. */
export const BOOK_COUNTRIES = ['GB', 'DE', 'FR', 'CH', 'US'] as const;
export type BookCountry = (typeof BOOK_COUNTRIES)[number];

/** The money that each keeps its books in. */
export const CURRENCY_OF: Record<BookCountry, string> = { GB: 'GBP', DE: 'EUR', FR: 'EUR', CH: 'CHF', US: 'USD' };

/** How something is taxed: at a rate of the country, at nothing, or by whoever buys. */
export type TaxTreatment = 'rate' | 'zero' | 'exempt' | 'reverse' | 'none';

/** A treatment as the books of a country know it, for as long as it holds. */
export interface TaxCode {
  /** Such as `GB-S`; it means the same treatment over all its rates. */
  code: string;
  country: BookCountry;
  name: string;
  treatment: TaxTreatment;
  /** In percent; null where no tax is charged by whoever sells. */
  rate: number | null;
  /** The first day, and the last; null while it holds (ISO 8601). */
  from: string;
  until: string | null;
  /** The law that says so. */
  source: string;
}

type Span = [rate: number, from: string, until: string | null];
const EVER = '1990-01-01';

const charged = (country: BookCountry, letter: string, name: string, source: string, ...spans: Span[]): TaxCode[] =>
  spans.map(([rate, from, until]) => ({
    code: `${country}-${letter}`,
    country,
    name,
    treatment: rate === 0 ? 'zero' : 'rate',
    rate,
    from,
    until,
    source,
  }));
const uncharged = (
  country: BookCountry,
  letter: string,
  name: string,
  treatment: TaxTreatment,
  source: string,
): TaxCode => ({
  code: `${country}-${letter}`,
  country,
  name,
  treatment,
  rate: null,
  from: EVER,
  until: null,
  source,
});

/** Tax on sales by country, with the days from when each rate holds; the latest law looked up is of 2024. */
export const TAX_CODES: readonly TaxCode[] = [
  ...charged(
    'GB',
    'S',
    'Standard rate',
    'Value Added Tax Act 1994, s. 2(1)',
    [17.5, '1991-04-01', '2008-11-30'],
    [15, '2008-12-01', '2009-12-31'],
    [17.5, '2010-01-01', '2011-01-03'],
    [20, '2011-01-04', null],
  ),
  ...charged('GB', 'R', 'Reduced rate', 'Value Added Tax Act 1994, s. 29A and sch. 7A', [5, '1997-09-01', null]),
  ...charged('GB', 'H', 'Hospitality, for a time', 'Finance Act 2021, s. 92', [12.5, '2021-10-01', '2022-03-31']),
  ...charged('GB', 'Z', 'Zero rate', 'Value Added Tax Act 1994, s. 30 and sch. 8', [0, EVER, null]),
  uncharged('GB', 'E', 'Exempt', 'exempt', 'Value Added Tax Act 1994, s. 31 and sch. 9'),
  uncharged('GB', 'V', 'Reverse charge', 'reverse', 'Value Added Tax Act 1994, s. 8 and s. 55A'),
  uncharged('GB', 'N', 'No tax on it', 'none', 'outside the scope, or from somebody who is not registered'),

  ...charged(
    'DE',
    'S',
    'Regelsteuersatz',
    'UStG § 12 Abs. 1; § 28 Abs. 1 (2020)',
    [16, '1998-04-01', '2006-12-31'],
    [19, '2007-01-01', '2020-06-30'],
    [16, '2020-07-01', '2020-12-31'],
    [19, '2021-01-01', null],
  ),
  ...charged(
    'DE',
    'R',
    'Ermäßigter Satz',
    'UStG § 12 Abs. 2; § 28 Abs. 2 (2020)',
    [7, EVER, '2020-06-30'],
    [5, '2020-07-01', '2020-12-31'],
    [7, '2021-01-01', null],
  ),
  ...charged('DE', 'Z', 'Nullsteuersatz', 'UStG § 12 Abs. 3', [0, '2023-01-01', null]),
  uncharged('DE', 'E', 'Steuerfrei', 'exempt', 'UStG § 4'),
  uncharged('DE', 'V', 'Steuerschuldnerschaft des Empfängers', 'reverse', 'UStG § 13b'),
  uncharged('DE', 'N', 'Ohne Steuer', 'none', 'UStG § 1, § 19'),

  ...charged('FR', 'S', 'Taux normal', 'CGI art. 278', [19.6, '2000-04-01', '2013-12-31'], [20, '2014-01-01', null]),
  ...charged(
    'FR',
    'I',
    'Taux intermédiaire',
    'CGI art. 278 bis, 279',
    [7, '2012-01-01', '2013-12-31'],
    [10, '2014-01-01', null],
  ),
  ...charged('FR', 'R', 'Taux réduit', 'CGI art. 278-0 bis', [5.5, EVER, null]),
  ...charged('FR', 'P', 'Taux particulier', 'CGI art. 281 quater à 281 octies', [2.1, EVER, null]),
  uncharged('FR', 'E', 'Exonéré', 'exempt', 'CGI art. 261'),
  uncharged('FR', 'V', 'Autoliquidation', 'reverse', 'CGI art. 283'),
  uncharged('FR', 'N', 'Sans TVA', 'none', 'CGI art. 293 B, 256'),

  ...charged(
    'CH',
    'S',
    'Normalsatz',
    'MWSTG Art. 25 Abs. 1',
    [8, '2011-01-01', '2017-12-31'],
    [7.7, '2018-01-01', '2023-12-31'],
    [8.1, '2024-01-01', null],
  ),
  ...charged(
    'CH',
    'R',
    'Reduzierter Satz',
    'MWSTG Art. 25 Abs. 2',
    [2.5, '2011-01-01', '2023-12-31'],
    [2.6, '2024-01-01', null],
  ),
  ...charged(
    'CH',
    'B',
    'Beherbergung',
    'MWSTG Art. 25 Abs. 4',
    [3.8, '2011-01-01', '2017-12-31'],
    [3.7, '2018-01-01', '2023-12-31'],
    [3.8, '2024-01-01', null],
  ),
  uncharged('CH', 'E', 'Von der Steuer ausgenommen', 'exempt', 'MWSTG Art. 21'),
  uncharged('CH', 'V', 'Bezugsteuer', 'reverse', 'MWSTG Art. 45'),
  uncharged('CH', 'N', 'Ohne Steuer', 'none', 'MWSTG Art. 10, 18'),

  uncharged('US', 'T', 'Sales tax, part of the cost', 'none', 'set by state and place; none is given back'),
  uncharged('US', 'N', 'No sales tax', 'none', 'set by state and place'),
];

/** The codes of a country that hold on a day (ISO 8601). */
export const taxCodesOn = (country: BookCountry, day: string): TaxCode[] =>
  TAX_CODES.filter((each) => each.country === country && each.from <= day && (!each.until || day <= each.until));

const byCurrency = (currency: string): BookCountry[] =>
  BOOK_COUNTRIES.filter((country) => CURRENCY_OF[country] === currency);

/**
 * The code that tax on a paper is of: the own country's if it has that rate on that day, else that of a country with the paper's money;
 * nothing where no country is known to charge it.
 * @param rate in percent; null where the paper has no tax
 */
export function taxCodeFor(
  rate: number | null,
  { country, currency, day }: { country: BookCountry; currency: string; day: string },
): TaxCode | undefined {
  const isOwn = CURRENCY_OF[country] === currency;
  const countries = [...new Set(isOwn ? [country, ...byCurrency(currency)] : [...byCurrency(currency), country])];
  // Without tax: whose law it is matters to the own books only.
  if (rate === null) return taxCodesOn(country, day).findLast(({ treatment }) => treatment === 'none');
  for (const each of countries) {
    const found = taxCodesOn(each, day).find((code) => code.rate === rate);
    if (found) return found;
  }
  return countries.includes('US') && rate > 0 ? taxCodesOn('US', day)[0] : undefined;
}

/** What a code is called, with its rate on a day. */
export function nameOfCode(code: string, day: string): string {
  const all = TAX_CODES.filter((each) => each.code === code);
  const found = all.find(({ from, until }) => from <= day && (!until || day <= until)) ?? all.at(-1);
  if (!found) return code;
  return found.rate === null ? found.name : `${found.name} ${found.rate} %`;
}
