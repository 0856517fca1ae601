import { nanoid } from 'nanoid';
import * as contracts from '../../contract/account-contracts.ts';
import { readCookie, SESSION_COOKIE, SESSION_MS, sessionCookie } from '../auth/caller.ts';
import { hashSecret, newSecret, verifyPassword } from '../auth/secrets.ts';
import { addClockOffsetMs } from '../db/clock-repository.ts';
import {
  deleteSession,
  findPerson,
  findPersonByEmail,
  forgetSignInAttempts,
  insertAccessToken,
  insertSession,
  listAccessTokens,
  listMemberships,
  recordSignInAttempt,
  revokeAccessToken,
  type Person,
} from '../db/people-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';

/** Sign-in attempts allowed for one account, and from one address, in the window. */
const SIGN_IN_WINDOW_MS = 10 * 60_000;
const MAX_ATTEMPTS = { account: 8, address: 40 } as const;

async function describeMe(services: Services, person: Person) {
  return {
    person: { id: person.id, name: person.name, email: person.email },
    brands: [...(await listMemberships(services.db, person.id))],
    demo: services.settings.demo,
    nowMs: await services.clock.nowMs(),
  };
}

async function beginSession(services: Services, person: Person, request: Request): Promise<Response> {
  const secret = newSecret('cfs');
  await insertSession(services.db, { secretHash: hashSecret(secret), personId: person.id, expiresMs: services.clock.machineNowMs() + SESSION_MS });
  const secure = new URL(request.url).protocol === 'https:' || services.settings.origin?.startsWith('https:') === true;
  return Response.json(await describeMe(services, person), { status: 201, headers: { 'set-cookie': sessionCookie(secret, secure), 'cache-control': 'no-store' } });
}

const signIn = defineEndpoint({
  contract: contracts.signIn,
  may: 'anyone',
  async handle({ services, body, request, clientAddress }) {
    const nowMs = services.clock.machineNowMs();
    const since = nowMs - SIGN_IN_WINDOW_MS;
    const account = `account:${body.email.toLowerCase()}`;
    const byAccount = await recordSignInAttempt(services.db, account, nowMs, since);
    const byAddress = await recordSignInAttempt(services.db, `address:${clientAddress}`, nowMs, since);
    if (byAccount > MAX_ATTEMPTS.account || byAddress > MAX_ATTEMPTS.address) {
      throw new ProblemError(429, 'too-many-attempts', 'Too many attempts to sign in. Wait ten minutes, then try again.', { retryAfterSeconds: SIGN_IN_WINDOW_MS / 1000 });
    }
    const person = await findPersonByEmail(services.db, body.email);
    if (!(await verifyPassword(person?.passwordHash ?? null, body.password)) || !person) {
      throw new ProblemError(401, 'wrong-password', 'The email address and the password do not belong together.');
    }
    await forgetSignInAttempts(services.db, account);
    return beginSession(services, person, request);
  },
});

const pickPerson = defineEndpoint({
  contract: contracts.pickPerson,
  may: 'demo',
  async handle({ services, body, request }) {
    const person = await findPerson(services.db, body.personId);
    if (!person) throw notFound('person');
    return beginSession(services, person, request);
  },
});

const signOut = defineEndpoint({
  contract: contracts.signOut,
  may: 'signed-in',
  async handle({ services, request }) {
    const secret = readCookie(request.headers, SESSION_COOKIE);
    if (secret) await deleteSession(services.db, hashSecret(secret));
    return new Response(null, { status: 204, headers: { 'set-cookie': sessionCookie(null, false) } });
  },
});

const getMe = defineEndpoint({ contract: contracts.getMe, may: 'signed-in', handle: ({ services, caller }) => describeMe(services, caller.person) });

const listTokens = defineEndpoint({
  contract: contracts.listTokens,
  may: 'signed-in',
  handle: async ({ services, caller }) => ({ tokens: [...(await listAccessTokens(services.db, caller.person.id))] }),
});

const createToken = defineEndpoint({
  contract: contracts.createToken,
  may: 'signed-in',
  async handle({ services, caller, body }) {
    const token = newSecret('cft');
    const info = { id: nanoid(12), name: body.name, createdMs: services.clock.machineNowMs(), lastUsedMs: null };
    await insertAccessToken(services.db, { ...info, personId: caller.person.id, secretHash: hashSecret(token) });
    return { token, info };
  },
});

const revokeToken = defineEndpoint({
  contract: contracts.revokeToken,
  may: 'signed-in',
  async handle({ services, caller, params }) {
    if (!(await revokeAccessToken(services.db, caller.person.id, params.token, services.clock.machineNowMs()))) throw notFound('token');
    return undefined;
  },
});

const moveClock = defineEndpoint({
  contract: contracts.moveClock,
  may: 'demo',
  async handle({ services, caller, body }) {
    if (!caller) throw new ProblemError(401, 'sign-in-needed', 'Sign in first.');
    const offsetMs = await addClockOffsetMs(services.db, body.forwardMs);
    if (services.settings.standinOrigin) {
      // The networks' clock follows, so that their pages show the same day; a network that is down keeps its own.
      await fetch(new URL('/switchboard/clock', services.settings.standinOrigin), {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ offsetMs }),
        signal: AbortSignal.timeout(2_000),
      }).catch((error: unknown) => services.log.warn({ error }, 'the networks were not told of the new time'));
    }
    return { nowMs: await services.clock.nowMs() };
  },
});

export const accountEndpoints: readonly Endpoint[] = [signIn, pickPerson, signOut, getMe, listTokens, createToken, revokeToken, moveClock];
