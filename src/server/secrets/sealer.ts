import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';

const KEY_BYTES = 32;
const NONCE_BYTES = 12;
const TAG_BYTES = 16;
const PREFIX = 'sealed1.';

/** Seals secrets that the database keeps, with a key that lies outside of it: a copy of the database alone gives nobody an access. */
export interface Sealer {
  readonly seal: (secret: string) => string;
  /** @throws Error when it was sealed with another key, or changed */
  readonly open: (sealed: string) => string;
}

export function isSealed(text: string): boolean {
  return text.startsWith(PREFIX);
}

/**
 * AES-256-GCM with a random nonce each time.
 * @see https://csrc.nist.gov/pubs/sp/800/38/d/final
 */
export function sealerOf(key: Buffer): Sealer {
  return {
    seal(secret) {
      const nonce = randomBytes(NONCE_BYTES);
      const cipher = createCipheriv('aes-256-gcm', key, nonce);
      const body = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()]);
      return PREFIX + Buffer.concat([nonce, cipher.getAuthTag(), body]).toString('base64url');
    },
    open(sealed) {
      if (!isSealed(sealed)) throw new TypeError('This secret is not sealed');
      const bytes = Buffer.from(sealed.slice(PREFIX.length), 'base64url');
      const cipher = createDecipheriv('aes-256-gcm', key, bytes.subarray(0, NONCE_BYTES));
      cipher.setAuthTag(bytes.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES));
      return Buffer.concat([cipher.update(bytes.subarray(NONCE_BYTES + TAG_BYTES)), cipher.final()]).toString('utf8');
    },
  };
}

/** The key of an installation, made with the first start and readable by its user alone. @throws Error when the file holds no key */
export function readKeyFile(path: string): Buffer {
  if (!existsSync(path)) {
    mkdirSync(dirname(path), { recursive: true });
    try {
      writeFileSync(path, randomBytes(KEY_BYTES).toString('base64'), { mode: 0o600, flag: 'wx' });
    } catch (error) {
      // Another process has made it a moment before.
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
    }
  }
  const key = Buffer.from(readFileSync(path, 'utf8').trim(), 'base64');
  if (key.length !== KEY_BYTES) throw new Error(`${path} holds no key. Restore it from a backup; without it, channels have to be connected again.`);
  return key;
}
