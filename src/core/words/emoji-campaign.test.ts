import { describe, expect, it } from 'vitest';
import { unknownIn, withCampaign } from './campaign.ts';
import { emojiFor, EMOJI_PATTERN, placeEmoji, withoutEmoji } from './emoji-words.ts';

describe('emoji', () => {
  it('are found by the words, the most frequent first', () => {
    expect(emojiFor('Kites, kites and bread', 5)).toEqual(['🪁', '🍞']);
    expect(emojiFor('Nothing that has a picture', 5)).toEqual([]);
  });

  it('are placed behind sentences, each once, at most so many, and taken away as a whole', () => {
    const text = 'The wind is up. Bring a kite! Bread too. #kite #wind';
    const placed = placeEmoji(text, 2);
    expect(placed.match(EMOJI_PATTERN)).toHaveLength(2);
    expect(placeEmoji(placed, 9).match(/🪁/gu)).toHaveLength(1);
    expect(withoutEmoji(placed)).toBe(text);
    expect(withoutEmoji('a 👨\u200d👩\u200d👧 b 🇬🇧 c 1\ufe0f\u20e3 © 7 #8')).toBe('a b c © 7 #8');
    expect(placeEmoji(text, 0)).toBe(text);
  });
});

describe('campaign parameters', () => {
  const values = { network: 'petalry', channel: 'c1', piece: 'big-blow' };
  const own = 'https://gullwickkites.example';
  it.each([
    ['https://gullwickkites.example/days', 'https://gullwickkites.example/days?utm_source=petalry&utm_campaign=big-blow'],
    ['https://www.gullwickkites.example/?a=1#top', 'https://www.gullwickkites.example/?a=1&utm_source=petalry&utm_campaign=big-blow#top'],
    ['https://gullwickkites.example/?utm_source=mine', 'https://gullwickkites.example/?utm_source=mine&utm_campaign=big-blow'],
    ['https://elsewhere.example/', 'https://elsewhere.example/'],
    ['https://notgullwickkites.example/', 'https://notgullwickkites.example/'],
    ['no address', 'no address'],
  ])('of %s', (address, result) => {
    expect(withCampaign(address, own, 'utm_source={network}&utm_campaign={piece}', values)).toBe(result);
  });

  it('are none without a pattern, and a pattern names what it does not know', () => {
    expect(withCampaign(own, own, '', values)).toBe(own);
    expect(unknownIn('a={network}&b={person}')).toEqual(['person']);
  });
});
