import type { Reason } from './reason';
import { Word } from '../words';
import { asCited, asQuoted, asTitled, isAbout, LONGEST_SAID, Named, ROLES } from './calledNumbers';
import { rivalled } from './doubt';
import { Fact, Kind, KINDS, leastSure, placeOf } from './fact';
import { kindWords } from './kindWords';
import { beforeInCell, wordsAround } from './labelled';
import { amountsIn } from './money';
import { LOOKS_LIKE_ONE, numberOf, numbersIn, trimmed } from './printedNumbers';
import { fold, Row } from './rows';
import { isBranch } from './senderNames';
import { isIban, isIbanCountry } from './signs';
import { Part, partsOf, Term, termsBefore } from './terms';

/** What a paper's numbers are of. */
export type Numbers = Record<'number' | 'reference' | 'customer' | 'order' | 'policy' | 'iban', Fact | null>;

/** Where its label says nothing known, it must be as long as this. */
const LEAST_UNKNOWN = 4;
/** A word of days or of money between says that the figures are that. */
const VALUES: Part[] = ['day', 'issued', 'pay', 'until', 'from', 'ends', 'span', 'event'];
/** A bill that takes another one back is itself. */
const TAKEN_BACK = /storno|gutschrift|korrektur|avoir|credit|annul|cancel/;
/** Words that a paper is called when it is a bill. */
const BILL = /invoic|rechnung|faktur|factu|fattur|fatur|^bill$|^inv$/;
/** Words besides that what a reminder is about is called. */
const OWED = /^(?:note|demand|fee|fees|honoraires?|liquidation|beleg|belegnummer|beleg-?nr)$/;

/** The numbers of a paper: its own, the customer's, the order's, the policy's, of the paper that it is about. */
export function findNumbers(rows: readonly Row[], kind: Kind | undefined): Numbers {
  const found: Partial<Record<keyof Numbers, { score: number; fact: Fact }>> = { iban: ibanIn(rows) };
  /** All that may be the number of the paper. */
  const own: { score: number; fact: Fact }[] = [];
  const keep = (name: keyof Numbers, score: number, most: number, words: Word[], row: Row, named: Named) => {
    if (score < 0) return;
    const value = numberOf(words);
    const why: Reason =
      named.label === ''
        ? { code: 'marked-as-number' }
        : { code: named.above ? 'under' : 'beside', label: named.label };
    const fact = { value, page: row.page, box: placeOf(words), confidence: most * leastSure(words), why };
    if (name === 'number') own.push({ score, fact });
    if (!found[name] || found[name].score < score) found[name] = { score, fact };
  };
  for (const row of rows) {
    // The first line's may be which of several shops it is.
    if (isBooking(row, kind) || (row === rows[0] && isBranch(row.text))) continue;
    numbersIn(rows, row).forEach(({ word, words }) => {
      const value = trimmed(word.text);
      const named = asTitled(row, words, kind) ?? asCited(row, words, kind) ?? nameOf(rows, row, words);
      const hash = word.text.startsWith('#');
      if (!named && isNamedByItself(row, word)) {
        keep('number', 1.5 - row.number * 0.008, 0.86, words, row, UNNAMED);
        return;
      }
      if (!named && !hash) return;
      // A figure in the column of a table is no number of a paper.
      if (named?.above && !named.said && value.length < LEAST_UNKNOWN) return;
      if (named?.above && named.role === 'plain' && isInColumn(rows, row, word)) return;
      const known: Named = named ?? { role: 'plain', said: true, bill: false, away: 0, label: '', above: false };
      // “Receipt #2318” says that it is a number as well.
      const label = hash && known.role === 'document' ? { ...known, said: true } : known;
      const score = (label.said ? 3 : 1.8) - label.away * 0.03 - (label.above ? 0.2 : 0) - row.number * 0.008;
      const sure = label.said ? 0.985 : 0.86;
      if (!label.said && isYears(value)) return;
      const own = isOwn(label, kind);
      if (own) keep('number', score + own, own >= 1 ? sure : Math.min(sure, own < 0 ? 0.5 : 0.86), words, row, label);
      if (label.role === 'customer') keep('customer', score, sure, words, row, label);
      if (label.role === 'order' && kind !== 'order') keep('order', score, sure, words, row, label);
      if (label.role === 'policy') keep('policy', score, sure, words, row, label);
      if ((label.bill && isAbout(kind)) || isOwed(kind, label.own)) keep('reference', score, sure, words, row, label);
      else if (label.role === 'yours' && label.said) keep('reference', score - 1, sure, words, row, label);
      // “Stall no. 14” in a sentence is no paper's.
      const cell = row.cells.find((each) => each.words.includes(word))!;
      const isTold = cell.words.length > LONGEST_SAID && value.length < LEAST_UNKNOWN;
      if (label.role === 'plain' && !isTold) keep('number', score - 1.6, 0.86, words, row, label);
      // The heads of a table are no labels of each other.
      if (row.cells.length >= TABLE && label.role === 'unknown') return;
      if (label.role === 'unknown' && value.length >= LEAST_UNKNOWN && !/^\d+[.,]\d+\D*$/.test(value))
        keep('number', score - 1.6, 0.55, words, row, label);
    });
  }
  const fact = (name: keyof Numbers) => found[name]?.fact ?? null;
  const number = besideRival(fact('number'), own);
  // A bill that is paid with a number of the customer's is no other paper.
  const reference = fact('reference');
  return {
    number,
    reference: reference?.value === number?.value ? null : reference,
    customer: fact('customer'),
    order: fact('order'),
    policy: fact('policy'),
    iban: fact('iban'),
  };
}

