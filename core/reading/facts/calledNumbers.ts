import { Word } from '../words';
import { Kind } from './fact';
import { fold, Row } from './rows';
import { Part, termsBefore } from './terms';
import { kindOfTitle } from './titles';

/** What a number is called where it stands. */
export interface Named {
  role: Part | 'plain' | 'unknown';
  /** Whether a word says that it is a number. */
  said: boolean;
  /** Whether it is the number of a bill. */
  bill: boolean;
  /** The word that says what it is of, in folded text. */
  own?: string;
  /** Whether it is what the one to whom the paper goes calls it by. */
  yours?: boolean;
  away: number;
  label: string;
  above: boolean;
}

/** What a number that is no number of a paper is of. */
export const ELSEWHERE: Part[] = ['tax', 'bank', 'iban', 'phone', 'meter', 'till', 'item', 'page', 'staff'];
export const ROLES: Part[] = ['document', 'customer', 'order', 'policy', 'yours', 'delivery', ...ELSEWHERE];
/** A cell of more words is a sentence. */
export const LONGEST_SAID = 8;

/** Kinds that are about another paper. */
export const isAbout = (kind: Kind | undefined) => kind === 'reminder' || kind === 'credit note';

/** What is asked to be said with a payment is the number of what is paid (folded): “Please quote”, “à rappeler”, “bei Zahlung angeben”. */
const QUOTED =
  /\b(?:(?:please|always|paying|payment) (?:quote|quoting|state|give|use|mention)|(?:quote|give|state|use|mention) (?:this|when|with)\b|(?:bitte|stets|immer|zahlung|uberweisung|ruckfragen) (?:bitte |stets |immer )?angeben|verwendungszweck|uberweisungszweck|zahlungszweck|a (?:rappeler|indiquer|mentionner|preciser)|libelle du virement|motif du virement)\b/;

/** A number that is to be said with a payment, where nothing else is said of what it is. */
export function asQuoted(before: string, above: boolean): Named | undefined {
  const said = QUOTED.exec(before.slice(-LONGEST_LABEL));
  if (!said) return undefined;
  const roles = termsBefore(before).flatMap(({ word, parts }) =>
    /^(?:quot(?:e|ing)|votre|your|ihrer?)$/.test(word) ? [] : parts,
  );
  return roles.some((part) => ROLES.includes(part))
    ? undefined
    : { role: 'plain', said: true, bill: false, away: 0, label: said[0], above };
}

/** What says what a number is no longer than so many letters. */
const LONGEST_LABEL = 60;

/** A number behind a title that names the kind of the paper by its parts: “Warenausgang 8841”. */
export function asTitled(row: Row, [first]: Word[], kind: Kind | undefined): Named | undefined {
  const at = row.words.indexOf(first);
  if (at === 0 || at > LONGEST_SAID || isAbout(kind)) return undefined;
  const before = row.words.slice(0, at).map(({ text }) => text);
  const label = fold(before.join(' '));
  if (kindOfTitle(label) !== kind) return undefined;
  return { role: 'document', said: false, bill: false, away: 0, label, above: false };
}

/** What stands before the number of the paper that a credit note or a reminder is about, where it is called nothing (folded). */
const CITES =
  /\b(?:against|re|relat(?:es|ing) to|appli(?:es|ed) to|concern(?:s|ing)|refers to|original document|bezug|betr(?:ifft)?|ursprungsbeleg|bezugsbeleg|korrektur zu|zu|concerne|relatif a|sur)\.? ?:? ?$/;

/** The number that a credit note or a reminder is about: “Against: INV88204”. */
export function asCited(row: Row, [first]: Word[], kind: Kind | undefined): Named | undefined {
  const at = row.words.indexOf(first);
  if (!isAbout(kind) || at === 0 || at > LONGEST_SAID) return undefined;
  const before = fold(
    row.words
      .slice(0, at)
      .map(({ text }) => text)
      .join(' '),
  );
  const said = CITES.exec(before);
  return said ? { role: 'document', said: true, bill: true, away: 0, label: said[0].trim(), above: false } : undefined;
}
