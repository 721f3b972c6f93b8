import { PageText } from '../words';
import { findBookings, lastBalanceDay, lastDayNamed } from './bookings';
import { dayOrderOf } from './dayOrder';
import { findDays } from './days';
import { rivalled } from './doubt';
import { admitFacts } from './gate';
import { Fact, Facts, Kind, leastSure, placeOf } from './fact';
import { findKind } from './kinds';
import { kindChances } from './kindModel';
import { kindTraits, likeOf, mayHave, OwnKind } from './kindList';
import { currencyIn, DOLLARS, isSeldom } from './currencies';
import { homeCurrency } from './homeCurrency';
import { amountsIn, inOneCurrency } from './money';
import { findLineItems } from './listedItems';
import { findNumbers } from './numbers';
import { Row, rowsOf } from './rows';
import { subjectOf } from './subject';
import { Reason } from './reason';
import { findSender } from './senders';
import { apartFromTaxColumn } from './taxColumn';
import { findSigns, senderBySigns } from './signs';
import { NO_SUMS } from './namedSums';
import { findBalances } from './singleSums';
import { findSums, withoutChanged } from './sums';
import { findLines } from './tableLines';
import { withBarCodes } from './withBarCodes';
import { withPaymentCode } from './withPaymentCode';

/**
 * What a paper says: kind, who from, dates, number, money and lines, from the text of its pages (in order); null for what was
 * not found. Nothing is made up: each fact stands somewhere on the paper.
 * @param knownVendors names that a person has confirmed before: recognised again, in the spelling that was confirmed
 * @param kind what a person says that it is: the facts are those of that kind
 * @param ownKinds kinds that a person added to those of the list
 * @param knownSigns bank accounts, tax numbers, addresses and phones that stood on confirmed papers, and whose they were
 */
export function findFacts(
  pages: readonly (Pick<PageText, 'width' | 'height' | 'words' | 'codes'> & Partial<Pick<PageText, 'language'>>)[],
  {
    knownVendors = [],
    knownSigns = [],
    kind: said,
    ownKinds = [],
  }: { knownVendors?: string[]; knownSigns?: KnownSign[]; kind?: string; ownKinds?: OwnKind[] } = {},
): Facts {
  const rows = rowsOf(pages);
  const read = findKind(rows, pages[0], ownKinds);
  const named: Fact | null = said
    ? { page: 1, box: [0, 0, 0, 0], why: { code: 'nothing-says-its-kind' }, ...read, value: said, confidence: 1 }
    : read;
  const kind: Fact<Kind> | null = named && { ...named, value: likeOf(named.value, ownKinds), other: undefined };
  const currency = findCurrency(rows);
  const paper = { rows, first: pages[0], currency, subject: () => findSubject(pages) };
  const told = saidAs(kind?.value, paper);
  const other = said === undefined && read?.other !== undefined ? likeOf(read.other, ownKinds) : undefined;
  const rivals = other && kind ? [other, ...alsoWorded(rows, [kind.value, other])] : [];
  const { isMoney, ...settled } = rivals.reduce((so, rival) => doubted(so, saidAs(rival, paper), rival), told);
  const sender = senderOf(rows, pages, knownVendors, knownSigns);
  const isLoose = kind === null || kind.value === 'other';
  const found: Facts = {
    kind: kind ?? looseKind(rows),
    vendor: sender && (!isLoose || sender.confidence >= LEAST_FOR_LOOSE) ? sender : null,
    currency: isMoney ? (currency ?? homeCurrency(rows)) : null,
    ...settled,
  };
  const checked = withBarCodes(withPaymentCode(found, pages), pages);
  return admitFacts({ ...checked, kind: named ?? checked.kind });
}

/** A paper whose facts are asked for. */
interface Paper {
  rows: readonly Row[];
  first: (Pick<PageText, 'width' | 'height'> & Partial<Pick<PageText, 'language'>>) | undefined;
  currency: Fact | null;
  subject: () => Fact | null;
}

type Said = Omit<Facts, 'kind' | 'vendor' | 'currency'> & { isMoney: boolean };

