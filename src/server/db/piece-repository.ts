import { pieceName, type Piece } from '../../core/piece/piece.ts';
import type { Db } from './connection.ts';

export interface StoredPiece {
  readonly id: string;
  readonly brandId: string;
  readonly document: Piece;
  readonly revision: number;
  readonly updatedMs: number;
}

interface PieceRow {
  id: string;
  brand_id: string;
  document: string;
  revision: number;
  updated_ms: number;
}

function toPiece(row: PieceRow): StoredPiece {
  return { id: row.id, brandId: row.brand_id, document: JSON.parse(row.document), revision: row.revision, updatedMs: row.updated_ms };
}

export async function insertPiece(db: Db, piece: { readonly id: string; readonly brandId: string; readonly document: Piece; readonly createdBy: string }, nowMs: number): Promise<StoredPiece> {
  const [row] = await db('pieces')
    .insert({
      id: piece.id,
      brand_id: piece.brandId,
      name: pieceName(piece.document),
      document: JSON.stringify(piece.document),
      created_by: piece.createdBy,
      created_ms: nowMs,
      updated_ms: nowMs,
    })
    .returning('*');
  return toPiece(row);
}

export async function findPiece(db: Db, brandId: string, id: string): Promise<StoredPiece | null> {
  const row = await db<PieceRow>('pieces').where({ brand_id: brandId, id }).first();
  return row ? toPiece(row) : null;
}

/** Saves a document if the piece is still at `revision`; null when somebody saved in between. */
export async function savePiece(db: Db, brandId: string, id: string, revision: number, document: Piece, nowMs: number): Promise<StoredPiece | null> {
  const [row] = await db<PieceRow & { name: string }>('pieces')
    .where({ brand_id: brandId, id, revision })
    .update({ document: JSON.stringify(document), name: pieceName(document), revision: revision + 1, updated_ms: nowMs })
    .returning('*');
  return row ? toPiece(row) : null;
}

export interface PieceSummary {
  readonly id: string;
  readonly name: string;
  readonly template: string;
  readonly revision: number;
  readonly updatedMs: number;
  readonly cuts: number;
  readonly scheduled: number;
  readonly sent: number;
}

export async function pagePieces(db: Db, brandId: string, page: { readonly before: { readonly ms: number; readonly id: string } | null; readonly limit: number }): Promise<readonly PieceSummary[]> {
  const countOf = (state: string) => db('deliveries').count('*').whereRaw('deliveries.piece_id = pieces.id').where({ state });
  const query = db('pieces')
    .where({ brand_id: brandId })
    .select('id', 'name', 'revision', 'updated_ms')
    .select(db.raw("json_extract(document, '$.template.key') as template, json_array_length(document, '$.cuts') as cuts"))
    .select(countOf('scheduled').as('scheduled'), countOf('sent').as('sent'))
    .orderBy([{ column: 'updated_ms', order: 'desc' }, { column: 'id', order: 'desc' }])
    .limit(page.limit);
  if (page.before) query.whereRaw('(updated_ms, id) < (?, ?)', [page.before.ms, page.before.id]);
  const rows = await query;
  return rows.map((row) => ({ id: row.id, name: row.name, template: row.template, revision: row.revision, updatedMs: row.updated_ms, cuts: row.cuts, scheduled: row.scheduled, sent: row.sent }));
}

/** Pieces with a slot that shows a picture. */
export async function findPiecesShowing(db: Db, brandId: string, mediaId: string): Promise<readonly { readonly id: string; readonly name: string }[]> {
  return db('pieces')
    .where({ brand_id: brandId })
    .whereRaw("exists (select 1 from json_tree(pieces.document, '$.frames') where json_tree.key = 'mediaId' and json_tree.atom = ?)", [mediaId])
    .select('id', 'name')
    .orderBy('updated_ms', 'desc')
    .limit(100);
}
