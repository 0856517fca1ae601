import { diffArrays } from 'diff';

/** A stretch of a text and whether the other text has it. */
export interface DiffPart {
  readonly text: string;
  readonly kind: 'same' | 'added' | 'removed';
}

/** Beyond this many words, a text that differs is shown as it is: nobody reads such a comparison. */
const MAX_WORDS = 1_500;

const wordsOf = (text: string): readonly string[] => text.match(/\s+|[\p{L}\p{M}\p{N}_#@'’]+|[^\s\p{L}\p{M}\p{N}_#@'’]/gu) ?? [];

/** What differs between two texts, word by word. */
export function diffWords(before: string, after: string): readonly DiffPart[] {
  if (before === after) return after === '' ? [] : [{ text: after, kind: 'same' }];
  const [from, to] = [wordsOf(before), wordsOf(after)];
  if (from.length > MAX_WORDS || to.length > MAX_WORDS) return [{ text: after, kind: 'added' }];
  return diffArrays([...from], [...to]).map(({ value, added, removed }) => ({ text: value.join(''), kind: added ? 'added' : removed ? 'removed' : 'same' }));
}
