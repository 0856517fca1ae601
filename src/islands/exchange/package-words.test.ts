import { expect, it } from 'vitest';
import { recordKinds } from '../../contract/package-format.ts';
import { kindCounts, kindWord } from './package-words.ts';

it('says what a package has as people say it, one and many', () => {
  expect(kindCounts({ brand: 1, sheets: 2, channels: 9, media: 1, pieces: 1_200, 'feed-rules': 0 })).toBe('9 channels, 1 picture, clip or sound, 1,200 pieces');
  expect(kindCounts({ brand: 1 })).toBe('The brand book alone');
});

it('has a word for every kind of record', () => {
  expect(new Set(recordKinds.map(kindWord)).size).toBe(recordKinds.length);
});
