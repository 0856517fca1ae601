import { describe, expect, it } from 'vitest';
import { completeAddress, fieldKeys, fieldOf, fields, isWebAddress } from './fields.ts';

describe('fields', () => {
  it('have keys of their own', () => {
    expect(new Set(fieldKeys).size).toBe(fields.length);
    for (const key of fieldKeys) expect(fieldOf(key).key).toBe(key);
  });

  it.each([
    ['https://gullwick.example/days', true],
    ['http://gullwick.example', true],
    ['gullwick.example', false],
    ['javascript:alert(1)', false],
    ['https://gullwick.example/a b', false],
    ['', false],
  ] as const)('“%s” is a web address: %s', (text, valid) => {
    expect(isWebAddress(text)).toBe(valid);
  });

  it.each([
    ['krumme.example', 'https://krumme.example'],
    [' krumme.example/brot?tag=1 ', 'https://krumme.example/brot?tag=1'],
    ['bäckerei.example', 'https://bäckerei.example'],
    ['https://krumme.example', 'https://krumme.example'],
    ['krumme', 'krumme'],
    ['mail me', 'mail me'],
    ['javascript:alert(1)', 'javascript:alert(1)'],
  ])('an address typed as “%s” becomes “%s”', (typed, complete) => {
    expect(completeAddress(typed)).toBe(complete);
  });
});
