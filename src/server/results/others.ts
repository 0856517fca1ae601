import { ConnectorError } from '../connectors/connector.ts';
import type { PublicAccount, PublicPost, PublicView } from '../connectors/results-reader.ts';
import { connectorFor } from '../connectors/registry.ts';
import { openChannel } from '../connect/open-channel.ts';
import { listChannels, listSheetsOf, type Brand } from '../db/brand-repository.ts';
import { countPublications } from '../db/results-repository.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';

const WITHIN_MS = 10_000;
const DAY_MS = 86_400_000;
const WEEKS = 8;
const SHOWN_TAGS = 8;
const SHOWN_BEST = 3;

/**
 * What is public at a network, looked at through one of the brand's own channels there.
 * @throws ProblemError 422 when the brand has none, or the network shows nothing; 503 when it does not answer
 */
export async function lookAt<Answer>(services: Services, brand: Brand, network: string, look: (view: PublicView, signal: AbortSignal) => Promise<Answer>): Promise<Answer> {
  const channel = (await listChannels(services.db, brand.id)).find((each) => each.network === network && each.state === 'connected');
  const sheet = (await listSheetsOf(services.db, brand.id)).find(({ key }) => key === network);
  if (!channel || !sheet) throw new ProblemError(422, 'no-channel', 'Connect a channel on this network first: it is looked at through it.');
  try {
    const view = connectorFor(await openChannel(services, channel.id), sheet).others;
    if (!view) throw new ProblemError(422, 'nothing-public', `${sheet.name} shows nothing to programs.`);
    return await look(view, AbortSignal.timeout(WITHIN_MS));
  } catch (error) {
    if (!(error instanceof ConnectorError)) throw error;
    throw new ProblemError(503, 'network-silent', error.message);
  }
}

/** How somebody posts: how often, in which formats, with which hashtags, and what did well. */
export function habitsOf(account: PublicAccount) {
  const share = (kind: string): number => account.posts.filter((post) => post.kind === kind).length / Math.max(1, account.posts.length);
  const tags = new Map<string, number>();
  for (const tag of account.posts.flatMap((post) => [...new Set(post.tags)])) tags.set(tag, (tags.get(tag) ?? 0) + 1);
  return {
    postsAWeek: account.posts.length / WEEKS,
    kinds: [...new Set(account.posts.map(({ kind }) => kind))].map((kind) => ({ kind, share: share(kind) })).toSorted((a, b) => b.share - a.share),
    tags: [...tags].map(([tag, posts]) => ({ tag, posts })).toSorted((a, b) => b.posts - a.posts).slice(0, SHOWN_TAGS),
    best: account.posts.toSorted((a, b) => b.reactions + b.comments - (a.reactions + a.comments)).slice(0, SHOWN_BEST).map(publicPost),
  };
}

export function publicPost({ tags: _, ...post }: PublicPost): Omit<PublicPost, 'tags'> {
  return post;
}

/** How often the brand itself posts at a network. */
export async function ownPostsAWeek({ db }: Pick<Services, 'db'>, brand: Brand, network: string, nowMs: number): Promise<number | null> {
  const channels = (await listChannels(db, brand.id)).filter((each) => each.network === network);
  if (channels.length === 0) return null;
  return (await countPublications(db, brand.id, { fromMs: nowMs - WEEKS * 7 * DAY_MS, untilMs: nowMs, channelIds: channels.map(({ id }) => id) })) / WEEKS / channels.length;
}
