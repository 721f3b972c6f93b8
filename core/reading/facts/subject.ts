import { PageText } from '../words';
import { Row, rowsOf } from './rows';

const SUBJECT = /^(?:re|subject|betreff|betr|objet|concerne|asunto|oggetto|onderwerp|betreft|assunto)\b ?[:.]\s*/;
const SALUTATION =
  /^(dear|sehr geehrte|liebe|guten tag|hallo|madame|monsieur|cher|chere|estimad|querid|gentile|egregi|caro|cara|geachte|beste|exm)/;

interface Subject {
  text: string;
  row: Row;
  /** Whether a word says that it is the subject. */
  labelled: boolean;
}

/** What a letter is about: what its subject line says, or the short line before or after the salutation. */
export function subjectOf(pages: readonly Pick<PageText, 'words'>[]): Subject | undefined {
  const rows = rowsOf(pages.slice(0, 1));
  const labelled = rows.find(({ folded }) => SUBJECT.test(folded) && folded.replace(SUBJECT, '').length > 3);
  if (labelled) return { text: labelled.text.replace(/^[^:.]+[:.]\s*/, ''), row: labelled, labelled: true };
  const at = rows.findIndex(({ folded }) => SALUTATION.test(folded));
  if (at < 0) return undefined;
  const row = [rows[at - 1], rows[at + 1]].find(
    (each) => each && each.cells.length === 1 && isSubject(each.text) && each.words.length <= 9,
  );
  return row && { text: row.text.replace(/[.:]$/, ''), row, labelled: false };
}

function isSubject(text: string): boolean {
  return (
    !/[,;]$|\d{4}-\d\d|\d{1,2}[./]\d{1,2}[./]\d{2,4}/.test(text) && /\p{L}{3,}/u.test(text) && !/[.!?]\s|\.$/.test(text)
  );
}
