import { LRUCache } from 'lru-cache';
import { hoursOf } from '../../core/results/hours.ts';
import type { RateBase } from '../../core/results/measures.ts';
import type { PostTraits } from '../../core/results/features.ts';
import { whatWorks, type Outcome, type WhatWorks } from '../../core/results/what-works.ts';
import type { Brand } from '../db/brand-repository.ts';
import type { Db } from '../db/connection.ts';
import type { Publication } from '../db/publication-repository.ts';
import { listCompared, type ResultsFilter } from '../db/results-repository.ts';
import type { Services } from '../services.ts';

/** The age at which posts are compared to tell what works: most of what comes has come. */
export const WORKS_HOURS = 72;
/** Posts that are looked at: the latest. */
const MAX_POSTS = 4_000;
const YEAR_MS = 365 * 86_400_000;
const FRESH_MS = 5 * 60_000;

export function traitsOf(publication: Publication): PostTraits {
  const { channelId, format, themeId, templateKey, publishedMs, answeredEarly, traits } = publication;
  return { channelId, format: format ?? 'picture', themeId, templateKey, publishedMs: Number(publishedMs), answeredEarly, slides: traits.slides ?? 1, captionWords: traits.captionWords ?? 0, hashtags: traits.hashtags ?? 0, hasFirstComment: traits.hasFirstComment ?? false, wordsOnPicture: traits.wordsOnPicture ?? null, showsPeople: traits.showsPeople ?? null };
}

/** Posts with what they had at the compared age. Those made without Confetti are left out: too little is known of them. */
export function outcomesOf(publications: readonly Publication[], base: RateBase): readonly Outcome[] {
  return publications.flatMap((publication) => {
    const aged = publication.aged[WORKS_HOURS];
    if (!aged || publication.deliveryId === null) return [];
    const seen = base === 'reach' ? (aged.reach ?? aged.impressions) : (aged.impressions ?? aged.reach);
    return seen === null || seen <= 0 ? [] : [{ traits: traitsOf(publication), engagement: aged.engagement, seen }];
  });
}

export interface Works {
  readonly outcomes: readonly Outcome[];
  readonly works: WhatWorks;
  readonly hours: ReturnType<typeof hoursOf>;
}

/** Estimates take a while and change slowly: one of the last minutes is as good. */
const kept = new WeakMap<Db, LRUCache<string, { readonly atMs: number; readonly value: Promise<Works> }>>();

/** What works for a brand, from its posts of a year or of a filter. */
export function worksOf({ db, clock }: Pick<Services, 'db' | 'clock'>, brand: Brand, base: RateBase, filter: ResultsFilter | null, nowMs: number): Promise<Works> {
  const cache = kept.get(db) ?? new LRUCache<string, { readonly atMs: number; readonly value: Promise<Works> }>({ max: 100 });
  kept.set(db, cache);
  const key = JSON.stringify([brand.id, base, filter, Math.floor(nowMs / FRESH_MS)]);
  const known = cache.get(key);
  const machineNowMs = clock.machineNowMs();
  if (known && machineNowMs - known.atMs < FRESH_MS) return known.value;
  const value = estimate(db, brand, base, filter, nowMs);
  cache.set(key, { atMs: machineNowMs, value });
  value.catch(() => cache.delete(key));
  return value;
}

async function estimate(db: Db, brand: Brand, base: RateBase, filter: ResultsFilter | null, nowMs: number): Promise<Works> {
  const publications = await listCompared(db, brand.id, { channelIds: null, sinceMs: nowMs - YEAR_MS, limit: MAX_POSTS, ...(filter === null ? {} : { filter }) });
  const outcomes = outcomesOf(publications, base);
  return { outcomes, works: whatWorks(outcomes, brand.zone), hours: hoursOf(outcomes, brand.zone) };
}
