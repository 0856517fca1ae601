import { findSessionPerson, useAccessToken, type Person } from '../db/people-repository.ts';
import type { Services } from '../services.ts';
import { hashSecret } from './secrets.ts';

/** Who makes a request, and how they proved it. */
export interface Caller {
  readonly person: Person;
  readonly via: 'session' | 'token';
}

export const SESSION_COOKIE = 'confetti_session';
export const SESSION_MS = 30 * 86_400_000;

/** The caller of a request; null when it carries no valid session or token. A bad token does not fall back to a session. */
export async function findCaller(services: Services, headers: Headers): Promise<Caller | null> {
  const machineNowMs = services.clock.machineNowMs();
  const bearer = /^Bearer (\S+)$/i.exec(headers.get('authorization') ?? '')?.[1];
  if (bearer !== undefined) {
    const person = await useAccessToken(services.db, hashSecret(bearer), machineNowMs);
    return person ? { person, via: 'token' } : null;
  }
  const secret = readCookie(headers, SESSION_COOKIE);
  if (!secret) return null;
  const person = await findSessionPerson(services.db, hashSecret(secret), machineNowMs);
  return person ? { person, via: 'session' } : null;
}

export function readCookie(headers: Headers, name: string): string | null {
  for (const pair of (headers.get('cookie') ?? '').split(';')) {
    const [key, ...value] = pair.trim().split('=');
    if (key === name) return value.join('=');
  }
  return null;
}

/** The cookie that carries (or, without a secret, ends) a session. Secure wherever the request came over TLS. */
export function sessionCookie(secret: string | null, secure: boolean): string {
  const age = secret === null ? 0 : SESSION_MS / 1000;
  return `${SESSION_COOKIE}=${secret ?? ''}; Path=/; HttpOnly; SameSite=Lax; Max-Age=${age}${secure ? '; Secure' : ''}`;
}
