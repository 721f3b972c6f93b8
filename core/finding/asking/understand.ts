import { Period, NotSaid, Understood } from './understood';
import {
  AVERAGE,
  BESIDE,
  COMPARED,
  DONE,
  BEFORE_THINGS,
  DUE,
  EARLIEST,
  ENDS,
  FILLERS_OF_DAYS,
  GROSS,
  HAPPENED,
  HELPERS,
  HOW_MANY,
  HOW_MUCH,
  LATEST,
  LEAST,
  LIST,
  MONEY_ASKED,
  MORE,
  MOST,
  MOSTLY,
  NET,
  ONE_BILL,
  ORDERED,
  PAYING,
  OTHERWISE,
  OTHER_WAY,
  PAID_WHEN,
  PROVIDER,
  SENDING,
  SEPARATE,
  SUBJECTS,
  TAX,
  TRADE,
  UPCOMING,
  VALUES,
  WHAT_IS,
  WHEN,
  WHETHER_PAID,
  WHO,
  WHO_IS,
  YES_OR_NO,
} from './forms';
import { readPeriods } from './periods';
import { takeAmounts } from './takeAmounts';
import { capitalsIn, takeFolder, takeSenders } from './takeNames';
import { any, plainQuestion, Text } from './text';
import { NAMED, RATES, rephrased } from './wordings';
import { isEmpty, kindNouns } from './words';

/** What names there are on the shelf. */
export interface ShelfNames {
  senders: readonly string[];
  folders: readonly string[];
  ownKinds: readonly string[];
}

/**
 * Understands a plain question over papers, in English, German or French. Words that it makes nothing of stay as what papers have to
 * be about: where none is, nothing is answered.
 * @param today ISO 8601
 */
export function understand(question: string, names: ShelfNames, today: string): Understood | NotSaid {
  const said = plainQuestion(question);
  if (!said) return { cannot: 'nothing asked' };
  // Names come first: a sender may be called like a month, a kind, a topic, or a way of speaking.
  const named = new Text(said);
  const who = takeSenders(named, names.senders, capitalsIn(question));
  const plain = rephrased(named.rest);
  if (ORDERED.test(plain)) return { cannot: 'words' };
  if (WHETHER_PAID.some((form) => form.test(plain)) && !/\b(must|muss|have to|doit etre)\b/.test(plain))
    return { cannot: 'paid' };
  const due = DUE.test(plain);
  const found: Understood = {
    wants: 'papers',
    per: 'paper',
    fact: 'total',
    which: 'latest',
    about: [],
    who,
    kinds: [],
    folder: null,
    by: 'date',
    period: null,
    against: null,
    amounts: null,
  };
  const text = new Text(plain.replaceAll(NAMED, ' ').replace(/ {2,}/g, ' ').trim());
  found.folder = takeFolder(text, names.folders);
  found.amounts = takeAmounts(text);
  takeRate(text, found);
  const { periods, rest } = readPeriods(text.rest, today, due);
  text.rest = rest.replaceAll('¦', ' ').replace(/ {2,}/g, ' ').trim();
  const isCompared = compare(text, found, periods, today);
  if (!isCompared) [found.period = null] = periods;
  if (periods.length > (isCompared ? 2 : 1)) return { cannot: 'words' };
  const wants = takeWants(text, found, names);
  if (wants) return wants;
  text.take(
    any('so far|in all|all in all|up to now|bisher|bis jetzt|jusqu ici|au total|en tout|how much|wie ?viel|a combien'),
  );
  const verbs = plainVerbs(plain);
  const left = text.rest.split(/[^\p{L}\p{N}.]+/u).filter((word) => !isEmpty(word));
  const isOf = (word: string) => found.wants === 'value' || !OTHERWISE.test(word);
  found.about = [...new Set(left)].filter((word) => !(tellsMoney(found) && verbs.has(word) && isOf(word)));
  return isOfNothing(found) ? { cannot: 'words' } : found;
}

/**
 * Words that say what somebody did, by where they stand: right after who did it (“what did we …”, “how much does Apex …”), or, as
 * participles do in German, at the very end. What stands between a name and what it cost is a thing: “what did Apex lids cost”.
 */
function plainVerbs(plain: string): ReadonlySet<string> {
  const words = plain.split(' ');
  const isDone = (at: number) =>
    words[at - 1] === NAMED && HELPERS.test(words[at - 2] ?? '') && !MONEY_ASKED.test(words.slice(at).join(' '));
  const verbs = words.filter(
    (word, at) =>
      SUBJECTS.test(words[at - 1] ?? '') ||
      isDone(at) ||
      (at === words.length - 1 && SEPARATE.test(word) && !BEFORE_THINGS.test(words[at - 1] ?? '')),
  );
  return new Set(verbs.filter((word) => !/s$/.test(word)));
}

