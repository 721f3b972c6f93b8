import { addDays } from '../../shelf/days';
import { Word } from '../words';
import { Fact, Kind, leastSure, placeOf } from './fact';
import { wordsAround } from './labelled';
import { readAmount } from './money';
import { fold, Row } from './rows';

/** Numbers of days, weeks or months that are written out (folded). */
const IN_WORDS: Record<string, number> = {
  one: 1,
  a: 1,
  two: 2,
  four: 4,
  eines: 1,
  einem: 1,
  zwei: 2,
  vier: 4,
  un: 1,
  deux: 2,
  seven: 7,
  ten: 10,
  fourteen: 14,
  thirty: 30,
  sixty: 60,
  sieben: 7,
  acht: 8,
  zehn: 10,
  vierzehn: 14,
  dreissig: 30,
  huit: 8,
  dix: 10,
  quinze: 15,
  trente: 30,
};
const COUNT = `(\\d{1,3}|${Object.keys(IN_WORDS).join('|')})(?: ?\\(\\w+\\))?`;
const UNIT =
  '(?:(?:calendar|kalender|working|werk)[ -]?)?(days?|tagen?|jours?|giorni|dias|dagen|weeks?|wochen?|semaines?|(?:calendar )?months?|monat(?:en|s)?|mois)(?![\\p{L}])';

/** Times with names of their own (folded): their unit is days. */
const NAMED_SPANS: Record<string, number> = { quinzaine: 15, huitaine: 8, fortnight: 14 };

/** A time in a clause (folded): “within 14 days”, “30 jours”, “one month”, “net 15”. */
const SPANS = [
  new RegExp(`(?<![\\p{L}\\d.,])${COUNT} ?${UNIT}`, 'u'),
  /\bnet(?:t|to)? ?[:-]? ?(\d{1,3})(?![.,]?\d)(?= ?(?:$|[.,;)]|days|tage|from|ab))/u,
  new RegExp(`(${Object.keys(NAMED_SPANS).join('|')})(?![\\p{L}])`, 'u'),
];

/** What says that a time is one to pay in (folded). */
const ASKED =
  /\b(?:pay|payable|paid|payment|settle|settled|settlement|remit|due|terms|transfer|cheques?|net|nett|netto)\b|\b(?:from|of|ab|apres) (?:the )?(?:date of )?(?:the )?(?:our )?(?:invoice|tax point|rechnungs\p{L}+|facture|facturation)\b|zahl|begleich|uberweis|ausgleich|entricht|fallig|payer|payable|paiement|regler|reglement|virement|echeance|a verser|\bpag[ao]|betal|voldoen|overmak/u;

/** What else is to be done within a time, or what comes after it (folded). */
const SOMETHING_ELSE =
  /skonto|discount|escompte|sconto|rabatt|\d ?%|return|ruckgabe|retour|widerspr|widerruf|einspruch|appeal|recours|objection|complain|\bclaims?\b|shortage|reklam|reclam|beanstand|mangel|quer(?:y|ies)|late\b|verzug|verspat|mahn|interest|zinsen|penalit|overdue|refund|erstatt|rembours|cancel|kundig|resili|storn|valid|gultig|valable|warrant|garant|unpaid|\bnot\b|\bnicht\b|\bif\b|\bwenn\b|\bfalls\b|reduced|older|alter als|\bcredit of\b/u;
/** What the delivery of goods takes is another time, where nothing is said of paying (folded). */
const DELIVERED = /deliver|liefer|livr|versand|ship/;

const TO_MONTHS_END =
  /fin de mois|end of (?:the )?(?:following )?month|\be\.?o\.?m\b|month end|monatsende|zum ende des monats/;

/** How sure a day is that the paper leaves to be counted, and within how many days papers are to be paid. */
const COUNTED = 0.8;
const LONGEST = 120;

/** Kinds that ask to be paid. */
const ASKING: Kind[] = ['invoice', 'reminder', 'notice'];

/**
 * The day by which a paper is to be paid that says only within how many days of its own: “payable within 14 days”, “net 30”.
 * @param date of the paper, ISO 8601
 */
export function dueWithin(rows: readonly Row[], date: string | undefined, kind: Kind | undefined): Fact | null {
  if (date === undefined || kind === undefined || !ASKING.includes(kind)) return null;
  for (const [at, row] of rows.entries()) {
    for (const [place, cell] of row.cells.entries()) {
      const goesOn = isOneSentence(row, rows[at + 1]) ? rows[at + 1].words : [];
      const sentence = isOneSentence(rows[at - 1], row) ? rows[at - 1].folded : '';
      // In a cell of its own it is named by the one before it, or by the one above.
      const isAlone = cell.words.length <= LONGEST_SPAN;
      const named = isAlone ? [row.cells[place - 1]?.folded, wordsAround(rows, row, cell.words).above] : [sentence];
      const found = spanIn([...cell.words, ...goesOn], cell.words.length, named.join(' '));
      if (!found) continue;
      const { count, unit, words, text } = found;
      const day = after(date, count, unit);
      if (day === undefined) continue;
      const isToMonthsEnd = TO_MONTHS_END.test(`${cell.folded} ${fold(goesOn.map((word) => word.text).join(' '))}`);
      return {
        value: isToMonthsEnd ? endOfMonth(day) : day,
        page: row.page,
        box: placeOf(words.filter((word) => row.words.includes(word))),
        confidence: COUNTED * leastSure(words),
        why: { code: 'counted', text },
      };
    }
  }
  return null;
}

