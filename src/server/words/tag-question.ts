import type { Language } from '../../core/words/language.ts';
import { packOf, type LanguagePack } from '../../core/write/language-pack.ts';
import { proposeTags, tagsOfText, type TagCandidate, type TagProposal, type TagSort } from '../../core/write/tags.ts';

/** All that proposals are made from; maps as lists, so that it goes to a thread. */
export interface TagQuestion {
  readonly text: string;
  readonly language: Language;
  readonly present: readonly string[];
  readonly candidates: readonly TagCandidate[];
  readonly posts: number;
  readonly counts: readonly (readonly [string, number])[];
  readonly together: readonly (readonly [string, number])[];
  readonly avoided: readonly string[];
  readonly sort: TagSort;
}

export interface TagAnswer {
  readonly tags: readonly TagProposal[];
  readonly leftOut: readonly string[];
}

const MAX_PROPOSED = 40;

/** Proposes hashtags; in a language without a pack, words are compared as they stand. */
export function answerTags({ text, language, present, candidates, posts, counts, together, avoided, sort }: TagQuestion): TagAnswer {
  const pack = packOf(language) ?? (packOf('en') as LanguagePack);
  const own = tagsOfText(text, pack).map((tag): TagCandidate => ({ tag, origin: 'text', reach: null, posts: 0, isOfTheme: false }));
  const { tags, leftOut } = proposeTags([...candidates, ...own], { text, present, statistics: { posts, counts: new Map(counts), together: new Map(together) }, avoided: new Set(avoided.map((tag) => tag.toLowerCase())), sort, pack });
  return { tags: tags.slice(0, MAX_PROPOSED), leftOut };
}

