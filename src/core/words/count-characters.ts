import { LRUCache } from 'lru-cache';
import { graphemesOf } from './graphemes.ts';
import { readKeywords } from './keywords.ts';

/** How a network counts: characters as people see them, with weights and links of a fixed length, or what it stores. */
export type Counting =
  | { readonly kind: 'graphemes' }
  /** Emoji and CJK count 2, a link counts `linkAs`, all else counts 1. */
  | { readonly kind: 'weighted'; readonly linkAs: number }
  /** Bytes of UTF-8. */
  | { readonly kind: 'bytes' }
  /** Characters of all keywords together; the commas between them count nothing. */
  | { readonly kind: 'keywords' };

/** A web address as networks find it: with a scheme, up to white space, without closing punctuation. */
export const LINK_PATTERN = /https?:\/\/[^\s<>"]*[^\s<>".,;:!?)\]}'’”]/giu;
/** CJK with its own punctuation and full-width forms. */
const CJK = /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}\p{Script=Bopomofo}\u3000-\u303f\u30fb\u30fc\uff01-\uff60\uffe0-\uffe6]/u;
/** Emoji: flags, keycaps and pictures; signs such as © and ™ are letters until they ask to be drawn as emoji. */
const EMOJI = /\p{Regional_Indicator}|\u20e3|\ufe0f|(?![©®‼⁉™ℹ\u2194-\u21aa])\p{Extended_Pictographic}/u;

/** Counts by text: the same words are counted for every channel, and again with every key. */
const counted = { graphemes: new LRUCache<string, number>({ max: 200 }), weighted: new LRUCache<string, number>({ max: 200 }) };

/** User-perceived characters of a text (UAX 29 extended grapheme clusters). */
export function countGraphemes(text: string): number {
  const known = counted.graphemes.get(text);
  if (known !== undefined) return known;
  let count = 0;
  for (const _ of graphemesOf(text)) count += 1;
  counted.graphemes.set(text, count);
  return count;
}

/** The length of a text as a network counts it. */
export function countCharacters(text: string, counting: Counting): number {
  if (counting.kind === 'graphemes') return countGraphemes(text);
  if (counting.kind === 'bytes') return new TextEncoder().encode(text).length;
  if (counting.kind === 'keywords') return readKeywords(text).reduce((sum, keyword) => sum + countGraphemes(keyword), 0);
  const key = `${counting.linkAs} ${text}`;
  const count = counted.weighted.get(key) ?? countWeighted(text, counting);
  counted.weighted.set(key, count);
  return count;
}

function countWeighted(text: string, counting: Counting & { readonly kind: 'weighted' }): number {
  const links = text.match(LINK_PATTERN)?.length ?? 0;
  let count = links * counting.linkAs;
  for (const { segment } of graphemesOf(text.replace(LINK_PATTERN, ''))) count += CJK.test(segment) || EMOJI.test(segment) ? 2 : 1;
  return count;
}

const HASHTAG_PATTERN = /(?<![\p{L}\p{N}_&])#(?=[\p{L}\p{N}_]*[\p{L}_])[\p{L}\p{M}\p{N}_]+/gu;

/** Hashtags of a text: a # at the start of a word, followed by letters, digits or underscores, not digits alone. */
export function findHashtags(text: string): readonly string[] {
  return [...text.matchAll(HASHTAG_PATTERN)].map((match) => match[0]);
}

/** A text with its hashtags changed, each as a whole: `#kites` is no part of `#kitesonthequay`. */
export function replaceHashtags(text: string, change: (tag: string) => string): string {
  return text.replace(HASHTAG_PATTERN, (tag) => change(tag));
}

/** A text with all hashtags but the first few removed. */
export function dropHashtags(text: string, keep: number): string {
  let count = 0;
  return text
    .replace(HASHTAG_PATTERN, (tag) => {
      count += 1;
      return count > keep ? '' : tag;
    })
    .replace(/[ \t]{2,}/g, ' ')
    .replace(/(?<![ \t])[ \t]+$/gm, '')
    .trim();
}

/** Mentions of a text: an @ at the start of a word, followed by letters, digits, dots or underscores. */
export function findMentions(text: string): readonly string[] {
  return [...text.matchAll(/(?<![\p{L}\p{N}_.])@[\p{L}\p{N}_][\p{L}\p{N}_.]*/gu)].map((match) => match[0].replace(/(?<!\.)\.+$/, ''));
}
