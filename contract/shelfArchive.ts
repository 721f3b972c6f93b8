import { array, InferType, mixed, object, string } from 'yup';
import { booking, factLine, taxAtRate } from './facts';

/** The file in an archive of the shelf that tells what is in it: a list of these, as JSON. */
export const FACTS_FILE = 'facts.json';

/** What an archive of the shelf tells of a document, beside its PDF. */
export const toldDocument = object({
  /** The path of its PDF in the archive. */
  file: string().required(),
  name: string().required(),
  /** The names of its folders from the top, joined by slashes. */
  folder: string().required(),
  /** When it was filed, in ISO 8601. */
  filed: string().required(),
  /** By name, as they are kept; what can't be a fact of its name is left out when it comes back. */
  facts: mixed<Record<string, string>>((value): value is Record<string, string> => isPlain(value)).required(),
  lines: array(factLine.required()).default([]),
  /** Where there are several rates. */
  taxes: array(taxAtRate.required()).default([]),
  tags: array(string().required()).default([]),
  note: string().default(''),
  /** What a statement books. */
  bookings: array(booking.required()).default([]),
});
export type ToldDocument = InferType<typeof toldDocument>;

function isPlain(value: unknown): boolean {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
