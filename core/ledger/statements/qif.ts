import { decimalSignIn, dayOrderIn, readDay, readUnits } from './fields';
import { Statement, StatementError, StatementLine } from './statement';

/** Reads QIF: bookings of lines that each begin with a letter, closed by ^. Its days are written as the machine wrote them. */
export function readQif(text: string): Statement {
  const records = text
    .replace(/\r/g, '')
    .split(/^\^.*$/m)
    .map((record) => record.split('\n').filter((line) => line && !line.startsWith('!')))
    .filter((record) => record.some((line) => line.startsWith('T') || line.startsWith('U')));
  const value = (record: string[], letter: string) =>
    record
      .find((line) => line.startsWith(letter))
      ?.slice(1)
      .trim() ?? '';
  const amounts = records.map((record) => value(record, 'T') || value(record, 'U'));
  const days = records.map((record) =>
    value(record, 'D')
      .replace(/\s*'\s*/, '/')
      .replace(/\s/g, ''),
  );
  const [order, decimal] = [dayOrderIn(days), decimalSignIn(amounts)];
  const lines = records.map((record, at): StatementLine => {
    const [day, units] = [readDay(days[at], order), readUnits(amounts[at], decimal, null)];
    if (!day || units === undefined) throw new StatementError('A booking in it has no day or no amount.');
    const said = ['M', 'N', 'L'].map((letter) => value(record, letter)).filter(Boolean);
    return { day, units, currency: null, who: value(record, 'P'), text: said.join(' '), id: '', balance: null };
  });
  return { format: 'qif', account: null, currency: null, opening: null, closing: null, lines, signed: true };
}
