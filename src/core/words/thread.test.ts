import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countCharacters } from './count-characters.ts';
import { joinThread, readThread, splitThread, writeThread, type ThreadRule } from './thread.ts';

const rule: ThreadRule = { max: 100, maxParts: 25, counting: { kind: 'weighted', linkAs: 23 }, numbered: true };
const sentence = (index: number): string => `This is sentence ${index} of the text.`;
const text = Array.from({ length: 9 }, (_, index) => sentence(index)).join(' ');

describe('splitThread', () => {
  it('leaves a text that fits as it is', () => {
    expect(splitThread('  Short. ', rule)).toEqual(['Short.']);
  });

  it('breaks between sentences, within the limit, with numbers that count in', () => {
    const parts = splitThread(text, rule) ?? [];
    expect(parts).toHaveLength(3);
    for (const [index, part] of parts.entries()) {
      expect(countCharacters(part, rule.counting)).toBeLessThanOrEqual(100);
      expect(part).toMatch(new RegExp(`\\. ${index + 1}/3$`));
    }
    expect(splitThread(text, { ...rule, numbered: false })?.every((part) => part.endsWith('text.'))).toBe(true);
  });

  it('makes parts of like length and none a crumb', () => {
    // Filled greedily, the last part would be a single sentence of 33 characters.
    const parts = splitThread(Array.from({ length: 4 }, (_, index) => sentence(index)).join(' '), { ...rule, max: 110, numbered: false });
    expect(parts?.map((part) => part.split('. ').length)).toEqual([2, 2]);
  });

  it('breaks a long sentence between clauses, then between words; links and tags stay whole', () => {
    const long = 'When the wind comes round from the north, the whole quay knows, and https://gullwickkites.example/afternoons, with #BuildAKite, says so to everybody who asks politely at the hut.';
    const parts = splitThread(long, { ...rule, numbered: false }) ?? [];
    expect(parts.length).toBeGreaterThan(1);
    expect(parts[0]).toMatch(/,$/);
    expect(parts.join(' ')).toBe(long);
    expect(splitThread('word '.repeat(60).trim(), { ...rule, numbered: false })?.every((part) => part.length <= 100)).toBe(true);
  });

  it('answers null where there would be too many parts, or a word is too long', () => {
    expect(splitThread('word '.repeat(2_000), rule)).toBeNull();
    expect(splitThread('x'.repeat(101), rule)).toBeNull();
  });

  it('keeps every word, in order, within the limit, whatever the text', () => {
    fc.assert(
      fc.property(fc.array(fc.stringMatching(/^[a-zäé🪁凧]{1,12}[.,!?]?$/u), { minLength: 1, maxLength: 120 }), fc.boolean(), (words, numbered) => {
        const whole = words.join(' ');
        const parts = splitThread(whole, { ...rule, numbered });
        if (parts === null) return;
        for (const part of parts) expect(countCharacters(part, rule.counting)).toBeLessThanOrEqual(rule.max);
        expect(joinThread(parts).split(/\s+/u)).toEqual(whole.split(/\s+/u));
      }),
      { numRuns: 200 },
    );
  });

  it('is kept as one text', () => {
    const thread = { parts: ['a', 'b'], pictureEach: true };
    expect(readThread(writeThread(thread))).toEqual(thread);
    expect(() => readThread('{"a":1}')).toThrow(RangeError);
  });
});
