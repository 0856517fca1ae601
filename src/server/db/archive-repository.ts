import type { ArchiveState } from '../../contract/archive-contracts.ts';
import type { PieceKind } from '../../core/piece/piece.ts';
import type { Words } from '../../core/words/fields.ts';
import type { Db } from './connection.ts';

export interface ArchiveFilter {
  readonly words: readonly string[];
  readonly states: readonly ArchiveState[];
  readonly kind: PieceKind | null;
  readonly channelIds: readonly string[] | null;
  readonly before: { readonly ms: number; readonly id: string } | null;
  readonly limit: number;
}

/** Something that is over: out, taken down, failed or cancelled. */
export interface ArchiveItem {
  readonly deliveryId: string;
  readonly postId: string;
  readonly pieceId: string;
  readonly pieceName: string;
  readonly kind: PieceKind;
  readonly channelId: string;
  readonly placementName: string;
  readonly state: ArchiveState;
  readonly atMs: number;
  readonly dueMs: number;
  readonly address: string | null;
  readonly caption: string;
  readonly publicationId: string | null;
}

/** A page of what is over, the latest due first. Words are looked for in the words that went out and in the name of the piece, whatever their case. */
export async function pageArchive(db: Db, brandId: string, { words, states, kind, channelIds, before, limit }: ArchiveFilter): Promise<readonly ArchiveItem[]> {
  const query = db('deliveries')
    .join('posts', 'posts.id', 'deliveries.post_id')
    .leftJoin('publications', 'publications.delivery_id', 'deliveries.id')
    .where('deliveries.brand_id', brandId)
    .whereIn('deliveries.state', [...states])
    .orderBy([{ column: 'deliveries.due_ms', order: 'desc' }, { column: 'deliveries.id', order: 'desc' }])
    .limit(limit)
    .select('deliveries.id', 'deliveries.post_id', 'deliveries.channel_id', 'deliveries.placement_name', 'deliveries.state', 'deliveries.sent_ms', 'deliveries.due_ms', 'deliveries.address', 'deliveries.words', 'posts.piece_id', 'posts.piece_name', 'posts.kind', 'publications.id as publication_id');
  if (kind) query.where('posts.kind', kind);
  if (channelIds) query.whereIn('deliveries.channel_id', [...channelIds]);
  for (const word of words) {
    const pattern = `%${word.toLowerCase().replace(/[%_\\]/g, '')}%`;
    query.where((either) => either.whereRaw('lower(deliveries.words) like ?', [pattern]).orWhereRaw('lower(posts.piece_name) like ?', [pattern]));
  }
  if (before) query.whereRaw('(deliveries.due_ms, deliveries.id) < (?, ?)', [before.ms, before.id]);
  const rows: { id: string; post_id: string; channel_id: string; placement_name: string; state: ArchiveState; sent_ms: number | null; due_ms: number; address: string | null; words: string; piece_id: string; piece_name: string; kind: PieceKind; publication_id: string | null }[] = await query;
  return rows.map((row) => ({ deliveryId: row.id, postId: row.post_id, pieceId: row.piece_id, pieceName: row.piece_name, kind: row.kind, channelId: row.channel_id, placementName: row.placement_name, state: row.state, atMs: Number(row.sent_ms ?? row.due_ms), dueMs: Number(row.due_ms), address: row.address, caption: (JSON.parse(row.words) as Words).caption ?? '', publicationId: row.publication_id }));
}
