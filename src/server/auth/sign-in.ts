import { countFailedSignIns, forgetFailedSignIns, isKnownAddress, noteFailedSignIn, noteKnownAddress } from '../db/sign-in-repository.ts';
import { findPersonByEmail, type PersonToSignIn } from '../db/people-repository.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';
import { checkCode } from './second-step.ts';
import { verifyPassword } from './secrets.ts';

const WINDOW_MS = 10 * 60_000;
const KNOWN_MS = 90 * 86_400_000;
/**
 * Failures allowed in the window: for one account from one address, from one address for any account, and for one account from
 * everywhere. The last never keeps a person out of an address that they have signed in from before.
 */
const MAX_FAILURES = { accountHere: 8, address: 40, account: 60 } as const;

interface Attempt {
  readonly email: string;
  readonly password: string;
  readonly code?: string | undefined;
}

/**
 * The person that an address, a password and, where there is a second step, a code belong to.
 * @throws ProblemError 401 `wrong-password`, `code-needed` or `wrong-code`, 429 after too many failures
 */
export async function checkSignIn(services: Services, attempt: Attempt, clientAddress: string): Promise<PersonToSignIn> {
  const { db, clock, log } = services;
  const nowMs = clock.machineNowMs();
  const sinceMs = nowMs - WINDOW_MS;
  const email = attempt.email.toLowerCase();
  const address = networkOf(clientAddress);
  const [here, account] = [`account:${email}|${address}`, `account:${email}`];
  const person = await findPersonByEmail(db, email);
  const failures = async (subject: string): Promise<number> => countFailedSignIns(db, subject, sinceMs);
  const isBlocked =
    (await failures(here)) >= MAX_FAILURES.accountHere ||
    (await failures(`address:${address}`)) >= MAX_FAILURES.address ||
    ((await failures(account)) >= MAX_FAILURES.account && !(person && (await isKnownAddress(db, person.id, address, nowMs - KNOWN_MS))));
  if (isBlocked) {
    log.warn({ event: 'sign-in-blocked', email, address: clientAddress }, 'too many attempts to sign in');
    throw new ProblemError(429, 'too-many-attempts', 'Too many attempts to sign in. Wait ten minutes, then try again.', { retryAfterSeconds: WINDOW_MS / 1000 });
  }
  const fail = async (code: string, sentence: string): Promise<never> => {
    log.warn({ event: 'sign-in-failed', email, address: clientAddress, why: code }, 'signing in failed');
    await noteFailedSignIn(db, [here, account, `address:${address}`], nowMs, sinceMs);
    throw new ProblemError(401, code, sentence);
  };
  if (!(await verifyPassword(person?.passwordHash ?? null, attempt.password)) || !person) return fail('wrong-password', 'Wrong email or password.');
  if (person.sealedCodeSecret !== null) {
    if (!attempt.code) throw new ProblemError(401, 'code-needed', 'Type the six digits that your authenticator shows, or a recovery code.');
    if (!(await checkCode(services, person.id, person.sealedCodeSecret, attempt.code))) return fail('wrong-code', 'This code is wrong or has been used. Wait for the next one.');
  }
  await forgetFailedSignIns(db, here);
  await noteKnownAddress(db, person.id, address, nowMs);
  log.info({ event: 'signed-in', person: person.id, address: clientAddress }, 'signed in');
  return person;
}

const IPV6_NETWORK_GROUPS = 4;

/** What counts as one address: an IPv6 network of 64 bits is one household. */
function networkOf(address: string): string {
  const plain = address.replace(/^::ffff:/i, '');
  return plain.includes(':') ? plain.split(':').slice(0, IPV6_NETWORK_GROUPS).join(':') : plain;
}
