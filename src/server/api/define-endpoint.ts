import { ValidationError, type Schema } from 'yup';
import type { AnswerOf, BodyOf, Contract, ParamsOf, QueryOf } from '../../contract/contract.ts';
import type { Role } from '../../core/access/access.ts';
import { findCaller, type Caller } from '../auth/caller.ts';
import { roleMay, scopeMay, whyNot, type Ability } from '../../core/access/access.ts';
import { findBrandFor, type Brand } from '../db/brand-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';
import { isNestedTooDeep } from '../web/nesting.ts';
import { readBody } from './read-body.ts';

/** Who may call: anyone, anyone in the demo, a network whose signature the handler checks, anyone signed in, or members of the brand in the path with an ability. */
export type May = 'anyone' | 'demo' | 'network' | 'signed-in' | Ability;

/** What a handler is handed. `caller` and `brand` are there wherever the policy asks for them. */
export interface Context<Params, Query, Body, Policy extends May> {
  readonly services: Services;
  readonly request: Request;
  readonly clientAddress: string;
  readonly params: Params;
  readonly query: Query;
  readonly body: Body;
  readonly nowMs: number;
  readonly caller: Policy extends 'anyone' | 'demo' | 'network' ? Caller | null : Caller;
  readonly brand: Policy extends Ability ? Brand : null;
  readonly role: Policy extends Ability ? Role : null;
}

export interface Endpoint {
  readonly contract: Contract;
  readonly may: May;
  readonly only: 'session' | null;
  handle(request: Request, path: Readonly<Record<string, string>>, services: Services, clientAddress: string): Promise<Response>;
}

const MAX_JSON_BYTES = 2 * 1024 * 1024;

/**
 * An endpoint: the contract says what goes in and out, `may` who may call, `handle` does it. Everything from outside is
 * checked before `handle` sees it; what `handle` answers becomes JSON, or goes out as it is when it is a Response.
 */
export function defineEndpoint<Each extends Contract, Policy extends May>(definition: {
  readonly contract: Each;
  readonly may: Policy;
  /** `session`: a token does not reach it, whatever its scope. */
  readonly only?: 'session';
  readonly handle: (
    context: Context<ParamsOf<Each>, QueryOf<Each>, BodyOf<Each>, Policy>,
  ) => Promise<AnswerOf<Each> | Response | undefined>;
}): Endpoint {
  const { contract, may } = definition;
  return {
    contract,
    may,
    only: definition.only ?? null,
    async handle(request, path, services, clientAddress) {
      if (may === 'demo' && !services.settings.demo) throw notFound('address');
      // A network signs its call; a session is not asked for.
      const caller = may === 'network' ? null : await findCaller(services, request.headers);
      if (contract.method !== 'GET' && may !== 'network' && caller?.via !== 'token') requireSameOrigin(request, services);
      if (may !== 'anyone' && may !== 'demo' && may !== 'network' && !caller) throw new ProblemError(401, 'sign-in-needed', 'Sign in first.');
      if (caller?.via === 'token') requireScope(caller, contract, may, definition.only);
      const params = check(contract.params, path);
      const access = isAbility(may) && caller ? await requireBrand(services, caller, (params as { brand: string }).brand, may) : null;
      const query = check(contract.query, readQuery(contract, request));
      const body = contract.bodyKind === 'json' ? check(contract.body, await readJson(request)) : undefined;
      const nowMs = await services.clock.nowMs();
      const context = { services, request, clientAddress, params, query, body, nowMs, caller, brand: access?.brand ?? null, role: access?.role ?? null };
      // The checks above have made sure of what the policy promises; types cannot follow them.
      const answer = await definition.handle(context as unknown as Parameters<typeof definition.handle>[0]);
      if (answer instanceof Response) return answer;
      if (contract.status === 204) return new Response(null, { status: 204 });
      return Response.json(answer, { status: contract.status, headers: { 'cache-control': 'no-store' } });
    },
  };
}

function isAbility(may: May): may is Ability {
  return may !== 'anyone' && may !== 'demo' && may !== 'network' && may !== 'signed-in';
}

async function requireBrand(services: Services, caller: Caller, slug: string, ability: Ability) {
  const access = await findBrandFor(services.db, slug, caller.person.id);
  if (!access) throw notFound('brand');
  if (!roleMay(access.role, ability)) throw new ProblemError(403, 'role-too-low', whyNot(access.role, ability, access.brand.name));
  return access;
}

/** A token reaches what its scope names, and no account. */
function requireScope(caller: Extract<Caller, { via: 'token' }>, contract: Contract, may: May, only: 'session' | undefined): void {
  if (only === 'session') throw new ProblemError(403, 'session-needed', 'A token cannot do this. Sign in in a browser.');
  const isReached = isAbility(may) ? scopeMay(caller.scope, may) : contract.method === 'GET' || caller.scope !== 'read';
  if (!isReached) throw new ProblemError(403, 'scope-too-low', `This token may only ${caller.scope}. Make one with a wider scope on your account’s page.`);
}

/** Browsers say where a write comes from; other sites' pages must not write with a visitor's cookie. */
function requireSameOrigin(request: Request, services: Services): void {
  const origin = request.headers.get('origin');
  const own = services.settings.origin ?? `${new URL(request.url).protocol}//${request.headers.get('host') ?? ''}`;
  if (origin === null || origin.toLowerCase() !== own.toLowerCase()) {
    throw new ProblemError(403, 'foreign-origin', 'This request did not come from Confetti itself. Scripts need an access token.');
  }
}

/** Query values come as text; numbers are read as numbers where the contract wants them. */
function readQuery(contract: Contract, request: Request): Record<string, unknown> {
  const fields = (contract.query.describe() as { fields?: Record<string, { type: string }> }).fields ?? {};
  return Object.fromEntries(
    [...new URL(request.url).searchParams].map(([key, value]) => [key, fields[key]?.type === 'number' && value.trim() !== '' ? Number(value) : value]),
  );
}

async function readJson(request: Request): Promise<unknown> {
  if (!/^application\/json\b/i.test(request.headers.get('content-type') ?? '')) throw new ProblemError(415, 'not-json', 'Send JSON, with content-type application/json.');
  const bytes = await readBody(request, MAX_JSON_BYTES);
  if (isNestedTooDeep(bytes)) throw new ProblemError(422, 'too-deep', 'The request is nested deeper than any document is.');
  try {
    return JSON.parse(bytes.toString('utf8'));
  } catch {
    throw new ProblemError(400, 'not-json', 'The request is not valid JSON.');
  }
}
function check(schema: Schema, value: unknown): unknown {
  try {
    const checked: unknown = schema.validateSync(value, { abortEarly: false, strict: true });
    return checked;
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const fields = (error.inner.length > 0 ? error.inner : [error]).map((each) => ({ path: each.path ?? '', message: each.message }));
    throw new ProblemError(422, 'not-valid', fields[0]?.message ?? 'Something in the request is not right.', { fields });
  }
}
