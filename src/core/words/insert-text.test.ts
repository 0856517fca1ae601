import { describe, expect, it } from 'vitest';
import { insertText } from './insert-text.ts';

/** The text with its caret or selection marked by bars. */
const insert = (marked: string, added = '{phone}'): string => {
  const [before = '', middle = '', behind] = marked.split('|');
  const [text, start, end] = behind === undefined ? [before + middle, before.length, before.length] : [before + middle + behind, before.length, before.length + middle.length];
  const { text: made, caret } = insertText(text, { start, end }, added);
  return `${made.slice(0, caret)}|${made.slice(caret)}`;
};

describe('what is put into a text', () => {
  it.each([
    ['|', '{phone}|'],
    ['Call us|', 'Call us {phone}|'],
    ['Call |today', 'Call {phone}| today'],
    ['Call us|.', 'Call us {phone}|.'],
    ['Call (|)', 'Call ({phone}|)'],
    ['Call |01 23 45| today', 'Call {phone}| today'],
    ['|Call us', '{phone}| Call us'],
    ['One\n|', 'One\n{phone}|'],
  ])('%j becomes %j', (marked, made) => {
    expect(insert(marked)).toBe(made);
  });
});
