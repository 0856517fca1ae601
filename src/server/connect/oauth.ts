import { createHash, randomBytes } from 'node:crypto';
import { number, object, string } from 'yup';
import { ProblemError } from '../errors.ts';
import { guardedAsk } from '../outside/guarded-fetch.ts';

/** A secret of one authorization, and what the network sees of it before (RFC 7636, method S256). */
export function newVerifier(): { readonly verifier: string; readonly challenge: string } {
  const verifier = randomBytes(32).toString('base64url');
  return { verifier, challenge: createHash('sha256').update(verifier).digest('base64url') };
}

/** An access as a token endpoint grants it (RFC 6749 section 5.1); times in seconds from now. */
const grantSchema = object({
  access_token: string().min(8).max(4_000).required(),
  refresh_token: string().max(4_000),
  expires_in: number().positive(),
  /** How long the access can be renewed; not of the RFC, but several networks say it. */
  refresh_expires_in: number().positive(),
});

export interface Grant {
  readonly accessToken: string;
  readonly refreshToken: string | null;
  readonly expiresInS: number | null;
  readonly renewableForS: number | null;
}

/** @throws ProblemError 422 when it grants no access */
export function readGrant(given: unknown, network: string): Grant {
  if (!grantSchema.isValidSync(given, { strict: true })) throw new ProblemError(422, 'no-access', `${network} granted no access that can be read. Try again; if it stays so, ask the network.`);
  const { access_token: accessToken, refresh_token: refreshToken, expires_in: expiresInS, refresh_expires_in: renewableForS } = given;
  return { accessToken, refreshToken: refreshToken ?? null, expiresInS: expiresInS ?? null, renewableForS: renewableForS ?? null };
}

const MAX_ANSWER_BYTES = 256 * 1024;

/** What a token endpoint answered: JSON, or the reason why it gave nothing. */
export type TokenAnswer = { readonly kind: 'granted'; readonly json: unknown } | { readonly kind: 'refused'; readonly reason: string };

/**
 * Asks a token endpoint with a form, as RFC 6749 has it.
 * @throws ProblemError 422 when it does not answer, or with a fault of its own
 */
export async function askTokenEndpoint(address: string, form: Readonly<Record<string, string>>, trustedHosts: readonly string[]): Promise<TokenAnswer> {
  const body = Buffer.from(new URLSearchParams(form).toString());
  const { status, bytes } = await guardedAsk(address, { method: 'POST', headers: { 'content-type': 'application/x-www-form-urlencoded' }, body }, { accept: 'application/json', mostBytes: MAX_ANSWER_BYTES, trustedHosts });
  if (status >= 500 || status === 429) throw new ProblemError(503, 'network-trouble', `${new URL(address).hostname} cannot answer now (${status}). Try again in a while.`);
  const json = readJson(bytes.toString('utf8'));
  if (status >= 200 && status < 300 && json !== null) return { kind: 'granted', json };
  const said = object({ error_description: string().max(300), error: string().max(100) });
  return { kind: 'refused', reason: said.isValidSync(json) ? (json.error_description ?? json.error ?? '') : '' };
}

function readJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
