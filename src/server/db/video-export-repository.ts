import type { VideoFormatName } from '../../contract/video-contracts.ts';
import { videoExportEvents, type VideoExportEvent, type VideoExportState } from '../../core/post/video-export-state.ts';
import type { VideoMeasures } from '../../core/video/video-measures.ts';
import type { Snapshot } from '../../core/post/snapshot.ts';
import type { Db } from './connection.ts';
import { fromRow } from './row.ts';

/** A cut of a video that is made into a file, without what it is made of. */
export interface VideoExport {
  readonly id: string;
  readonly brandId: string;
  readonly pieceId: string;
  readonly channelId: string;
  readonly placement: string;
  readonly format: VideoFormatName;
  readonly state: VideoExportState;
  /** How much is done, in [0, 1]. */
  readonly share: number;
  readonly problem: string | null;
  readonly createdMs: number;
  readonly begunMs: number | null;
  /** What was measured on it, once it is made. */
  readonly measures: VideoMeasures | null;
}

const toExport = (row: object): VideoExport => {
  const found = fromRow<VideoExport & { readonly measures: string | null }>(row);
  return { ...found, measures: found.measures === null ? null : (JSON.parse(found.measures) as VideoMeasures) };
};

const COLUMNS = ['id', 'brand_id', 'piece_id', 'channel_id', 'placement', 'format', 'state', 'share', 'problem', 'created_ms', 'begun_ms', 'measures'];
/** Exports of a piece that are shown. */
const MAX_LISTED = 40;

export async function insertVideoExport(db: Db, made: Pick<VideoExport, 'id' | 'brandId' | 'pieceId' | 'channelId' | 'placement' | 'format' | 'createdMs'>, snapshot: Snapshot): Promise<void> {
  await db('video_exports').insert({ id: made.id, brand_id: made.brandId, piece_id: made.pieceId, channel_id: made.channelId, placement: made.placement, format: made.format, state: 'waiting', snapshot: JSON.stringify(snapshot), created_ms: made.createdMs });
}

export async function listVideoExportsOf(db: Db, pieceId: string): Promise<readonly VideoExport[]> {
  const rows = await db('video_exports').where({ piece_id: pieceId }).orderBy([{ column: 'created_ms', order: 'desc' }, { column: 'id', order: 'desc' }]).limit(MAX_LISTED).select(COLUMNS);
  return rows.map((row: Record<string, unknown>) => toExport(row));
}

export async function findVideoExport(db: Db, pieceId: string, id: string): Promise<VideoExport | null> {
  const row = await db('video_exports').where({ piece_id: pieceId, id }).first(COLUMNS);
  return row ? toExport(row) : null;
}

export async function snapshotOfVideoExport(db: Db, id: string): Promise<Snapshot> {
  const row = await db('video_exports').where({ id }).first('snapshot');
  if (!row) throw new RangeError(`There is no export '${id}'`);
  return JSON.parse(row.snapshot) as Snapshot;
}

/** Takes the one that has waited longest; null when none waits. */
export async function claimVideoExport(db: Db, machineNowMs: number): Promise<VideoExport | null> {
  const { from, to } = videoExportEvents.begin;
  const next = db('video_exports').whereIn('state', [...from]).orderBy([{ column: 'created_ms' }, { column: 'id' }]).limit(1).select('id');
  const [row] = await db('video_exports').whereIn('id', next).whereIn('state', [...from]).update({ state: to, begun_ms: machineNowMs, share: 0 }).returning(COLUMNS);
  return row ? toExport(row) : null;
}

/** Moves an export on, if its state allows it; false when it does not. */
export async function moveVideoExport(db: Db, id: string, event: VideoExportEvent, problem: string | null = null): Promise<boolean> {
  const { from, to } = videoExportEvents[event];
  return (await db('video_exports').where({ id }).whereIn('state', [...from]).update({ state: to, problem, ...(to === 'made' ? { share: 1 } : {}) })) > 0;
}

export async function noteVideoMeasures(db: Db, id: string, measures: VideoMeasures): Promise<void> {
  await db('video_exports').where({ id }).update({ measures: JSON.stringify(measures) });
}

export async function noteVideoShare(db: Db, id: string, share: number): Promise<void> {
  await db('video_exports').where({ id, state: 'making' }).update({ share });
}

/** What was being made when the process ended is made again. */
export async function restartVideoExports(db: Db): Promise<void> {
  const { from, to } = videoExportEvents.restart;
  await db('video_exports').whereIn('state', [...from]).update({ state: to, share: 0 });
}