/** Whether a word is one of a column, of which each row has its sum: “Code” above what was done. */
function isInColumn(rows: readonly Row[], row: Row, { box: [x, , , height] }: Word): boolean {
  const isSummed = (each: Row | undefined) =>
    each?.page === row.page && each.cells.length > 1 && amountsIn(each).length > 0;
  const isBelow = ({ box, text }: Word) => Math.abs(box[0] - x) < height && LOOKS_LIKE_ONE.test(text);
  const next = rows[row.number + 1];
  return isSummed(row) && isSummed(next) && next.words.some(isBelow);
}

/** Another number speaks as much for itself when its score is less by no more than this. */
const AS_MUCH = 0.35;

/** The number of a paper, less sure where another could be it as well, which is told. */
function besideRival(number: Fact | null, own: readonly { score: number; fact: Fact }[]): Fact | null {
  if (!number) return null;
  const best = own.reduce((most, { score }) => Math.max(most, score), 0);
  const rival = own.find(({ score, fact }) => fact.value !== number.value && score > best - AS_MUCH);
  return rival ? rivalled(number, rival.fact.value) : number;
}

/** Two years that follow each other, such as those of a tariff: “2026/27”. */
function isYears(value: string): boolean {
  const years = /^((?:19|20)\d\d)[/-](?:\d\d)?(\d\d)$/.exec(value);
  return years !== null && (Number(years[1]) + 1) % 100 === Number(years[2]);
}

/** So many cells are a row of a table. */
const TABLE = 4;

/** The rows of a statement name other papers. */
const isBooking = (row: Row, kind: Kind | undefined) =>
  kind === 'statement' && row.cells.length > 2 && amountsIn(row).length > 0;

const isOwed = (kind: Kind | undefined, own: string | undefined) =>
  kind === 'reminder' && own !== undefined && OWED.test(own);

/** What the number of a paper that is called something else counts: less than any other that may be its own. */
const OTHERS = -1.5;
/** Kinds that other papers cite. */
const CITED: Kind[] = ['quote', 'order', 'delivery note', 'statement'];

/** Whether a word names papers of another kind that this one may cite, and of no other. */
function namesAnotherKind(word: string, kind: Kind | undefined): boolean {
  const named = KINDS.filter((each) => kindWords[each].named.test(word));
  return named.length > 0 && named.every((each) => each !== kind && CITED.includes(each));
}

/** What carriers number (folded). */
const CARRIERS = /consign|tracking|sendung|shipment|parcel|colis|carrier/;

