import { people } from '../reach-words.ts';
import { pick, share } from './chance.ts';
import { ownPostPhrases } from './phrases.ts';
import { figuresAt, followersAt } from './reaction.ts';

/** A public post of somebody else, as anybody can see it. */
export interface PublicPost {
  readonly id: string;
  readonly handle: string;
  readonly name: string;
  readonly publishedMs: number;
  readonly text: string;
  readonly kind: 'picture' | 'carousel' | 'video';
  readonly tags: readonly string[];
  readonly reactions: number;
  readonly comments: number;
}

const DAY_MS = 86_400_000;
const POSTS_A_DAY = 0.45;
const subjects = ['First light over the harbour, before anybody was about.', 'New in the window this week.', 'How we fold a sail in four minutes.', 'Rain plan: we stay inside and sew.', 'Thirty years of the museum in seven pictures.', 'The wind report for the weekend, with a grain of salt.', 'Who remembers the old ferry?', 'Dumplings until they are gone.', 'Behind the counter with Ida.', ...ownPostPhrases];
const tags = ['Harbour', 'Quay', 'Kites', 'MadeByHand', 'WindReport', 'MarketNight', 'Sailing', 'Coast'];

/** Public posts of a person or page between two moments, the newest first. */
export function publicPosts(network: string, handle: string, fromMs: number, nowMs: number): readonly PublicPost[] {
  const person = people.find(({ networks }) => networks[network] === handle);
  if (!person) return [];
  const posts: PublicPost[] = [];
  for (let day = Math.floor(fromMs / DAY_MS); day * DAY_MS <= nowMs; day += 1) {
    const key = `${network} ${handle} public ${day}`;
    const publishedMs = Math.round(day * DAY_MS + (7 + share(`${key} hour`) * 14) * 3_600_000);
    if (share(key) >= POSTS_A_DAY || publishedMs < fromMs || publishedMs > nowMs) continue;
    const kind = pick(['picture', 'picture', 'carousel', 'video'] as const, `${key} kind`);
    const own = [pick(tags, `${key} tag`), pick(tags, `${key} second tag`)].filter((tag, index, all) => all.indexOf(tag) === index);
    const id = `o${Math.floor(share(`${key} id`) * 2 ** 32).toString(36)}${day}`;
    const { reactions = 0, comments = 0 } = figuresAt({ network, handle, postId: id, publishedMs, seed: id, traits: { kind, slides: kind === 'carousel' ? 4 : 1, hour: 12, weekday: 3, interest: 'other', hasFirstComment: false, answeredEarly: false } }, nowMs, nowMs);
    posts.push({ id, handle, name: person.name, publishedMs, text: `${pick(subjects, key)} ${own.map((tag) => `#${tag}`).join(' ')}`, kind, tags: own.map((tag) => `#${tag}`), reactions, comments });
  }
  return posts.toReversed();
}

/** Somebody whom anybody can follow; null when there is nobody of that handle. */
export function publicAccount(network: string, handle: string, nowMs: number): { readonly handle: string; readonly name: string; readonly followers: number } | null {
  const person = people.find(({ networks }) => networks[network] === handle);
  return person ? { handle, name: person.name, followers: followersAt(network, handle, nowMs, nowMs) } : null;
}

/** Public posts of the last month that have all the words. */
export function searchPosts(network: string, words: readonly string[], nowMs: number): readonly PublicPost[] {
  const handles = people.flatMap(({ networks }) => networks[network] ?? []);
  const matches = ({ text, name }: PublicPost): boolean => words.every((word) => `${text} ${name}`.toLowerCase().includes(word.toLowerCase()));
  return handles.flatMap((handle) => publicPosts(network, handle, nowMs - 30 * DAY_MS, nowMs)).filter(matches).toSorted((a, b) => b.publishedMs - a.publishedMs).slice(0, 40);
}
