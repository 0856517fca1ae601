import type { BodyOf } from '../../contract/contract.ts';
import type { propose } from '../../contract/propose-contracts.ts';
import type { PictureOffer } from '../../core/ideas/propose/choose-picture.ts';
import type { Variant } from '../../core/ideas/propose/propose.ts';
import type { Piece } from '../../core/piece/piece.ts';
import { tokensOf } from '../../core/write/tokens.ts';
import type { Brand } from '../db/brand-repository.ts';
import { listRecentCaptions } from '../db/delivery-repository.ts';
import { countUsesOfMedia, pageMedia, type MediaSummary } from '../db/media-repository.ts';
import { getPlan } from '../db/plan-repository.ts';
import { findTemplate, listTemplates } from '../db/template-repository.ts';
import type { Services } from '../services.ts';
import type { ProposeAnswer, ProposeQuestion } from './propose-question.ts';

type Wish = Pick<BodyOf<typeof propose>, 'source' | 'topic' | 'kinds' | 'themeId'>;

const RECENT_POSTS = 10;
/** Pictures that are offered: the latest, and those that speak of the longest words of the text. */
const [LATEST, MAX_ASKED, FOUND] = [80, 14, 12] as const;
const MIN_WORD = 4;
const MAX_TAGS = 4;

/** Asks the proposer, in a thread, about a source of a person. */
export async function askProposals(services: Services, brand: Brand, { source, topic, kinds, themeId }: Wish, wish: ProposeQuestion['wish']): Promise<ProposeAnswer> {
  const { db } = services;
  const { voice, facts, language } = brand.book;
  const [{ plan }, templates, pictures, recent] = await Promise.all([getPlan(db, brand.id), templatesOf(services, brand), offersFor(services, brand, `${topic} ${source.text}`), listRecentCaptions(db, brand.id, RECENT_POSTS)]);
  const themes = plan.themes.filter(({ id }) => themeId === null || id === themeId).map(({ id, name }) => ({ id, name, words: voice.hashtagSets.filter(({ theme }) => theme === name).flatMap(({ tags }) => tags.map((tag) => tag.slice(1).replaceAll(/(?<=\p{Ll})(?=\p{Lu})/gu, ' '))).join(' ') }));
  const small = source.text.toLowerCase();
  const hashtags = [...new Set([...voice.hashtags.slice(0, 1), ...voice.hashtagSets.filter(({ theme }) => theme !== '' && small.includes(theme.toLowerCase().replace(/s$/u, ''))).flatMap(({ tags }) => tags.slice(0, 2))])].slice(0, voice.maxHashtags ?? MAX_TAGS);
  const answer = await services.words.run({
    kind: 'propose',
    question: {
      text: source.text,
      brandLanguage: language ?? 'en',
      brief: { sourceName: source.name, desk: { voice: { tone: voice.tone, words: voice.words, emoji: voice.emoji }, recent, hashtags, emoji: [] }, facts, topic, link: source.link, templates, kinds: kinds as readonly Piece['kind'][], pictures, themes },
      wish,
    },
  });
  if (themeId === null) return answer;
  const themed = <Each extends { readonly themeId: string | null }>(each: Each): Each => ({ ...each, themeId });
  return { ...answer, proposals: answer.proposals.map(themed), parts: answer.parts.map((part) => ({ ...part, proposal: themed(part.proposal) })) };
}

/** All templates that a brand offers, whole. */
export async function templatesOf({ db }: Pick<Services, 'db'>, brand: Brand): Promise<ProposeQuestion['brief']['templates']> {
  const found = await Promise.all((await listTemplates(db, brand.id)).filter(({ archived }) => !archived).map(({ key }) => findTemplate(db, brand.id, key)));
  return found.filter((template) => template !== null);
}

/** Pictures and clips that may suit a text: the latest, and those found by its words. */
export async function offersFor({ db }: Pick<Services, 'db'>, brand: Brand, text: string): Promise<readonly PictureOffer[]> {
  const words = [...new Set(tokensOf(text.slice(0, 20_000)).map((token) => token.text.toLowerCase()).filter((word) => word.length >= MIN_WORD && !/\p{N}/u.test(word)))].toSorted((a, b) => b.length - a.length).slice(0, MAX_ASKED);
  const page = (asked: readonly string[], limit: number): Promise<readonly MediaSummary[]> => pageMedia(db, brand.id, { before: null, limit, words: asked, tag: null, archived: false, kind: 'seen' });
  // The beginning of a word finds its other forms as well.
  const found = await Promise.all([page([], LATEST), ...words.map((word) => page([word.slice(0, Math.max(MIN_WORD, word.length - 2))], FOUND))]);
  const items = [...new Map(found.flat().map((item) => [item.id, item])).values()];
  const uses = await countUsesOfMedia(db, items.map(({ id }) => id));
  return items.map(({ id, name, altText, recording, widthPx, heightPx, tags }): PictureOffer => ({ id, name, altText: [altText, ...tags].filter((part) => part !== '').join(', '), kind: recording?.kind === 'clip' ? 'clip' : 'picture', aspect: widthPx / heightPx, uses: uses.get(id) ?? 0 }));
}

/** The variant of a proposal as a request gives it. */
export const variantOf = ({ shorter, asList, template, picture, wording }: Variant): Variant => ({ shorter, asList, template, picture, wording });
