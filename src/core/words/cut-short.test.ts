import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cutShort } from './cut-short.ts';
import { graphemesOf } from './graphemes.ts';

const length = (text: string): number => [...graphemesOf(text)].length;

describe('a text that is cut short', () => {
  it.each([
    ['Sixty lanterns, one tide table', 40, 'Sixty lanterns, one tide table'],
    ['Sixty lanterns, one tide table', 20, 'Sixty lanterns, …'],
    ['Sixty lanterns, one', 19, 'Sixty lanterns, one'],
    ['Donaudampfschifffahrtsgesellschaft', 12, 'Donaudampf…'],
    ['土曜日にまた黒パンがあります', 8, '土曜日にまた…'],
    ['👨‍👩‍👧‍👦👨‍👩‍👧‍👦👨‍👩‍👧‍👦👨‍👩‍👧‍👦', 3, '👨‍👩‍👧‍👦…'],
    ['', 5, ''],
  ])('“%s” at %i is “%s”', (text, most, short) => {
    expect(cutShort(text, most)).toBe(short);
  });

  it('is never longer than asked, begins as the text does, and parts no character', () => {
    const sign = fc.constantFrom('a', ' ', 'é', 'e\u0301', '🪁', '👍🏽', '🇮🇪', '字', '\n', 'long');
    fc.assert(
      fc.property(fc.array(sign, { maxLength: 60 }), fc.integer({ min: 3, max: 40 }), (signs, most) => {
        const text = signs.join('');
        const short = cutShort(text, most);
        if (length(text) <= most) return void expect(short).toBe(text);
        expect(length(short)).toBeLessThanOrEqual(most);
        const kept = short.replace(/ ?…$/u, '');
        expect(text.startsWith(kept)).toBe(true);
        const ends = new Set([0, ...[...graphemesOf(text)].map(({ segment, index }) => index + segment.length)]);
        expect(ends.has(kept.length)).toBe(true);
      }),
    );
  });
});