/** A line of so many words is one of a sentence. */
const SENTENCE = 6;

/** Whether a sentence goes on from one line to the next: rows of a table, with their sums, are none. */
function isOneSentence(row: Row | undefined, next: Row | undefined): boolean {
  if (!row || row.page !== next?.page || /[.;:!?]$/.test(row.text)) return false;
  const isText = ({ cells, words }: Row) => cells.length === 1 && !readAmount(words[words.length - 1].text)?.exact;
  // “Please pay £222.20 / within fourteen days”
  if (next.cells.length === 1 && /^(?:within|innerhalb|innert|binnen|sous|dans)\b/.test(next.text)) return true;
  return isText(row) && isText(next) && Math.max(row.words.length, next.words.length) >= SENTENCE;
}

/** The first time to pay in that some words say, which begins within the first of them. @param above what stands above or before them and belongs to them */
function spanIn(
  words: readonly Word[],
  first: number,
  above: string,
): { count: number; unit: string; words: Word[]; text: string } | undefined {
  for (let from = 0; from < first; from++) {
    for (const pattern of SPANS) {
      const group = words.slice(from, from + LONGEST_SPAN);
      const said = fold(group.map(({ text }) => text).join(' '));
      const match = pattern.exec(said);
      if (match?.index !== 0) continue;
      const count = IN_WORDS[match[1]] ?? NAMED_SPANS[match[1]] ?? Number(match[1]);
      const clause = clauseAround(words, from, above);
      const isAsked = ASKED.test(clause) && !SOMETHING_ELSE.test(clause);
      // Weeks and months are said of much else.
      const unit = match[2] ?? 'days';
      const isTerm = IN_DAYS.test(unit) || WITHIN.test(before(words, from));
      if (count < 1 || !isTerm || !isAsked || (DELIVERED.test(clause) && !/zahl|pay|regl/.test(clause))) continue;
      const length = match[0].split(' ').length;
      return {
        count,
        unit,
        words: group.slice(0, length),
        text: group
          .slice(0, length)
          .map(({ text }) => text)
          .join(' '),
      };
    }
  }
  return undefined;
}

const IN_DAYS = /^(?:days?|tagen?|jours?|giorni|dias|dagen)$/;
/** What stands right before the time that something is done in (folded). */
const WITHIN = /\b(?:within|inside|innerhalb(?: von)?|innert|binnen|sous|dans(?: un delai de)?)$/;

/** The two words before a place (folded). */
const before = (words: readonly Word[], at: number) =>
  fold(
    words
      .slice(Math.max(0, at - 2), at)
      .map(({ text }) => text)
      .join(' '),
  );

/** A time takes no more words, and what is said of it stands within so many. */
const LONGEST_SPAN = 4;
const FARTHEST = 14;

/** What a sentence says about a place, no farther than its commas where a discount parts it (folded). */
function clauseAround(words: readonly Word[], at: number, above: string): string {
  const ends = ({ text }: Word) => /[.;!?]$/.test(text) && text.length > 3;
  const earlier = words.slice(Math.max(0, at - FARTHEST), at);
  const start = earlier.findLastIndex(ends) + 1;
  const later = words.slice(at, at + FARTHEST);
  const end = later.findIndex(ends);
  const told = [...earlier.slice(start), ...later.slice(0, end < 0 ? undefined : end + 1)];
  const line = fold(told.map(({ text }) => text).join(' '));
  const whole = start === 0 && at < FARTHEST ? `${above.split(/[.;!?] /).at(-1)} ${line}` : line;
  // “2 % Skonto innerhalb von 8 Tagen, 30 Tage netto”: each for itself.
  if (!SOMETHING_ELSE.test(whole)) return whole;
  const place = fold(words[at].text);
  const clauses = line.split(/,|\b(?:or|oder|ou|else|sonst|sinon)\b/);
  return clauses.find((clause) => clause.split(' ').includes(place)) ?? whole;
}

/** The day that many days, weeks or months after another; none where that is longer than bills are open. */
function after(day: string, count: number, unit: string): string | undefined {
  if (!/^(?:calendar )?mo/.test(unit)) {
    const days = count * (/^(?:we|wo|se)/.test(unit) ? 7 : 1);
    return days <= LONGEST ? addDays(day, days) : undefined;
  }
  if (count * 30 > LONGEST) return undefined;
  const [year, month, date] = day.split('-').map(Number);
  const last = new Date(Date.UTC(year, month + count, 0)).getUTCDate();
  return new Date(Date.UTC(year, month - 1 + count, Math.min(date, last))).toISOString().slice(0, 10);
}

function endOfMonth(day: string): string {
  const [year, month] = day.split('-').map(Number);
  return new Date(Date.UTC(year, month, 0)).toISOString().slice(0, 10);
}
