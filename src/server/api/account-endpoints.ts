import { nanoid } from 'nanoid';
import * as contracts from '../../contract/account-contracts.ts';
import { SESSION_COOKIE, SESSION_IDLE_MS, SESSION_MS, readCookie, sessionCookie } from '../auth/caller.ts';
import { describeMe } from '../auth/me.ts';
import { offerSecondStep as makeOffer, checkCode, hashRecoveryCode, newRecoveryCodes, stepOfCode } from '../auth/second-step.ts';
import { hashPassword, hashSecret, newSecret, verifyPassword } from '../auth/secrets.ts';
import { checkSignIn } from '../auth/sign-in.ts';
import { findBrandById } from '../db/brand-repository.ts';
import { addClockOffsetMs } from '../db/clock-repository.ts';
import { endLink, endPasswordLinks, findLink } from '../db/link-repository.ts';
import { findPerson, findPersonByEmail, findPersonToSignIn, insertMembership, insertPerson, listMembers, listMemberships, setPassword, type Person } from '../db/people-repository.ts';
import { deleteSession, endOtherSessions as endOthers, endSession as endOne, insertSession, listSessions as sessionsOf } from '../db/session-repository.ts';
import { countFailedSignIns, countRecoveryCodes, noteFailedSignIn, setCodeSecret, takeCodeStep } from '../db/sign-in-repository.ts';
import { insertAccessToken, listAccessTokens, revokeAccessToken, revokeAllTokens } from '../db/token-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';
import { defineEndpoint, type Endpoint } from './define-endpoint.ts';

const DAY_MS = 86_400_000;
const MAX_CLIENT = 200;
const MAX_TOKENS = 50;

async function sessionHeaders(services: Services, person: Person, request: Request): Promise<Record<string, string>> {
  const secret = newSecret('cfs');
  const nowMs = services.clock.machineNowMs();
  const client = (request.headers.get('user-agent') ?? '').slice(0, MAX_CLIENT);
  await insertSession(services.db, { secretHash: hashSecret(secret), id: nanoid(12), personId: person.id, client, createdMs: nowMs, lastUsedMs: nowMs, expiresMs: nowMs + SESSION_MS });
  return { 'set-cookie': sessionCookie(secret, isSecure(services, request)), 'cache-control': 'no-store' };
}

function isSecure(services: Services, request: Request): boolean {
  return new URL(request.url).protocol === 'https:' || services.settings.origin?.startsWith('https:') === true;
}

async function beginSession(services: Services, person: Person, request: Request): Promise<Response> {
  return Response.json(await describeMe(services, person), { status: 201, headers: await sessionHeaders(services, person, request) });
}

const signIn = defineEndpoint({
  contract: contracts.signIn,
  may: 'anyone',
  handle: async ({ services, body, request, clientAddress }) => beginSession(services, await checkSignIn(services, body, clientAddress), request),
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
  only: 'session',
  async handle({ services, request }) {
    const secret = readCookie(request.headers, SESSION_COOKIE);
    if (secret) await deleteSession(services.db, hashSecret(secret));
    return new Response(null, { status: 204, headers: { 'set-cookie': sessionCookie(null, isSecure(services, request)) } });
  },
});

const getMe = defineEndpoint({ contract: contracts.getMe, may: 'signed-in', handle: ({ services, caller }) => describeMe(services, caller.person) });

const PASSWORD_WINDOW_MS = 10 * 60_000;
const MAX_WRONG_PASSWORDS = 8;

