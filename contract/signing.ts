import { array, InferType, object, string } from 'yup';
import { id, idParams, when } from './basics';
import { documentVersion } from './documents';
import { endpoint } from './endpoint';

const passPhrase = string().max(300).required('A key has a pass phrase.');
const SHORTEST_PHRASE = 8;

/** A key of one's own that papers are signed with digitally. */
export const signingKey = object({
  id,
  /** What its certificate calls whoever has it. */
  name: string().required(),
  /** Who vouches for that; themselves where the key was made here. */
  issuer: string().required(),
  until: when,
  /** SHA-256 of the certificate, in pairs. */
  fingerprint: string().required(),
});
export type SigningKey = InferType<typeof signingKey>;
const signingKeys = array(signingKey.required()).required();

export const newSigningKey = object({
  name: string().trim().min(2, 'A name has two letters at least.').max(100).required('Whose key is it?'),
  passPhrase: passPhrase.min(SHORTEST_PHRASE, `A pass phrase has at least ${SHORTEST_PHRASE} characters.`),
});
const MOST_P12 = 200_000;
export const importedKey = object({
  /** The file (PKCS #12), as base64. */
  file: string().max(MOST_P12, 'that file is too large to hold a key').required(),
  passPhrase: string().max(300).defined(),
});

/** With what a copy is signed: a key and its pass phrase; or none, for a copy that only never changes. */
export const signingWish = object({
  key: object({ id, passPhrase }).nullable().default(null),
  /** What signing it means; '' for nothing. */
  reason: string().trim().max(300).defined(),
});
export type SigningWish = InferType<typeof signingWish>;

export const signingEndpoints = {
  listSigningKeys: endpoint({
    right: 'work',
    method: 'GET',
    path: '/signing-keys',
    summary: 'The keys that whoever asks signs with; nobody else uses them',
    reply: signingKeys,
  }),
  makeSigningKey: endpoint({
    right: 'work',
    method: 'POST',
    path: '/signing-keys',
    summary: 'Make a key to sign with, with a certificate that it vouches for itself',
    body: newSigningKey,
    reply: signingKeys,
  }),
  importSigningKey: endpoint({
    right: 'work',
    method: 'POST',
    path: '/signing-keys/imported',
    summary: 'Keep a key and its certificates from a file (PKCS #12)',
    body: importedKey,
    reply: signingKeys,
  }),
  forgetSigningKey: endpoint({
    right: 'work',
    method: 'DELETE',
    path: '/signing-keys/:id',
    summary: 'Keep a key no longer; what is signed stays signed',
    params: idParams,
  }),
  signDocument: endpoint({
    right: 'work',
    of: 'document',
    method: 'POST',
    path: '/documents/:id/signed',
    summary:
      'Keep the PDF of a document, with its marks, as a version that never changes, signed digitally where a key is given (PAdES)',
    params: idParams,
    body: signingWish,
    reply: array(documentVersion).required(),
  }),
};
