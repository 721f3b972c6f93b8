import 'reflect-metadata';
import { webcrypto } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { isIP } from 'node:net';
import { join } from 'node:path';
import { AsnConvert } from '@peculiar/asn1-schema';
import {
  GeneralName,
  GeneralSubtree,
  GeneralSubtrees,
  id_ce_nameConstraints,
  NameConstraints,
} from '@peculiar/asn1-x509';
import * as x509 from '@peculiar/x509';

const crypto = webcrypto as unknown as Crypto;
x509.cryptoProvider.set(crypto);

const ALGORITHM = { name: 'ECDSA', namedCurve: 'P-256', hash: 'SHA-256' };
const DAY_MS = 24 * 3_600_000;
const AUTHORITY_LASTS_MS = 10 * 365 * DAY_MS;
/** Browsers refuse certificates of a server that are good for longer than about 13 months. */
const CERTIFICATE_LASTS_MS = 390 * DAY_MS;
/** Clocks of telephones go wrong by hours. */
const EARLIER_MS = DAY_MS;
const SERIAL_BYTES = 16;
/** Addresses that are no one's in particular (RFC 1918, RFC 3927, RFC 4193, RFC 4291), and this machine itself. */
const PRIVATE_NETWORKS = [
  '10.0.0.0/8',
  '172.16.0.0/12',
  '192.168.0.0/16',
  '169.254.0.0/16',
  '127.0.0.0/8',
  'fc00::/7',
  'fe80::/10',
  '::1/128',
];
const LOCAL_NAMES = ['local', 'localhost'];

/** What a server shows, in PEM: its certificate and the secret key to it. */
export interface ServerCertificate {
  certificate: string;
  key: string;
}

/**
 * An authority that vouches for this machine to devices that trust it, made here and kept in a folder of its own. It can vouch for nothing
 * else: its certificate is constrained (RFC 5280, 4.2.1.10) to private addresses, `.local`, and what this machine was called when it was made.
 */
export class Authority {
  private constructor(
    private readonly made: x509.X509Certificate,
    private readonly key: CryptoKey,
    private readonly pem: string,
  ) {}

  /** The authority kept in a folder; made when there is none yet. @param names addresses and names of this machine */
  static async in(folder: string, names: readonly string[]): Promise<Authority> {
    const [certificateFile, keyFile] = ['authority.pem', 'authority.key'].map((name) => join(folder, name));
    if (existsSync(certificateFile) && existsSync(keyFile)) {
      const pem = readFileSync(certificateFile, 'utf8');
      const [bytes] = x509.PemConverter.decode(readFileSync(keyFile, 'utf8'));
      const key = await crypto.subtle.importKey('pkcs8', bytes, ALGORITHM, false, ['sign']);
      return new Authority(new x509.X509Certificate(pem), key, pem);
    }
    const keys = await crypto.subtle.generateKey(ALGORITHM, true, ['sign', 'verify']);
    const made = await x509.X509CertificateGenerator.createSelfSigned({
      serialNumber: newSerial(),
      name: [{ CN: [`Crow Shelf of ${names.find((name) => isIP(name) === 0) ?? 'this machine'}`] }],
      ...validity(AUTHORITY_LASTS_MS),
      signingAlgorithm: ALGORITHM,
      keys,
      extensions: [
        new x509.BasicConstraintsExtension(true, 0, true),
        new x509.KeyUsagesExtension(x509.KeyUsageFlags.keyCertSign | x509.KeyUsageFlags.cRLSign, true),
        await x509.SubjectKeyIdentifierExtension.create(keys.publicKey),
        new x509.Extension(id_ce_nameConstraints, true, AsnConvert.serialize(constraintsFor(names))),
      ],
    });
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    const secret = await crypto.subtle.exportKey('pkcs8', keys.privateKey);
    writeFileSync(keyFile, x509.PemConverter.encode(secret, 'PRIVATE KEY'), { mode: 0o600 });
    const pem = made.toString('pem');
    writeFileSync(certificateFile, pem, { mode: 0o600 });
    return new Authority(made, keys.privateKey, pem);
  }

