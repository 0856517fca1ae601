import { describe, expect, it } from 'vitest';
import { fillFacts } from './facts.ts';
import { avoidedWords, replaceAvoided } from './voice.ts';
import { emptyVoice } from './brand-book.ts';

const facts = [
  { key: 'phone', name: 'Phone', text: '01632 960 184' },
  { key: 'site', name: 'Site', text: '  ' },
];

describe('fillFacts', () => {
  it.each([
    ['Call {phone} today', 'Call 01632 960 184 today', []],
    ['See {site} or {phone}', 'See or 01632 960 184', [{ key: 'site', reason: 'empty' }]],
    ['Find us at {place}', 'Find us at', [{ key: 'place', reason: 'unknown' }]],
    ['A set {1, 2} and {Not A Fact}', 'A set {1, 2} and {Not A Fact}', []],
  ])('%s', (given, text, missing) => {
    expect(fillFacts(given, facts)).toEqual({ text, missing });
  });
});

describe('the voice', () => {
  const voice = { ...emptyVoice, words: [{ avoid: 'unleash', prefer: 'let go' }, { avoid: 'content', prefer: '' }] };

  it('finds whole words it avoids, in any case, each once', () => {
    expect(avoidedWords('Unleash it. UNLEASH! Contented contents.', voice)).toEqual([{ word: 'UNLEASH', prefer: 'let go' }]);
    expect(avoidedWords('Our content', voice)).toEqual([{ word: 'content', prefer: '' }]);
  });

  it('replaces them and keeps a capital at the start', () => {
    expect(replaceAvoided('Unleash it, unleash all, unleashed', 'unleash', 'let go')).toBe('Let go it, let go all, unleashed');
  });
});
