import type { TokenScope } from '../../core/access/access.ts';
import type { Person } from '../db/people-repository.ts';
import { findSession, noteSessionUsed } from '../db/session-repository.ts';
import { findAccessToken, noteTokenUsed } from '../db/token-repository.ts';
import type { Services } from '../services.ts';
import { hashSecret } from './secrets.ts';

/** Who makes a request, and how they proved it. */
export type Caller =
  | { readonly person: Person; readonly via: 'session'; readonly sessionId: string }
  | { readonly person: Person; readonly via: 'token'; readonly scope: TokenScope };

export const SESSION_COOKIE = 'confetti_session';
const DAY_MS = 86_400_000;
/** A session ends this long after signing in, and sooner when it lies idle. */
export const SESSION_MS = 30 * DAY_MS;
export const SESSION_IDLE_MS = 7 * DAY_MS;
/** That a session or token is in use is noted this often: not every request is a write. */
const NOTE_USE_EVERY_MS = 5 * 60_000;

/** The caller of a request; null when it carries no valid session or token. A bad token does not fall back to a session. */
export async function findCaller(services: Services, headers: Headers): Promise<Caller | null> {
  const nowMs = services.clock.machineNowMs();
  const bearer = /^Bearer (\S+)$/i.exec(headers.get('authorization') ?? '')?.[1];
  if (bearer !== undefined) {
    const found = await findAccessToken(services.db, hashSecret(bearer), nowMs);
    if (!found) return null;
    const { token, person } = found;
    if (nowMs - (token.lastUsedMs ?? 0) > NOTE_USE_EVERY_MS) await noteUse(services, () => noteTokenUsed(services.db, token.id, nowMs));
    return { person, via: 'token', scope: token.scope };
  }
  const secret = readCookie(headers, SESSION_COOKIE);
  if (!secret) return null;
  const session = await findSession(services.db, hashSecret(secret), nowMs, nowMs - SESSION_IDLE_MS);
  if (!session) return null;
  if (nowMs - session.lastUsedMs > NOTE_USE_EVERY_MS) await noteUse(services, () => noteSessionUsed(services.db, hashSecret(secret), nowMs));
  return { person: session.person, via: 'session', sessionId: session.id };
}

/** A full disk must not keep people from looking. */
async function noteUse(services: Services, note: () => Promise<void>): Promise<void> {
  await note().catch((error: unknown) => services.log.warn({ err: error }, 'could not note the use of a session or token'));
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
