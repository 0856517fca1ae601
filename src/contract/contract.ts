import { mixed, object, type AnyObject, type InferType, type Schema } from 'yup';

/** The type of the values that a schema accepts. The compiler needs minutes to compare whole schema types. */
interface Lets<Value> {
  readonly __outputType: Value;
}

/** An endpoint as both sides know it: the server checks by it, the client is typed by it, the OpenAPI document is made from it. */
export interface Contract<Params = unknown, Query = unknown, Body = unknown, Answer = unknown> {
  readonly method: 'GET' | 'POST' | 'PATCH' | 'DELETE';
  /** With parameters in braces, as in OpenAPI. */
  readonly path: `/api/${string}`;
  readonly summary: string;
  readonly params: Schema;
  readonly query: Schema;
  /** `bytes`: the raw request body is a file. */
  readonly bodyKind: 'json' | 'bytes' | 'none';
  readonly body: Schema;
  /** Media type of what is answered. */
  readonly answerType: 'application/json' | 'image/*' | 'font/*' | 'application/zip' | 'text/plain' | 'text/event-stream';
  readonly answer: Schema;
  readonly status: 200 | 201 | 204;
  /** Types of the accepted values. Only the compiler uses this; it is never set. */
  readonly values?: { readonly params: Params; readonly query: Query; readonly body: Body; readonly answer: Answer };
}

const nothing = object({}).noUnknown();
const anything = mixed();

/** Answers that are no JSON, and their media types. */
const filed = { picture: 'image/*', font: 'font/*', archive: 'application/zip', text: 'text/plain', events: 'text/event-stream' } as const;

interface ContractInput<Params, Query, Body, Answer> {
  readonly method: Contract['method'];
  readonly path: Contract['path'];
  readonly summary: string;
  readonly params?: Lets<Params>;
  readonly query?: Lets<Query>;
  readonly body?: Lets<Body> | 'bytes';
  readonly answer?: Lets<Answer> | keyof typeof filed;
  readonly status?: Contract['status'];
}

/** A contract with what is not said filled in: no parameters, no body, an empty answer. */
export function contract<Params = InferType<typeof nothing>, Query = InferType<typeof nothing>, Body = unknown, Answer = unknown>(
  input: ContractInput<Params, Query, Body, Answer>,
): Contract<Params, Query, Body, Answer> {
  const { body, answer } = input;
  return {
    method: input.method,
    path: input.path,
    summary: input.summary,
    params: schemaOf(input.params) ?? nothing,
    query: schemaOf(input.query) ?? nothing,
    bodyKind: body === undefined ? 'none' : body === 'bytes' ? 'bytes' : 'json',
    body: (body === 'bytes' ? undefined : schemaOf(body)) ?? anything,
    answerType: typeof answer === 'string' ? filed[answer] : 'application/json',
    answer: (typeof answer === 'string' ? undefined : schemaOf(answer)) ?? anything,
    status: input.status ?? (answer === undefined ? 204 : 200),
  };
}

const schemaOf = (given: Lets<unknown> | undefined): Schema | undefined => given as Schema | undefined;

type ValuesOf<Each extends Contract> = NonNullable<Each['values']>;
export type ParamsOf<Each extends Contract> = ValuesOf<Each>['params'];
export type QueryOf<Each extends Contract> = ValuesOf<Each>['query'];
export type BodyOf<Each extends Contract> = ValuesOf<Each>['body'];
export type AnswerOf<Each extends Contract> = ValuesOf<Each>['answer'];

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
