import Papa from 'papaparse';
import { moneyOf } from '../money';
import { OpenEntry } from './matching/entry';
import { decimalSignIn, dayOrderIn, readDay, readDecimal } from './statements/fields';

/** A list of entries that can't be read, with a sentence that says why. */
export class EntriesError extends Error {}

/**
 * Entries from a CSV with a head: id, date, due, who, number, total, currency; what is to be paid is positive, what is to be received negative.
 * @throws EntriesError
 */
export function readEntries(text: string): OpenEntry[] {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (head) => head.trim().toLowerCase(),
  });
  const missing = ['id', 'date', 'total'].filter((name) => !meta.fields?.includes(name));
  if (missing.length > 0) throw new EntriesError(`The list of entries has no column ${missing.join(', ')}.`);
  const [order, decimal] = [dayOrderIn(data.map(({ date }) => date)), decimalSignIn(data.map(({ total }) => total))];
  return data.map(({ id, date, due = '', who = '', number = '', total, currency = '' }, at) => {
    const [day, known] = [readDay(date, order), currency.trim().toUpperCase() || null];
    const plain = readDecimal(total, decimal);
    const units = plain === undefined ? undefined : moneyOf(plain, known)?.units;
    if (!day || units === undefined) throw new EntriesError(`Entry ${at + 1} (“${id}”) has no day or no total.`);
    return { id, day, due: readDay(due, order) ?? null, who, number: number.trim(), units, currency: known };
  });
}
