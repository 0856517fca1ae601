import { describe, expect, it } from 'vitest';
import { changeOf, countOf, lengthOf, rateOf, shortCount, signed } from './figure-words.ts';

const MINUTE = 60_000;

describe('figures in words', () => {
  it('writes a dash for a missing figure', () => {
    for (const word of [countOf, shortCount, rateOf]) expect([word(null), word(undefined)]).toEqual(['—', '—']);
  });

  it('shortens large counts and writes small ones in full', () => {
    expect([9_999, 10_000, 12_940, 1_250_000].map(shortCount)).toEqual(['9,999', '10K', '12.9K', '1.3M']);
    expect(countOf(1_250_000.4)).toBe('1,250,000');
    expect(rateOf(0.0456)).toBe('4.6%');
  });

  it('writes a change with its sign, and nothing where there is nothing to compare', () => {
    expect([0.337, -0.12, 0.001, -0.001].map(signed)).toEqual(['+34%', '−12%', '0%', '0%']);
    expect(changeOf(150, 100)).toBeCloseTo(0.5, 9);
    expect([changeOf(1, 0), changeOf(null, 3), changeOf(3, null)]).toEqual([null, null, null]);
  });

  it('gives a length of time in minutes, hours or days', () => {
    expect([0, 20_000, 35 * MINUTE, 90 * MINUTE, 26 * 60 * MINUTE, 47.9 * 60 * MINUTE, 72 * 60 * MINUTE].map(lengthOf)).toEqual(['1 min', '1 min', '35 min', '1.5 h', '26 h', '48 h', '3 days']);
  });
});