/** Kinds that a paper may be of by its wording as well, where its kind is doubtful. */
const [LEAST_WORDED, MOST_RIVALS] = [0.08, 3];

function alsoWorded(rows: readonly Row[], known: readonly Kind[]): Kind[] {
  const chances = Object.entries(kindChances(rows.map(({ folded }) => folded))) as [Kind, number][];
  return chances
    .filter(([kind, chance]) => chance >= LEAST_WORDED && !known.includes(kind))
    .sort(([, one], [, other]) => other - one)
    .slice(0, MOST_RIVALS)
    .map(([kind]) => kind);
}

/** What a paper says if it is of a kind. */
function saidAs(kind: Kind | undefined, { rows, first, currency, subject }: Paper): Said {
  const { sums: asked, due, numbered, ends, balances: hasBalances } = kindTraits[kind ?? 'other'];
  const isLoose = kind === undefined || kind === 'other';
  const order = dayOrderOf(rows, first, currency?.value);
  const days = findDays(rows, order, kind);
  const { rows: counted, column } = apartFromTaxColumn(withoutChanged(inOneCurrency(rows, currency?.value)));
  const lines = asked && !hasBalances ? findLines(counted) : [];
  const sums = asked ? findSums(counted, lines, kind!, column) : NO_SUMS;
  const numbers = findNumbers(rows, kind);
  const balances = hasBalances ? findBalances(rows) : { opening: null, closing: null };
  const { addsUp: _, ...amounts } = sums;
  return {
    isMoney: [sums.total, sums.net, sums.amountDue, balances.opening, balances.closing].some(Boolean),
    date: days.date,
    dueDate: due ? days.dueDate : null,
    number: numbered ? numbers.number : null,
    // Where a paper has no number, what its writer calls it is one to answer with.
    reference: isLoose ? null : (numbers.reference ?? (numbered ? null : numbers.number)),
    customer: isLoose ? null : numbers.customer,
    order: isLoose ? null : numbers.order,
    policy: isLoose ? null : numbers.policy,
    iban: isLoose ? null : numbers.iban,
    period: isLoose ? null : days.period,
    ends: ends ? days.ends : null,
    ...amounts,
    // A statement without balances asks for what its lines leave to pay.
    ...(hasBalances && !balances.opening && !balances.closing && { total: amounts.amountDue }),
    ...balances,
    subject: kind && WRITTEN.includes(kind) ? subject() : null,
    bookings: hasBalances
      ? findBookings(rows, {
          opening: balances.opening?.value ?? null,
          closing: balances.closing?.value ?? null,
          until: days.period?.value.split('/')[1] ?? lastDayOf(rows, days.date?.value),
          monthFirst: order === 'month',
        })
      : null,
    lines: asked && !hasBalances ? findLineItems(counted, kind!, saidSums(sums)) : null,
  };
}

/** The last day that a statement tells of: its own, or that of its last balance, else the last that it names (ISO 8601). */
function lastDayOf(rows: readonly Row[], day: string | undefined): string | undefined {
  const [last] = [day, lastBalanceDay(rows)].filter((each) => each !== undefined).sort((a, b) => b.localeCompare(a));
  return last ?? lastDayNamed(rows);
}

/** What the sums of a paper come to before and after taxes, in hundredths. */
function saidSums({ net, tax, total }: Pick<Said, 'net' | 'tax' | 'total'>): number[] {
  const untaxed = total && tax ? total.value - tax.value : undefined;
  return [total?.value, net?.value, untaxed].flatMap((sum) =>
    sum === undefined ? [] : [Math.round(Math.abs(sum) * 100)],
  );
}

