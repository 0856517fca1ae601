import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countCharacters, countGraphemes, findHashtags, findMentions } from './count-characters.ts';

const weighted = { kind: 'weighted', linkAs: 23 } as const;

describe('countGraphemes', () => {
  it.each([
    ['', 0],
    ['kite', 4],
    ['é', 1],
    ['e\u0301', 1],
    ['👩‍👩‍👧', 1],
    ['🇳🇿', 1],
    ['凧', 1],
  ])('counts %j as %i', (text, count) => {
    expect(countGraphemes(text)).toBe(count);
  });
});

describe('countCharacters, weighted', () => {
  it.each([
    ['fly', 3],
    ['🪁', 2],
    ['凧揚げ', 6],
    ['see https://gullwickkites.example/a/very/long/address?with=parts now', 4 + 23 + 4],
    ['https://a.example.', 24],
    ['https://a.example and https://b.example', 23 + 5 + 23],
  ])('counts %j as %i', (text, count) => {
    expect(countCharacters(text, weighted)).toBe(count);
  });

  it('never counts less than the graphemes of a text without links', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }).filter((text) => !text.includes('://')), (text) => {
        expect(countCharacters(text, weighted)).toBeGreaterThanOrEqual(countGraphemes(text));
      }),
    );
  });
});

describe('findHashtags and findMentions', () => {
  it('finds tags in several scripts and skips numbers and entities', () => {
    expect(findHashtags('#BuildAKite and #凧 but not #1 nor a&#39; nor mid#word')).toEqual(['#BuildAKite', '#凧']);
  });

  it('finds mentions and leaves addresses and full stops alone', () => {
    expect(findMentions('With @gullwickkites. Write to loft@gullwickkites.example')).toEqual(['@gullwickkites']);
  });
});
