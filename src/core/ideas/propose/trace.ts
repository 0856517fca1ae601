import { missingHeld } from '../../write/held.ts';
import type { LanguagePack } from '../../write/language-pack.ts';
import { tokensOf } from '../../write/tokens.ts';

/** Where a text of a proposal comes from: a sentence as it stands, one shortened by dropping, a heading, or a frame of the desk's that claims nothing. */
export interface Trace {
  /** Which text it is: “headline”, “caption”, “point 2”. */
  readonly place: string;
  readonly text: string;
  readonly how: 'whole' | 'shortened' | 'part' | 'heading' | 'fact' | 'frame';
  /** Number of the sentence in its source; 0 where it is none of the source's. */
  readonly sentence: number;
  readonly original: string;
}

const wordsOf = (text: string): readonly string[] => tokensOf(text).map((token) => token.text.toLowerCase());

/** Whether all words of a text stand in another one in the same order: it was shortened by dropping alone. */
export function isDroppedFrom(text: string, original: string): boolean {
  const [own, all] = [wordsOf(text), wordsOf(original)];
  let at = 0;
  for (const word of own) {
    while (at < all.length && all[at] !== word) at += 1;
    if (at === all.length) return false;
    at += 1;
  }
  return own.length > 0;
}

/**
 * Which of the sentences a text is, whole or shortened by dropping; null when it is of none. A shortened one has lost no number, name, price, date, link or negation
 * that stands in the part of the sentence that it kept or dropped.
 */
export function traceSentence(text: string, sentences: readonly { readonly text: string; readonly number: number }[], pack: LanguagePack | null): { readonly how: 'whole' | 'shortened'; readonly sentence: number; readonly original: string } | null {
  const bare = (each: string): string => wordsOf(each).join(' ');
  const same = sentences.find((sentence) => bare(sentence.text) === bare(text));
  if (same) return { how: 'whole', sentence: same.number, original: same.text };
  const longer = sentences.filter((sentence) => isDroppedFrom(text, sentence.text)).toSorted((a, b) => a.text.length - b.text.length)[0];
  if (!longer || (pack && missingHeld(longer.text, text, pack).length > 0)) return null;
  return { how: 'shortened', sentence: longer.number, original: longer.text };
}
