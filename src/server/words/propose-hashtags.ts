import type { TagCandidate, TagSort } from '../../core/write/tags.ts';
import { tokensOf } from '../../core/write/tokens.ts';
import type { Brand } from '../db/brand-repository.ts';
import { listTogether } from '../db/tag-repository.ts';
import { tagCountsOf } from './tag-counts.ts';
import type { TagAnswer } from './tag-question.ts';
import type { Services } from '../services.ts';
import { networkOf } from './network-knowledge.ts';

export interface TagWish {
  readonly text: string;
  readonly present: readonly string[];
  readonly channelId: string | null;
  readonly sort: TagSort;
  /** Where something rises; null asks for no trends. */
  readonly place: string | null;
}

export interface ProposedTags extends TagAnswer {
  readonly places: readonly string[];
  readonly note: string;
}

/** Words that a network is asked for tags with: the longest ones say most. */
const MAX_ASKED = 6;
const MIN_WORD = 4;

/** Hashtags for a text: from the brand's sets and its pieces, from the network and its trends, and out of the text itself. */
export async function proposeHashtags(services: Services, brand: Brand, { text, present, channelId, sort, place }: TagWish): Promise<ProposedTags> {
  const { voice, language } = brand.book;
  const keys = present.map((tag) => tag.slice(1).toLowerCase());
  const network = await networkOf(services, brand, channelId);
  const [{ pieces: posts, used }, together, trends, suggested] = await Promise.all([
    tagCountsOf(services.db, brand.id, services.clock.machineNowMs()),
    listTogether(services.db, brand.id, keys),
    network?.trends(place) ?? { places: [], tags: [] },
    network ? Promise.all(startsOf(text).map((start) => network.suggestTags(start))) : [],
  ]);
  const setTags = voice.hashtagSets.filter(({ networks }) => networks.length === 0 || (network !== null && networks.includes(network.network)));
  const candidates: TagCandidate[] = [
    ...setTags.flatMap(({ tags, theme }) => tags.map((tag): TagCandidate => ({ tag, origin: 'set', reach: null, posts: 0, isOfTheme: theme !== '' && sharesWords(theme, text) }))),
    ...voice.hashtags.map((tag): TagCandidate => ({ tag, origin: 'set', reach: null, posts: 0, isOfTheme: false })),
    ...used.map(({ tag, pieces }): TagCandidate => ({ tag, origin: 'past', reach: null, posts: pieces, isOfTheme: false })),
    ...suggested.flat().map(({ tag, reach }): TagCandidate => ({ tag, origin: 'network', reach, posts: 0, isOfTheme: false })),
    ...(place === null ? [] : trends.tags.map(({ tag, reach }): TagCandidate => ({ tag, origin: 'trend', reach, posts: 0, isOfTheme: false }))),
  ];
  const answer = await services.words.run({
    kind: 'tags',
    question: {
      text,
      language: language ?? 'en',
      present,
      candidates,
      posts,
      counts: used.map(({ key, pieces }) => [key, pieces]),
      together: together.map(({ present: given, key, pieces }) => [`${given} ${key}`, pieces]),
      avoided: voice.hashtagsAvoided,
      sort,
    },
  });
  const reach = (await network?.reachOf(answer.tags.filter((each) => each.reach === null).map(({ tag }) => tag))) ?? new Map<string, number>();
  return {
    tags: answer.tags.map((each) => ({ ...each, reach: each.reach ?? reach.get(each.tag.toLowerCase()) ?? null })),
    leftOut: answer.leftOut,
    places: trends.places,
    note: network === null ? 'This channel’s network says nothing of reach.' : '',
  };
}

/** Beginnings of the longest words of a text. */
function startsOf(text: string): readonly string[] {
  const words = [...new Set(tokensOf(text.slice(0, 4_000)).map((token) => token.text.toLowerCase().split(/[’']/u)[0] ?? ''))].filter((word) => word.length >= MIN_WORD && !/\p{N}/u.test(word));
  return words.toSorted((a, b) => b.length - a.length).slice(0, MAX_ASKED).map((word) => word.slice(0, Math.max(MIN_WORD, word.length - 3)));
}

function sharesWords(theme: string, text: string): boolean {
  const words = new Set(tokensOf(text).map((token) => token.text.toLowerCase().replace(/s$/u, '')));
  return tokensOf(theme).every((token) => words.has(token.text.toLowerCase().replace(/s$/u, '')));
}
