import { array, boolean, number, object, string } from 'yup';
import { roles, type Role } from '../core/access/access.ts';
import { contract } from './contract.ts';

const person = object({ id: string().required(), name: string().required(), email: string().required() });

const me = object({
  person: person.required(),
  brands: array(object({ slug: string().required(), name: string().required(), zone: string().required(), role: string<Role>().oneOf([...roles]).required() })).required(),
  /** True where the demo's helpers (picking a person, moving the clock) are at hand. */
  demo: boolean().required(),
  nowMs: number().required(),
});

export const signIn = contract({
  method: 'POST',
  path: '/api/session',
  summary: 'Sign in with an email address and a password',
  body: object({ email: string().trim().email('That is not an email address').max(200).required('Type your email address'), password: string().max(500).required('Type your password') }).noUnknown(),
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

const tokenInfo = object({ id: string().required(), name: string().required(), createdMs: number().required(), lastUsedMs: number().nullable().defined() });

export const listTokens = contract({ method: 'GET', path: '/api/tokens', summary: 'Access tokens of the caller', answer: object({ tokens: array(tokenInfo.required()).required() }) });

export const createToken = contract({
  method: 'POST',
  path: '/api/tokens',
  summary: 'Make an access token for scripts; the answer is the only time it is shown',
  body: object({ name: string().trim().min(1, 'Give the token a name').max(60).required('Give the token a name') }).noUnknown(),
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
