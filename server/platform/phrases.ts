import { hash, verify } from '@node-rs/argon2';

/**
 * What a pass phrase costs to try (argon2id, RFC 9106; 19 MiB and two passes, as OWASP has it): what is in the database is of little use to
 * whoever gets a copy of it.
 */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export function hashPhrase(phrase: string): Promise<string> {
  return hash(phrase, COST);
}

export function isPhrase(hashed: string, phrase: string): Promise<boolean> {
  return verify(hashed, phrase).catch(() => false);
}
