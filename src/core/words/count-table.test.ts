import { describe, expect, it } from 'vitest';
import { countCases, keywordCases, tagCases } from '../../../tests/fixtures/count-cases.ts';
import { countCharacters, findHashtags, findMentions } from './count-characters.ts';

describe('counting as networks do', () => {
  it.each(countCases)('%j', (text, graphemes, weighted, bytes) => {
    expect({
      graphemes: countCharacters(text, { kind: 'graphemes' }),
      weighted: countCharacters(text, { kind: 'weighted', linkAs: 23 }),
      bytes: countCharacters(text, { kind: 'bytes' }),
    }).toEqual({ graphemes, weighted, bytes });
  });

  it.each(tagCases)('hashtags and mentions of %j', (text, hashtags, mentions) => {
    expect({ hashtags: findHashtags(text).length, mentions: findMentions(text).length }).toEqual({ hashtags, mentions });
  });

  it.each(keywordCases)('keywords of %j', (text, total) => {
    expect(countCharacters(text, { kind: 'keywords' })).toBe(total);
  });
});
