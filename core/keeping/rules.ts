import { BookCountry } from '../ledger/books/taxCodes';
import { Kind } from '../reading/facts/kindList';

/** What becomes of the sheet of a paper once its file is proven: it is kept for good, may go at once, or after so many months. */
export type SheetTerm = 'keep' | 'may go' | { months: number; from: TermBegin };

/** From when months are counted: from the end of the year that a paper bears, its day, or the day on which it ends. */
export type TermBegin = 'year end' | 'day' | 'its end';

/** What holds for papers of some kinds. */
export interface KeepingRule {
  /** Null for everywhere. */
  country: BookCountry | null;
  kinds: readonly Kind[];
  /** Only papers that prove an entry in the books, or only those that don't; null for both. */
  inBooks: boolean | null;
  /** Only papers that say when they end, or only those that don't; null for both. */
  ends: boolean | null;
  sheet: SheetTerm;
  /** How long the file itself must be kept, wherever its sheet is; null where nothing asks for it. */
  file: { months: number; from: TermBegin } | null;
  /** Why, for whoever holds the sheet in their hand. */
  why: string;
  /** What says so. */
  source: string;
  /** The first day on which it holds, and the last; null for open (ISO 8601). It holds for whatever is still kept on that day. */
  from: string | null;
  until: string | null;
}

const VOUCHERS: readonly Kind[] = [
  'receipt',
  'invoice',
  'credit note',
  'reminder',
  'delivery note',
  'order',
  'quote',
  'statement',
  'ticket',
  'payslip',
  'notice',
  'letter',
  'other',
];
const BUYING: readonly Kind[] = ['receipt', 'invoice', 'credit note'];
const LETTERS: readonly Kind[] = ['letter', 'order', 'quote', 'delivery note', 'reminder'];
/** Of which it is known what they are, and nothing asks for them; the kind of a paper that nobody could tell is none of these. */
const NOTHING_ASKS: readonly Kind[] = VOUCHERS.filter((kind) => kind !== 'other' && kind !== 'notice');
const EVERY_KIND: readonly Kind[] = [...VOUCHERS, 'contract', 'certificate'];

const rule = (
  country: BookCountry | null,
  kinds: readonly Kind[],
  says: Pick<KeepingRule, 'sheet' | 'file' | 'why' | 'source'> & Partial<KeepingRule>,
): KeepingRule => ({ inBooks: null, ends: null, from: null, until: null, country, kinds, ...says });

const yearsFromYearEnd = (years: number) => ({ months: 12 * years, from: 'year end' as const });

/** How long claims from a contract can be made after it has ended. */
const CLAIMS: [BookCountry, years: number, TermBegin, source: string][] = [
  ['GB', 6, 'its end', 'Limitation Act 1980 s. 5'],
  ['DE', 4, 'its end', '§§ 195, 199 BGB: three years from the end of the year'],
  ['FR', 5, 'its end', 'Code civil art. 2224'],
  ['CH', 10, 'its end', 'OR Art. 127'],
  ['US', 4, 'its end', 'Uniform Commercial Code § 2-725; several states allow longer'],
];

/**
 * What the law and prudence ask of papers; the first that fits holds. A help for whoever decides, who may say otherwise paper by paper;
 * what is uncertain is kept.
 */