/** What a label counts more that begins with what a bill is called. */
const CLOSER = 0.4;

/** What the customer's number of an order counts for that of what answers it. */
const CUSTOMERS = 0.4;

/** How much a label speaks for the number of the paper itself; 0 where it is of something else. */
function isOwn({ role, bill, said, own, yours }: Named, kind: Kind | undefined): number {
  // “Rechnungsnummer” names it more closely than “Abrechnungsnummer” does.
  const close = kind === 'invoice' && own && BILL.exec(own)?.index === 0 ? CLOSER : 0;
  if (kind && own && role === 'document' && kindWords[kind].named.test(own)) return (said ? 1.15 : 0.75) + close;
  if ((bill && (isAbout(kind) || kind === 'statement')) || isOwed(kind, own)) return 0;
  // “Angebot Nr. 1877” on a bill is another paper's, unless the kind was taken wrong.
  if (role === 'document' && own && namesAnotherKind(own, kind)) return said ? OTHERS : 0;
  if (role === 'document') return (bill || said ? 1 : 0.6) + close;
  // A ticket is called by the order that it came with.
  if (role === 'order') return kind === 'order' ? (yours ? CUSTOMERS : 1.2) : kind === 'ticket' ? 0.6 : 0;
  if (role === 'policy') return kind === 'contract' ? 0.8 : 0;
  // “Consignment TC 4418” is the carrier's.
  if (role === 'delivery') return kind === 'delivery note' ? (own && CARRIERS.test(own) ? 0.5 : 1.2) : 0;
  return 0;
}

/** The day of a paper between its name and its number: “Your order of 12 Oct 2026 ref WL/118” (folded). */
const DATED =
  / (?:of|vom|du|dated|del|van|from) (?:the )?\d{1,2}(?:[./-]\d{1,2}[./-]\d{2,4}|(?:st|nd|rd|th|er|\.)? \p{L}{3,10}\.?(?: \d{4})?)(?=,? \p{L})/u;

const OF_A_PAPER: Named['role'][] = ['document', 'delivery', 'order', 'policy'];

/** What a number is called where it stands: by the words before it in its row, else by those above it. */
function nameOf(rows: readonly Row[], row: Row, words: Word[]): Named | undefined {
  const { beside: before, above, isLabel } = wordsAround(rows, row, words);
  const beside = before === '' ? wrappedLabel(rows, row) : (labelInCell(row, words) ?? before);
  const here = asQuoted(beside, false) ?? named(termsBefore(beside.replace(DATED, '')), false, isLabel, words);
  if (here && here.role !== 'unknown' && here.role !== 'plain') return here;
  const over = above === undefined ? undefined : (asQuoted(above, true) ?? named(termsBefore(above), true, true));
  // “N° 1180” below the name of the paper is the paper's.
  if (here?.role === 'plain' && over && OF_A_PAPER.includes(over.role)) return { ...over, said: true };
  if (here?.role === 'plain') return here;
  return over && over.role !== 'unknown' ? over : (here ?? over);
}

/** A label of a known thing, with its colon, before a number in its cell (folded). */
function labelInCell(row: Row, words: Word[]): string | undefined {
  const before = beforeInCell(row, words);
  if (!before?.words.at(-1)!.text.endsWith(':')) return undefined;
  const isNamed = termsBefore(before.text).some(({ parts }) => parts.some((part) => ROLES.includes(part)));
  return isNamed ? before.text : undefined;
}

/** What the line above ends with, where it has no value behind it: a narrow paper's line may break before it (folded). */
function wrappedLabel(rows: readonly Row[], row: Row): string {
  const above = rows[row.number - 1];
  if (row.words.length > 1 || above?.page !== row.page || above.words.length < 2) return '';
  return above.folded;
}

/** Whether a bill is called one that takes another back, by the word beside it: “credit invoice”, “facture d'avoir”; not “cancels invoice”. */
function isTakenBack(near: readonly Term[], at: number): boolean {
  const isNoun = (term: Term | undefined) =>
    term !== undefined && /^(?:storno|gutschrift|korrektur|avoir|credit|annulation|cancellation)$/.test(term.word);
  return TAKEN_BACK.test(near[at].word) || isNoun(near[at - 1]) || isNoun(near[at + 1]);
}

