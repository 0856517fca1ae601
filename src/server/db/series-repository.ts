import type { Db } from './connection.ts';

/** Pieces that belong together in the plan, in their order. */
export interface Series {
  readonly id: string;
  readonly name: string;
  readonly pieceIds: readonly string[];
}

export async function insertSeries(trx: Db, brandId: string, { id, name, pieceIds }: Series, nowMs: number): Promise<void> {
  await trx('series').insert({ id, brand_id: brandId, name, created_ms: nowMs });
  await trx('series_pieces').insert(pieceIds.map((piece_id, position) => ({ series_id: id, piece_id, position })));
}

/** The series that a piece belongs to; null: none. */
export async function findSeriesOf(db: Db, brandId: string, pieceId: string): Promise<Series | null> {
  const row: { id: string; name: string } | undefined = await db('series_pieces').join('series', 'series.id', 'series_pieces.series_id').where({ brand_id: brandId, piece_id: pieceId }).first('series.id', 'series.name');
  if (!row) return null;
  return { ...row, pieceIds: await db('series_pieces').where({ series_id: row.id }).orderBy('position').pluck('piece_id') };
}