  /** Its own certificate, which devices are told to trust, as DER. */
  get certificate(): Buffer {
    return Buffer.from(this.made.rawData);
  }

  /** SHA-256 of its certificate, in pairs of capitals. */
  async fingerprint(): Promise<string> {
    const digest = Buffer.from(await crypto.subtle.digest('SHA-256', this.made.rawData));
    return [...digest].map((byte) => byte.toString(16).padStart(2, '0').toUpperCase()).join(' ');
  }

  /** Whether it can vouch for a name or an address. */
  vouchesFor(name: string): boolean {
    const extension = this.made.getExtension(id_ce_nameConstraints);
    const permitted = extension && AsnConvert.parse(extension.value, NameConstraints).permittedSubtrees;
    return (permitted ?? []).some(({ base }) =>
      base.iPAddress ? isIP(name) === 4 && isWithin(name, base.iPAddress) : isBelow(name, base.dNSName ?? ''),
    );
  }

  /** A new certificate, with a key of its own, for what this machine is reached by. */
  async certify(names: readonly string[]): Promise<ServerCertificate> {
    const keys = await crypto.subtle.generateKey(ALGORITHM, true, ['sign', 'verify']);
    const certificate = await x509.X509CertificateGenerator.create({
      serialNumber: newSerial(),
      subject: [{ CN: ['Crow Shelf'] }],
      issuer: this.made.subject,
      ...validity(CERTIFICATE_LASTS_MS),
      signingAlgorithm: ALGORITHM,
      publicKey: keys.publicKey,
      signingKey: this.key,
      extensions: [
        new x509.BasicConstraintsExtension(false, undefined, true),
        new x509.KeyUsagesExtension(x509.KeyUsageFlags.digitalSignature, true),
        new x509.ExtendedKeyUsageExtension([x509.ExtendedKeyUsage.serverAuth]),
        new x509.SubjectAlternativeNameExtension(
          names.map((value) => ({ type: isIP(value) ? ('ip' as const) : ('dns' as const), value })),
        ),
        await x509.AuthorityKeyIdentifierExtension.create(this.made.publicKey),
      ],
    });
    const secret = await crypto.subtle.exportKey('pkcs8', keys.privateKey);
    return {
      certificate: `${certificate.toString('pem')}\n${this.pem}`,
      key: x509.PemConverter.encode(secret, 'PRIVATE KEY'),
    };
  }
}

function validity(lasts: number): { notBefore: Date; notAfter: Date } {
  return { notBefore: new Date(Date.now() - EARLIER_MS), notAfter: new Date(Date.now() + lasts - EARLIER_MS) };
}

function newSerial(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(SERIAL_BYTES));
  // A positive number (RFC 5280, 4.1.2.2).
  bytes[0] = (bytes[0] & 0x7f) | 0x40;
  return Buffer.from(bytes).toString('hex');
}

function constraintsFor(names: readonly string[]): NameConstraints {
  const own = names.map((name) => (isIP(name) ? `${name}/${isIP(name) === 4 ? 32 : 128}` : name));
  const networks = [...PRIVATE_NETWORKS, ...own.filter((name) => name.includes('/'))];
  const hosts = [...LOCAL_NAMES, ...own.filter((name) => !name.includes('/') && !isBelow(name, 'local'))];
  const subtree = (base: Partial<GeneralName>) => new GeneralSubtree({ base: new GeneralName(base) });
  return new NameConstraints({
    permittedSubtrees: new GeneralSubtrees([
      ...networks.map((iPAddress) => subtree({ iPAddress })),
      ...hosts.map((dNSName) => subtree({ dNSName })),
    ]),
  });
}

/** Whether an IPv4 address is in a network that is written with a slash. */
function isWithin(address: string, network: string): boolean {
  const [base, bits] = network.split('/');
  if (isIP(base) !== 4) return false;
  const asNumber = (text: string) => text.split('.').reduce((sum, part) => sum * 256 + Number(part), 0);
  const size = 2 ** (32 - Number(bits));
  return Math.floor(asNumber(address) / size) === Math.floor(asNumber(base) / size);
}

function isBelow(name: string, domain: string): boolean {
  return name === domain || name.endsWith(`.${domain}`);
}
