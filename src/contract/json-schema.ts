import type { Schema, SchemaDescription } from 'yup';

export type Json = Readonly<Record<string, unknown>>;

/** A Yup schema as JSON Schema 2020-12. */
export function jsonSchema(schema: Schema): Json {
  return fromDescription(schema.describe() as SchemaDescription);
}

interface Description {
  readonly type: string;
  readonly optional?: boolean;
  readonly nullable?: boolean;
  readonly oneOf?: readonly unknown[];
  readonly meta?: { readonly description?: string };
  readonly tests?: readonly { readonly name?: string; readonly params?: Readonly<Record<string, unknown>> }[];
  readonly fields?: Readonly<Record<string, Description>>;
  readonly innerType?: Description;
}

/** Whether a field of an object may be missing. */
export function isOptional(field: unknown): boolean {
  return (field as Description).optional === true;
}

/** The same, from what Yup says of a schema. */
export function fromDescription(given: unknown): Json {
  const description = given as Description;
  const tests = new Map((description.tests ?? []).map((test) => [test.name ?? '', test.params ?? {}]));
  const values = (description.oneOf ?? []).filter((value) => value !== null && value !== undefined);
  const base: Json = {
    ...typeOf(description, tests),
    ...(values.length > 0 ? { enum: values } : {}),
    ...(description.meta?.description ? { description: description.meta.description } : {}),
  };
  return description.nullable && description.type !== 'mixed' ? { anyOf: [base, { type: 'null' }] } : base;
}

function typeOf(description: Description, tests: ReadonlyMap<string, Readonly<Record<string, unknown>>>): Json {
  switch (description.type) {
    case 'object': {
      const fields = Object.entries(description.fields ?? {});
      const required = fields.filter(([, field]) => !isOptional(field)).map(([name]) => name);
      return {
        type: 'object',
        properties: Object.fromEntries(fields.map(([name, field]) => [name, fromDescription(field)])),
        ...(required.length > 0 ? { required } : {}),
        ...(tests.has('noUnknown') ? { additionalProperties: false } : {}),
      };
    }
    case 'array':
      return { type: 'array', ...(description.innerType ? { items: fromDescription(description.innerType) } : {}), ...limits(tests, 'minItems', 'maxItems') };
    case 'string': {
      const pattern = tests.get('matches')?.['regex'];
      return { type: 'string', ...limits(tests, 'minLength', 'maxLength'), ...(pattern instanceof RegExp ? { pattern: pattern.source } : {}), ...(tests.has('email') ? { format: 'email' } : {}) };
    }
    case 'number':
      return { type: tests.has('integer') ? 'integer' : 'number', ...limits(tests, 'minimum', 'maximum') };
    case 'boolean':
      return { type: 'boolean' };
    default:
      return description.meta?.description ? { type: 'object' } : {};
  }
}

function limits(tests: ReadonlyMap<string, Readonly<Record<string, unknown>>>, least: string, most: string): Json {
  const min = tests.get('min')?.['min'];
  const max = tests.get('max')?.['max'];
  return { ...(typeof min === 'number' ? { [least]: min } : {}), ...(typeof max === 'number' ? { [most]: max } : {}) };
}
