import type { Waiting } from '../../core/plan/forecast.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';

/** A piece that waits for a slot of a channel, with what lists say of it. */
export interface QueueEntry extends Waiting {
  readonly placement: string;
  readonly pieceName: string;
  readonly kind: 'graphic' | 'carousel' | 'video';
  readonly addedBy: string;
}

interface EntryRow {
  id: string;
  piece_id: string;
  channel_id: string;
  placement: string;
  name: string;
  kind: QueueEntry['kind'];
  template_key: string;
  theme_id: string | null;
  added_by: string;
}

/** Values of one statement: engines limit them. */
const BATCH = 500;

/** All that waits, channel by channel, in its order; of one channel when it is named. */
export async function listQueue(db: Db, brandId: string, channelId: string | null = null): Promise<readonly QueueEntry[]> {
  const query = db('queue_entries')
    .join('pieces', 'pieces.id', 'queue_entries.piece_id')
    .leftJoin('piece_plans', 'piece_plans.piece_id', 'queue_entries.piece_id')
    .where({ 'queue_entries.brand_id': brandId })
    .whereNot('pieces.shelf', 'deleted')
    .orderBy([{ column: 'queue_entries.channel_id' }, { column: 'queue_entries.position' }, { column: 'queue_entries.id' }])
    .select('queue_entries.id', 'queue_entries.piece_id', 'queue_entries.channel_id', 'queue_entries.placement', 'pieces.name', 'pieces.kind', 'pieces.template_key', 'piece_plans.theme_id', 'queue_entries.added_by');
  if (channelId !== null) query.where({ 'queue_entries.channel_id': channelId });
  const rows: EntryRow[] = await query;
  const media = await mediaOfPieces(db, rows.map(({ piece_id }) => piece_id));
  return rows.map((row) => ({ id: row.id, pieceId: row.piece_id, channelId: row.channel_id, placement: row.placement, pieceName: row.name, kind: row.kind, addedBy: row.added_by, template: row.template_key, themeId: row.theme_id, mediaIds: media.get(row.piece_id) ?? [] }));
}

/** The pictures, clips and sounds of pieces, by their ids. */
export async function mediaOfPieces(db: Db, pieceIds: readonly string[]): Promise<ReadonlyMap<string, readonly string[]>> {
  const ids = [...new Set(pieceIds)];
  const found = new Map<string, string[]>();
  for (let start = 0; start < ids.length; start += BATCH) {
    const rows: { piece_id: string; media_id: string }[] = await db('piece_media').whereIn('piece_id', ids.slice(start, start + BATCH)).select('piece_id', 'media_id');
    for (const { piece_id, media_id } of rows) {
      const list = found.get(piece_id);
      if (list) list.push(media_id);
      else found.set(piece_id, [media_id]);
    }
  }
  return found;
}

export interface NewQueueEntry {
  readonly id: string;
  readonly channelId: string;
  readonly placement: string;
}

/** Adds a piece to the ends of queues; where it waits already it stays. Answers the channels that it was added on. */
export async function addToQueue(db: Db, brandId: string, pieceId: string, entries: readonly NewQueueEntry[], personId: string, machineNowMs: number): Promise<readonly string[]> {
  return db.transaction(async (trx) => {
    const added: string[] = [];
    for (const { id, channelId, placement } of entries) {
      const last = trx('queue_entries').where({ brand_id: brandId, channel_id: channelId }).select(trx.raw('coalesce(max(position), 0) + 1'));
      const rows: unknown[] = await trx('queue_entries').insert({ id, brand_id: brandId, channel_id: channelId, piece_id: pieceId, placement, position: last as unknown as number, added_by: personId, added_ms: machineNowMs }).onConflict(['channel_id', 'piece_id']).ignore().returning('id');
      if (rows.length > 0) added.push(channelId);
    }
    if (added.length > 0) await noteChange(trx, { brandId, kind: 'queue', subjectId: pieceId }, machineNowMs);
    return added;
  });
}

export async function removeFromQueue(trx: Db, brandId: string, ids: readonly string[], machineNowMs: number): Promise<number> {
  const removed = await trx('queue_entries').where({ brand_id: brandId }).whereIn('id', [...ids]).delete();
  if (removed > 0) await noteChange(trx, { brandId, kind: 'queue', subjectId: ids[0] ?? '' }, machineNowMs);
  return removed;
}

/** Writes the order of a channel's queue; false when other entries wait there by now. */
export async function orderQueue(db: Db, brandId: string, channelId: string, order: readonly string[], machineNowMs: number): Promise<boolean> {
  return db.transaction(async (trx) => {
    // Written first, so that no transaction reads before it writes.
    await noteChange(trx, { brandId, kind: 'queue', subjectId: channelId }, machineNowMs);
    const now: string[] = await trx('queue_entries').where({ brand_id: brandId, channel_id: channelId }).pluck('id');
    if (now.length !== order.length || !now.every((id) => order.includes(id))) return false;
    for (const [index, id] of order.entries()) await trx('queue_entries').where({ id }).update({ position: index + 1 });
    return true;
  });
}
