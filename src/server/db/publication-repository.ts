import { engagementKeys, engagementOf, measureKeys, rateOf, type Figures, type MeasureKey } from '../../core/results/measures.ts';
import type { Measurement } from '../../core/results/series.ts';
import type { ComparedHours } from '../../core/results/collection.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';
import { fromRow } from './row.ts';

/** What of a post's making is compared: see core/results/features.ts. */
export interface KeptTraits {
  readonly slides: number;
  readonly captionWords: number;
  readonly hashtags: number;
  readonly hasFirstComment: boolean;
  readonly wordsOnPicture: number | null;
  readonly showsPeople: boolean | null;
}

/** Engagement and who saw the post, at one age. */
export interface AgedFigures {
  readonly engagement: number;
  readonly reach: number | null;
  readonly impressions: number | null;
}

/** Something that is public on a channel, with its latest figures. */
export interface Publication extends Readonly<Record<MeasureKey | 'engagement', number | null>> {
  readonly id: string;
  readonly brandId: string;
  readonly channelId: string;
  /** Null: made without Confetti. */
  readonly deliveryId: string | null;
  readonly postId: string | null;
  readonly pieceId: string | null;
  readonly remoteId: string;
  readonly address: string;
  readonly publishedMs: number;
  readonly title: string;
  /** Null until it was described. */
  readonly format: string | null;
  readonly themeId: string | null;
  readonly campaignId: string | null;
  readonly templateKey: string | null;
  readonly madeBy: string | null;
  readonly traits: Partial<KeptTraits>;
  readonly answeredEarly: boolean;
  readonly removedMs: number | null;
  readonly nextMeasureMs: number | null;
  readonly measuredMs: number | null;
  readonly rateReach: number | null;
  readonly rateImpressions: number | null;
  /** Figures beside the measures, as `slide.2`. */
  readonly parts: Figures;
  readonly aged: Readonly<Partial<Record<ComparedHours, AgedFigures>>>;
}

export function toPublication(row: object): Publication {
  const { traits, parts, aged, answeredEarly, ...rest } = fromRow<Omit<Publication, 'traits' | 'parts' | 'aged' | 'answeredEarly'> & { readonly traits: string; readonly parts: string; readonly aged: string; readonly answeredEarly: unknown }>(row);
  return { ...rest, answeredEarly: Boolean(answeredEarly), traits: JSON.parse(traits) as Partial<KeptTraits>, parts: JSON.parse(parts) as Figures, aged: JSON.parse(aged) as Publication['aged'] };
}

