import { array, boolean, InferType, number, object, string } from 'yup';
import { HIDEABLE } from '@crow/core/finding/placesToHide';
import { addressesIn, isAddress } from '@crow/core/sending/addresses';
import { id, idParams, problem, share, when } from './basics';
import { PDF_SIZES } from './documents';
import { endpoint } from './endpoint';
import { MARKS_IN_PDF } from './marks';

/** A place on a page, in shares of it, and what stands there. */
export const hidingPlace = object({ pageId: id, box: share, text: string().defined() });
export type HidingPlace = InferType<typeof hidingPlace>;

/** So many areas can be hidden in one copy. */
export const MOST_HIDDEN = 5000;

/** So many papers are copied in one go. */
export const MOST_COPIES = 200;
const MOST_TEXT = 20_000;

/** As what papers are copied. */
export const COPY_FORMS = ['pdf', 'pictures', 'text', 'epub'] as const;
export type CopyForm = (typeof COPY_FORMS)[number];
/** How large a copy's PDF is: as it is filed, or bound anew. */
export const COPY_SIZES = ['filed', ...PDF_SIZES] as const;

/** Nothing of what stands in one line of a mail's head writes another. */
const oneLine = (what: string) =>
  string()
    .trim()
    .matches(/^[^\r\n]*$/, `${what} has one line`);

const copies = {
  ids: array(id).min(1).max(MOST_COPIES).required(),
  as: string().oneOf(COPY_FORMS).default('pdf'),
  /** Each by itself, or all in one PDF, in the order named. */
  form: string()
    .oneOf(['each', 'merged'] as const)
    .required(),
  marks: string().oneOf(MARKS_IN_PDF).required(),
  /** What opens them; '' for nothing. */
  password: string()
    .max(120, 'a password has 120 characters at most')
    .matches(/^[^\r\n]*$/, 'a password has one line')
    .defined(),
  mayPrint: boolean().required(),
  /** A version that was signed, or was before, of one paper by itself; null for what it is now. */
  version: number().integer().min(1).nullable().default(null),
};
/** A signature holds for the very bytes: they are given on as they are. */
const asItIs = ({
  ids,
  version,
  password,
  mayPrint,
}: {
  ids?: string[];
  version?: number | null;
  password?: string;
  mayPrint?: boolean;
}) => !version || (ids?.length === 1 && !password && mayPrint !== false);
const AS_IT_IS = 'a version of a paper is given on as it is, by itself and without a password';
const subject = oneLine('a subject').max(300).defined();
const text = string().max(MOST_TEXT).defined();

/** Copies of papers that are made at once: which, in which form, and whether as a mail that opens in the mail program. */
export const copyWish = object({
  ...copies,
  mail: object({ to: oneLine('an address').max(1000).defined(), subject, text })
    .nullable()
    .default(null)
    .defined(),
}).test('version', AS_IT_IS, asItIs);
export type CopyWish = InferType<typeof copyWish>;

const hiddenAreas = array(object({ pageId: id, box: share }).required())
  .min(1, 'nothing is to be hidden')
  .max(MOST_HIDDEN);

/** Copies of papers that are packed in the background, because they go out or are made smaller. */
const packedWish = object({
  ...copies,
  size: string().oneOf(COPY_SIZES).default('filed'),
  /** Areas that are hidden for good, of one paper by itself; null for nothing. */
  hidden: hiddenAreas.nullable().default(null),
})
  .test('one paper', 'parts of one paper are hidden at a time', ({ ids, hidden }) => !hidden || ids?.length === 1)
  .test('version', AS_IT_IS, asItIs);
export type PackedWish = InferType<typeof packedWish>;

const MOST_DAYS = 365;
const MOST_LOOKS = 1000;
const LONGEST_NAME = 120;