/** @throws ProblemError 422 when the password is not the caller's, 429 after too many wrong ones */
async function requirePassword(services: Services, person: Person, password: string, clientAddress: string): Promise<void> {
  const nowMs = services.clock.machineNowMs();
  const [subject, sinceMs] = [`password:${person.id}`, nowMs - PASSWORD_WINDOW_MS];
  if ((await countFailedSignIns(services.db, subject, sinceMs)) >= MAX_WRONG_PASSWORDS) throw new ProblemError(429, 'too-many-attempts', 'Too many wrong passwords. Wait ten minutes, then try again.', { retryAfterSeconds: PASSWORD_WINDOW_MS / 1000 });
  const known = await findPersonToSignIn(services.db, person.id);
  if (known && (await verifyPassword(known.passwordHash, password))) return;
  await noteFailedSignIn(services.db, [subject], nowMs, sinceMs);
  services.log.warn({ event: 'password-wrong', person: person.id, address: clientAddress }, 'a password was wrong');
  throw new ProblemError(422, 'wrong-password', 'This is not your password.');
}

/** Whoever had an access before has none afterwards. */
async function endAllAccess(services: Services, personId: string, keptSession: string | null): Promise<void> {
  const nowMs = services.clock.machineNowMs();
  await endOthers(services.db, personId, keptSession);
  await revokeAllTokens(services.db, personId, nowMs);
  await endPasswordLinks(services.db, personId, nowMs);
}

const changePassword = defineEndpoint({
  contract: contracts.changePassword,
  may: 'signed-in',
  only: 'session',
  async handle({ services, caller, body, clientAddress }) {
    await requirePassword(services, caller.person, body.password, clientAddress);
    await setPassword(services.db, caller.person.id, await hashPassword(body.newPassword));
    await endAllAccess(services, caller.person.id, caller.via === 'session' ? caller.sessionId : null);
    services.log.info({ event: 'password-changed', person: caller.person.id, address: clientAddress }, 'a password was changed');
    return undefined;
  },
});

const linkEnded = (): ProblemError => new ProblemError(404, 'link-ended', 'This link has been used or has ended. Ask for a new one.');

const setPasswordByLink = defineEndpoint({
  contract: contracts.setPasswordByLink,
  may: 'anyone',
  async handle({ services, body, clientAddress }) {
    const nowMs = services.clock.machineNowMs();
    const link = await findLink(services.db, hashSecret(body.secret), nowMs);
    if (link?.kind !== 'password') throw linkEnded();
    const passwordHash = await hashPassword(body.newPassword);
    if (!(await endLink(services.db, link.id, nowMs))) throw linkEnded();
    await setPassword(services.db, link.personId, passwordHash);
    await endAllAccess(services, link.personId, null);
    services.log.info({ event: 'password-reset', person: link.personId, address: clientAddress }, 'a password was reset');
    return undefined;
  },
});

async function openInvitation(services: Services, secret: string) {
  const link = await findLink(services.db, hashSecret(secret), services.clock.machineNowMs());
  const brand = link?.kind === 'invitation' ? await findBrandById(services.db, link.brandId) : null;
  if (link?.kind !== 'invitation' || !brand) throw linkEnded();
  return { link, brand };
}

const readInvitation = defineEndpoint({
  contract: contracts.readInvitation,
  may: 'anyone',
  async handle({ services, body }) {
    const { link, brand } = await openInvitation(services, body.secret);
    const madeBy = await findPerson(services.db, link.madeBy);
    return { brandName: brand.name, role: link.role, madeBy: madeBy?.name ?? '', email: link.email, expiresMs: link.expiresMs };
  },
});

