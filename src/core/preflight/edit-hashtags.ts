import { findHashtags, replaceHashtags } from '../words/count-characters.ts';
import type { FieldKey } from '../words/fields.ts';
import { readHashtags } from '../words/read-hashtags.ts';

/** The hashtags of a field: in the field for them every word is one, with or without its sign; elsewhere the sign makes it. */
export function hashtagsIn(field: FieldKey, text: string): readonly string[] {
  return field === 'hashtags' ? readHashtags(text) : findHashtags(text);
}

/** Whether two hashtags are the same to a network, which does not mind capitals. */
export const isSameTag = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

/** Stands for a hashtag that goes, until the spaces before it go as well; no typeface has it. */
const GONE = '\ue000';

/**
 * The text of a field with its hashtags changed, each as a whole.
 * @param change what becomes of a hashtag, by its place among all of them; null removes it
 */
export function editHashtags(field: FieldKey, text: string, change: (tag: string, index: number) => string | null): string {
  if (field === 'hashtags') return readHashtags(text).flatMap((tag, index) => change(tag, index) ?? []).join(' ');
  let index = -1;
  const marked = replaceHashtags(text, (tag) => change(tag, (index += 1)) ?? GONE);
  const parts = marked.split(GONE);
  return parts.map((part, at) => (at < parts.length - 1 ? part.replace(/(?<![ \t])[ \t]+$/u, '') : part)).join('').trim();
}
