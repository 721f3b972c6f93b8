import { createHash, KeyObject, sign as signBytes, X509Certificate } from 'node:crypto';
import {
  Attribute,
  CertificateChoices,
  CertificateSet,
  ContentInfo,
  DigestAlgorithmIdentifier,
  DigestAlgorithmIdentifiers,
  EncapsulatedContentInfo,
  id_contentType,
  id_data,
  id_messageDigest,
  id_signedData,
  IssuerAndSerialNumber,
  SignatureAlgorithmIdentifier,
  SignedData,
  SignerIdentifier,
  SignerInfo,
  SignerInfos,
} from '@peculiar/asn1-cms';
import { AsnConvert, AsnObjectIdentifierConverter, OctetString } from '@peculiar/asn1-schema';
import { Certificate } from '@peculiar/asn1-x509';

const SHA256 = '2.16.840.1.101.3.4.2.1';
const RSA = '1.2.840.113549.1.1.1';
const ECDSA_SHA256 = '1.2.840.10045.4.3.2';
/** The signing certificate as a signed attribute (RFC 5035), which makes it one of CAdES. */
const SIGNING_CERTIFICATE_V2 = '1.2.840.113549.1.9.16.2.47';
const NULL = Uint8Array.from([0x05, 0x00]).buffer;

/** A key to sign with, and the certificate of whoever has it, with those that vouch for it, all DER. */
export interface SigningKey {
  key: KeyObject;
  certificate: Uint8Array;
  chain: readonly Uint8Array[];
}

/**
 * A detached signature over bytes (CMS, RFC 5652, of the CAdES baseline B-B, ETSI EN 319 122-1, as PAdES has it: without the time, which
 * the PDF says). RSA (PKCS #1 v1.5) or ECDSA, with SHA-256. @returns DER
 */
export function signDetached(bytes: Uint8Array, { key, certificate, chain }: SigningKey): Uint8Array {
  const own = AsnConvert.parse(certificate, Certificate);
  const attributes = [
    attribute(id_contentType, AsnObjectIdentifierConverter.toASN(id_data).toBER()),
    attribute(id_messageDigest, AsnConvert.serialize(new OctetString(sha256(bytes)))),
    attribute(SIGNING_CERTIFICATE_V2, signingCertificate(certificate)),
  ].sort((a, b) => Buffer.compare(Buffer.from(AsnConvert.serialize(a)), Buffer.from(AsnConvert.serialize(b))));
  const isRsa = key.asymmetricKeyType === 'rsa';
  const digest = new DigestAlgorithmIdentifier({ algorithm: SHA256, parameters: NULL });
  const signer = new SignerInfo({
    version: 1,
    sid: new SignerIdentifier({
      issuerAndSerialNumber: new IssuerAndSerialNumber({
        issuer: own.tbsCertificate.issuer,
        serialNumber: own.tbsCertificate.serialNumber,
      }),
    }),
    digestAlgorithm: digest,
    signedAttrs: attributes,
    signatureAlgorithm: new SignatureAlgorithmIdentifier(
      isRsa ? { algorithm: RSA, parameters: NULL } : { algorithm: ECDSA_SHA256 },
    ),
    signature: new OctetString(signBytes('sha256', setOf(attributes), key)),
  });
  const data = new SignedData({
    version: 1,
    digestAlgorithms: new DigestAlgorithmIdentifiers([digest]),
    encapContentInfo: new EncapsulatedContentInfo({ eContentType: id_data }),
    certificates: new CertificateSet(
      [certificate, ...chain].map(
        (each) => new CertificateChoices({ certificate: AsnConvert.parse(each, Certificate) }),
      ),
    ),
    signerInfos: new SignerInfos([signer]),
  });
  const content = new ContentInfo({ contentType: id_signedData, content: AsnConvert.serialize(data) });
  return new Uint8Array(AsnConvert.serialize(content));
}

function attribute(attrType: string, value: ArrayBuffer): Attribute {
  return new Attribute({ attrType, attrValues: [value] });
}

/** What is signed: the attributes as a SET OF in DER, rather than with the tag that they have in the signature (RFC 5652, 5.4). */
function setOf(attributes: readonly Attribute[]): Buffer {
  return der(0x31, ...attributes.map((each) => Buffer.from(AsnConvert.serialize(each))));
}

/** SigningCertificateV2 of one certificate, by its SHA-256. */
function signingCertificate(certificate: Uint8Array): ArrayBuffer {
  const bytes = der(0x30, der(0x30, der(0x30, der(0x04, sha256(certificate)))));
  return Uint8Array.from(bytes).buffer;
}

/** A value in DER: its tag, its length, what is in it. */
function der(tag: number, ...parts: Buffer[]): Buffer {
  const content = Buffer.concat(parts);
  const { length } = content;
  if (length < 0x80) return Buffer.concat([Buffer.from([tag, length]), content]);
  const size = length < 0x100 ? [0x81, length] : [0x82, length >> 8, length & 0xff];
  return Buffer.concat([Buffer.from([tag, ...size]), content]);
}

function sha256(bytes: Uint8Array): Buffer {
  return createHash('sha256').update(bytes).digest();
}

/** What a certificate calls whoever has it: their common name, or all of the name where there is none. */
export function nameIn(certificate: Uint8Array): string {
  const { subject } = new X509Certificate(certificate);
  return /^CN=(.*)$/m.exec(subject)?.[1] ?? subject.replaceAll('\n', ', ');
}
