import { PageText } from '../words';
import { findDays } from './days';
import { admitFacts } from './gate';
import { Fact, Facts, leastSure, placeOf } from './fact';
import { findKind } from './kinds';
import { amountsIn, currencyIn } from './money';
import { findNumber } from './numbers';
import { Row, rowsOf } from './rows';
import { subjectOf } from './subject';
import { Reason } from './reason';
import { findSender } from './senders';
import { findSigns, senderBySigns } from './signs';
import { findSums } from './sums';
import { asLinesFact, findLines } from './tableLines';

/**
 * What a paper says: kind, who from, dates, number, money and lines, from the text of its pages (in order); null for what was
 * not found. Nothing is made up: each fact stands somewhere on the paper.
 * @param knownVendors names that a person has confirmed before: recognised again, in the spelling that was confirmed
 * @param knownSigns bank accounts, tax numbers, addresses and phones that stood on confirmed papers, and whose they were
 */
export function findFacts(
  pages: readonly Pick<PageText, 'width' | 'height' | 'words'>[],
  { knownVendors = [], knownSigns = [] }: { knownVendors?: string[]; knownSigns?: KnownSign[] } = {},
): Facts {
  const rows = rowsOf(pages);
  const kind = findKind(rows, pages[0]);
  const currency = findCurrency(rows);
  const isBill = kind?.value === 'invoice' || kind?.value === 'receipt';
  const { date, dueDate } = findDays(rows, isMonthFirst(rows, currency?.value));
  const lines = isBill ? findLines(rows) : [];
  const sums = isBill
    ? findSums(rows, lines)
    : { net: null, tax: null, taxRate: null, total: null, taxes: null, addsUp: false };
  return admitFacts({
    kind,
    vendor: senderOf(rows, pages, knownVendors, knownSigns),
    date,
    dueDate: isBill ? dueDate : null,
    number: isBill ? findNumber(rows) : null,
    currency: isBill ? currency : null,
    net: sums.net,
    tax: sums.tax,
    taxRate: sums.taxRate,
    total: sums.total,
    taxes: sums.taxes,
    subject: kind?.value === 'letter' ? findSubject(pages) : null,
    lines: asLinesFact(lines, sums.addsUp ? 0.97 : 0.6, {
      code: sums.addsUp ? 'rows-that-add-up' : 'rows-with-amounts',
    }),
  });
}

function findSubject(pages: readonly Pick<PageText, 'words'>[]): Fact | null {
  const subject = subjectOf(pages);
  if (!subject) return null;
  const { text: value, row, labelled } = subject;
  return {
    value,
    page: row.page,
    box: row.box,
    // A letter that was misread in it does no harm.
    confidence:
      (labelled ? 0.97 : 0.85) * (row.words.reduce((sum, { confidence }) => sum + confidence, 0) / row.words.length),
    why: { code: labelled ? 'behind-its-word' : 'at-the-salutation' },
  };
}

export type KnownSign = { kind: string; value: string; vendor: string };

/** Who a paper is from: by a name that is known, else by signs that are, else by its letterhead. */
function senderOf(
  rows: readonly Row[],
  pages: readonly Pick<PageText, 'width' | 'height' | 'words'>[],
  knownVendors: string[],
  knownSigns: KnownSign[],
): Fact | null {
  const read = findSender(rows, pages[0], knownVendors);
  const bySigns = knownSigns.length > 0 ? senderBySigns(findSigns(pages), knownSigns) : undefined;
  if (!bySigns || read?.why.code === 'known-name') return read;
  const { vendor: value, why } = bySigns;
  return { value, page: read?.page ?? 1, box: read?.box ?? [0, 0, 0, 0], confidence: 0.95, why };
}

/** The currency that stands beside most amounts; where none does, the one that is named anywhere. */
function findCurrency(rows: readonly Row[]): Fact | null {
  const votes = new Map<string, { count: number; fact: Fact }>();
  for (const row of rows) {
    const beside = amountsIn(row, true).length > 0;
    for (const word of row.words) {
      const value = currencyIn(word.text);
      if (!value) continue;
      const vote = votes.get(value);
      const weight = beside ? 3 : 1;
      if (vote) {
        vote.count += weight;
        // Shown where it stands last beside an amount: at the sums.
        if (beside) Object.assign(vote.fact, { page: row.page, box: placeOf([word]) });
      } else {
        const confidence = (beside ? 0.99 : 0.85) * leastSure([word]);
        const why: Reason = { code: 'currency-sign', sign: word.text };
        votes.set(value, { count: weight, fact: { value, page: row.page, box: placeOf([word]), confidence, why } });
      }
    }
  }
  const ranked = [...votes.values()].sort((a, b) => b.count - a.count);
  if (ranked.length === 0) return null;
  const [{ count, fact }] = ranked;
  // Seen again and again, it is sure even where one was read badly.
  return {
    ...fact,
    confidence: ranked.length > 1 ? Math.min(0.8, fact.confidence) : Math.max(fact.confidence, count >= 9 ? 0.97 : 0),
  };
}

/** Whether dates in figures have the month first: where another date on the paper shows it, or it is from where they write so. */
function isMonthFirst(rows: readonly Row[], currency: string | undefined): boolean {
  for (const { text } of rows) {
    for (const [, first, second] of text.matchAll(/\b(\d{1,2})[/.-](\d{1,2})[/.-](?:\d{4}|\d{2})\b/g)) {
      if (Number(first) > 12 && Number(second) <= 12) return false;
      if (Number(second) > 12 && Number(first) <= 12) return true;
    }
  }
  return (
    currency === 'USD' &&
    !rows.some(({ text }) => /\b(VAT|MwSt|TVA|IVA|btw|IBAN|Ltd|GmbH)\b|\b[A-Z]{1,2}\d{1,2} \d[A-Z]{2}\b/i.test(text))
  );
}
