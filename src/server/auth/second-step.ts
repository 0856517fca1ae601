import { randomBytes } from 'node:crypto';
import { Secret, TOTP } from 'otpauth';
import QRCode from 'qrcode';
import { takeCodeStep, takeRecoveryCode } from '../db/sign-in-repository.ts';
import type { Services } from '../services.ts';
import { hashSecret } from './secrets.ts';

const ISSUER = 'Confetti';
const PERIOD_S = 30;
/** A code of the step before or after counts: clocks differ. */
const WINDOW = 1;
const RECOVERY_CODES = 8;
const RECOVERY_BYTES = 8;

/** Time-based one-time codes (RFC 6238): SHA-1, six digits, 30 seconds, as all authenticators do. */
function totp(secret: string, label = ''): TOTP {
  return new TOTP({ issuer: ISSUER, label, algorithm: 'SHA1', digits: 6, period: PERIOD_S, secret: Secret.fromBase32(secret) });
}

export interface SecondStepOffer {
  /** In base 32, for typing. */
  readonly secret: string;
  readonly uri: string;
  /** The URI as a QR code, an SVG. */
  readonly picture: string;
}

/** A new secret for an authenticator; nothing is kept until a first code is right. */
export async function offerSecondStep(email: string): Promise<SecondStepOffer> {
  const secret = new Secret({ size: 20 }).base32;
  const uri = totp(secret, email).toString();
  return { secret, uri, picture: await QRCode.toString(uri, { type: 'svg', margin: 1 }) };
}

/** The time step in which a code is right; null when it is wrong or the secret is none. */
export function stepOfCode(secret: string, code: string, nowMs: number): number | null {
  if (!/^[A-Z2-7]{16,64}$/.test(secret)) return null;
  const delta = totp(secret).validate({ token: code.replaceAll(' ', ''), timestamp: nowMs, window: WINDOW });
  return delta === null ? null : Math.floor(nowMs / 1000 / PERIOD_S) + delta;
}

/** Codes for the day the authenticator is lost, each good once. */
export function newRecoveryCodes(): readonly string[] {
  return Array.from({ length: RECOVERY_CODES }, () => (randomBytes(RECOVERY_BYTES).toString('hex').match(/.{4}/g) ?? []).join('-'));
}

export function hashRecoveryCode(code: string): string {
  return hashSecret(code.trim().toLowerCase());
}

/** Whether a code opens the second step of a person; it is used up by that. */
export async function checkCode(services: Pick<Services, 'db' | 'clock' | 'sealer'>, personId: string, sealedSecret: string, code: string): Promise<boolean> {
  const step = stepOfCode(services.sealer.open(sealedSecret), code, services.clock.machineNowMs());
  if (step !== null) return takeCodeStep(services.db, personId, step);
  return takeRecoveryCode(services.db, personId, hashRecoveryCode(code));
}
