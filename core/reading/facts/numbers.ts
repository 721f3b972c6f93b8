import type { Reason } from './reason';
import { Word } from '../words';
import { readAmount } from './money';
import { Fact, leastSure, placeOf } from './fact';
import { labelOf } from './labelled';
import { NUMBER, OTHER_NUMBER, PLAIN_NUMBER, DATE, DUE } from './labels';
import { fold, Row } from './rows';

/** What an invoice's or receipt's number looks like: figures, perhaps with letters, hyphens, strokes and points between. */
const LOOKS_LIKE_ONE = /^#?[A-Z]{0,6}[-/.]?\d[\dA-Z]*(?:[-/.][\dA-Z]+)*$/i;

/** The number of an invoice or receipt, as it calls it. */
export function findNumber(rows: readonly Row[]): Fact | null {
  let best: { score: number; fact: Fact } | undefined;
  for (const row of rows) {
    row.words.forEach((word, at) => {
      const value = trimmed(word.text);
      if (!LOOKS_LIKE_ONE.test(value) || !/\d{2}|^#\d/.test(value) || isSomethingElse(row, word, at)) return;
      const hash = word.text.startsWith('#');
      const label = labelOf(rows, row, [word], {
        number: NUMBER,
        plain: PLAIN_NUMBER,
        other: OTHER_NUMBER,
        day: DATE,
        due: DUE,
      });
      const named = label?.name === 'number' ? 3 : label?.name === 'plain' || hash ? 1.4 : titled(row, word) ? 1.8 : -9;
      if (label && (label.name === 'other' || label.name === 'day' || label.name === 'due') && !hash) return;
      const score = named - (label?.away ?? 0) * 0.05 - (label?.where === 'above' ? 0.2 : 0) - row.number * 0.01;
      if (score < 0 || (best && best.score >= score)) return;
      const most = label?.name === 'number' ? 0.985 : 0.86;
      const why: Reason = label
        ? { code: label.where === 'above' ? 'under' : 'beside', label: label.text }
        : { code: 'marked-as-number' };
      const confidence = most * leastSure([word]);
      best = { score, fact: { value: value.replace(/^#/, ''), page: row.page, box: placeOf([word]), confidence, why } };
    });
  }
  return best?.fact ?? null;
}

const trimmed = (text: string) => text.replace(/^[(:]+|[):;,.]+$/g, '');

/** A word in a heading: “Invoice 2026-0417”. */
function titled(row: Row, word: Word): boolean {
  const cell = row.cells.find(({ words }) => words.includes(word))!;
  const before = fold(
    cell.words
      .slice(0, cell.words.indexOf(word))
      .map(({ text }) => text)
      .join(' '),
  );
  return /^(?:(?:tax |vat |sales )?invoice|rechnung|facture|factura|fattura|factuur|fatura|receipt|quittung)[:.]?$/.test(
    before.trim(),
  );
}

/** Amounts, dates, times, percentages and house numbers are no numbers of papers. */
function isSomethingElse(row: Row, { text }: Word, at: number): boolean {
  if (readAmount(text)?.exact || /%|€|£|\$/.test(text)) return true;
  if (/^\d{1,2}[./-]\d{1,2}[./-]\d{2,4}$|^\d{4}-\d{2}-\d{2}$|^\d{1,2}:\d{2}/.test(text)) return true;
  // The day or year of a date in words.
  const [before, after] = [row.words[at - 1]?.text ?? '', row.words[at + 1]?.text ?? ''];
  return (
    /^\d{1,4}[.,]?$/.test(text) &&
    ((/^\p{L}{3,}\.?$/u.test(before) && /^(19|20)\d\d/.test(text)) ||
      (/^\p{Lu}\p{Ll}+$/u.test(after) && text.length <= 2))
  );
}
