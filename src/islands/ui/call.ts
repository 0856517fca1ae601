import { fillPath, type AnswerOf, type BodyOf, type Contract, type ParamsOf, type QueryOf } from '../../contract/contract.ts';

/** What the server says when it did not do what was asked. */
export class ApiProblem extends Error {
  override readonly name = 'ApiProblem';
  constructor(
    readonly status: number,
    readonly code: string,
    sentence: string,
    readonly details: Readonly<Record<string, unknown>>,
  ) {
    super(sentence);
  }
}

interface CallInput<Each extends Contract> {
  readonly params?: ParamsOf<Each>;
  readonly query?: QueryOf<Each>;
  readonly body?: BodyOf<Each>;
  readonly signal?: AbortSignal;
  /** The request outlives the page (its body may have 64 KB then). */
  readonly keepalive?: boolean;
}

/** The address of an endpoint, for links and pictures. */
export function addressOf<Each extends Contract>(contract: Each, params: ParamsOf<Each>, query: Readonly<Record<string, unknown>> = {}): string {
  const search = new URLSearchParams(Object.entries(query).flatMap(([key, value]) => (value === undefined || value === null ? [] : [[key, String(value)]]))).toString();
  return fillPath(contract.path, params as Record<string, unknown>) + (search ? `?${search}` : '');
}

/** Changes that are on their way, by what they ask for. */
const underWay = new Map<string, Promise<unknown>>();

/**
 * Calls an endpoint. A change that is asked for again while it is on its way is not sent again: a second press gets the answer of the first.
 * @throws ApiProblem when the server declines, or (code `offline`) cannot be reached
 */
export function call<Each extends Contract>(contract: Each, input: CallInput<Each> = {}): Promise<AnswerOf<Each>> {
  const address = addressOf(contract, (input.params ?? {}) as ParamsOf<Each>, (input.query ?? {}) as Record<string, unknown>);
  // The end of a page breaks off its other requests, so a request that outlives it is always sent.
  if (contract.method === 'GET' || input.signal || input.keepalive) return send(contract, address, input);
  const key = `${contract.method} ${address} ${JSON.stringify(input.body) ?? ''}`;
  const first = underWay.get(key);
  if (first) return first as Promise<AnswerOf<Each>>;
  const answer = send(contract, address, input).finally(() => underWay.delete(key));
  underWay.set(key, answer);
  return answer;
}

async function send<Each extends Contract>(contract: Each, address: string, input: CallInput<Each>): Promise<AnswerOf<Each>> {
  const response = await fetch(address, {
    method: contract.method,
    ...(input.body === undefined ? {} : { body: JSON.stringify(input.body), headers: { 'content-type': 'application/json' } }),
    ...(input.signal ? { signal: input.signal } : {}),
    ...(input.keepalive ? { keepalive: true } : {}),
  }).catch((error: unknown) => {
    if (input.signal?.aborted) throw error;
    throw new ApiProblem(0, 'offline', 'Confetti cannot be reached. Nothing is lost; it tries again.', {});
  });
  if (!response.ok) throw await readProblem(response);
  return (response.status === 204 ? undefined : await response.json()) as AnswerOf<Each>;
}

/**
 * Calls an endpoint whose body is a file.
 * @throws ApiProblem when the server declines or cannot be reached
 */
export async function sendFile<Each extends Contract>(contract: Each, params: ParamsOf<Each>, query: Readonly<Record<string, unknown>>, file: Blob): Promise<AnswerOf<Each>> {
  const response = await fetch(addressOf(contract, params, query), { method: contract.method, body: file, headers: { 'content-type': 'application/octet-stream' } }).catch(() => {
    throw new ApiProblem(0, 'offline', 'Confetti cannot be reached. Try again in a moment.', {});
  });
  if (!response.ok) throw await readProblem(response);
  return (await response.json()) as AnswerOf<Each>;
}

async function readProblem(response: Response): Promise<ApiProblem> {
  const body = (await response.json().catch(() => ({}))) as Record<string, unknown>;
  return problemFrom(response.status, body);
}

export function problemFrom(status: number, body: Readonly<Record<string, unknown>>): ApiProblem {
  const sentence = typeof body['title'] === 'string' ? body['title'] : 'Something went wrong. Try again.';
  return new ApiProblem(status, typeof body['code'] === 'string' ? body['code'] : 'unknown', sentence, body);
}
