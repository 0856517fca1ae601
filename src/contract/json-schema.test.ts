import { array, boolean, mixed, number, object, string, type Schema } from 'yup';
import { describe, expect, it } from 'vitest';
import { documentOf } from './contract.ts';
import { jsonSchema } from './json-schema.ts';

describe('jsonSchema', () => {
  const cases: readonly (readonly [string, Schema, unknown])[] = [
    ['a string with limits', string().min(2).max(9).required(), { type: 'string', minLength: 2, maxLength: 9 }],
    ['a pattern', string().matches(/^a+$/).required(), { type: 'string', pattern: '^a+$' }],
    ['an email address', string().email().required(), { type: 'string', format: 'email' }],
    ['one of some words', string().oneOf(['a', 'b']).required(), { type: 'string', enum: ['a', 'b'] }],
    ['a whole number', number().integer().min(1).max(5).required(), { type: 'integer', minimum: 1, maximum: 5 }],
    ['a number', number().required(), { type: 'number' }],
    ['a yes or no', boolean().required(), { type: 'boolean' }],
    ['a list', array(number().required()).min(1).required(), { type: 'array', items: { type: 'number' }, minItems: 1 }],
    ['what may be null', string().nullable().defined(), { anyOf: [{ type: 'string' }, { type: 'null' }] }],
    ['a document', documentOf('A brand book'), { type: 'object', description: 'A brand book' }],
    ['anything', mixed(), {}],
    ['an object', object({ a: string().required(), b: number() }).noUnknown(), { type: 'object', properties: { a: { type: 'string' }, b: { type: 'number' } }, required: ['a'], additionalProperties: false }],
  ];
  it.each(cases)('describes %s', (_, schema, expected) => {
    expect(jsonSchema(schema)).toEqual(expected);
  });
});
