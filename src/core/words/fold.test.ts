import { describe, expect, it } from 'vitest';
import { foldCaption } from './fold.ts';

describe('foldCaption', () => {
  it.each([
    ['abcdef', 4, 'abcd', true],
    ['abcd', 4, 'abcd', false],
    ['ab👩‍👩‍👧cd', 3, 'ab👩‍👩‍👧', true],
    ['abc', null, 'abc', false],
  ])('shows of %j after %s characters %j', (text, after, shown, folded) => {
    expect(foldCaption(text, after)).toEqual({ shown, folded });
  });
});
