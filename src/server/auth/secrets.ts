import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';

/** argon2id with the parameters OWASP names for password storage (19 MiB, 2 passes, 1 lane). */
const ARGON = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

export function hashPassword(password: string): Promise<string> {
  return hash(password, ARGON);
}

/** Verified against when no such person exists, so that both answers take the same time. */
let decoyHash: Promise<string> | null = null;

export async function verifyPassword(passwordHash: string | null, password: string): Promise<boolean> {
  decoyHash ??= hashPassword(randomBytes(16).toString('hex'));
  const matches = await verify(passwordHash ?? (await decoyHash), password);
  return passwordHash !== null && matches;
}

/** A secret with 256 random bits; the prefix tells a reader what it is. */
export function newSecret(prefix: string): string {
  return `${prefix}_${randomBytes(32).toString('base64url')}`;
}

/** What is kept of a secret. Random secrets of this length need no slow hash. */
export function hashSecret(secret: string): string {
  return createHash('sha256').update(secret).digest('hex');
}
