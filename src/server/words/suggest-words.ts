import { shortNumber } from '../../core/words/short-number.ts';
import { cardOf } from '../../core/wording/mentions.ts';
import type { Brand } from '../db/brand-repository.ts';
import { listUsedMentions, listUsedTags } from '../db/tag-repository.ts';
import type { Services } from '../services.ts';
import { networkOf } from './network-knowledge.ts';

/** What a word could become, with what is known of that. */
export interface WordSuggestion {
  readonly put: string;
  readonly more: string;
}

const MAX_SUGGESTED = 12;

/** Completes a hashtag or a mention: what the brand has first, then what its pieces have, then what the network knows. */
export async function suggestWords(services: Services, brand: Brand, word: string, channelId: string | null): Promise<readonly WordSuggestion[]> {
  const network = await networkOf(services, brand, channelId);
  const start = word.slice(1).toLowerCase();
  const { voice } = brand.book;
  if (word.startsWith('@')) {
    const cards = voice.people.filter(({ key, name }) => key.toLowerCase().startsWith(start) || name.toLowerCase().split(/\s+/u).some((part) => part.startsWith(start)));
    const [used, known] = await Promise.all([listUsedMentions(services.db, brand.id, start, MAX_SUGGESTED), network?.people(start) ?? []]);
    const names = new Map(known.map(({ handle, name }) => [handle.toLowerCase(), name]));
    const others = [
      ...used.map(({ mention, pieces }) => ({ put: mention, more: names.get(mention.toLowerCase()) ?? inPieces(pieces) })),
      ...known.map(({ name, handle }) => ({ put: handle, more: name })),
    ].filter(({ put }) => cardOf(put, voice.people) === null);
    return eachOnce([...cards.map(({ key, name, handles }) => ({ put: `@${key}`, more: `${name}${network && handles[network.network] ? ` · ${handles[network.network] ?? ''}` : ''}` })), ...others]);
  }
  const avoided = new Set(voice.hashtagsAvoided.map((tag) => tag.toLowerCase()));
  const own = [...new Set([...voice.hashtagSets.flatMap(({ tags }) => tags), ...voice.hashtags])].filter((tag) => tag.slice(1).toLowerCase().startsWith(start));
  const [used, suggested] = await Promise.all([listUsedTags(services.db, brand.id, start, MAX_SUGGESTED), network?.suggestTags(start) ?? []]);
  const all = [
    ...own.map((tag) => ({ put: tag, more: 'of the brand' })),
    ...used.map(({ tag, pieces }) => ({ put: tag, more: inPieces(pieces) })),
    ...suggested.map(({ tag, reach }) => ({ put: tag, more: `reach ${shortNumber(reach)}` })),
  ].filter(({ put }) => !avoided.has(put.toLowerCase()));
  return eachOnce(all);
}

/** What several know of counts as the first of them has it. */
function eachOnce(all: readonly WordSuggestion[]): readonly WordSuggestion[] {
  return [...new Map(all.toReversed().map((each) => [each.put.toLowerCase(), each])).values()].toReversed().slice(0, MAX_SUGGESTED);
}

const inPieces = (pieces: number): string => `${pieces} ${pieces === 1 ? 'piece' : 'pieces'}`;
