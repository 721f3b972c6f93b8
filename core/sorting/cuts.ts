import { gapEvidence, GapEvidence, GAP_SIGNS, GapSign, PilePage } from './gaps';
import { GAP_WEIGHTS } from './gapWeights';

/** What speaks for a cut, or against it: a sign of the gap, or a divider sheet in it. */
export type CutReason = GapSign | 'divider';

/** What is proposed for the gap before a page. */
export interface ProposedCut {
  /** The chance that a new document begins with the page, 0 to 1. */
  chance: number;
  /** Whether it is sure enough not to be looked at. */
  sure: boolean;
  /** What speaks for it, the weightiest first; what speaks against it where none is proposed. */
  why: CutReason[];
}

/** From which chance on, and below which, a proposal counts as sure: right 998 times in 1,000 on made piles, by `bench/sorting.ts`. */
export const SURE_FROM = 0.96;
/** On a sheet with fewer words there is little to tell by. */
const FEW_WORDS = 25;
const MOST_REASONS = 3;
const LEAST_REASON = 0.35;

/** Behind a divider sheet. */
const DIVIDED: ProposedCut = { chance: 1, sure: true, why: ['divider'] };

/**
 * For each page of a pile, whether a new document begins with it; null for blank pages, divider sheets, and the first page.
 * A logistic model over what each gap shows (`gapEvidence`), trained on made piles.
 */
export function proposeCuts(pages: PilePage[]): (ProposedCut | null)[] {
  const proposals: (ProposedCut | null)[] = [];
  let before = -1;
  pages.forEach((page, at) => {
    const aside = page.blank || page.divider;
    const between = pages.slice(before + 1, at);
    if (aside || before < 0) proposals.push(null);
    else if (between.some(({ divider }) => divider)) proposals.push(DIVIDED);
    else proposals.push(proposeCut(pages[before], page, between));
    if (!aside) before = at;
  });
  return proposals;
}

/** @param between the blank pages between the two */
export function proposeCut(before: PilePage, after: PilePage, between: PilePage[] = []): ProposedCut {
  const evidence = gapEvidence(before, after, between);
  const sum = GAP_SIGNS.reduce((total, sign) => total + GAP_WEIGHTS[sign] * evidence[sign], 0);
  const chance = 1 / (1 + Math.exp(-sum));
  const unread = before.signs === null || after.signs === null;
  // A note or an odd sheet may belong to anything.
  const isOdd = chance < 0.5 && after.signs !== null && after.signs.words < FEW_WORDS && after.signs.number === null;
  const sure = !unread && !isOdd && Math.max(chance, 1 - chance) >= SURE_FROM;
  return { chance, sure, why: reasons(evidence, chance >= 0.5) };
}

/** The signs that weigh most for what is proposed, of those that say the same one. */
function reasons(evidence: GapEvidence, begins: boolean): GapSign[] {
  const words = begins ? BEGINS : GOES_ON;
  const told = GAP_SIGNS.map((sign) => ({ sign, weight: GAP_WEIGHTS[sign] * evidence[sign] * (begins ? 1 : -1) }))
    .filter(({ sign, weight }) => words[sign] !== undefined && weight > LEAST_REASON)
    .sort((a, b) => b.weight - a.weight)
    .map(({ sign }) => sign);
  return told
    .filter((sign, at) => told.findIndex((other) => words[other] === words[sign]) === at)
    .slice(0, MOST_REASONS);
}

/** The reasons for a cut with this chance, in words. */
export function sayReasons(why: readonly CutReason[], chance: number): string[] {
  const words = chance >= 0.5 ? BEGINS : GOES_ON;
  return why.flatMap((reason) => (reason === 'divider' ? 'a divider sheet lies before it' : (words[reason] ?? [])));
}

const BEGINS: Partial<Record<GapSign, string>> = {
  numberStartsAgain: 'its page numbers start again',
  numberStartsAtOne: 'it is numbered page 1',
  otherCount: 'its pages are numbered to another count',
  lastOfItsNumbers: 'the page before is the last of its numbers',
  otherRef: 'it names another number',
  titleWithOtherRef: 'it names another number',
  otherDate: 'it has another date',
  title: 'a title stands at its head',
  largeHead: 'it has a letterhead',
  ownSender: 'its head names who it is from',
  otherSender: 'it is from somebody else',
  otherKind: 'it is another kind of paper',
  address: 'it has an address at its head',
  salutation: 'it greets somebody',
  beginnings: 'it looks like a first page',
  beginningsWithoutNumber: 'it looks like a first page',
  endingsAndBeginnings: 'the page before ends a paper, and this one looks like a first page',
  closingBefore: 'the page before ends with a closing',
  totalBefore: 'the page before ends with a total',
  termsBefore: 'the page before ends with terms of payment',
  totalAgain: 'both pages have a total',
  closingAgain: 'both pages have a closing',
  pageHalfEmpty: 'the page before is only partly filled',
  halfEmptyAndBeginnings: 'the page before is only partly filled',
  sizeChanges: 'the paper has another size',
  slip: 'it is a slip',
  bothSlips: 'both are slips',
  otherHead: 'its head is another one',
  otherFoot: 'its foot is another one',
  fewSharedNames: 'other names and numbers stand on it',
  languageChanges: 'it is in another language',
  letterChanges: 'its letters have another size',
  marginChanges: 'its margin is another one',
  blankBetween: 'a blank page lies between',
  blankBackBetween: 'the sheet before has a blank back',
};

const GOES_ON: Partial<Record<GapSign, string>> = {
  numberFollows: 'its page number follows',
  numberFollowsOf: 'its page number follows',
  numberIsLater: 'its page number is a later one',
  notLastOfItsNumbers: 'the page before is not the last of its numbers',
  sameRef: 'both name the same number',
  sameDate: 'both have the same date',
  sameSender: 'both are from the same sender',
  sameKind: 'both are the same kind of paper',
  noBeginning: 'nothing on it looks like a first page',
  noEndingNoBeginning: 'nothing looks like an end or a beginning',
  pageFull: 'the page before is full',
  sentenceGoesOn: 'a sentence goes on',
  sentenceOpens: 'it begins within a sentence',
  sentenceOpenBefore: 'the page before ends within a sentence',
  tableGoesOn: 'a table goes on',
  carriedOver: 'a sum is carried over',
  saysSoOnce: 'one of the pages says that it goes on',
  sameHead: 'both have the same head',
  sameFoot: 'both have the same foot',
  sharedNames: 'the same names and numbers stand on it',
  hardlyAnyText: 'there is hardly any text on it',
  onBack: 'it is the back of the sheet before',
};
