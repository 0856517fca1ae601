import type { BodyOf } from '../../contract/contract.ts';
import type { askDesk } from '../../contract/word-contracts.ts';
import { networkVoiceOf } from '../../core/brand/brand-book.ts';
import { fillFacts } from '../../core/brand/facts.ts';
import { slotText } from '../../core/piece/piece.ts';
import { emojiFor } from '../../core/words/emoji-words.ts';
import type { Language } from '../../core/words/language.ts';
import { countingOf, fillWords } from '../../core/wording/compose.ts';
import type { DeskBrief, DeskSource } from '../../core/write/desk.ts';
import { listChannels, listSheetsOf, type Brand } from '../db/brand-repository.ts';
import { listRecentCaptions } from '../db/delivery-repository.ts';
import type { StoredPiece } from '../db/piece-repository.ts';
import { ProblemError } from '../errors.ts';
import { guardedFetch } from '../outside/guarded-fetch.ts';
import type { Services } from '../services.ts';

const MAX_ARTICLE_BYTES = 4 * 1024 * 1024;
const RECENT_POSTS = 10;

/**
 * All that the desk is told: what the piece shows and says, the brand's facts and voice, an article, its last posts, and what the network takes.
 * @throws ProblemError when an article cannot be fetched or read
 */
export async function briefFor(services: Services, brand: Brand, { document: piece }: StoredPiece, wish: BodyOf<typeof askDesk>): Promise<DeskBrief> {
  const { voice, facts, language } = brand.book;
  const channels = await listChannels(services.db, brand.id);
  const channel = channels.find(({ id }) => id === wish.channel);
  const sheet = channel && (await listSheetsOf(services.db, brand.id)).find(({ key }) => key === channel.network);
  const rule = sheet?.words.fields.find(({ key }) => key === 'caption');
  const shown = piece.frames.map((frame) => [frame.altText ?? '', ...Object.keys(frame.slots).map((slot) => slotText(frame, slot))].filter((text) => text.trim() !== '').map(ended).join('\n')).join('\n');
  const said = (piece.track?.subtitles ?? []).map(({ text }) => text.replaceAll(/\s+/gu, ' ')).join(' ');
  const written = wish.ask === 'draft' ? '' : [piece.words.shared.caption, piece.words.shared.altText].join('\n');
  const sources: DeskSource[] = [
    { name: 'the piece', text: fillFacts(shown, facts).text },
    { name: 'the subtitles', text: said },
    { name: 'the caption', text: fillFacts(written, facts).text },
    { name: 'the article', text: await articleOf(services, wish.article) },
    ...voice.snippets.map(({ name, text }) => ({ name: `snippet ${name}`, text: fillFacts(text.includes('[') ? '' : text, facts).text })),
  ].filter(({ text }) => text.trim() !== '');
  const tagged = `${wish.text}\n${wish.topic}\n${shown}\n${sources.map(({ text }) => text).join('\n')}`;
  const guessed = async (): Promise<Language | null> => (await import('../../core/write/guess-language.ts')).guessLanguage(`${wish.text}\n${tagged}`);
  return {
    language: language ?? (await guessed()) ?? 'en',
    voice: { tone: voice.tone, words: voice.words, emoji: voice.emoji },
    ask: wish.ask,
    text: wish.text,
    topic: wish.topic,
    sources,
    facts,
    recent: await listRecentCaptions(services.db, brand.id, RECENT_POSTS),
    words: wish.words,
    limit: sheet && rule && rule.max !== null ? { max: rule.max - roomOfOthers(brand, sheet.key, piece), counting: countingOf(rule, sheet) } : null,
    versions: wish.versions,
    hashtags: wish.hashtags ? [...new Set([...voice.hashtags.slice(0, 1), ...voice.hashtagSets.filter(({ theme }) => theme !== '' && tagged.toLowerCase().includes(theme.toLowerCase().replace(/s$/u, ''))).flatMap(({ tags }) => tags.slice(0, 3))])].slice(0, voice.maxHashtags ?? 4) : [],
    emoji: wish.emoji && voice.emoji !== 'none' ? emojiFor(tagged, 3) : [],
    turn: wish.turn,
  };
}

function ended(text: string): string {
  return /[.!?…]$/u.test(text.trim()) ? text : `${text}.`;
}

/** What the link and the hashtags behind a caption take of its room. */
function roomOfOthers(brand: Brand, network: string, piece: StoredPiece['document']): number {
  const { order, hashtagsIn } = networkVoiceOf(brand.book.voice, network);
  const tags = order.includes('hashtags') && hashtagsIn === 'caption' ? (piece.words.shared.hashtags ?? '') : '';
  const link = order.includes('link') ? (piece.words.shared.link ?? '') : '';
  return [tags, fillWords(link, brand.book, network).text].reduce((sum, text) => sum + (text === '' ? 0 : text.length + 2), 0);
}

async function articleOf(services: Services, { kind, value }: BodyOf<typeof askDesk>['article']): Promise<string> {
  if (kind === 'none' || value.trim() === '') return '';
  if (kind === 'text') return value;
  const trustedHosts = services.settings.trustedHosts;
  const fetched = await guardedFetch(value, { mostBytes: MAX_ARTICLE_BYTES, trustedHosts, accept: 'text/html' });
  if (!fetched.mime.includes('html')) throw new ProblemError(422, 'no-article', 'There is no web page at this address. Paste the text instead.');
  const { title, text } = await services.words.run({ kind: 'article', html: fetched.bytes.toString('utf8'), address: fetched.address });
  return `${ended(title)}\n${text}`;
}
