import type { MeasureKey } from '../../core/results/measures.ts';
import type { Db } from './connection.ts';
import { toPublication, type Publication } from './publication-repository.ts';

/** Which posts are looked at. */
export interface ResultsFilter {
  readonly fromMs: number;
  /** Not itself. */
  readonly untilMs: number;
  readonly channelIds?: readonly string[] | undefined;
  readonly themeId?: string | undefined;
  readonly campaignId?: string | undefined;
  readonly label?: string | undefined;
  readonly format?: string | undefined;
  readonly templateKey?: string | undefined;
  readonly personId?: string | undefined;
  /** Only those that were made without Confetti. */
  readonly outside?: boolean | undefined;
}

function selected(db: Db, brandId: string, filter: ResultsFilter) {
  const query = db('publications').where({ 'publications.brand_id': brandId }).where('published_ms', '>=', filter.fromMs).where('published_ms', '<', filter.untilMs);
  if (filter.channelIds) query.whereIn('channel_id', [...filter.channelIds]);
  if (filter.themeId) query.where({ theme_id: filter.themeId });
  if (filter.campaignId) query.where({ campaign_id: filter.campaignId });
  if (filter.format) query.where({ format: filter.format });
  if (filter.templateKey) query.where({ template_key: filter.templateKey });
  if (filter.personId) query.where({ made_by: filter.personId });
  if (filter.outside) query.whereNull('delivery_id');
  if (filter.label) query.whereIn('piece_id', db('piece_labels').where({ brand_id: brandId, label_key: filter.label.toLocaleLowerCase('en') }).select('piece_id'));
  return query;
}

/** What the posts of a period came to on one channel. */
export interface ChannelSums {
  readonly channelId: string;
  readonly posts: number;
  readonly reach: number | null;
  readonly impressions: number | null;
  readonly engagement: number | null;
  readonly clicks: number | null;
  /** Engagement and people of those posts of which both are known. */
  readonly rated: number;
  readonly seen: number;
}

const numberOrNull = (value: unknown): number | null => (value === null || value === undefined ? null : Number(value));

/** @param base what the rate is measured by; where a network gives only the other one, by that */
export async function sumByChannel(db: Db, brandId: string, filter: ResultsFilter, base: 'reach' | 'impressions'): Promise<readonly ChannelSums[]> {
  const seen = base === 'reach' ? 'coalesce(reach, impressions)' : 'coalesce(impressions, reach)';
  const rows: Record<string, unknown>[] = await selected(db, brandId, filter)
    .groupBy('channel_id')
    .select('channel_id')
    .count({ posts: '*' })
    .sum({ reach: 'reach', impressions: 'impressions', engagement: 'engagement', clicks: 'clicks' })
    .select(db.raw(`sum(case when engagement is not null and ${seen} > 0 then engagement else 0 end) as rated`), db.raw(`sum(case when engagement is not null then coalesce(${seen}, 0) else 0 end) as seen`));
  return rows.map((row) => ({ channelId: String(row['channel_id']), posts: Number(row['posts']), reach: numberOrNull(row['reach']), impressions: numberOrNull(row['impressions']), engagement: numberOrNull(row['engagement']), clicks: numberOrNull(row['clicks']), rated: Number(row['rated'] ?? 0), seen: Number(row['seen'] ?? 0) }));
}

/** Moments at which posts of a period were published, at most so many. */
export async function listPublishedMoments(db: Db, brandId: string, filter: ResultsFilter, limit: number): Promise<readonly number[]> {
  const moments: unknown[] = await selected(db, brandId, filter).orderBy('published_ms', 'desc').limit(limit).pluck('published_ms');
  return moments.map(Number);
}

export type SortKey = MeasureKey | 'engagement' | 'rate' | 'published';

