import pLimit from 'p-limit';
import { channelOfFeed } from '../../core/ideas/channel-feed.ts';
import { nextPollMs } from '../../core/ideas/feed-rule.ts';
import { claimDueFeeds, findFeed, keepPolled, keepPollFailure, listItemsOf, listOutsidePosts, listRules, type Feed } from '../db/feed-repository.ts';
import { findBrandById } from '../db/brand-repository.ts';
import type { NewJob } from '../db/job-repository.ts';
import { ProblemError } from '../errors.ts';
import type { JobHandler } from '../jobs/job-handler.ts';
import { guardedAsk } from '../outside/guarded-fetch.ts';
import { MAX_FEED_BYTES } from '../readers/reading-limits.ts';
import type { Services } from '../services.ts';
import { runRule } from './run-rule.ts';

const KIND = 'feeds';
const EVERY_MS = 15_000;
const A_ROUND = 24;
const AT_ONCE = 4;
/** A feed that is being read is nobody else's meanwhile. */
const CLAIM_MS = 5 * 60_000;
const MIN_AGAIN_MS = 15 * 60_000;
/** Posts by hand that are looked back at. */
const MAX_OUTSIDE = 40;

export const feedsJob: NewJob = { key: KIND, kind: KIND, lane: 'ideas', payload: {}, maxAttempts: 8 };

/** Reads the feeds that are due, politely; it comes round for ever. */
export function feedsHandler(services: Services): JobHandler {
  return {
    async run() {
      const nowMs = services.clock.machineNowMs();
      const limit = pLimit(AT_ONCE);
      const due = await claimDueFeeds(services.db, nowMs, nowMs + CLAIM_MS, A_ROUND);
      await Promise.all(due.map((feed) => limit(() => pollFeed(services, feed))));
      // Rules keep a pace of their own: what waits may be due now without anything new.
      await runAllRules(services);
      return { kind: 'again', afterMs: due.length === A_ROUND ? 0 : EVERY_MS };
    },
  };
}

/** Reads one feed: only when it has changed since, by its ETag or its date. Answers how many items are new. */
export async function pollFeed(services: Services, feed: Feed): Promise<number> {
  const { db, clock, readers } = services;
  const nowMs = clock.machineNowMs();
  const channelId = channelOfFeed(feed.address);
  if (channelId !== null) {
    const items = await listOutsidePosts(db, feed.brandId, channelId, MAX_OUTSIDE);
    return (await keepPolled(db, feed, { etag: null, modified: null, items, nextPollMs: nowMs + MIN_AGAIN_MS, polledMs: nowMs })).length;
  }
  try {
    const headers = { accept: 'application/rss+xml, application/atom+xml, application/feed+json, application/xml;q=0.9, */*;q=0.5', ...(feed.etag === null ? {} : { 'if-none-match': feed.etag }), ...(feed.modified === null ? {} : { 'if-modified-since': feed.modified }) };
    const answer = await guardedAsk(feed.address, { method: 'GET', headers }, { mostBytes: MAX_FEED_BYTES, trustedHosts: services.settings.trustedHosts, accept: headers.accept });
    const [last] = await listItemsOf(db, feed.id, 1);
    const sinceNewMs = last ? Math.max(0, nowMs - last.publishedMs) : 0;
    if (answer.status === 304) {
      await keepPolled(db, feed, { etag: feed.etag, modified: feed.modified, items: [], nextPollMs: nowMs + nextPollMs({ hasNew: false, failures: 0, sinceNewMs }), polledMs: nowMs });
      return 0;
    }
    if (answer.status !== 200) throw new ProblemError(422, 'outside-refused', `It answered ${answer.status}.`, answer.status === 429 || answer.status === 503 ? { retryAfterSeconds: Number(answer.headers.get('retry-after')) || 3_600 } : {});
    const { items } = await readers.read({ kind: 'feed', text: answer.bytes.toString('utf8'), address: answer.address, nowMs: await clock.nowMs() });
    const fresh = await keepPolled(db, feed, { etag: answer.headers.get('etag'), modified: answer.headers.get('last-modified'), items, nextPollMs: nowMs + nextPollMs({ hasNew: false, failures: 0, sinceNewMs }), polledMs: nowMs });
    return fresh.length;
  } catch (error) {
    if (!(error instanceof ProblemError)) throw error;
    const wait = typeof error.details['retryAfterSeconds'] === 'number' ? error.details['retryAfterSeconds'] * 1_000 : nextPollMs({ hasNew: false, failures: feed.failures + 1, sinceNewMs: 0 });
    await keepPollFailure(db, feed, error.sentence, nowMs + Math.max(MIN_AGAIN_MS, wait), nowMs);
    return 0;
  }
}

async function runAllRules(services: Services): Promise<void> {
  const brands: string[] = await services.db('feed_rules').where({ is_on: true }).whereNull('stopped').distinct('brand_id').pluck('brand_id');
  for (const brandId of brands) {
    const brand = await findBrandById(services.db, brandId);
    if (!brand) continue;
    for (const rule of await listRules(services.db, { brandId })) {
      const feed = rule.isOn && rule.stopped === null ? await findFeed(services.db, rule.feedId) : null;
      if (feed) await runRule(services, brand, rule, feed);
    }
  }
}