/** How a parcel goes: to be saved here, as a mail from the owner's own account, or to be fetched by whoever has its link. */
export const newParcel = object({
  copies: packedWish.required(),
  mail: object({
    to: oneLine('an address')
      .max(1000)
      .test(
        'addresses',
        ({ value }) => strangeAddress(String(value)),
        (value) => !strangeAddress(value ?? ''),
      )
      .required(),
    subject,
    text,
  })
    .nullable()
    .default(null),
  link: object({
    name: oneLine('a name').max(LONGEST_NAME).required(),
    days: number().integer().min(1).max(MOST_DAYS, `a link ends after ${MOST_DAYS} days at the latest`).required(),
    /** After so many looks it ends, too; null for as many as there come. */
    looks: number().integer().min(1).max(MOST_LOOKS).nullable().default(null),
    /** What whoever follows it is asked for; '' for nothing. */
    password: string().max(120, 'a password has 120 characters at most').defined(),
  })
    .nullable()
    .default(null),
}).test('one way', 'a parcel goes by one way', ({ mail, link }) => !mail || !link);
export type NewParcel = InferType<typeof newParcel>;

/** What keeps a line of addresses from being one; '' for nothing. */
function strangeAddress(line: string): string {
  const all = addressesIn(line);
  const strange = all.find((each) => !isAddress(each));
  if (strange !== undefined) return `“${strange}” is not a mail address`;
  return all.length > 0 ? '' : 'there is no address';
}

export const PARCEL_STATES = ['packing', 'waiting', 'ready', 'sent', 'refused', 'ended'] as const;
export const PARCEL_WAYS = ['save', 'mail', 'link'] as const;

/** Copies that went out, or are on their way. */
export const parcel = object({
  id,
  way: string().oneOf(PARCEL_WAYS).required(),
  state: string().oneOf(PARCEL_STATES).required(),
  /** The subject of a mail, the name of a link. */
  title: string().defined(),
  /** To whom a mail goes. */
  to: string().defined(),
  fileName: string().defined(),
  bytes: number().integer().nullable().defined(),
  papers: array(object({ id: string().uuid().nullable().defined(), name: string().defined() }).required()).required(),
  by: string().defined(),
  made: when,
  /** When it was sent, or ended. */
  done: string().nullable().defined(),
  problem,
  /** When a mail is tried again. */
  nextTry: string().nullable().defined(),
  link: object({
    /** Where it is reached; null where it is not known any more. */
    address: string().nullable().defined(),
    /** The address as a square code (rows of 0 and 1), where one parcel is asked for. */
    code: array(string().required()).nullable().defined(),
    /** Whether other devices than this machine reach it. */
    reached: boolean().required(),
    ends: when,
    mostLooks: number().integer().nullable().defined(),
    locked: boolean().required(),
    looks: array(object({ at: when, from: string().defined(), browser: string().defined() }).required()).required(),
  })
    .nullable()
    .defined(),
});
export type Parcel = InferType<typeof parcel>;

export const MAIL_SECURITIES = ['tls', 'starttls', 'none'] as const;
const THIS_MACHINE = /^(localhost|127(\.\d{1,3}){3}|\[?::1\]?)$/;
const MOST_PORT = 65_535;
/** The owner's account at a mail server (SMTP, RFC 5321). */
export const mailAccount = object({
  host: oneLine('a server')
    .max(200)
    .matches(/^[\w.:[\]-]+$/, 'a server has a name such as mail.example.org')
    .required('Which server?'),
  port: number().typeError('A port is a number.').integer().min(1).max(MOST_PORT).required(),
  /** TLS from the first byte; begun in plain and then encrypted; or not encrypted at all. */
  security: string().oneOf(MAIL_SECURITIES).required(),
  user: oneLine('a user').max(200).defined(),
  /** From whom mails come. */
  from: oneLine('an address')
    .max(200)
    .test('address', 'That is not a mail address.', (value) => isAddress(value ?? ''))
    .required('From which address?'),
  name: oneLine('a name').max(100).defined(),
});
export const mailAccountChange = mailAccount
  .concat(
    object({
      /** Null leaves it as it is. */
      password: string().max(300).nullable().default(null),
    }),
  )
  .test(
    'encrypted',
    'A password goes to another machine encrypted only.',
    ({ security, user, host }) => security !== 'none' || !user || THIS_MACHINE.test(host ?? ''),
  );