/** What stands between a word for a number and what it is of: “N° de pièce”. */
const OF = /^(?:of|for|de|du|pour|der|des|fur|di|del|van|von)$/;

function named(terms: readonly Term[], above: boolean, isLabel: boolean, value: Word[] = []): Named | undefined {
  if (terms[0]?.word === 'box') return undefined;
  // “Servizio clienti 800 118 447” is called.
  if (
    terms
      .slice(0, 3)
      .some(
        ({ word, parts }) =>
          CALLED.test(word) ||
          (isService(word) &&
            parts.length === 0 &&
            terms.slice(0, 3).some((other) => other.parts.includes('customer'))),
      )
  )
    return undefined;
  const near = terms.slice(0, 6);
  const head = near.findIndex(({ parts }) => parts.includes('number'));
  const until = head < 0 ? 2 : head + 4;
  const isOf = head > 1 && near.slice(1, head).some(({ word }) => OF.test(word));
  let best: { role: Part; apart: number; at: number } | undefined;
  near.slice(0, until).forEach(({ parts }, at) => {
    // The last part of a compound is what it is.
    const role = parts.findLast((part) => ROLES.includes(part));
    if (!role) return;
    // “Serial no. of invoice”: what it is of says more than what stands before it.
    const apart = head < 0 ? at : isOf && at < head ? 0.5 : Math.abs(at - head);
    // “Your order no.” is an order's, “job sheet no.” a job's; whose it is counts where nothing else is said.
    const little = (part: Part) => part === 'yours' || part === 'page';
    const closer = best && (little(best.role) ? !little(role) : apart < best.apart && !little(role));
    if (!best || closer) best = { role, apart, at };
  });
  // “Relevé de compte n° 10” is the statement's.
  const whose = best && (best.role === 'bank' || best.role === 'customer') ? best.at + 1 : undefined;
  if (whose !== undefined && OF.test(near[whose]?.word ?? '') && near[whose + 1]?.parts.includes('document'))
    best = { role: 'document', apart: 0, at: whose + 1 };
  // “Facture d'acompte” above a number is what the paper is called.
  const isTitle = above && head < 0 && best?.role === 'document' && best.at === 1 && near[0].parts.includes('event');
  const valued =
    !isTitle &&
    !isOf &&
    near
      .slice(0, Math.max(1, head < 0 ? 1 : head))
      .some(
        ({ parts }) => parts.length > 0 && !parts.includes('number') && parts.every((part) => VALUES.includes(part)),
      );
  const text = near
    .slice(0, Math.max(head, best?.at ?? 0) + 1)
    .map(({ word }) => word)
    .reverse()
    .join(' ');
  const away = near[0]?.away ?? 0;
  if (best) {
    if (valued && head < 0) return undefined;
    // “Record serial” is the number of the record.
    const behind = near[best.at + 1];
    if (
      best.role === 'meter' &&
      head < 0 &&
      best.at === 0 &&
      near[0].word.startsWith('seri') &&
      behind?.parts.includes('document')
    )
      return { role: 'document', said: true, bill: false, own: behind.word, away, label: text, above };
    const word = near[best.at].word;
    const isOurs = best.role === 'document' && /^(?:re|our|unser|unsere|notre)$/.test(word) && head < 0;
    // “Our DN20771” says no more.
    const isBare = terms.length === 1 && /^[A-Z]{1,4}[-/]?\d{3,}/.test(value[0]?.text ?? '');
    const role = isOurs && !isBare ? undefined : best.role;
    if (!role) return undefined;
    return {
      role,
      said: head >= 0,
      bill: role === 'document' && BILL.test(word) && !isTakenBack(near, best.at),
      own: word,
      yours: near[best.at + 1]?.parts.includes('yours'),
      away: near[head < 0 ? best.at : Math.min(head, best.at)].away,
      label: text,
      above,
    };
  }
  if (head >= 0 && head <= (isOf ? 2 : 1) && !valued)
    return { role: 'plain', said: true, bill: false, away: near[head].away, label: text, above };
  // A label that nothing is known of: a short one of its own, with a colon or above the value.
  const [first] = near;
  if (
    isLabel &&
    first &&
    !COUNTED.test(first.word) &&
    !valued &&
    terms.length <= 3 &&
    /^\p{L}{3,}/u.test(first.word) &&
    first.parts.length === 0
  )
    return {
      role: 'unknown',
      said: false,
      bill: false,
      away,
      label: near
        .map(({ word }) => word)
        .reverse()
        .join(' '),
      above,
    };
  return undefined;
}

