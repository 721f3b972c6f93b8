import { dayNumber, MatchLine } from './entry';
import { nameWords } from './names';

/** A line with the account that it is on. */
export interface AccountLine extends MatchLine {
  accountId: string;
}

/** One of one's own accounts. */
export interface OwnAccount {
  id: string;
  name: string;
  /** IBAN or another number; '' for none. */
  number: string;
}

/** Two lines, by their places, that are the two ends of one transfer between own accounts. */
export interface Transfer {
  from: number;
  to: number;
  /** From 0 to 1. */
  confidence: number;
}

/** Money is under way for so many days at the most. */
const LONGEST_DAYS = 6;
/** Of own accounts; “transfer” alone is what banks call many a payment. */
const CALLED_SO =
  /\b(own accounts?|internal transfer|between accounts|(to|from) (my |own |the )?(savings|current account|deposit account)|umbuchung|(eigen)?ubertrag|(auf|vom) (sparkonto|tagesgeld\w*|girokonto)|virement interne|compte a compte|(vers|depuis) (l )?(epargne|livret)|giroconto)\b/;
const LEAST_FIGURES = 4;
/** How sure a transfer is whose lines say that they are one, or name the other account, and one of which only amounts and days fit. */
const [NAMED, CALLED, UNSAID] = [0.99, 0.96, 0.6];

const plain = (text: string) => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase().replace(/['’]/g, ' ');

/**
 * Transfers between one's own accounts: the same amount goes out of one and comes into another within days. Lines that name the other
 * account, by its number or its name, say so; where several would fit and nothing is said, nothing is proposed.
 */
export function findTransfers(lines: readonly AccountLine[], accounts: readonly OwnAccount[]): Transfer[] {
  if (new Set(lines.map(({ accountId }) => accountId)).size < 2) return [];
  const byId = new Map(accounts.map((account) => [account.id, account]));
  const coming = new Map<string, number[]>();
  lines.forEach(({ units, currency }, at) => {
    if (units <= 0) return;
    const key = `${units} ${currency}`;
    coming.set(key, [...(coming.get(key) ?? []), at]);
  });
  const pairs: (Transfer & { days: number })[] = [];
  lines.forEach((line, from) => {
    if (line.units >= 0) return;
    const fitting = (coming.get(`${-line.units} ${line.currency}`) ?? []).filter((to) => {
      const days = dayNumber(lines[to].day) - dayNumber(line.day);
      return lines[to].accountId !== line.accountId && days >= -1 && days <= LONGEST_DAYS;
    });
    for (const to of fitting) {
      const said = Math.max(
        saysOther(line, byId.get(lines[to].accountId)),
        saysOther(lines[to], byId.get(line.accountId)),
      );
      // Without a word, the amount has to be one that nothing else has.
      const confidence = said || (fitting.length === 1 ? UNSAID : 0);
      const days = Math.abs(dayNumber(lines[to].day) - dayNumber(line.day));
      if (confidence > 0) pairs.push({ from, to, confidence, days });
    }
  });
  const taken = new Set<number>();
  return pairs
    .sort((a, b) => b.confidence - a.confidence || a.days - b.days)
    .filter(({ from, to }) => {
      if (taken.has(from) || taken.has(to)) return false;
      taken.add(from).add(to);
      return true;
    })
    .map(({ from, to, confidence }) => ({ from, to, confidence }));
}

/** How sure a line says that it is of a transfer to or from another account; 0 where it doesn't. */
function saysOther({ who, text }: MatchLine, other: OwnAccount | undefined): number {
  const said = plain(`${who} ${text}`);
  const figures = other?.number.replace(/\s/g, '').toLowerCase() ?? '';
  if (figures.length >= LEAST_FIGURES && said.replace(/\s/g, '').includes(figures)) return NAMED;
  const name = nameWords(other?.name ?? '').filter((word) => word.length > 3 && !COMMON_WORDS.has(word));
  const words = new Set(nameWords(said));
  if (name.length > 0 && name.every((word) => words.has(word))) return CALLED;
  return CALLED_SO.test(said) ? CALLED : 0;
}

/** What accounts are called that says nothing of which one. */
const COMMON_WORDS = new Set(['bank', 'account', 'konto', 'compte', 'current', 'girokonto', 'courant', 'card']);