export type MailAccountChange = InferType<typeof mailAccountChange>;
export const knownMailAccount = mailAccount.concat(object({ hasPassword: boolean().required() }));
export type KnownMailAccount = InferType<typeof knownMailAccount>;

/** What the next mail may be sent with. */
export const mailWays = object({
  /** From whom mails of the program's own come; null while no account is set up. */
  from: string().nullable().defined(),
  /** Addresses that mails went to, the latest first. */
  addresses: array(string().required()).required(),
});

export const sendingEndpoints = {
  listParcels: endpoint({
    right: 'work',
    method: 'GET',
    path: '/parcels',
    summary: 'Copies that went out or are on their way, by mail and behind links, the latest first',
    reply: array(parcel.required()).required(),
  }),
  readParcel: endpoint({
    right: 'work',
    method: 'GET',
    path: '/parcels/:id',
    summary: 'One of them',
    params: idParams,
    reply: parcel,
  }),
  makeParcel: endpoint({
    right: 'work',
    method: 'POST',
    path: '/parcels',
    summary: 'Have copies packed, to be saved, sent by mail, or fetched by a link that ends by itself',
    body: newParcel,
    reply: parcel,
  }),
  parcelFile: endpoint({
    right: 'work',
    method: 'GET',
    path: '/parcels/:id/file',
    summary: 'What is packed in one',
    params: idParams,
  }),
  sendAgain: endpoint({
    right: 'work',
    method: 'POST',
    path: '/parcels/:id/again',
    summary: 'Try at once to send a mail that waits or was refused',
    params: idParams,
    reply: parcel,
  }),
  endParcel: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/parcels/:id',
    summary: 'Stop a mail that was not sent yet, or end a link',
    params: idParams,
    reply: parcel,
  }),
  mailWays: endpoint({
    right: 'work',
    method: 'GET',
    path: '/mail-ways',
    summary: 'From whom mails come, and to whom they went',
    reply: mailWays,
  }),
  readMailAccount: endpoint({
    right: 'own',
    method: 'GET',
    path: '/mail-account',
    summary: 'The account at a mail server, without its password',
    reply: object({ account: knownMailAccount.nullable().defined() }),
  }),
  changeMailAccount: endpoint({
    right: 'own',
    method: 'PUT',
    path: '/mail-account',
    summary: 'Set up the account at a mail server',
    body: mailAccountChange,
    reply: object({ account: knownMailAccount.nullable().defined() }),
  }),
  forgetMailAccount: endpoint({
    right: 'own',
    method: 'DELETE',
    path: '/mail-account',
    summary: 'Forget the account, with its password',
  }),
  tryMailAccount: endpoint({
    right: 'own',
    method: 'POST',
    path: '/mail-account/test',
    summary: 'Send a test message through the account to its own address',
  }),
  makeCopies: endpoint({
    right: 'read',
    method: 'POST',
    path: '/copies',
    summary: 'Copies of papers: a PDF, a ZIP of several, or a mail (.eml) that holds them',
    body: copyWish,
  }),
  placesToHide: endpoint({
    right: 'read',
    of: 'document',
    method: 'GET',
    path: '/documents/:id/hideable',
    summary: 'Where all accounts, or all amounts, stand in a document',
    params: idParams,
    query: object({ what: string().oneOf(HIDEABLE).required() }),
    reply: array(hidingPlace.required()).required(),
  }),
  copyWithHidden: endpoint({
    right: 'read',
    of: 'document',
    method: 'POST',
    path: '/documents/:id/hidden-copy',
    summary: 'A copy of a document (PDF) in which areas of its pages are hidden for good',
    params: idParams,
    body: object({ areas: hiddenAreas.required() }),
  }),
};
