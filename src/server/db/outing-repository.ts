import type { PieceKind } from '../../core/piece/piece.ts';
import type { DeliveryState } from '../../core/post/delivery-state.ts';
import type { Db } from './connection.ts';

/** A delivery as the plan shows it: little enough that thousands of them are one answer. */
export interface PlannedOuting {
  readonly id: string;
  readonly postId: string;
  readonly pieceId: string;
  readonly pieceName: string;
  readonly kind: PieceKind;
  readonly template: string;
  readonly channelId: string;
  readonly placement: string;
  readonly state: DeliveryState;
  readonly dueMs: number;
  readonly wall: string;
  readonly origin: 'person' | 'slot' | 'rotation' | 'repeat';
  readonly themeId: string | null;
  readonly campaignId: string | null;
  readonly createdBy: string;
  readonly hasChanged: boolean;
  readonly problem: string | null;
}

export interface OutingFilter {
  readonly fromMs: number;
  readonly toMs: number;
  readonly limit: number;
  readonly channelIds?: readonly string[] | undefined;
  readonly states?: readonly DeliveryState[] | undefined;
  readonly kind?: PieceKind | undefined;
  readonly themeId?: string | undefined;
  readonly campaignId?: string | undefined;
  readonly label?: string | undefined;
  readonly personId?: string | undefined;
}

interface OutingRow {
  id: string;
  post_id: string;
  piece_id: string;
  piece_name: string;
  kind: PieceKind;
  template_key: string;
  channel_id: string;
  placement: string;
  state: DeliveryState;
  due_ms: number;
  wall: string;
  origin: PlannedOuting['origin'];
  theme_id: string | null;
  campaign_id: string | null;
  created_by: string;
  piece_hash: string;
  current_hash: string;
  problem: string | null;
}

const COLUMNS = ['deliveries.id', 'deliveries.post_id', 'posts.piece_id', 'posts.piece_name', 'posts.kind', 'pieces.template_key', 'deliveries.channel_id', 'deliveries.placement', 'deliveries.state', 'deliveries.due_ms', 'posts.wall', 'posts.origin', 'posts.theme_id', 'posts.campaign_id', 'posts.created_by', 'posts.piece_hash', 'pieces.hash as current_hash', 'deliveries.problem'];

const toOuting = (row: OutingRow): PlannedOuting => ({
  id: row.id,
  postId: row.post_id,
  pieceId: row.piece_id,
  pieceName: row.piece_name,
  kind: row.kind,
  template: row.template_key,
  channelId: row.channel_id,
  placement: row.placement,
  state: row.state,
  dueMs: Number(row.due_ms),
  wall: row.wall,
  origin: row.origin,
  themeId: row.theme_id,
  campaignId: row.campaign_id,
  createdBy: row.created_by,
  hasChanged: row.piece_hash !== row.current_hash && (row.state === 'scheduled' || row.state === 'held'),
  problem: row.problem,
});

/** What goes out or went out in [fromMs, toMs), the earliest first; what was cancelled is not part of the plan. */
export async function listOutings(db: Db, brandId: string, filter: OutingFilter): Promise<readonly PlannedOuting[]> {
  const query = db('deliveries')
    .join('posts', 'posts.id', 'deliveries.post_id')
    .join('pieces', 'pieces.id', 'posts.piece_id')
    .where({ 'deliveries.brand_id': brandId })
    .where('deliveries.due_ms', '>=', filter.fromMs)
    .where('deliveries.due_ms', '<', filter.toMs)
    .orderBy([{ column: 'deliveries.due_ms' }, { column: 'deliveries.id' }])
    .limit(filter.limit)
    .select(COLUMNS);
  if (filter.states) query.whereIn('deliveries.state', [...filter.states]);
  else query.whereNot('deliveries.state', 'cancelled');
  if (filter.channelIds) query.whereIn('deliveries.channel_id', [...filter.channelIds]);
  if (filter.kind) query.where('posts.kind', filter.kind);
  if (filter.themeId) query.where('posts.theme_id', filter.themeId);
  if (filter.campaignId) query.where('posts.campaign_id', filter.campaignId);
  if (filter.personId) query.where('posts.created_by', filter.personId);
  if (filter.label) query.whereIn('posts.piece_id', db('piece_labels').where({ brand_id: brandId, label_key: filter.label.toLocaleLowerCase('en') }).select('piece_id'));
  return ((await query) as OutingRow[]).map(toOuting);
}

/** Pictures, clips and sounds of posts, by their ids. */
export async function mediaOfPosts(db: Db, brandId: string, fromMs: number, toMs: number): Promise<ReadonlyMap<string, readonly string[]>> {
  const rows: { post_id: string; media_id: string }[] = await db('post_media').join('posts', 'posts.id', 'post_media.post_id').where({ brand_id: brandId }).where('due_ms', '>=', fromMs).where('due_ms', '<', toMs).select('post_id', 'media_id');
  const found = new Map<string, string[]>();
  for (const { post_id, media_id } of rows) {
    const list = found.get(post_id);
    if (list) list.push(media_id);
    else found.set(post_id, [media_id]);
  }
  return found;
}

/** The last outings of a channel before a moment, the latest first. */
export async function listLastOutings(db: Db, brandId: string, channelId: string, beforeMs: number, limit: number): Promise<readonly PlannedOuting[]> {
  const rows: OutingRow[] = await db('deliveries')
    .join('posts', 'posts.id', 'deliveries.post_id')
    .join('pieces', 'pieces.id', 'posts.piece_id')
    .where({ 'deliveries.brand_id': brandId, 'deliveries.channel_id': channelId })
    .whereNot('deliveries.state', 'cancelled')
    .where('deliveries.due_ms', '<', beforeMs)
    .orderBy([{ column: 'deliveries.due_ms', order: 'desc' }, { column: 'deliveries.id', order: 'desc' }])
    .limit(limit)
    .select(COLUMNS);
  return rows.map(toOuting);
}
