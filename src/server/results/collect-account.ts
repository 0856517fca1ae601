import { DateTime } from 'luxon';
import { nanoid } from 'nanoid';
import { describeText } from '../../core/results/describe-post.ts';
import type { ResultsReader } from '../connectors/results-reader.ts';
import { keepCollection, keepDays, latestDay, type Collection } from '../db/collection-repository.ts';
import { keepOutsidePost } from '../db/publication-repository.ts';
import type { Services } from '../services.ts';

const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;
/** How far back a channel is asked the first time: posts, and days of the account. */
const FIRST_POSTS_MS = 60 * DAY_MS;
const FIRST_DAYS = 90;
/** Days that are asked for again: networks settle their figures late. */
const AGAIN_DAYS = 2;
const TITLE = 120;

interface Asked {
  readonly id: string;
  readonly brandId: string;
  readonly zone: string;
}

/** Asks for the figures of an account's days, who follows it, and posts that were made without Confetti. */
export async function collectAccount({ db }: Pick<Services, 'db'>, channel: Asked, collection: Collection, reader: ResultsReader, nowMs: number, signal: AbortSignal): Promise<void> {
  const today = DateTime.fromMillis(nowMs, { zone: channel.zone }).startOf('day');
  const known = await latestDay(db, channel.id);
  const from = known === null ? today.minus({ days: FIRST_DAYS }) : DateTime.max(DateTime.fromISO(known, { zone: channel.zone }).minus({ days: AGAIN_DAYS }), today.minus({ days: FIRST_DAYS }));
  await keepDays(db, channel.id, await reader.days(from.toISODate() ?? '', today.toISODate() ?? '', signal));
  const sinceMs = collection.postsSinceMs === 0 ? nowMs - FIRST_POSTS_MS : collection.postsSinceMs;
  for (const post of await reader.posts(sinceMs, signal)) {
    const { captionWords, hashtags } = describeText(post.text);
    // A network whose clock is ahead would give posts of the future.
    const publishedMs = Math.min(post.publishedMs, nowMs);
    await keepOutsidePost(db, { id: nanoid(12), brandId: channel.brandId, channelId: channel.id, remoteId: post.remoteId, address: post.address, publishedMs, title: post.text.slice(0, TITLE), format: post.format ?? 'picture', traits: { captionWords, hashtags, slides: post.slides, hasFirstComment: false, wordsOnPicture: null, showsPeople: null } });
  }
  const audience = await reader.audience(signal);
  // Posts are asked for once more over a day: some become visible late.
  await keepCollection(db, channel.id, { accountNextMs: nowMs + HOUR_MS, postsSinceMs: nowMs - DAY_MS, audience: audience === null ? null : JSON.stringify(audience) });
}