const acceptInvitation = defineEndpoint({
  contract: contracts.acceptInvitation,
  may: 'anyone',
  async handle({ services, caller, body, request, clientAddress }) {
    const { link, brand } = await openInvitation(services, body.secret);
    const nowMs = services.clock.machineNowMs();
    if (!body.newcomer && caller?.via !== 'session') throw new ProblemError(401, 'sign-in-needed', 'Sign in, or say who you are.');
    if (body.newcomer && (await findPersonByEmail(services.db, body.newcomer.email))) throw new ProblemError(409, 'address-taken', 'This address has an account. Sign in with it, then open the link again; or use another address.');
    const person = body.newcomer ? { id: nanoid(12), name: body.newcomer.name, email: body.newcomer.email.toLowerCase() } : caller?.person;
    if (!person) throw linkEnded();
    if ((await listMembers(services.db, brand.id)).some(({ id }) => id === person.id)) throw new ProblemError(409, 'member-already', `You are in ${brand.name} already.`);
    const passwordHash = body.newcomer ? await hashPassword(body.newcomer.newPassword) : null;
    await services.db.transaction(async (trx) => {
      if (!(await endLink(trx, link.id, nowMs))) throw linkEnded();
      if (passwordHash !== null) await insertPerson(trx, { ...person, passwordHash }, nowMs);
      await insertMembership(trx, person.id, brand.id, link.role);
    });
    services.log.info({ event: 'invitation-accepted', person: person.id, brand: brand.id, role: link.role, invitedBy: link.madeBy, address: clientAddress }, 'joined a brand');
    const headers = body.newcomer ? await sessionHeaders(services, person, request) : { 'cache-control': 'no-store' };
    return Response.json({ slug: brand.slug }, { status: 201, headers });
  },
});

const listSessions = defineEndpoint({
  contract: contracts.listSessions,
  may: 'signed-in',
  only: 'session',
  async handle({ services, caller }) {
    const nowMs = services.clock.machineNowMs();
    const sessions = await sessionsOf(services.db, caller.person.id, nowMs, nowMs - SESSION_IDLE_MS);
    return { sessions: sessions.map((session) => ({ ...session, isThis: caller.via === 'session' && session.id === caller.sessionId })) };
  },
});

const endSession = defineEndpoint({
  contract: contracts.endSession,
  may: 'signed-in',
  only: 'session',
  async handle({ services, caller, params }) {
    if (!(await endOne(services.db, caller.person.id, params.session))) throw notFound('session');
    services.log.info({ event: 'session-ended', person: caller.person.id }, 'a session was ended');
    return undefined;
  },
});

const endOtherSessions = defineEndpoint({
  contract: contracts.endOtherSessions,
  may: 'signed-in',
  only: 'session',
  async handle({ services, caller }) {
    await endOthers(services.db, caller.person.id, caller.via === 'session' ? caller.sessionId : null);
    services.log.info({ event: 'sessions-ended', person: caller.person.id }, 'all other sessions were ended');
    return undefined;
  },
});

const getSecondStep = defineEndpoint({
  contract: contracts.getSecondStep,
  may: 'signed-in',
  only: 'session',
  async handle({ services, caller }) {
    const person = await findPersonToSignIn(services.db, caller.person.id);
    return { isOn: person?.sealedCodeSecret !== null, recoveryCodes: await countRecoveryCodes(services.db, caller.person.id) };
  },
});

const offerSecondStep = defineEndpoint({ contract: contracts.offerSecondStep, may: 'signed-in', only: 'session', handle: async ({ caller }) => ({ ...(await makeOffer(caller.person.email)) }) });

const beginSecondStep = defineEndpoint({
  contract: contracts.beginSecondStep,
  may: 'signed-in',
  only: 'session',
  async handle({ services, caller, body, clientAddress }) {
    await requirePassword(services, caller.person, body.password, clientAddress);
    const step = stepOfCode(body.secret, body.code, services.clock.machineNowMs());
    if (step === null) throw new ProblemError(422, 'wrong-code', 'This code is wrong. Type the six digits that the authenticator shows now.');
    const recoveryCodes = newRecoveryCodes();
    await setCodeSecret(services.db, caller.person.id, services.sealer.seal(body.secret), recoveryCodes.map(hashRecoveryCode));
    await takeCodeStep(services.db, caller.person.id, step);
    services.log.info({ event: 'second-step-on', person: caller.person.id, address: clientAddress }, 'a second step was added');
    return { recoveryCodes: [...recoveryCodes] };
  },
});

