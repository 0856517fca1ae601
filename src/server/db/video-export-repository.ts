import type { VideoFormatName } from '../../contract/video-contracts.ts';
import type { VideoMeasures } from '../../core/video/video-measures.ts';
import type { Db } from './connection.ts';
import { fromRow } from './row.ts';

/** A cut of a video that is made into a file; how far that is, its job knows. */
export interface VideoExport {
  readonly id: string;
  readonly brandId: string;
  readonly pieceId: string;
  readonly channelId: string;
  readonly placement: string;
  readonly format: VideoFormatName;
  /** The document that names everything it is made of. */
  readonly pin: string;
  readonly createdMs: number;
  /** What was measured on it, once it is made. */
  readonly measures: VideoMeasures | null;
}

const toExport = (row: object): VideoExport => {
  const found = fromRow<Omit<VideoExport, 'measures'> & { readonly measures: string | null }>(row);
  return { ...found, measures: found.measures === null ? null : (JSON.parse(found.measures) as VideoMeasures) };
};

/** Exports of a piece that are shown. */
const MAX_LISTED = 40;

export async function insertVideoExport(trx: Db, made: Omit<VideoExport, 'measures'>): Promise<void> {
  await trx('video_exports').insert({ id: made.id, brand_id: made.brandId, piece_id: made.pieceId, channel_id: made.channelId, placement: made.placement, format: made.format, pin: made.pin, created_ms: made.createdMs });
}

/** The latest exports of a piece, the newest first. */
export async function listVideoExportsOf(db: Db, pieceId: string): Promise<readonly VideoExport[]> {
  const rows: object[] = await db('video_exports').where({ piece_id: pieceId }).orderBy([{ column: 'created_ms', order: 'desc' }, { column: 'id', order: 'desc' }]).limit(MAX_LISTED);
  return rows.map(toExport);
}

export async function findVideoExport(db: Db, pieceId: string, id: string): Promise<VideoExport | null> {
  const row: object | undefined = await db('video_exports').where({ piece_id: pieceId, id }).first();
  return row ? toExport(row) : null;
}

/** @throws RangeError when there is no such export */
export async function getVideoExport(db: Db, id: string): Promise<VideoExport> {
  const row: object | undefined = await db('video_exports').where({ id }).first();
  if (!row) throw new RangeError(`There is no export '${id}'`);
  return toExport(row);
}

export async function noteVideoMeasures(db: Db, id: string, measures: VideoMeasures): Promise<void> {
  await db('video_exports').where({ id }).update({ measures: JSON.stringify(measures) });
}
