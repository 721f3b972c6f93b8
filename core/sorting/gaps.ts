import { editDistance } from '../finding/editDistance';
import { PageSigns } from './signs';

/** A page of a pile as the cuts are proposed from it. */
export interface PilePage {
  /** Null while its text is not known; size alone is then gone by. */
  signs: PageSigns | null;
  size: [width: number, height: number];
  blank: boolean;
  /** Whether it is a divider sheet: what comes behind it begins a document. */
  divider?: boolean;
  /** Whether it is the back of the sheet before it; undefined when that is not known. */
  back?: boolean;
}

/** What speaks for and against a new document beginning between two pages; each from 0 to 1. */
export type GapEvidence = Record<GapSign, number>;
export type GapSign = (typeof GAP_SIGNS)[number];

/** The signs that a gap is judged by. What each is worth stands in `gapWeights.ts`. */
export const GAP_SIGNS = [
  'always',
  'numberFollows',
  'numberFollowsOf',
  'numberStartsAgain',
  'numberStartsAtOne',
  'numberIsLater',
  'numberIsLaterThanNext',
  'numberBreaks',
  'otherCount',
  'lastOfItsNumbers',
  'notLastOfItsNumbers',
  'numberOnlyBefore',
  'sameRef',
  'otherRef',
  'newRef',
  'sameDate',
  'otherDate',
  'title',
  'titleWithOtherRef',
  'largeHead',
  'address',
  'salutation',
  'beginnings',
  'noBeginning',
  'beginningsWithoutNumber',
  'closingBefore',
  'totalBefore',
  'termsBefore',
  'endings',
  'endingsAndBeginnings',
  'noEndingNoBeginning',
  'totalAgain',
  'closingAgain',
  'pageFull',
  'pageHalfEmpty',
  'halfEmptyAndBeginnings',
  'sentenceGoesOn',
  'sentenceOpens',
  'sentenceOpenBefore',
  'tableGoesOn',
  'carriedOver',
  'saysSoOnce',
  'sizeChanges',
  'slip',
  'bothSlips',
  'lyingDownChanges',
  'sameHead',
  'sameHeadWithBeginnings',
  'otherHead',
  'sameFoot',
  'otherFoot',
  'footOnlyBefore',
  'sharedNames',
  'fewSharedNames',
  'languageChanges',
  'letterChanges',
  'marginChanges',
  'startsHigh',
  'startsLow',
  'ownSender',
  'otherSender',
  'sameSender',
  'otherKind',
  'sameKind',
  'hardlyAnyText',
  'blankBetween',
  'blankBackBetween',
  'onBack',
  'unreadBefore',
  'unreadAfter',
] as const;

/** Widths below this are those of receipts: points. */
const SLIP = 330;
const SAME_SIZE = 0.06;
/** The longer side of sheets tells formats apart that are nearly as wide; rolls are as long as they are. */
const SAME_LENGTH = 0.04;
const FULL = 0.8;
const HALF = 0.6;

/**
 * What the gap between two pages with content shows.
 * @param between the blank pages that lie between them
 */
export function gapEvidence(before: PilePage, after: PilePage, between: PilePage[]): GapEvidence {
  const evidence = Object.fromEntries(GAP_SIGNS.map((sign) => [sign, 0])) as GapEvidence;
  const set = (sign: GapSign, value: number | boolean) => (evidence[sign] = Number(value));
  set('always', 1);
  sizes(before, after, set);
  set('blankBetween', between.length > 0);
  set(
    'blankBackBetween',
    between.some(({ back }) => back === true),
  );
  set('onBack', after.back === true);
  const [a, b] = [before.signs, after.signs];
  set('unreadBefore', a === null);
  set('unreadAfter', b === null);
  if (b) beginning(b, set, evidence);
  if (a) ending(a, set, evidence);
  if (a && b) {
    numbers(a, b, set);
    continuing(a, b, set);
    likeness(a, b, set);
    set('endingsAndBeginnings', evidence.endings * evidence.beginnings);
    set('noEndingNoBeginning', (1 - evidence.endings) * evidence.noBeginning);
    set('halfEmptyAndBeginnings', evidence.pageHalfEmpty * evidence.beginnings);
    set('sameHeadWithBeginnings', evidence.sameHead * evidence.beginnings);
    set('titleWithOtherRef', evidence.title * evidence.otherRef);
    set('totalAgain', a.total && b.total);
    set('closingAgain', a.closing && b.closing);
  }
  return evidence;
}

type Set = (sign: GapSign, value: number | boolean) => void;

function sizes(before: PilePage, after: PilePage, set: Set): void {
  const [[width, height], [nextWidth, nextHeight]] = [before.size, after.size];
  const differs = (one: number, other: number) => Math.abs(one - other) > SAME_SIZE * Math.max(one, other);
  set('slip', Math.min(nextWidth, nextHeight) < SLIP);
  set('bothSlips', Math.min(nextWidth, nextHeight) < SLIP && Math.min(width, height) < SLIP);
  const isSheet = Math.min(width, height) >= SLIP && Math.min(nextWidth, nextHeight) >= SLIP;
  const [long, nextLong] = [Math.max(width, height), Math.max(nextWidth, nextHeight)];
  const isOtherForm = isSheet && Math.abs(long - nextLong) > SAME_LENGTH * Math.max(long, nextLong);
  set('sizeChanges', isOtherForm || differs(Math.min(width, height), Math.min(nextWidth, nextHeight)));
  set('lyingDownChanges', width > height !== nextWidth > nextHeight && width > SLIP && nextWidth > SLIP);
}

