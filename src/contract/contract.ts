import { mixed, object, type AnyObject, type InferType, type Schema } from 'yup';

/** An endpoint as both sides know it: the server checks by it, the client is typed by it, the OpenAPI document is made from it. */
export interface Contract<Params extends Schema = Schema, Query extends Schema = Schema, Body extends Schema = Schema, Answer extends Schema = Schema> {
  readonly method: 'GET' | 'POST' | 'PATCH' | 'DELETE';
  /** With parameters in braces, as in OpenAPI. */
  readonly path: `/api/${string}`;
  readonly summary: string;
  readonly params: Params;
  readonly query: Query;
  /** `bytes`: the raw request body is a file. */
  readonly bodyKind: 'json' | 'bytes' | 'none';
  readonly body: Body;
  /** Media type of what is answered. */
  readonly answerType: 'application/json' | 'image/*' | 'font/*' | 'application/zip' | 'text/plain' | 'text/event-stream';
  readonly answer: Answer;
  readonly status: 200 | 201 | 204;
}

const nothing = object({}).noUnknown();
const anything = mixed();
type Nothing = typeof nothing;
type Anything = typeof anything;

/** Answers that are no JSON, and their media types. */
const filed = { picture: 'image/*', font: 'font/*', archive: 'application/zip', text: 'text/plain', events: 'text/event-stream' } as const;

interface ContractInput<Params, Query, Body, Answer> {
  readonly method: Contract['method'];
  readonly path: Contract['path'];
  readonly summary: string;
  readonly params?: Params;
  readonly query?: Query;
  readonly body?: Body | 'bytes';
  readonly answer?: Answer | keyof typeof filed;
  readonly status?: Contract['status'];
}

/** A contract with what is not said filled in: no parameters, no body, an empty answer. */
export function contract<Params extends Schema = Nothing, Query extends Schema = Nothing, Body extends Schema = Anything, Answer extends Schema = Anything>(
  input: ContractInput<Params, Query, Body, Answer>,
): Contract<Params, Query, Body, Answer> {
  const { body, answer } = input;
  return {
    method: input.method,
    path: input.path,
    summary: input.summary,
    params: input.params ?? (nothing as unknown as Params),
    query: input.query ?? (nothing as unknown as Query),
    bodyKind: body === undefined ? 'none' : body === 'bytes' ? 'bytes' : 'json',
    body: body === undefined || body === 'bytes' ? (anything as unknown as Body) : body,
    answerType: typeof answer === 'string' ? filed[answer] : 'application/json',
    answer: answer === undefined || typeof answer === 'string' ? (anything as unknown as Answer) : answer,
    status: input.status ?? (answer === undefined ? 204 : 200),
  };
}

export type ParamsOf<Each> = Each extends Contract<infer Params, Schema, Schema, Schema> ? InferType<Params> : never;
export type QueryOf<Each> = Each extends Contract<Schema, infer Query, Schema, Schema> ? InferType<Query> : never;
export type BodyOf<Each> = Each extends Contract<Schema, Schema, infer Body, Schema> ? InferType<Body> : never;
export type AnswerOf<Each> = Each extends Contract<Schema, Schema, Schema, infer Answer> ? InferType<Answer> : never;

/** A document that has its own reader in core; here it is only said to be an object. */
export function documentOf<Value extends object>(description: string): Schema<Value> {
  return mixed<Value & AnyObject>((value): value is Value & AnyObject => typeof value === 'object' && value !== null)
    .required()
    .meta({ description }) as unknown as Schema<Value>;
}

/** The same for a document that may be missing. */
export function documentOrNull<Value extends object>(description: string): Schema<Value | null> {
  return mixed<Value & AnyObject>((value): value is Value & AnyObject => typeof value === 'object' && value !== null)
    .nullable()
    .defined()
    .meta({ description }) as unknown as Schema<Value | null>;
}

/** The fill of an address's braces, e.g. `/api/brands/{brand}` with `{ brand: 'gullwick' }`. */
export function fillPath(path: string, params: Readonly<Record<string, unknown>>): string {
  return path.replace(/\{(\w+)\}/g, (_, name: string) => encodeURIComponent(String(params[name])));
}

/** Counts of a list stop here: nobody needs to know whether it is 4,000 or 40,000, and finding out costs more with every row. */
export const MAX_COUNTED = 1_000;

/** A count as a person reads it. */
export function countWords(count: number): string {
  return count >= MAX_COUNTED ? `${MAX_COUNTED.toLocaleString('en-GB')}+` : String(count);
}