/** Whether it asks for money, or for what stands on a paper: which verb it says is of no matter then. */
function tellsMoney({ wants, who, fact }: Understood): boolean {
  const isMoney = ['sum', 'average', 'most', 'least', 'latest', 'who most'].includes(wants);
  return who.length > 0 && (isMoney || wants === 'value' || (wants === 'day' && fact !== 'date'));
}

/** Whether nothing says of which papers it is asked, where all together have no answer: “when is it?” */
function isOfNothing({ wants, fact, about, who, kinds, folder, period, amounts }: Understood): boolean {
  if ([...about, ...who, ...kinds].length > 0 || folder !== null || period !== null || amounts !== null) return false;
  return ['value', 'who', 'papers', 'latest'].includes(wants) || (wants === 'day' && fact === 'date');
}

/** Reads that something is paid at a rate: a month, a year. */
function takeRate(text: Text, found: Understood): void {
  for (const [word, unit] of Object.entries(RATES)) if (text.take(any(word))) found.per = unit;
  // A week is no unit of what bills are for.
  text.take(any('perweek'));
}

/** Reads what is set beside what: two periods, or one and the one that we are in. Says whether that is asked. */
function compare(text: Text, found: Understood, periods: Period[], today: string): boolean {
  const isTwo = periods.length === 2;
  // Two times side by side are compared, whichever is asked to be more.
  if (periods.length === 0 || !(MORE.test(text.rest) || (isTwo && BESIDE.test(text.rest)))) return false;
  if (!isTwo && !COMPARED.test(text.rest)) return false;
  if (isTwo) [found.period, found.against] = periods;
  else {
    // “More than last year?” is asked of this one.
    const [other] = periods;
    const long = other.from && other.until ? Date.parse(other.until) - Date.parse(other.from) : 0;
    found.period = readPeriods(long > 300 * 86_400_000 ? 'this year' : 'this month', today).periods[0];
    found.against = other;
  }
  text.take(MORE);
  text.take(COMPARED);
  text.take(any('with|mit|avec|a|to'));
  found.wants = 'sum';
  return true;
}

/** A reading of what is wanted: whether it fits the question, or why that can't be answered. */
type Reader = (asked: string, text: Text, found: Understood, names: ShelfNames) => boolean | NotSaid;

/** Reads what is wanted, and of what kind of papers; the first reading that fits counts. */
function takeWants(text: Text, found: Understood, names: ShelfNames): NotSaid | undefined {
  const asked = text.rest;
  for (const read of [readCompared, readValue, readCount, readWho, readDay, readExtreme, readMoney, readPapers]) {
    const is = read(asked, text, found, names);
    if (is === true) return undefined;
    if (is) return is;
  }
  return { cannot: 'words' };
}

/** Takes what papers are called, which says of what kinds they are. */
function takeKinds(text: Text, found: Understood, { ownKinds }: ShelfNames): boolean {
  const nouns = kindNouns(text.rest, ownKinds);
  found.kinds = [...new Set(nouns.flatMap(({ kinds }) => kinds))];
  for (const { start, end } of nouns.toReversed())
    text.rest = `${text.rest.slice(0, start)} ${text.rest.slice(end)}`.replace(/ {2,}/g, ' ');
  return nouns.length > 0;
}

const readCompared: Reader = (asked, text, found, names) => {
  if (!found.against) return false;
  if (OTHER_WAY.test(asked)) return { cannot: 'words' };
  takeKinds(text, found, names);
  takeMoneyFact(text, found);
  text.take(MONEY_ASKED);
  return true;
};

const readValue: Reader = (_, text, found, names) => {
  const [fact] = VALUES.find(([, asks]) => text.take(asks)) ?? [];
  if (!fact) return false;
  takeKinds(text, found, names);
  text.take(LATEST);
  while (text.take(ENDS));
  text.take(any('under|unter|sous'));
  if (fact === 'iban') text.take(any('account|konto|compte'));
  Object.assign(found, { wants: 'value', fact });
  return true;
};

/** Whether a text is words that say nothing, and then at most three that do. */
function isRunOfContent(text: string): boolean {
  const words = text.split(' ').filter(Boolean);
  const first = words.findIndex((word) => !isEmpty(word));
  return first < 0 || (words.length - first <= MOST_BEFORE && words.slice(first).every((word) => !isEmpty(word)));
}
const MOST_BEFORE = 3;

const readCount: Reader = (asked, text, found, names) => {
  if (!HOW_MANY.test(asked)) return false;
  const after = asked.slice(asked.search(HOW_MANY)).replace(HOW_MANY, '');
  const [noun] = kindNouns(after, names.ownKinds);
  // What is counted are papers, not what stands on them; right before their noun may stand what they are about.
  if (!noun || !isRunOfContent(after.slice(0, noun.start))) return { cannot: 'words' };
  text.take(HOW_MANY);
  takeKinds(text, found, names);
  found.wants = 'count';
  takeDays(text, found);
  return true;
};

