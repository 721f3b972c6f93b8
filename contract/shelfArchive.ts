import { array, InferType, mixed, number, object, string } from 'yup';
import { booking, factLine, taxAtRate } from './facts';
import { newMark } from './marks';

/** The file in an archive of the shelf that tells what is in it: a list of these, as JSON. */
export const FACTS_FILE = 'facts.json';

/** So many characters tell of the marks of one document at most, and of all; marks that need more stay part of the PDF. */
export const MOST_MARKS_TOLD = 10 * 1024 * 1024;
export const ALL_MARKS_TOLD = 100 * 1024 * 1024;

const sha256 = string().matches(/^[\da-f]{64}$/);

/** A mark as an archive tells of it: on which page, counted from 0, and who made it and answered to it. */
export const toldMark = newMark.omit(['id', 'pageId']).concat(
  object({
    page: number().integer().min(0).required(),
    by: string().defined(),
    /** ISO 8601. */
    at: string().required(),
    replies: array(
      object({ by: string().defined(), at: string().required(), text: string().required() }).required(),
    ).default([]),
  }),
);

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
  /** What is marked on its pages, and how the PDF begins without it: so many bytes, and their hash; null where nothing is. */
  marks: object({
    bytes: number().integer().min(1).required(),
    sha256: sha256.required(),
    list: array(toldMark.required()).required(),
  })
    .nullable()
    .default(null),
  /** Copies that were signed, and never change: their paths in the archive, the earliest first. */
  signed: array(
    object({
      file: string().required(),
      at: string().required(),
      by: string().defined(),
      certified: string().nullable().defined(),
      reason: string().defined(),
    }).required(),
  ).default([]),
  /** What a statement books. */
  bookings: array(booking.required()).default([]),
});
export type ToldDocument = InferType<typeof toldDocument>;

function isPlain(value: unknown): boolean {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** What is kept of that while its pages are looked at: the signed copies are stored by then. */
export interface BroughtDocument extends ToldDocument {
  signedBlobs: (ToldDocument['signed'][number] & { blobId: string })[];
}
