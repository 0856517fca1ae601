import { describe, expect, it } from 'vitest';
import { readHashtags } from './read-hashtags.ts';

describe('house hashtags', () => {
  it.each([
    ['#kite #wind', ['#kite', '#wind']],
    ['kite, wind; Süßes', ['#kite', '#wind', '#Süßes']],
    ['##kite kite.', ['#kite']],
    ['2026 #2027', []],
    ['kite-flying', []],
    ['', []],
  ])('%j are %j', (text, tags) => {
    expect(readHashtags(text)).toEqual(tags);
  });
});