const readWho: Reader = (asked, text, found, names) => {
  if (!WHO.test(asked)) return false;
  text.take(WHO);
  takeKinds(text, found, names);
  found.wants = text.take(MOSTLY) ? 'who most' : 'who';
  text.take(MONEY_ASKED);
  // Who did something else than send papers stands on none.
  if (
    found.wants === 'who' &&
    !SENDING.test(asked) &&
    !text.take(PROVIDER) &&
    !(WHO_IS.test(asked) && TRADE.test(asked))
  )
    return { cannot: 'words' };
  text.take(any('envoyee?s?|envoye'));
  return true;
};

const readDay: Reader = (asked, text, found, names) => {
  if (!WHEN.test(asked) || HOW_MUCH.test(asked)) return false;
  const ends = ENDS.test(asked) && !/\b(?:due|fallig)\b/.test(asked);
  text.take(WHEN);
  found.which = text.take(EARLIEST) ? 'first' : text.take(UPCOMING) ? 'next' : 'latest';
  const isNewest = text.take(LATEST);
  found.wants = 'day';
  found.fact = ends ? 'ends' : DUE.test(asked) ? 'dueDate' : 'date';
  // “When is the last bill due?” asks for the newest bill’s day, “when is it due?” for the next one.
  if (isNewest && found.fact === 'dueDate') found.which = 'newest';
  if (found.fact === 'date' && PAID_WHEN.test(asked)) return { cannot: 'paid' };
  // “When was the van serviced?” asks for the day of something else than a paper.
  if (found.fact === 'date' && HAPPENED.test(asked)) return { cannot: 'words' };
  while (text.take(ends ? ENDS : DUE));
  text.take(FILLERS_OF_DAYS);
  takeKinds(text, found, names);
  return true;
};

const readExtreme: Reader = (_, text, found, names) => {
  if (text.take(MOST)) found.wants = 'most';
  else if (text.take(LEAST)) found.wants = 'least';
  else return false;
  takeKinds(text, found, names);
  text.take(MONEY_ASKED);
  return true;
};

const readMoney: Reader = (asked, text, found, names) => {
  const isAverage = text.take(AVERAGE) || found.per !== 'paper';
  text.take(AVERAGE);
  const isMoney = takeMoneyFact(text, found);
  if (!isAverage && !isMoney && !MONEY_ASKED.test(asked)) return false;
  // “How much honey did we harvest?” asks for something else than money.
  const [, deed] = DONE.exec(asked) ?? [];
  if (deed && !PAYING.test(deed)) return { cannot: 'words' };
  if (YES_OR_NO.test(asked) || OTHER_WAY.test(asked)) return { cannot: 'words' };
  while (text.take(MONEY_ASKED));
  const latest = text.take(LATEST);
  takeKinds(text, found, names);
  found.wants = isAverage ? 'average' : latest ? 'latest' : 'sum';
  return true;
};

const readPapers: Reader = (asked, text, found, names) => {
  const hasKind = takeKinds(text, found, names);
  // “What was the rent in January?” asks how much it was, and so does “the fuel bill for 2025”.
  const isOneBill = ONE_BILL.test(asked) && !/\b(?:which|show|find|list|any|are there|is there)\b/.test(asked);
  if ((isOneBill ? found.period !== null : !hasKind && WHAT_IS.test(asked)) && found.amounts === null) {
    found.wants = text.take(LATEST) || found.period === null ? 'latest' : 'sum';
    return true;
  }
  takeDays(text, found);
  if (text.take(LATEST)) found.wants = 'latest';
  // “Do we have a certificate?” asks for papers; “is it reliable?” for what none says.
  if (!hasKind && !LIST.test(asked) && found.who.length === 0) return false;
  text.take(LIST);
  return true;
};

/** Reads which day of a paper its period is about. */
function takeDays(text: Text, found: Understood): void {
  if (text.has(DUE)) found.by = 'dueDate';
  else if (text.has(ENDS)) found.by = 'ends';
  while (text.take(found.by === 'dueDate' ? DUE : found.by === 'ends' ? ENDS : /(?!)/));
  if (found.by !== 'date') text.take(FILLERS_OF_DAYS);
}

/** Reads whether tax, or what is without it, is asked for. */
function takeMoneyFact(text: Text, found: Understood): boolean {
  if (text.take(NET)) found.fact = 'net';
  else if (text.take(TAX)) found.fact = 'tax';
  else if (text.take(GROSS)) found.fact = 'total';
  else return false;
  return true;
}
