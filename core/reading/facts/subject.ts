import { datesInLine } from '../dates';
import { PageText } from '../words';
import { Row, rowsOf } from './rows';

const SUBJECT = /^(?:re|subject|betreff|betr|objet|concerne|asunto|oggetto|onderwerp|betreft|assunto)\b ?[:.]\s*/;
export const SALUTATION =
  /^(dear|sehr geehrte|liebe|guten tag|hallo|madame|monsieur|cher|chere|estimad|querid|gentile|egregi|caro|cara|geachte|beste|exm)/;

interface Subject {
  text: string;
  row: Row;
  /** Whether a word says that it is the subject. */
  labelled: boolean;
}

/** Lines of their own have so many times the room that lines of a paragraph have between them. */
const APART = 1.6;
const MOST_WORDS = 12;

/** What a letter is about: what its subject line says, or the line by itself after or before the salutation. */
export function subjectOf(pages: readonly Pick<PageText, 'words'>[]): Subject | undefined {
  const rows = rowsOf(pages.slice(0, 1));
  const labelled = rows.find(({ folded }) => SUBJECT.test(folded) && folded.replace(SUBJECT, '').length > 3);
  if (labelled) return { text: labelled.text.replace(/^[^:.]+[:.]\s*/, ''), row: labelled, labelled: true };
  const at = rows.findIndex(({ folded }) => SALUTATION.test(folded));
  if (at < 0) return undefined;
  const gaps = rows.slice(1).map((_, number) => gapAfter(rows, number));
  const close = gaps.toSorted((a, b) => a - b)[gaps.length >> 2];
  const isApart = gaps.map((gap) => gap > APART * Math.max(close, 1));
  // In a text without paragraphs nothing stands apart.
  const standsAlone = (row: number) => !isApart.includes(true) || [row - 1, row].every((each) => isApart[each] ?? true);
  // The first line of the letter itself goes on in the next; an address is more lines than one.
  const number = [at + 1, at - 1].find((each) => rows[each] && standsAlone(each) && isSubject(rows[each]));
  if (number === undefined) return undefined;
  return { text: rows[number].text.replace(/[.:]$/, ''), row: rows[number], labelled: false };
}

/** The room between a row and the next one, in pixels. */
function gapAfter(rows: Row[], row: number): number {
  const [, y, , height] = rows[row].box;
  return rows[row + 1].box[1] - y - height;
}

/** What stands alone at the salutation of a letter besides: a reference, or the day. */
const REFERENCE =
  /^(?:our|your|my|unser|ihr|mein|nos|vos|notre|votre|nuestra|su|nostro|vostro|ons|uw|nossa|vossa)?[ /]*(?:ref|reference|referencia|zeichen|kenmerk|rif)\b|\bno[.:] ?\d/;

function isSubject({ text, folded, words, cells }: Row): boolean {
  return (
    cells.length === 1 &&
    words.length <= MOST_WORDS &&
    /\p{L}{3,}/u.test(text) &&
    // The first line of the letter itself may begin with a small letter, as it does in German.
    !/^\p{Ll}/u.test(text) &&
    !/[,;]$|[.!?]\s|\.$/.test(text) &&
    !REFERENCE.test(folded) &&
    datesInLine(words).every((date) => date.words.length < words.length - 2)
  );
}