const endSecondStep = defineEndpoint({
  contract: contracts.endSecondStep,
  may: 'signed-in',
  only: 'session',
  async handle({ services, caller, body, clientAddress }) {
    await requirePassword(services, caller.person, body.password, clientAddress);
    const person = await findPersonToSignIn(services.db, caller.person.id);
    if (!person || person.sealedCodeSecret === null) return undefined;
    if (!(await checkCode(services, person.id, person.sealedCodeSecret, body.code))) throw new ProblemError(422, 'wrong-code', 'This code is wrong or has been used. Wait for the next one.');
    await setCodeSecret(services.db, person.id, null, []);
    services.log.info({ event: 'second-step-off', person: person.id, address: clientAddress }, 'a second step was removed');
    return undefined;
  },
});

const listTokens = defineEndpoint({
  contract: contracts.listTokens,
  may: 'signed-in',
  only: 'session',
  handle: async ({ services, caller }) => ({ tokens: [...(await listAccessTokens(services.db, caller.person.id))] }),
});

const createToken = defineEndpoint({
  contract: contracts.createToken,
  may: 'signed-in',
  only: 'session',
  async handle({ services, caller, body }) {
    if ((await listAccessTokens(services.db, caller.person.id)).length >= MAX_TOKENS) throw new ProblemError(409, 'too-many-tokens', `You have ${MAX_TOKENS} tokens. Revoke one first.`);
    const token = newSecret('cft');
    const createdMs = services.clock.machineNowMs();
    const info = { id: nanoid(12), name: body.name, scope: body.scope, createdMs, expiresMs: createdMs + body.days * DAY_MS, lastUsedMs: null };
    await insertAccessToken(services.db, { ...info, personId: caller.person.id, secretHash: hashSecret(token) });
    services.log.info({ event: 'token-made', person: caller.person.id, token: info.id, scope: info.scope }, 'a token was made');
    return { token, info };
  },
});

const revokeToken = defineEndpoint({
  contract: contracts.revokeToken,
  may: 'signed-in',
  only: 'session',
  async handle({ services, caller, params }) {
    if (!(await revokeAccessToken(services.db, caller.person.id, params.token, services.clock.machineNowMs()))) throw notFound('token');
    services.log.info({ event: 'token-revoked', person: caller.person.id, token: params.token }, 'a token was revoked');
    return undefined;
  },
});

const moveClock = defineEndpoint({
  contract: contracts.moveClock,
  may: 'demo',
  async handle({ services, caller, body }) {
    if (!caller) throw new ProblemError(401, 'sign-in-needed', 'Sign in first.');
    // Everybody's time moves: whoever only looks does not move it.
    const maySend = (await listMemberships(services.db, caller.person.id)).some(({ role }) => role !== 'viewer' && role !== 'reviewer');
    if (!maySend) throw new ProblemError(403, 'role-too-low', 'Whoever only looks may not move the clock for everybody.');
    const offsetMs = await addClockOffsetMs(services.db, body.forwardMs);
    if (services.settings.standinOrigin) {
      // The networks' clock follows, so that their pages show the same day; a network that is down keeps its own.
      await fetch(new URL('/switchboard/clock', services.settings.standinOrigin), {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ offsetMs }),
        signal: AbortSignal.timeout(2_000),
      }).catch((error: unknown) => services.log.warn({ err: error }, 'the networks were not told of the new time'));
    }
    return { nowMs: await services.clock.nowMs() };
  },
});

export const accountEndpoints: readonly Endpoint[] = [
  signIn,
  pickPerson,
  signOut,
  getMe,
  changePassword,
  setPasswordByLink,
  readInvitation,
  acceptInvitation,
  listSessions,
  endSession,
  endOtherSessions,
  getSecondStep,
  offerSecondStep,
  beginSecondStep,
  endSecondStep,
  listTokens,
  createToken,
  revokeToken,
  moveClock,
];