/** What a paper says, as sure as its kind is where that makes a difference. @param rival the kind that it may be as well */
function doubted(told: Said, other: Said, rival: Kind): Said {
  const doubt = <Value>(name: string, fact: Fact<Value> | null, another: Fact<Value> | null): Fact<Value> | null => {
    if (!fact || !mayHave(rival, name) || another?.value === fact.value) return fact;
    return rivalled(fact, another?.value);
  };
  return {
    ...told,
    date: doubt('date', told.date, other.date),
    dueDate: doubt('dueDate', told.dueDate, other.dueDate),
    ends: doubt('ends', told.ends, other.ends),
    number: doubt('number', told.number, other.number),
    policy: doubt('policy', told.policy, other.policy),
    net: doubt('net', told.net, other.net),
    tax: doubt('tax', told.tax, other.tax),
    total: doubt('total', told.total, other.total),
    amountDue: doubt('amountDue', told.amountDue, other.amountDue),
  };
}

/** Kinds of papers that are written as letters. */
const WRITTEN: Kind[] = ['letter', 'contract', 'notice', 'reminder'];

/** On a paper of no kind, such as a note, any line may stand at the top: the sender must be surer. */
const LEAST_FOR_LOOSE = 0.8;

/** A paper that nothing says the kind of. */
function looseKind(rows: readonly Row[]): Fact<Kind> | null {
  const [first] = rows;
  if (!first) return null;
  return { value: 'other', page: 1, box: first.box, confidence: 0.4, why: { code: 'nothing-says-its-kind' } };
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

/** A dollar by itself before a figure without decimals is a law's paragraph that was misread: “§ 4 Nr. 14”. */
const isParagraph = ({ words }: Row, at: number) =>
  words[at].text === '$' &&
  /^\d{1,3}[a-z]?$/.test(words[at + 1]?.text ?? '') &&
  /^\p{L}/u.test(words[at + 2]?.text ?? '');

/** A letter and a dollar's sign stand before figures; behind them the sign was a letter: “2.15 S”. */
const isCodeBehind = ({ words }: Row, at: number) => /^[A-Z]\$$/.test(words[at].text) && at === words.length - 1;

/** What a currency counts for above a column of amounts, beside those next to which it stands. */
const HEADS_COLUMN = 5;

/** The currency that stands beside most amounts; where none does, the one that is named anywhere. */
function findCurrency(rows: readonly Row[]): Fact | null {
  const votes = new Map<string, { count: number; fact: Fact }>();
  for (const row of rows) {
    const amounts = amountsIn(row, true);
    const beside = amounts.length > 0;
    for (const [at, word] of row.words.entries()) {
      const value = currencyIn(word.text);
      if (!value || isParagraph(row, at) || isCodeBehind(row, at)) continue;
      const isInAmount = amounts.some(({ words }) => words.includes(word));
      // “$G88120519” is a number whose S was misread.
      if (/\d/.test(word.text) && !isInAmount) continue;
      const vote = votes.get(value);
      // By itself above a column it is that of all that stands in it.
      const heads = !beside && row.cells.length > 1 && row.cells.some((cell) => cell.text === word.text);
      if (isSeldom(value) && !heads && !isInAmount) continue;
      const weight = heads ? HEADS_COLUMN : beside ? 3 : 1;
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
  // A dollar by its sign alone is the one that is named somewhere.
  const [dollars, named] = [votes.get('USD'), [...votes.keys()].filter((value) => DOLLARS.includes(value))];
  const isSignOnly = dollars && !rows.some(({ folded }) => /\busd\b|\bus\$/.test(folded));
  if (isSignOnly && named.length === 1) {
    votes.get(named[0])!.count += dollars.count;
    votes.delete('USD');
  }
  const ranked = [...votes.values()].sort((a, b) => b.count - a.count);
  if (ranked.length === 0) return null;
  const [{ count, fact }] = ranked;
  // Or that of where the paper seems to come from: then it is a dollar for sure, but hardly which one.
  const home = isSignOnly && fact === dollars.fact ? homeCurrency(rows) : null;
  if (home && DOLLARS.includes(home.value))
    return { ...fact, value: home.value, confidence: home.confidence, why: home.why };
  // Seen again and again, it is sure even where one was read badly.
  return {
    ...fact,
    confidence: ranked.length > 1 ? Math.min(0.8, fact.confidence) : Math.max(fact.confidence, count >= 9 ? 0.97 : 0),
  };
}
