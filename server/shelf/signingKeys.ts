import { createPrivateKey, KeyObject, X509Certificate } from 'node:crypto';
import * as x509 from '@peculiar/x509';
import { EntityManager } from 'typeorm';
import { SigningKey as Shown } from '@crow/contract/signing';
import { Problem } from '@crow/contract/problems';
import { nameIn, SigningKey } from '../engines/cms';
import { openKeyFile } from '../engines/keyFile';
import { SigningKey as Kept } from '../platform/entities';
import { ActingAs, record } from '../platform/history';
import { announce } from '../platform/live';

const ALGORITHM = {
  name: 'RSASSA-PKCS1-v1_5',
  modulusLength: 3072,
  publicExponent: new Uint8Array([1, 0, 1]),
  hash: 'SHA-256',
};
const YEAR_MS = 365 * 24 * 3_600_000;
const KEY_LASTS_MS = 10 * YEAR_MS;
const CIPHER = 'aes-256-cbc';

/** The keys that somebody signs with, in the order in which they came. */
export async function signingKeysOf(manager: EntityManager, actor: ActingAs): Promise<Shown[]> {
  const found = await manager.find(Kept, { where: { actorId: actor.id }, order: { madeAt: 'asc' } });
  return found.map(({ id, certificate }) => {
    const { issuer, fingerprint256, validTo } = new X509Certificate(certificate);
    return {
      id,
      name: nameIn(certificate),
      issuer: /^CN=(.*)$/m.exec(issuer)?.[1] ?? issuer.replaceAll('\n', ', '),
      until: new Date(validTo).toISOString(),
      fingerprint: fingerprint256.replaceAll(':', ' '),
    };
  });
}

/** Makes a key, with a certificate that vouches for itself: whoever gets what is signed can tell that it is always the same one. */
export async function makeSigningKey(
  manager: EntityManager,
  actor: ActingAs,
  { name, passPhrase }: { name: string; passPhrase: string },
): Promise<Shown[]> {
  const keys = await crypto.subtle.generateKey(ALGORITHM, true, ['sign', 'verify']);
  const made = await x509.X509CertificateGenerator.createSelfSigned({
    name: [{ CN: [name] }],
    notBefore: new Date(),
    notAfter: new Date(Date.now() + KEY_LASTS_MS),
    signingAlgorithm: ALGORITHM,
    keys,
    extensions: [
      new x509.BasicConstraintsExtension(false, undefined, true),
      new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature | x509.KeyUsageFlags.nonRepudiation, true),
      await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
    ],
  });
  const secret = Buffer.from(await crypto.subtle.exportKey('pkcs8', keys.privateKey));
  const key = createPrivateKey({ key: secret, format: 'der', type: 'pkcs8' });
  return keep(manager, actor, { key, certificate: new Uint8Array(made.rawData), chain: [] }, passPhrase);
}

/** Keeps the key that is in a file. @throws Problem 'key-strange' */
export async function importSigningKey(
  manager: EntityManager,
  actor: ActingAs,
  { file, passPhrase }: { file: string; passPhrase: string },
): Promise<Shown[]> {
  const opened = await openKeyFile(Buffer.from(file, 'base64'), passPhrase);
  return keep(manager, actor, opened, passPhrase);
}

/** Keeps a key no longer. @throws Problem 'not-found' */
export async function forgetSigningKey(manager: EntityManager, actor: ActingAs, id: string): Promise<void> {
  const { affected } = await manager.delete(Kept, { id, actorId: actor.id });
  if (affected === 0) throw new Problem('not-found', { what: 'The key' });
  await record(manager, actor, 'forgot a key to sign with', 'person', actor.id);
  await announce(manager, 'signature', id);
}

/** A key of somebody's, opened. @throws Problem 'not-found', 'key-not-opened', 'key-over' */
export async function openSigningKey(
  manager: EntityManager,
  actor: ActingAs,
  { id, passPhrase }: { id: string; passPhrase: string },
): Promise<SigningKey> {
  const kept = await manager.findOneBy(Kept, { id, actorId: actor.id });
  if (!kept) throw new Problem('not-found', { what: 'The key' });
  const { certificate, chain, lockedKey } = kept;
  const { validTo } = new X509Certificate(certificate);
  if (new Date(validTo) < new Date())
    throw new Problem('key-over', { until: new Date(validTo).toISOString().slice(0, 10) });
  let key: KeyObject;
  try {
    key = createPrivateKey({ key: lockedKey, format: 'pem', passphrase: passPhrase });
  } catch {
    throw new Problem('key-not-opened');
  }
  return { key, certificate, chain };
}

async function keep(
  manager: EntityManager,
  actor: ActingAs,
  { key, certificate, chain }: SigningKey,
  passPhrase: string,
): Promise<Shown[]> {
  const lockedKey = String(key.export({ type: 'pkcs8', format: 'pem', cipher: CIPHER, passphrase: passPhrase }));
  const { id } = await manager.save(
    Kept,
    manager.create(Kept, {
      actorId: actor.id,
      certificate: Buffer.from(certificate),
      chain: chain.map((each) => Buffer.from(each)),
      lockedKey,
    }),
  );
  await record(manager, actor, 'kept a key to sign with', 'person', actor.id, { name: nameIn(certificate) });
  await announce(manager, 'signature', id);
  return signingKeysOf(manager, actor);
}
