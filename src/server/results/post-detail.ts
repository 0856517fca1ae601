import { levelName } from '../../core/results/features.ts';
import { engagementKeys, measureKeys, type RateBase } from '../../core/results/measures.ts';
import { stretchesOf, valueAtAge, type Measurement } from '../../core/results/series.ts';
import { usualOf } from '../../core/results/usual.ts';
import { differencesOf, nearestEarlier } from '../../core/results/why.ts';
import type { Effect } from '../../core/results/what-works.ts';
import type { Brand } from '../db/brand-repository.ts';
import { findDelivery } from '../db/delivery-repository.ts';
import { listMeasurements, type Publication } from '../db/publication-repository.ts';
import { listCompared } from '../db/results-repository.ts';
import type { Services } from '../services.ts';
import { postRows } from './post-rows.ts';
import { traitsOf, worksOf } from './works.ts';

const HOUR_MS = 3_600_000;
const YEAR_MS = 365 * 86_400_000;
/** Hours at which the band of what is usual is worked out. */
const BAND_HOURS = [1, 3, 6, 12, 24, 48, 72, 120, 168] as const;
const MAX_BAND_POSTS = 60;
const MAX_COMMENTS = 20;

/** One post with its curve, what was different about it, and its parts. */
export async function postDetail(services: Pick<Services, 'db' | 'clock'>, brand: Brand, publication: Publication, base: RateBase, names: ReadonlyMap<string, string>, nowMs: number) {
  const { db } = services;
  const others = (await listCompared(db, brand.id, { channelIds: [publication.channelId], sinceMs: Number(publication.publishedMs) - YEAR_MS, limit: 500 })).filter(({ publishedMs }) => Number(publishedMs) < Number(publication.publishedMs));
  const alike = others.filter(({ format }) => format === publication.format).slice(0, MAX_BAND_POSTS);
  const series = await listMeasurements(db, [publication.id, ...alike.map(({ id }) => id)], [...engagementKeys, 'plays', 'impressions']);
  const metric = publication.engagement === null ? 'impressions' : 'engagement';
  const curveOf = (id: string): readonly Measurement[] => (metric === 'impressions' ? (series.get(id)?.get('impressions') ?? []) : summed(series.get(id) ?? new Map()));
  const works = await worksOf(services, brand, base, null, nowMs);
  const nearest = nearestEarlier(traitsOf(publication), others.map((each) => ({ traits: traitsOf(each) })), brand.zone);
  const [post] = await postRows(db, brand.id, [publication], base);
  if (!post) throw new RangeError('The post has no row');
  const delivery = publication.deliveryId === null ? null : await findDelivery(db, brand.id, publication.deliveryId);
  const spoken = (effect: Effect | null) => (effect === null ? null : { ...effect, name: levelName(effect.family, effect.level, names) });
  const counted = await db('measurements').where({ publication_id: publication.id }).where('counted', '>', 1).distinct('metric').pluck('metric');
  const comments: { id: string; author: string; text: string; atMs: number; state: string }[] = await db('conversations').where({ publication_id: publication.id }).whereNot({ state: 'apart' }).orderBy('last_ms', 'desc').limit(MAX_COMMENTS).select('id', 'author_name as author', 'snippet as text', 'first_ms as atMs', 'state');
  const parts = (prefix: string): readonly (readonly [string, number])[] => Object.entries(publication.parts).flatMap(([key, value]) => (key.startsWith(`${prefix}.`) && value !== undefined ? [[key.slice(prefix.length + 1), value] as const] : []));
  return {
    post,
    caption: delivery?.words.caption ?? publication.title,
    curve: { metric, stretches: stretchesOf(curveOf(publication.id), Number(publication.publishedMs)) },
    ...bandOf(publication, alike, curveOf),
    differences: publication.deliveryId === null ? [] : differencesOf(traitsOf(publication), nearest.map(({ traits }) => traits), works.works, brand.zone).map(({ family, level, earlier, effect }) => ({ family, name: levelName(family, level, names), earlier: earlier.slice(0, 3).map((each) => levelName(family, each, names)), effect: spoken(effect) })),
    nearest: nearest.length,
    slides: parts('slide').map(([slide, people]) => ({ slide: Number(slide), people })).toSorted((a, b) => a.slide - b.slide),
    watched: parts('watched').map(([percent, people]) => ({ percent: Number(percent), people })).toSorted((a, b) => a.percent - b.percent),
    kinds: parts('reactions').map(([kind, count]) => ({ kind, count })).toSorted((a, b) => b.count - a.count),
    countedAnew: (counted as string[]).filter((each) => measureKeys.some((key) => key === each)),
    comments: comments.map((each) => ({ ...each, atMs: Number(each.atMs) })),
  };
}

/** Engagement over time: the sum of its measures wherever they were measured together. */
function summed(metrics: ReadonlyMap<string, readonly Measurement[]>): readonly Measurement[] {
  const byMoment = new Map<number, { value: number; counted: number }>();
  for (const key of engagementKeys) {
    for (const { atMs, value, counted } of metrics.get(key) ?? []) {
      const known = byMoment.get(atMs) ?? { value: 0, counted: 1 };
      byMoment.set(atMs, { value: known.value + value, counted: Math.max(known.counted, counted) });
    }
  }
  return [...byMoment].map(([atMs, each]) => ({ atMs, ...each })).toSorted((a, b) => a.atMs - b.atMs);
}

function bandOf(publication: Publication, alike: readonly Publication[], curveOf: (id: string) => readonly Measurement[]) {
  const curves = alike.map((each) => ({ publishedMs: Number(each.publishedMs), measured: curveOf(each.id) }));
  const band = BAND_HOURS.flatMap((hours) => {
    const earlier = curves.flatMap(({ publishedMs, measured }) => {
      const value = valueAtAge(measured, publishedMs, hours * HOUR_MS);
      return value === null ? [] : [{ value, daysBefore: (Number(publication.publishedMs) - publishedMs) / (24 * HOUR_MS) }];
    });
    const usual = usualOf(earlier);
    return usual.kind === 'usual' ? [{ hours, low: usual.low, middle: usual.middle, high: usual.high }] : [];
  });
  return { band, bandCount: alike.length };
}