/** Whom customers call (folded). */
const CALLED = /^(?:kunden(?:dienst|service|betreuung)|kundinnen-?service|klantenservice|helpline|helpdesk)\W*$/;
const isService = (word: string) => /^(?:servi[czt]\p{L}*|services?|care|support|helpline|aten\p{L}*)\W*$/u.test(word);

/** What figures behind it count (folded): “points balance 1204”. */
const COUNTED =
  /^(?:points?|punkte?|punktestand|miles|mileage|odometer|km|kilometerstand|kilometrage|balance|saldo|solde|visits?|items?|units?)\W*$/;

/** What a number is named that says itself what it is of. */
const UNNAMED: Named = { role: 'document', said: false, bill: false, away: 0, above: false, label: '' };

/** “INV-3018” alone in its cell at the top: what stands before its figures is short for what the paper is. */
function isNamedByItself(row: Row, word: Word): boolean {
  const begun = /^([A-Z]{2,5})[-/]?\d{3,}/.exec(trimmed(word.text))?.[1];
  if (begun === undefined || row.page > 1 || row.number >= TOP) return false;
  const isAlone = row.cells.some(({ words }) => words.length === 1 && words[0] === word);
  return isAlone && partsOf(fold(begun)).includes('document') && amountsIn(row).length === 0;
}
const TOP = 10;

/** The first bank account whose check digits fit. */
function ibanIn(rows: readonly Row[]): { score: number; fact: Fact } | undefined {
  for (const row of rows) {
    // In a sentence it may go on in the next line.
    const next = rows[row.number + 1];
    const line = next?.page === row.page ? [...row.words, ...next.words] : row.words;
    for (let from = 0; from < row.words.length; from++) {
      if (!/^(?:IBAN:?)?[A-Z]{2}[\dOIl]{2}/.test(row.words[from].text)) continue;
      for (let to = from + 1; to <= Math.min(line.length, from + 9); to++) {
        const words = line.slice(from, to);
        const value = words
          .map(({ text }) => text)
          .join('')
          .replace(/^IBAN:?|[.,;]$/g, '');
        const iban = ibanAs(value);
        if (!iban) continue;
        const why: Reason = { code: 'check-digits' };
        const shown = words.filter((word) => row.words.includes(word));
        const confidence = iban === value ? 0.99 : 0.9;
        return { score: 1, fact: { value: iban, page: row.page, box: placeOf(shown), confidence, why } };
      }
    }
  }
  return undefined;
}

/** Figures that were read as letters. */
const MISREAD: Record<string, string> = { O: '0', o: '0', D: '0', I: '1', l: '1', i: '1', S: '5', B: '8', Z: '2' };

/** An IBAN as it was read, or with the figures that letters were taken for, as its check digits tell; a nought may have been read twice. */
function ibanAs(value: string): string | undefined {
  if (value.length < 15 || value.length > 35) return undefined;
  const figures = value.slice(0, 2) + value.slice(2).replace(/[OoDIliSBZ]/g, (letter) => MISREAD[letter]);
  const once = value.slice(0, 2) + figures.slice(2).replace('00', '0');
  // Of a country whose length isn't known one word in thirty would fit by chance.
  const readings = isIbanCountry(value.slice(0, 2)) ? [value, figures, once] : [value];
  return readings.find((each) => /^[A-Z]{2}\d{2}[A-Z0-9]{11,30}$/.test(each) && isIban(each));
}