export const KEEPING_RULES: readonly KeepingRule[] = [
  rule(null, ['certificate'], {
    ends: false,
    sheet: 'keep',
    file: null,
    why: 'Deeds, titles and certificates prove by the sheet itself',
    source: 'Originals are asked for by registries and offices everywhere',
  }),
  rule(null, ['certificate'], {
    ends: true,
    sheet: { months: 0, from: 'its end' },
    file: null,
    why: 'What is guaranteed or certified is claimed with the sheet until it ends',
    source: 'Guarantors may ask for the original',
  }),
  rule(null, ['payslip'], {
    sheet: 'keep',
    file: null,
    why: 'It proves times of work until a pension is settled',
    source: 'Code du travail art. L3243-4; offices for pensions elsewhere ask for it, too',
  }),
  ...CLAIMS.map(([country, years, from, source]) =>
    rule(country, ['contract'], {
      ends: true,
      sheet: { months: 12 * years, from },
      file: { months: 12 * years, from },
      why: `Claims can be made for ${years} years after it has ended, and the signed sheet proves best`,
      source,
    }),
  ),
  rule(null, ['contract'], {
    ends: false,
    sheet: 'keep',
    file: null,
    why: 'It is not known when it ends, and the signed sheet proves best',
    source: 'Signatures are examined on originals',
  }),
  rule('GB', VOUCHERS, {
    inBooks: true,
    sheet: 'may go',
    file: yearsFromYearEnd(6),
    why: 'A legible copy is a record like the sheet',
    source: 'VATA 1994 Sch. 11 para. 6(3); TMA 1970 s. 12B(4); VAT Notice 700/21',
  }),
  rule('DE', VOUCHERS, {
    inBooks: true,
    sheet: 'may go',
    file: yearsFromYearEnd(8),
    why: 'A scanned voucher replaces the sheet',
    source: '§ 147 Abs. 2 und 3 AO (BEG IV); GoBD Rz. 136 bis 140',
    from: '2025-01-01',
  }),
  rule('DE', VOUCHERS, {
    inBooks: true,
    sheet: 'may go',
    file: yearsFromYearEnd(10),
    why: 'A scanned voucher replaces the sheet',
    source: '§ 147 Abs. 2 und 3 AO; GoBD Rz. 136 bis 140',
    until: '2024-12-31',
  }),
  rule('FR', VOUCHERS, {
    inBooks: true,
    sheet: yearsFromYearEnd(6),
    file: yearsFromYearEnd(10),
    why: 'A copy replaces the sheet only with a qualified seal, which this program has not',
    source: 'LPF art. L102 B, A102 B-2; Code de commerce art. L123-22',
  }),
  rule('CH', VOUCHERS, {
    inBooks: true,
    sheet: 'may go',
    file: yearsFromYearEnd(10),
    why: 'Vouchers may be kept as files that can’t be changed unnoticed',
    source: 'OR Art. 958f; GeBüV Art. 9 und 10; MWSTG Art. 70',
  }),
  rule('US', VOUCHERS, {
    inBooks: true,
    sheet: 'may go',
    file: { months: 40, from: 'year end' },
    why: 'A legible electronic record is a record like the sheet',
    source: '26 U.S.C. § 6501(a): three years from filing in April; Rev. Proc. 97-22',
  }),
  rule('DE', LETTERS, {
    inBooks: false,
    sheet: 'may go',
    file: yearsFromYearEnd(6),
    why: 'A letter of business may be kept as a file',
    source: '§ 147 Abs. 1 Nr. 2 und 3, Abs. 2 und 3 AO',
  }),
  rule('GB', BUYING, {
    inBooks: false,
    sheet: 'may go',
    file: { months: 72, from: 'day' },
    why: 'A copy proves what was bought as well',
    source: 'Limitation Act 1980 s. 5; Consumer Rights Act 2015',
  }),
  rule('DE', BUYING, {
    inBooks: false,
    sheet: 'may go',
    file: yearsFromYearEnd(2),
    why: 'A copy proves what was bought as well',
    source: '§ 438 BGB; § 14b Abs. 1 Satz 5 UStG',
  }),
  rule('FR', BUYING, {
    inBooks: false,
    sheet: 'may go',
    file: { months: 24, from: 'day' },
    why: 'A copy proves what was bought as well',
    source: 'Code de la consommation art. L217-3, L218-2',
  }),
  rule('CH', BUYING, {
    inBooks: false,
    sheet: 'may go',
    file: { months: 24, from: 'day' },
    why: 'A copy proves what was bought as well',
    source: 'OR Art. 210',
  }),
  rule(null, ['notice'], {
    sheet: { months: 12, from: 'day' },
    file: null,
    why: 'Until its terms have run out, the sheet proves when it came',
    source: 'Prudence; terms for objections are a month or two in most places',
  }),
  rule(null, NOTHING_ASKS, {
    sheet: 'may go',
    file: null,
    why: 'Nothing asks for the sheet',
    source: 'No law that is known here',
  }),
  rule(null, EVERY_KIND, {
    sheet: 'keep',
    file: null,
    why: 'It is not known what it is',
    source: 'What is uncertain is kept',
  }),
];
