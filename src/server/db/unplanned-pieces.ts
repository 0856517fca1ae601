import type { Db } from './connection.ts';
import { mediaOfPieces } from './queue-repository.ts';

/** A piece in use that nobody has planned yet. */
export interface UnplannedPiece {
  readonly id: string;
  readonly name: string;
  readonly template: string;
  readonly themeId: string | null;
  readonly mediaIds: readonly string[];
  /** Channels that it has a cut for. */
  readonly channelIds: readonly string[];
}

/** Pieces in use that never went out, that no post, draft, queue or rotation holds, the last changed first. */
export async function listUnplannedPieces(db: Db, brandId: string, limit: number): Promise<readonly UnplannedPiece[]> {
  const holds = (table: string) => db(table).select(db.raw('1')).whereRaw('?? = ??', [`${table}.piece_id`, 'pieces.id']);
  const rows: { id: string; name: string; template_key: string; theme_id: string | null; body: string }[] = await db('pieces')
    .join('documents', 'documents.hash', 'pieces.hash')
    .leftJoin('piece_plans', 'piece_plans.piece_id', 'pieces.id')
    .where({ 'pieces.brand_id': brandId, shelf: 'use' })
    .whereNotExists(holds('posts').whereNot('posts.state', 'cancelled'))
    .whereNotExists(holds('plan_entries'))
    .whereNotExists(holds('queue_entries'))
    .whereNotExists(holds('rotations'))
    .orderBy([{ column: 'pieces.updated_ms', order: 'desc' }, { column: 'pieces.id' }])
    .limit(limit)
    .select('pieces.id', 'pieces.name', 'pieces.template_key', 'piece_plans.theme_id', 'documents.body');
  const media = await mediaOfPieces(db, rows.map(({ id }) => id));
  return rows.map((row) => ({ id: row.id, name: row.name, template: row.template_key, themeId: row.theme_id, mediaIds: media.get(row.id) ?? [], channelIds: [...new Set((JSON.parse(row.body) as { readonly cuts: readonly { readonly channelId: string }[] }).cuts.map(({ channelId }) => channelId))] }));
}
