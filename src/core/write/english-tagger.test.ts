import { describe, expect, it } from 'vitest';
import { hasEnglishVerb, isEnglishWord, pluralWhereCounted, tagWords, withArticle } from './english-tagger.ts';

describe('words of a sentence', () => {
  it('stand where they are, with their parts of speech', () => {
    const sentence = 'We build a red kite in the harbour.';
    const words = tagWords(sentence);
    for (const { text, start, end } of words) expect(sentence.slice(start, end)).toBe(text);
    expect(words.find(({ text }) => text === 'build')?.tags.has('Verb')).toBe(true);
    expect(words.find(({ text }) => text.startsWith('harbour'))?.tags.has('Noun')).toBe(true);
  });

  it('are found once where a short form is two of them, and each where a word comes twice', () => {
    const words = tagWords('It’s a kite, and a kite’s a toy.');
    const starts = words.map(({ start }) => start);
    expect(new Set(starts).size).toBe(starts.length);
    expect(words.every(({ text }) => text !== '')).toBe(true);
  });
});

it('a sentence has a verb, a heading has none', () => {
  for (const sentence of ['Kites fly.', 'We’re open.', 'There’s tea.', 'The door is red.']) expect(hasEnglishVerb(sentence), sentence).toBe(true);
  for (const heading of ['Three red kites', 'New in the shop', 'Saturday, ten to six']) expect(hasEnglishVerb(heading), heading).toBe(false);
});

it('ordinary words are known in their forms; names and inventions are not', () => {
  for (const word of ['house', 'houses', 'walked', 'baking', 'quickly']) expect(isEnglishWord(word), word).toBe(true);
  for (const word of ['london', 'zorbelfink', 'gullwick']) expect(isEnglishWord(word), word).toBe(false);
});

it('one of several things takes an article; things, names and what cannot be counted take none', () => {
  expect(withArticle('workshop')).toBe('the workshop');
  for (const phrase of ['kites', 'our workshop', 'the harbour', 'flying', 'Gullwick']) expect(withArticle(phrase), phrase).toBe(phrase);
});

it('a thing that the text counts stands in the plural', () => {
  expect(pluralWhereCounted('kite', 'Build a kite with us.')).toBe('kites');
  expect(pluralWhereCounted('kite', 'Every small kite flies.')).toBe('kites');
  expect(pluralWhereCounted('kite', 'Kites fly. The kite is red.')).toBe('kites');
  expect(pluralWhereCounted('wind', 'The wind comes up.')).toBe('wind');
});
