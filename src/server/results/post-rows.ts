import { COMPARED_HOURS, type ComparedHours } from '../../core/results/collection.ts';
import { measureKeys, rateOf, type RateBase } from '../../core/results/measures.ts';
import { usualOf, type Usual } from '../../core/results/usual.ts';
import type { Db } from '../db/connection.ts';
import type { Publication } from '../db/publication-repository.ts';
import { listAged, type AgedPost } from '../db/results-repository.ts';

const DAY_MS = 86_400_000;
const YEAR_MS = 365 * DAY_MS;
/** Earlier posts of one channel that its posts are compared with: the latest. */
const MAX_COMPARED = 300;

/** The rate that a post had at an age; null where that is not known. */
export function rateAt(publication: Pick<Publication, 'aged'>, hours: ComparedHours, base: RateBase): number | null {
  const aged = publication.aged[hours];
  if (!aged) return null;
  return rateOf({ reactions: aged.engagement, ...(aged.reach === null ? {} : { reach: aged.reach }), ...(aged.impressions === null ? {} : { impressions: aged.impressions }) }, base)?.rate ?? null;
}

/** The oldest of the compared ages at which a post is known. */
export function comparedAge(publication: Pick<Publication, 'aged'>): ComparedHours | null {
  return COMPARED_HOURS.findLast((hours) => publication.aged[hours] !== undefined) ?? null;
}

/** How a post's rate stands in what was usual before it, for its channel and format, at the same age. */
export function standingOf(publication: Publication, others: readonly AgedPost[], base: RateBase): { readonly value: number; readonly hours: number; readonly usual: Usual } | null {
  const hours = comparedAge(publication);
  const value = hours === null ? null : rateAt(publication, hours, base);
  if (hours === null || value === null) return null;
  const earlier = others.flatMap((each) => {
    const rate = rateAt(each, hours, base);
    const isComparable = each.id !== publication.id && each.channelId === publication.channelId && each.format === publication.format && each.publishedMs < publication.publishedMs && each.publishedMs >= publication.publishedMs - YEAR_MS;
    return isComparable && rate !== null ? [{ value: rate, daysBefore: (publication.publishedMs - each.publishedMs) / DAY_MS }] : [];
  });
  return { value, hours, usual: usualOf(earlier) };
}

/** Posts as the tables show them. */
export async function postRows(db: Db, brandId: string, publications: readonly Publication[], base: RateBase) {
  const channelIds = [...new Set(publications.map(({ channelId }) => channelId))];
  const oldest = Math.min(...publications.map(({ publishedMs }) => publishedMs));
  const newest = Math.max(...publications.map(({ publishedMs }) => publishedMs));
  const others = new Map<string, readonly AgedPost[]>();
  for (const channelId of channelIds) others.set(channelId, await listAged(db, brandId, { channelIds: [channelId], sinceMs: oldest - YEAR_MS, untilMs: newest, limit: MAX_COMPARED }));
  return publications.map((publication) => {
    const figures = Object.fromEntries(measureKeys.flatMap((key) => (publication[key] === null ? [] : [[key, Number(publication[key])]])));
    const rate = rateOf(figures, base);
    const { id, title, channelId, deliveryId, postId, pieceId, address, publishedMs, format, themeId, removedMs, measuredMs } = publication;
    return { id, title, channelId, deliveryId, postId, pieceId, address, publishedMs: Number(publishedMs), format, slides: publication.traits.slides ?? 1, themeId, figures, engagement: publication.engagement === null ? null : Number(publication.engagement), rate: rate?.rate ?? null, rateBase: rate?.base ?? null, standing: standingOf(publication, others.get(channelId) ?? [], base), removedMs, measuredMs };
  });
}
