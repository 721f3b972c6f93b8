import { BookCountry } from '../ledger/books/taxCodes';
import { dayOf } from '../reading/dayForms';
import { Kind } from '../reading/facts/kindList';
import { fold } from '../reading/facts/rows';
import { KEEPING_RULES, KeepingRule, TermBegin } from './rules';

/** What decides about a sheet. */
export interface SheetPaper {
  kind: Kind;
  /** The day that it bears, or on which it was filed (ISO 8601). */
  day: string;
  /** When what it says ends; null where it doesn't say. */
  ends: string | null;
  inBooks: boolean;
  /** What it is called, and what it is about. */
  about: string;
}

/** What is called like this proves something by itself, whatever kind of paper it is read as. */
const PROVES =
  /\b(guarantee|warranty|deed|title deeds?|certificate|diploma|last will|testament|power of attorney|garantie\w*|urkunde|\w*zeugnis|bescheinigung|grundbuch\w*|vollmacht|kaufvertrag|acte|titre de propriete|attestation|diplome|procuration)\b/;

/** What the rules say of a sheet and of its file. */
export interface Judgement {
  /** The first day on which the sheet may go; null for never. */
  mayGoFrom: string | null;
  /** The last day on which the file must be kept; null where nothing asks for it. */
  fileUntil: string | null;
  rule: KeepingRule;
}

/** The first rule that fits a paper and holds today. @param today ISO 8601 */
export function judgeSheet(paper: SheetPaper, country: BookCountry, today: string): Judgement {
  const kind = PROVES.test(fold(paper.about)) ? 'certificate' : paper.kind;
  const rule = KEEPING_RULES.find(
    (each) =>
      (each.country === null || each.country === country) &&
      each.kinds.includes(kind) &&
      (each.inBooks === null || each.inBooks === paper.inBooks) &&
      (each.ends === null || each.ends === (paper.ends !== null)) &&
      (each.from === null || each.from <= today) &&
      (each.until === null || each.until >= today),
  )!;
  const lastDay = ({ months, from }: { months: number; from: TermBegin }) => after(beginOf(from, paper), months);
  const { sheet, file } = rule;
  return {
    mayGoFrom: sheet === 'keep' ? null : sheet === 'may go' ? paper.day : nextDay(lastDay(sheet)),
    fileUntil: file && lastDay(file),
    rule,
  };
}

function beginOf(from: TermBegin, { day, ends }: SheetPaper): string {
  if (from === 'year end') return `${day.slice(0, 4)}-12-31`;
  return from === 'its end' ? (ends ?? day) : day;
}

/** So many months after a day; the last of a month where it has no such day. */
function after(day: string, months: number): string {
  const [year, month, date] = day.split('-').map(Number);
  const last = new Date(year, month + months, 0).getDate();
  return dayOf(new Date(year, month - 1 + months, Math.min(date, last)));
}

function nextDay(day: string): string {
  const [year, month, date] = day.split('-').map(Number);
  return dayOf(new Date(year, month - 1, date + 1));
}
