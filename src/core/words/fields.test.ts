import { describe, expect, it } from 'vitest';
import { fieldKeys, fieldOf, fields, isValidIn } from './fields.ts';

describe('fields', () => {
  it('have keys of their own', () => {
    expect(new Set(fieldKeys).size).toBe(fields.length);
    for (const key of fieldKeys) expect(fieldOf(key).key).toBe(key);
  });

  it.each([
    ['link', 'https://gullwick.example/days', true],
    ['link', '  http://gullwick.example  ', true],
    ['link', 'gullwick.example', false],
    ['link', 'javascript:alert(1)', false],
    ['link', '', true],
    ['caption', 'gullwick.example', true],
  ] as const)('%s takes “%s”: %s', (key, text, valid) => {
    expect(isValidIn(key, text)).toBe(valid);
  });
});