/** The name of a post at its network: the last part of its address. */
export function remoteIdOf(address: string): string {
  return address.split(/[?#]/)[0]?.split('/').findLast((part) => part !== '') ?? address;
}

/** Notes what a delivery has made public, in the transaction that says so. */
export async function notePublished(trx: Db, deliveryId: string): Promise<void> {
  const row: { id: string; brand_id: string; channel_id: string; post_id: string; address: string | null; sent_ms: number; piece_id: string; piece_name: string } | undefined = await trx('deliveries').join('posts', 'posts.id', 'deliveries.post_id').where('deliveries.id', deliveryId).first('deliveries.id', 'deliveries.brand_id', 'channel_id', 'post_id', 'address', 'sent_ms', 'posts.piece_id', 'posts.piece_name');
  if (!row || row.address === null) return;
  const fields = { delivery_id: row.id, post_id: row.post_id, piece_id: row.piece_id, title: row.piece_name, published_ms: row.sent_ms, address: row.address, format: null };
  // The collection may have seen it at the network a moment before: then it is the same row.
  await trx('publications')
    .insert({ id: row.id, brand_id: row.brand_id, channel_id: row.channel_id, remote_id: remoteIdOf(row.address), next_measure_ms: row.sent_ms, ...fields })
    .onConflict(['channel_id', 'remote_id'])
    .merge(fields);
}

/** Notes that a post is not public any more: its figures stay as they are. */
export async function noteTakenDown(trx: Db, deliveryId: string, removedMs: number): Promise<void> {
  await trx('publications').where({ delivery_id: deliveryId }).update({ removed_ms: removedMs, next_measure_ms: null });
}

export interface OutsidePost {
  readonly id: string;
  readonly brandId: string;
  readonly channelId: string;
  readonly remoteId: string;
  readonly address: string;
  readonly publishedMs: number;
  readonly title: string;
  readonly format: string;
  readonly traits: KeptTraits;
}

/** Keeps a post that nobody made here, once; what Confetti made is known already. */
export async function keepOutsidePost(db: Db, post: OutsidePost): Promise<void> {
  await db('publications')
    .insert({ id: post.id, brand_id: post.brandId, channel_id: post.channelId, remote_id: post.remoteId, address: post.address, published_ms: post.publishedMs, title: post.title, format: post.format, traits: JSON.stringify(post.traits), next_measure_ms: post.publishedMs })
    .onConflict(['channel_id', 'remote_id'])
    .ignore();
}

export async function findPublication(db: Db, brandId: string, id: string): Promise<Publication | null> {
  const row: object | undefined = await db('publications').where({ brand_id: brandId, id }).first();
  return row ? toPublication(row) : null;
}

export async function findPublicationByRemote(db: Db, channelId: string, remoteId: string): Promise<Publication | null> {
  const row: object | undefined = await db('publications').where({ channel_id: channelId, remote_id: remoteId }).first();
  return row ? toPublication(row) : null;
}

/** What of a channel is to be measured by a moment, the longest due first. */
export async function listDueToMeasure(db: Db, channelId: string, nowMs: number, limit: number): Promise<readonly Publication[]> {
  const rows: object[] = await db('publications').where({ channel_id: channelId }).where('next_measure_ms', '<=', nowMs).orderBy('next_measure_ms').limit(limit);
  return rows.map(toPublication);
}

export async function describe(db: Db, id: string, fields: { readonly format: string; readonly themeId: string | null; readonly campaignId: string | null; readonly templateKey: string | null; readonly madeBy: string | null; readonly traits: KeptTraits }): Promise<void> {
  await db('publications').where({ id }).update({ format: fields.format, theme_id: fields.themeId, campaign_id: fields.campaignId, template_key: fields.templateKey, made_by: fields.madeBy, traits: JSON.stringify(fields.traits) });
}

export interface Measured {
  readonly publication: Pick<Publication, 'id' | 'brandId' | 'publishedMs'>;
  readonly atMs: number;
  readonly figures: Figures;
  readonly counted: Readonly<Record<string, number>>;
  readonly nextMs: number | null;
  readonly aged: Publication['aged'];
}

const PARTS_FROM_MS = 20 * 3_600_000;

/** Keeps what was measured of several posts at once, with their latest figures. Measuring the same moment again changes nothing. */
export async function keepMeasured(db: Db, measured: readonly Measured[], machineNowMs: number): Promise<void> {
  await db.transaction(async (trx) => {
    for (const { publication, atMs, figures, counted, nextMs, aged } of measured) {
      const isMeasure = (metric: string): boolean => measureKeys.some((each) => each === metric);
      // Parts, as how far people came in a carousel, are worth keeping by the day.
      const kept = Object.entries(figures).filter(([metric]) => isMeasure(metric) || atMs - publication.publishedMs >= PARTS_FROM_MS);
      const rows = kept.map(([metric, value]) => ({ publication_id: publication.id, metric, at_ms: atMs, value: value ?? 0, counted: counted[metric] ?? 1 }));
      if (rows.length > 0) await trx('measurements').insert(rows).onConflict(['publication_id', 'metric', 'at_ms']).ignore();
      const latest = Object.fromEntries(measureKeys.map((key) => [key, figures[key] ?? null]));
      const parts = Object.fromEntries(Object.entries(figures).filter(([metric]) => !isMeasure(metric)));
      const rateBy = (base: 'reach' | 'impressions'): number | null => {
        const rate = rateOf(figures, base);
        return rate?.rate ?? null;
      };
      await trx('publications')
        .where({ id: publication.id })
        .update({ ...latest, engagement: engagementOf(figures), rate_reach: rateBy('reach'), rate_impressions: rateBy('impressions'), parts: JSON.stringify(parts), aged: JSON.stringify(aged), measured_ms: atMs, next_measure_ms: nextMs });
    }
    const [first] = measured;
    if (first) await noteChange(trx, { brandId: first.publication.brandId, kind: 'results', subjectId: first.publication.id }, machineNowMs);
  });
}

/** Posts whose network tells no figures are not asked about again. */
export async function leaveUnmeasured(db: Db, ids: readonly string[]): Promise<void> {
  await db('publications').whereIn('id', [...ids]).update({ next_measure_ms: null });
}

/** A network knows a post no longer: its figures stay, and are not asked for again. */
export async function stopMeasuring(db: Db, id: string, removedMs: number): Promise<void> {
  await db('publications').where({ id }).update({ next_measure_ms: null, removed_ms: removedMs });
}

/** All that was measured of some posts, by post and metric, in the order of time. */
export async function listMeasurements(db: Db, publicationIds: readonly string[], metrics: readonly string[]): Promise<ReadonlyMap<string, ReadonlyMap<string, readonly Measurement[]>>> {
  const rows: { publication_id: string; metric: string; at_ms: number; value: number; counted: number }[] = await db('measurements').whereIn('publication_id', [...publicationIds]).whereIn('metric', [...metrics]).orderBy(['publication_id', 'metric', 'at_ms']);
  const found = new Map<string, Map<string, Measurement[]>>();
  for (const { publication_id, metric, at_ms, value, counted } of rows) {
    const ofPost = found.get(publication_id) ?? new Map<string, Measurement[]>();
    found.set(publication_id, ofPost);
    ofPost.set(metric, [...(ofPost.get(metric) ?? []), { atMs: Number(at_ms), value: Number(value), counted }]);
  }
  return found;
}

/** Metrics that the figures of an age are worked out from. */
export const agedMetrics: readonly string[] = [...engagementKeys, 'reach', 'impressions'];
