import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { graphemesOf } from './graphemes.ts';

const whole = new Intl.Segmenter('und', { granularity: 'grapheme' });

describe('graphemesOf', () => {
  it('finds what a segmenter finds that sees the text as a whole, also across windows', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('a', 'é', 'e\u0301', '👩‍👩‍👧', '🇳🇿', '🇩🇪', '凧', '\r\n', '\n', 'ก็', 'हि', '👍🏽', '\u200d', ' '), { minLength: 400, maxLength: 900 }), (parts) => {
        const text = parts.join('');
        expect([...graphemesOf(text)]).toEqual([...whole.segment(text)].map(({ segment, index }) => ({ segment, index })));
      }),
      { numRuns: 30, seed: 7 },
    );
  });

  it('loses nothing of a cluster that never ends', () => {
    const text = `a${'\u0301'.repeat(3_000)}b`;
    expect([...graphemesOf(text)].map(({ segment }) => segment).join('')).toBe(text);
  });

  it('takes ten times as long for a text ten times as long, not a hundred times', () => {
    const timeOf = (text: string): number => {
      const started = performance.now();
      for (const _ of graphemesOf(text));
      return performance.now() - started;
    };
    timeOf('凧'.repeat(5_000));
    const best = (length: number): number => Math.min(...Array.from({ length: 4 }, () => timeOf('凧'.repeat(length))));
    expect(best(50_000) / best(5_000)).toBeLessThan(40);
  });
});
