import { array, boolean, number, object, string } from 'yup';
import { roles, tokenScopes, type Role, type TokenScope } from '../core/access/access.ts';
import { contract } from './contract.ts';

const person = object({ id: string().required(), name: string().required(), email: string().required() });

const me = object({
  person: person.required(),
  brands: array(object({ slug: string().required(), name: string().required(), zone: string().required(), role: string<Role>().oneOf([...roles]).required() })).required(),
  /** Whether this person may begin a brand of their own. */
  mayBeginBrands: boolean().required(),
  /** True where the demo's helpers (picking a person, moving the clock) are at hand. */
  demo: boolean().required(),
  nowMs: number().required(),
});

export const MIN_PASSWORD = 12;
const MAX_PASSWORD = 200;

/** A password to be set: long, and whatever else a person likes. */
export const newPassword = () => string().min(MIN_PASSWORD, `A password has at least ${MIN_PASSWORD} characters`).max(MAX_PASSWORD, `A password has at most ${MAX_PASSWORD} characters`).required('Choose a password');
const linkSecret = () => string().max(80).required('This link is incomplete. Copy all of it.');
const personName = () => string().trim().min(2, 'Type your name').max(80);
const email = () => string().trim().email('That is not an email address').max(200);

export const signIn = contract({
  method: 'POST',
  path: '/api/session',
  summary: 'Sign in with an email address and a password',
  body: object({ email: string().trim().email('That is not an email address').max(200).required('Type your email address'), password: string().max(MAX_PASSWORD).required('Type your password'), code: string().trim().max(40) }).noUnknown(),
  answer: me,
  status: 201,
});

export const pickPerson = contract({
  method: 'POST',
  path: '/api/demo/session',
  summary: 'Sign in as one of the demo people (demo only)',
  body: object({ personId: string().max(40).required() }).noUnknown(),
  answer: me,
  status: 201,
});

export const signOut = contract({ method: 'DELETE', path: '/api/session', summary: 'Sign out' });

export const getMe = contract({ method: 'GET', path: '/api/me', summary: 'Who is calling, and for which brands', answer: me });

export const changePassword = contract({
  method: 'POST',
  path: '/api/password',
  summary: 'Change the password; all other sessions and all tokens end',
  body: object({ password: string().max(MAX_PASSWORD).required('Type your password'), newPassword: newPassword() }).noUnknown(),
});

export const setPasswordByLink = contract({
  method: 'POST',
  path: '/api/password-links',
  summary: 'Set a new password by a one-time link; all sessions and tokens end',
  body: object({ secret: linkSecret(), newPassword: newPassword() }).noUnknown(),
});

export const readInvitation = contract({
  method: 'POST',
  path: '/api/invitations/read',
  summary: 'What a one-time invitation leads to',
  body: object({ secret: linkSecret() }).noUnknown(),
  answer: object({ brandName: string().required(), role: string<Role>().oneOf([...roles]).required(), madeBy: string().required(), email: string().defined(), expiresMs: number().required() }),
});

/** Who joins without an account. */
export const newcomer = object({ name: personName().required('Type your name'), email: email().required('Type your email address'), newPassword: newPassword() }).noUnknown();

export const acceptInvitation = contract({
  method: 'POST',
  path: '/api/invitations/accept',
  summary: 'Join a brand by a one-time invitation: as who is signed in, or as somebody new',
  body: object({ secret: linkSecret(), newcomer: newcomer.default(undefined).optional() }).noUnknown(),
  answer: object({ slug: string().required() }),
  status: 201,
});

const session = object({ id: string().required(), client: string().defined(), createdMs: number().required(), lastUsedMs: number().required(), isThis: boolean().required() });

export const listSessions = contract({ method: 'GET', path: '/api/sessions', summary: 'Where the caller is signed in', answer: object({ sessions: array(session.required()).required() }) });

export const endSession = contract({ method: 'DELETE', path: '/api/sessions/{session}', summary: 'End a session of the caller', params: object({ session: string().max(40).required() }) });

export const endOtherSessions = contract({ method: 'DELETE', path: '/api/sessions', summary: 'End all sessions of the caller but this one' });

export const getSecondStep = contract({ method: 'GET', path: '/api/second-step', summary: 'Whether a code is asked for when signing in', answer: object({ isOn: boolean().required(), recoveryCodes: number().required() }) });

export const offerSecondStep = contract({
  method: 'POST',
  path: '/api/second-step/offers',
  summary: 'A secret for an authenticator; nothing is kept until a first code is right',
  answer: object({ secret: string().required(), uri: string().required(), picture: string().required() }),
  status: 201,
});

export const beginSecondStep = contract({
  method: 'POST',
  path: '/api/second-step',
  summary: 'Ask for a code from now on; the answer is the only time the recovery codes are shown',
  body: object({ password: string().max(MAX_PASSWORD).required('Type your password'), secret: string().max(64).required(), code: string().trim().max(40).required('Type the six digits') }).noUnknown(),
  answer: object({ recoveryCodes: array(string().required()).required() }),
  status: 201,
});

export const endSecondStep = contract({
  method: 'POST',
  path: '/api/second-step/end',
  summary: 'Ask for no code any more',
  body: object({ password: string().max(MAX_PASSWORD).required('Type your password'), code: string().trim().max(40).required('Type the six digits or a recovery code') }).noUnknown(),
});

const tokenInfo = object({
  id: string().required(),
  name: string().required(),
  scope: string<TokenScope>().oneOf([...tokenScopes]).required(),
  createdMs: number().required(),
  expiresMs: number().required(),
  lastUsedMs: number().nullable().defined(),
});

export const listTokens = contract({ method: 'GET', path: '/api/tokens', summary: 'Access tokens of the caller', answer: object({ tokens: array(tokenInfo.required()).required() }) });

/** Days that a token may last. */
export const tokenDays = [7, 30, 90, 365] as const;

export const createToken = contract({
  method: 'POST',
  path: '/api/tokens',
  summary: 'Make an access token for scripts; the answer is the only time it is shown',
  body: object({
    name: string().trim().min(1, 'Give the token a name').max(60).required('Give the token a name'),
    scope: string<TokenScope>().oneOf([...tokenScopes], 'There is no such scope').required('Say what the token may do'),
    days: number().oneOf([...tokenDays], `A token lasts ${tokenDays.join(', ')} days`).required('Say how long the token lasts'),
  }).noUnknown(),
  answer: object({ token: string().required(), info: tokenInfo.required() }),
  status: 201,
});

export const revokeToken = contract({ method: 'DELETE', path: '/api/tokens/{token}', summary: 'Revoke an access token', params: object({ token: string().max(40).required() }) });

export const moveClock = contract({
  method: 'POST',
  path: '/api/demo/clock',
  summary: 'Move the demo clock forward (demo only)',
  body: object({ forwardMs: number().integer().min(1).max(370 * 86_400_000, 'At most a year at once').required() }).noUnknown(),
  answer: object({ nowMs: number().required() }),
});