function beginning(b: PageSigns, set: Set, evidence: GapEvidence): void {
  set('title', b.title || (b.kind?.sure ?? 0) > HEADING);
  set('largeHead', Math.max(0, Math.min(1, (b.headSize - 1.25) / 1.25)));
  set('address', b.address);
  set('salutation', b.salutation);
  const number = evidence.title + evidence.largeHead + evidence.address + evidence.salutation;
  set('beginnings', Math.min(1, number / 2.5));
  set('noBeginning', number < 0.15 && !namesSender(b));
  set('beginningsWithoutNumber', b.number ? 0 : Math.min(1, number / 2.5));
  set('sentenceOpens', b.beginsOpen);
  set('startsHigh', b.top < 0.09);
  set('startsLow', b.top > 0.16);
  set('ownSender', b.sender?.sure ?? 0);
  set('hardlyAnyText', b.words < 12);
  set('numberStartsAtOne', b.number?.at === 1);
  set('numberIsLater', (b.number?.at ?? 0) > 1);
}

function ending(a: PageSigns, set: Set, evidence: GapEvidence): void {
  set('closingBefore', a.closing);
  set('totalBefore', a.total);
  set('termsBefore', a.terms);
  set('endings', Math.min(1, evidence.closingBefore + evidence.totalBefore + 0.5 * evidence.termsBefore));
  set('pageFull', a.bottom > FULL);
  set('pageHalfEmpty', a.bottom < HALF);
  set('sentenceOpenBefore', a.endsOpen);
  set('lastOfItsNumbers', a.number !== null && a.number.of === a.number.at);
  set('notLastOfItsNumbers', a.number !== null && a.number.of !== null && a.number.at < a.number.of);
}

function numbers(a: PageSigns, b: PageSigns, set: Set): void {
  set('numberOnlyBefore', a.number !== null && b.number === null);
  if (!b.number) return;
  const follows = a.number !== null && b.number.at === a.number.at + 1;
  const sameCount = a.number !== null && a.number.of === b.number.of;
  set('numberFollows', follows && sameCount);
  set('numberFollowsOf', follows && sameCount && b.number.of !== null);
  set('numberStartsAgain', a.number !== null && b.number.at === 1);
  set('numberBreaks', a.number !== null && b.number.at > 1 && !follows);
  set('numberIsLaterThanNext', b.number.at > 2 && !follows);
  set('otherCount', a.number !== null && a.number.of !== null && b.number.of !== null && !sameCount);
}

function continuing(a: PageSigns, b: PageSigns, set: Set): void {
  set('sentenceGoesOn', a.endsOpen && b.beginsOpen);
  const columns = a.lastColumns.length > 0 && a.lastColumns.length === b.firstColumns.length;
  // Amounts end at one edge on many papers; below the letterhead of somebody else they are another table's.
  const isOthers = namesSender(a) && namesSender(b) && !isSameSender(a.sender!.letters, b.sender!.letters);
  set(
    'tableGoesOn',
    !isOthers && columns && a.lastColumns.every((x, index) => Math.abs(x - b.firstColumns[index]) < 0.02),
  );
  set('carriedOver', a.goesOn && b.wentOn);
  set('saysSoOnce', a.goesOn !== b.wentOn);
}

/** From here on a kind is said by a heading. */
const HEADING = 0.9;

/** From here on a letterhead names somebody. */
const NAMED = 0.5;
const namesSender = ({ sender }: PageSigns) => (sender?.sure ?? 0) >= NAMED;

function isSameSender(one: string, other: string): boolean {
  return editDistance(one, other) < 0.25 * Math.max(one.length, other.length, 1);
}

function senders({ sender, kind }: PageSigns, { sender: next, kind: nextKind }: PageSigns, set: Set): void {
  if (sender && next) {
    set(isSameSender(sender.letters, next.letters) ? 'sameSender' : 'otherSender', Math.min(sender.sure, next.sure));
  }
  if (kind && nextKind && nextKind.sure > HEADING) set(kind.name === nextKind.name ? 'sameKind' : 'otherKind', 1);
}

function likeness(a: PageSigns, b: PageSigns, set: Set): void {
  const shared = (one: string[], other: string[]) => one.filter((each) => other.includes(each)).length;
  const refs = shared(a.refs, b.refs);
  set('sameRef', refs > 0);
  set('otherRef', refs === 0 && a.refs.length > 0 && b.refs.length > 0);
  set('newRef', a.refs.length === 0 && b.refs.length > 0);
  senders(a, b, set);
  const dates = shared(a.dates, b.dates);
  set('sameDate', dates > 0);
  set('otherDate', dates === 0 && a.dates.length > 0 && b.dates.length > 0);
  const longest = Math.max(a.head.length, b.head.length);
  if (longest > 6) {
    const same = 1 - editDistance(a.head, b.head) / longest;
    set('sameHead', Math.max(0, (same - 0.4) / 0.6));
    set('otherHead', same < 0.35);
  }
  const feet = Math.min(a.foot.length, b.foot.length);
  if (feet >= 3) {
    const same = shared(a.foot, b.foot) / feet;
    set('sameFoot', same > 0.6);
    set('otherFoot', same < 0.3);
  }
  set('footOnlyBefore', a.foot.length >= 4 && b.foot.length < 2);
  const names = Math.min(a.names.length, b.names.length);
  if (names >= 5) {
    const share = shared(a.names, b.names) / names;
    set('sharedNames', Math.min(1, share / 0.5));
    set('fewSharedNames', share < 0.1);
  }
  set('languageChanges', a.language !== b.language && a.words > 25 && b.words > 25);
  set('letterChanges', Math.min(1, Math.abs(Math.log(a.letter / b.letter)) / 0.25));
  set('marginChanges', Math.min(1, Math.abs(a.left - b.left) / 0.06));
}