/** A page of posts sorted by a measure; what has no such figure comes last. */
export async function pagePublications(db: Db, brandId: string, filter: ResultsFilter, page: { readonly sort: SortKey; readonly descending: boolean; readonly base: 'reach' | 'impressions'; readonly offset: number; readonly limit: number }): Promise<readonly Publication[]> {
  const column = page.sort === 'rate' ? (page.base === 'reach' ? 'rate_reach' : 'rate_impressions') : page.sort === 'published' ? 'published_ms' : page.sort;
  // First which, then what they are: whole rows are too much to sort.
  const ids: string[] = await selected(db, brandId, filter)
    .orderBy([...(page.sort === 'published' ? [] : [{ column: db.raw(`case when ${column} is null then 1 else 0 end`) as unknown as string }]), { column, order: page.descending ? 'desc' : 'asc' }, { column: 'publications.id' }])
    .offset(page.offset)
    .limit(page.limit)
    .pluck('publications.id');
  const rows: object[] = await db('publications').whereIn('id', ids);
  const found = new Map(rows.map(toPublication).map((each) => [each.id, each]));
  return ids.flatMap((id) => found.get(id) ?? []);
}

export async function countPublications(db: Db, brandId: string, filter: ResultsFilter): Promise<number> {
  const row = await selected(db, brandId, filter).count({ count: '*' }).first();
  return Number(row?.['count'] ?? 0);
}

/** Posts that others are compared with: of some channels, with their figures at equal ages, the latest first. */
export async function listCompared(db: Db, brandId: string, { channelIds, sinceMs, limit, filter }: { readonly channelIds: readonly string[] | null; readonly sinceMs: number; readonly limit: number; readonly filter?: ResultsFilter }): Promise<readonly Publication[]> {
  const query = filter ? selected(db, brandId, filter) : db('publications').where({ brand_id: brandId });
  query.where('published_ms', '>=', sinceMs).whereNotNull('format').whereNot('aged', '{}');
  if (channelIds) query.whereIn('channel_id', [...channelIds]);
  const rows: object[] = await query.orderBy('published_ms', 'desc').limit(limit).select('publications.*');
  return rows.map(toPublication);
}

/** What is needed of a post to compare others with it. */
export type AgedPost = Pick<Publication, 'id' | 'channelId' | 'format' | 'publishedMs' | 'aged'>;

/** Posts of some channels with what they had at equal ages, the latest first. */
export async function listAged(db: Db, brandId: string, { channelIds, sinceMs, untilMs, limit }: { readonly channelIds: readonly string[]; readonly sinceMs: number; readonly untilMs: number; readonly limit: number }): Promise<readonly AgedPost[]> {
  const rows: { id: string; channel_id: string; format: string | null; published_ms: number | string; aged: string }[] = await db('publications').where({ brand_id: brandId }).whereIn('channel_id', [...channelIds]).where('published_ms', '>=', sinceMs).where('published_ms', '<', untilMs).whereNot('aged', '{}').orderBy('published_ms', 'desc').limit(limit).select('id', 'channel_id', 'format', 'published_ms', 'aged');
  return rows.map((row) => ({ id: row.id, channelId: row.channel_id, format: row.format, publishedMs: Number(row.published_ms), aged: JSON.parse(row.aged) as Publication['aged'] }));
}

/** What some posts have made public. */
export async function listPublicationsOfPosts(db: Db, brandId: string, postIds: readonly string[]): Promise<readonly Publication[]> {
  const rows: object[] = postIds.length === 0 ? [] : await db('publications').where({ brand_id: brandId }).whereIn('post_id', [...postIds]);
  return rows.map(toPublication);
}

/** What the filters can be set to: what posts of the brand have. */
export async function listFacets(db: Db, brandId: string): Promise<{ readonly formats: readonly string[]; readonly templates: readonly string[] }> {
  const distinct = (column: string): Promise<string[]> => db('publications').where({ brand_id: brandId }).whereNotNull(column).distinct(column).limit(200).pluck(column) as unknown as Promise<string[]>;
  return { formats: await distinct('format'), templates: await distinct('template_key') };
}
