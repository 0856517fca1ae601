import { capitalsFor, camelCase, tagProblem, wordsOfTag } from '../words/tag-text.ts';
import { findHashtags } from '../words/count-characters.ts';
import { keyPhrases } from './key-phrases.ts';
import type { LanguagePack } from './language-pack.ts';
import { countsOf, cosine, stemsOf, tokensOf } from './tokens.ts';

/** Where a proposed hashtag comes from. */
export type TagOrigin = 'set' | 'past' | 'network' | 'trend' | 'text';

/** A hashtag that could be proposed, with what is known of it. */
export interface TagCandidate {
  readonly tag: string;
  readonly origin: TagOrigin;
  /** People a month who see posts with it, as the network says it; null where nobody says it. */
  readonly reach: number | null;
  /** In how many posts of the brand it stands. */
  readonly posts: number;
  /** It belongs to a set of the theme or the network at hand. */
  readonly isOfTheme: boolean;
}

/** How often tags stand in the brand's posts, alone and together. */
export interface TagStatistics {
  readonly posts: number;
  readonly counts: ReadonlyMap<string, number>;
  /** Posts in which a tag stands beside one of those present, by `present tag` in small letters. */
  readonly together: ReadonlyMap<string, number>;
}

export interface TagProposal {
  readonly tag: string;
  /** 0 to 1. */
  readonly fit: number;
  readonly reach: number | null;
  readonly posts: number;
  readonly origin: TagOrigin;
}

export type TagSort = 'fit' | 'reach' | 'both';

const WEIGHTS = { text: 0.5, together: 0.3, theme: 0.2 } as const;
/** Reach at which a post neither drowns nor stays alone, and how far from it, in powers of ten, a tag has lost all its worth. */
const BEST_REACH = { at: 30_000, spread: 2.2 } as const;
const MAX_PHRASES = 12;

/** Words of the text itself that can be tags: its key phrases, and words of the brand's tags that stand in it without their sign. */
export function tagsOfText(text: string, pack: LanguagePack): readonly string[] {
  const there = new Set(findHashtags(text).map((tag) => tag.toLowerCase()));
  return keyPhrases(text, pack)
    .slice(0, MAX_PHRASES)
    .map(({ text: phrase }) => `#${camelCase(phrase.split(/[\s’'-]+/u))}`)
    .filter((tag) => tagProblem(tag) === null && [...tag].length >= 4 && !there.has(tag.toLowerCase()));
}

/** Normalised pointwise mutual information of two tags over the brand's posts, from 0 (no more often than by chance) to 1 (always together). */
export function npmi(a: string, b: string, { posts, counts, together }: TagStatistics): number {
  const [countA, countB, both] = [counts.get(a) ?? 0, counts.get(b) ?? 0, together.get(`${b} ${a}`) ?? 0];
  if (posts === 0 || countA === 0 || countB === 0 || both === 0) return 0;
  if (both === posts) return 1;
  const information = Math.log((both * posts) / (countA * countB)) / -Math.log(both / posts);
  return Math.max(0, Math.min(1, information));
}

/**
 * Hashtags for a text, sorted: `fit = 0.5 cos(stems of the tag, of the text) + 0.3 npmi with tags present + 0.2 theme`. The words of a tag are
 * compared, not its letters.
 * @param avoided tags in small letters that the brand does not want; they are answered apart
 */
export function proposeTags(
  candidates: readonly TagCandidate[],
  { text, present, statistics, avoided, sort, pack }: { readonly text: string; readonly present: readonly string[]; readonly statistics: TagStatistics; readonly avoided: ReadonlySet<string>; readonly sort: TagSort; readonly pack: LanguagePack },
): { readonly tags: readonly TagProposal[]; readonly leftOut: readonly string[] } {
  const bag = countsOf(stemsOf(text, pack));
  const stems = new Set(bag.keys());
  const vocabulary = new Set(tokensOf(text).map((token) => token.text.toLowerCase()));
  const there = new Set(present.map((tag) => tag.toLowerCase()));
  const unique = new Map<string, TagCandidate>();
  for (const candidate of candidates) {
    const key = candidate.tag.toLowerCase();
    if (tagProblem(candidate.tag) !== null || there.has(key)) continue;
    const known = unique.get(key);
    unique.set(key, known ? { ...known, tag: known.tag === known.tag.toLowerCase() ? candidate.tag : known.tag, reach: known.reach ?? candidate.reach, posts: Math.max(known.posts, candidate.posts), isOfTheme: known.isOfTheme || candidate.isOfTheme } : candidate);
  }
  const all = [...unique].map(([key, { tag, reach, posts, origin, isOfTheme }]): TagProposal => {
    const own = countsOf(stemsOf(wordsIn(tag, vocabulary).join(' '), pack));
    // A tag's few words against a whole text: what counts is how many of them the text has.
    const covered = own.size === 0 ? 0 : [...own.keys()].filter((stem) => stems.has(stem)).length / own.size;
    const likeness = own.size === 0 ? 0 : Math.max(covered * 0.9, Math.min(1, cosine(own, bag) * 2));
    const together = Math.max(0, ...[...there].map((other) => npmi(key.slice(1), other.slice(1), statistics)));
    return { tag, reach, posts, origin, fit: WEIGHTS.text * likeness + WEIGHTS.together * together + WEIGHTS.theme * (isOfTheme ? 1 : 0) };
  });
  const leftOut = all.filter(({ tag }) => avoided.has(tag.toLowerCase())).map(({ tag }) => tag);
  const tags = all.filter(({ tag }) => !avoided.has(tag.toLowerCase()));
  return { tags: tags.toSorted((a, b) => worth(b, sort) - worth(a, sort) || a.tag.localeCompare(b.tag)), leftOut };
}

/** What a proposal is sorted by. A tag so large that a post drowns in it and one that nobody reads both lose. */
function worth({ fit, reach }: TagProposal, sort: TagSort): number {
  if (sort === 'fit') return fit;
  if (sort === 'reach') return reach ?? -1;
  const distance = reach === null ? BEST_REACH.spread / 2 : Math.abs(Math.log10(Math.max(1, reach)) - Math.log10(BEST_REACH.at));
  return fit * (0.4 + 0.6 * Math.max(0, 1 - distance / BEST_REACH.spread));
}

/** The words of a tag: by its capitals; where it has none, by words of the text that it is made of. */
function wordsIn(tag: string, vocabulary: ReadonlySet<string>): readonly string[] {
  const words = wordsOfTag(tag);
  if (words.length > 1) return words;
  const capitals = capitalsFor(tag, [[...vocabulary].join(' ')]);
  return capitals === null ? split(tag.slice(1).toLowerCase(), vocabulary) : wordsOfTag(capitals);
}

/** A word that is several words of the text run together, parted. */
function split(word: string, vocabulary: ReadonlySet<string>): readonly string[] {
  for (let at = 3; at <= word.length - 3; at += 1) {
    if (vocabulary.has(word.slice(0, at)) && vocabulary.has(word.slice(at))) return [word.slice(0, at), word.slice(at)];
  }
  return [word];
}
