import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';

const KEY_BYTES = 32;
const NONCE_BYTES = 12;
const TAG_BYTES = 16;

/**
 * Seals what is kept in the database and is to be read on this machine only (AES-256-GCM, NIST SP 800-38D). The key lies in a file beside
 * the database, for its owner alone, and in no backup of the database.
 */
export class Seal {
  private key: Buffer | undefined;

  /** @param file where the key lies; it is made when first needed */
  constructor(private readonly file: string) {}

  seal(text: string): string {
    const nonce = randomBytes(NONCE_BYTES);
    const cipher = createCipheriv('aes-256-gcm', this.ownKey(), nonce);
    const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
    return Buffer.concat([nonce, sealed, cipher.getAuthTag()]).toString('base64');
  }

  /** What was sealed; undefined when it was sealed by another key, or is damaged. */
  open(sealed: string): string | undefined {
    const bytes = Buffer.from(sealed, 'base64');
    try {
      const cipher = createDecipheriv('aes-256-gcm', this.ownKey(), bytes.subarray(0, NONCE_BYTES));
      cipher.setAuthTag(bytes.subarray(-TAG_BYTES));
      return Buffer.concat([cipher.update(bytes.subarray(NONCE_BYTES, -TAG_BYTES)), cipher.final()]).toString('utf8');
    } catch {
      return undefined;
    }
  }

  private ownKey(): Buffer {
    if (!this.key && !existsSync(this.file)) {
      mkdirSync(dirname(this.file), { recursive: true });
      writeFileSync(this.file, randomBytes(KEY_BYTES), { mode: 0o600, flag: 'wx' });
    }
    this.key ??= readFileSync(this.file);
    return this.key;
  }
}
