import { createPrivateKey, KeyObject, X509Certificate } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Problem } from '@crow/contract/problems';
import { runChild } from './child';
import { SigningKey } from './cms';
import { withScratch } from './scratch';

const LIMITS = { seconds: 20, megabytes: 512 };
const CERTIFICATE = /-----BEGIN CERTIFICATE-----[^-]+-----END CERTIFICATE-----/g;
const KEY = /-----BEGIN (?:EC |RSA )?PRIVATE KEY-----[^-]+-----END (?:EC |RSA )?PRIVATE KEY-----/;

/**
 * The key in a file (PKCS #12, RFC 7292), with its certificates, by openssl: also those that older programs encrypted.
 * @throws Problem 'key-strange' when none is in it, the password is wrong, or it is of a kind that nothing is signed with here
 */
export async function openKeyFile(file: Uint8Array, password: string): Promise<SigningKey> {
  const pem = await withScratch(async (folder) => {
    const path = join(folder, 'key.p12');
    await writeFile(path, file, { mode: 0o600 });
    const args = ['pkcs12', '-in', path, '-passin', 'env:CROW_KEY_PASSWORD', '-nodes'];
    const options = { limits: LIMITS, what: 'Opening the key', environment: { CROW_KEY_PASSWORD: password } };
    for (const more of [[], ['-legacy']]) {
      const { code, output } = await runChild('openssl', [...args, ...more], options);
      if (code === 0) return output.toString('utf8');
    }
    throw new Problem('key-strange');
  });
  const [found] = KEY.exec(pem) ?? [];
  const certificates = (pem.match(CERTIFICATE) ?? []).map((each) => new X509Certificate(each));
  if (!found) throw new Problem('key-strange');
  const key = createPrivateKey(found);
  const own = certificates.find((each) => each.checkPrivateKey(key));
  if (!own || !canSign(key)) throw new Problem('key-strange');
  return { key, certificate: own.raw, chain: certificates.filter((each) => each !== own).map(({ raw }) => raw) };
}

const SHORTEST_RSA = 2048;

function canSign({ asymmetricKeyType, asymmetricKeyDetails }: KeyObject): boolean {
  if (asymmetricKeyType === 'rsa') return (asymmetricKeyDetails?.modulusLength ?? 0) >= SHORTEST_RSA;
  return asymmetricKeyType === 'ec';
}
