import type { Figures } from '../../core/results/measures.ts';
import type { Heard, PublicAccount, PublicPost, RemoteAudience, RemoteDay, RemoteFigures, RemotePost } from './results-reader.ts';

/** Answers of networks as values. What has not the wanted form is left out: a network's fault must not stop what is fine. */

const MAX_LISTED = 1_000;
const MAX_TEXT = 20_000;
const MAX_FIGURE = 1e12;
/** Characters that turn the direction of what follows, and controls: they would let a comment change how others look. */
const UNWANTED = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f\u202a-\u202e\u2066-\u2069]/gu;

const formats = ['picture', 'carousel', 'video', 'document', 'text'] as const;

type Raw = Readonly<Record<string, unknown>>;
const isRaw = (value: unknown): value is Raw => typeof value === 'object' && value !== null && !Array.isArray(value);

function rawList(value: unknown): readonly Raw[] {
  return Array.isArray(value) ? value.slice(0, MAX_LISTED).filter(isRaw) : [];
}

/** Text from outside: bounded, without characters that change how text around it reads. */
export function remoteText(value: unknown, max = MAX_TEXT): string {
  return typeof value === 'string' ? value.slice(0, max).replace(UNWANTED, '').normalize('NFC') : '';
}

const isId = (value: unknown): value is string => typeof value === 'string' && /^[\w.:-]{1,120}$/.test(value);
const isAddress = (value: unknown): value is string => typeof value === 'string' && value.length <= 2_000 && /^https?:\/\//.test(value);
const isMoment = (value: unknown): value is number => typeof value === 'number' && Number.isFinite(value) && value > 0 && value < 1e14;

/** Whole numbers of at least nothing, by names that a figure can have; negative and broken figures are left out. */
export function readFigures(value: unknown): Figures {
  if (!isRaw(value)) return {};
  return Object.fromEntries(Object.entries(value).slice(0, 400).filter((pair): pair is [string, number] => /^[a-zA-Z]{2,24}(\.[\w-]{1,24})?$/.test(pair[0]) && typeof pair[1] === 'number' && Number.isFinite(pair[1]) && pair[1] >= 0 && pair[1] <= MAX_FIGURE).map(([name, figure]) => [name, Math.round(figure)]));
}

/** Figures by a free name: a country, an age band, an hour. */
function readShares(value: unknown): Figures {
  if (!isRaw(value)) return {};
  return Object.fromEntries(Object.entries(value).slice(0, 100).filter((pair): pair is [string, number] => pair[0].length <= 20 && typeof pair[1] === 'number' && pair[1] >= 0 && pair[1] <= MAX_FIGURE).map(([name, figure]) => [name, Math.round(figure)]));
}

export function readRemoteFigures(value: unknown): readonly RemoteFigures[] {
  return rawList(value).flatMap(({ id, figures, counted }) => (isId(id) ? [{ remoteId: id, figures: readFigures(figures), counted: Object.fromEntries(Object.entries(readFigures(counted)).map(([name, times]) => [name, Math.max(1, times ?? 1)])) }] : []));
}

export function readRemotePosts(value: unknown): readonly RemotePost[] {
  return rawList(value).flatMap(({ id, url, publishedMs, text, title, kind, slides }) => (isId(id) && isAddress(url) && isMoment(publishedMs) ? [{ remoteId: id, address: url, publishedMs, text: remoteText(title) || remoteText(text), format: formats.find((each) => each === kind) ?? null, slides: typeof slides === 'number' && slides >= 1 && slides <= 1_000 ? Math.round(slides) : 1 }] : []));
}

export function readRemoteDays(value: unknown): readonly RemoteDay[] {
  return rawList(value).flatMap(({ day, figures }) => (typeof day === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(day) ? [{ day, figures: readFigures(figures) }] : []));
}

export function readRemoteAudience(value: unknown): RemoteAudience | null {
  if (!isRaw(value)) return null;
  return { countries: readShares(value['countries']), languages: readShares(value['languages']), ages: readShares(value['ages']), hours: readShares(value['hours']) };
}

export function readHeard(value: unknown): readonly Heard[] {
  return rawList(value).flatMap(({ id, kind, thread, postId, author, text, atMs }): readonly Heard[] => {
    if (!isId(id) || !isId(thread) || !isMoment(atMs) || !isRaw(author) || (kind !== 'comment' && kind !== 'mention' && kind !== 'message')) return [];
    const followers = author['followers'];
    return [{ remoteId: id, kind, thread, remotePostId: isId(postId) ? postId : null, author: { handle: remoteText(author['handle'], 80), name: remoteText(author['name'], 80) || remoteText(author['handle'], 80), followers: typeof followers === 'number' && followers >= 0 && followers < MAX_FIGURE ? Math.round(followers) : 0 }, text: remoteText(text), atMs }];
  });
}

export function readPublicPosts(value: unknown): readonly PublicPost[] {
  return rawList(value).flatMap(({ id, handle, name, url, publishedMs, text, kind, tags, reactions, comments }): readonly PublicPost[] => {
    if (!isId(id) || !isAddress(url) || !isMoment(publishedMs)) return [];
    const { reactions: liked = 0, comments: said = 0 } = readFigures({ reactions, comments });
    return [{ id, handle: remoteText(handle, 80), name: remoteText(name, 80), address: url, publishedMs, text: remoteText(text), kind: formats.find((each) => each === kind) ?? 'picture', tags: Array.isArray(tags) ? tags.slice(0, 30).map((tag) => remoteText(tag, 100)).filter((tag) => tag !== '') : [], reactions: liked, comments: said }];
  });
}

export function readPublicAccount(value: unknown): PublicAccount | null {
  if (!isRaw(value) || typeof value['handle'] !== 'string') return null;
  return { handle: remoteText(value['handle'], 80), name: remoteText(value['name'], 80), followers: readFigures({ followers: value['followers'] })['followers'] ?? 0, posts: readPublicPosts(value['posts']) };
}
