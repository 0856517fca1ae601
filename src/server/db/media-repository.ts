import type { PictureFacts } from '../../core/crop/picture-facts.ts';
import type { Picture } from '../../core/crop/crop-window.ts';
import type { Db } from './connection.ts';

export interface MediaItem {
  readonly id: string;
  readonly brandId: string;
  readonly name: string;
  readonly mime: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly bytes: number;
  readonly sourceHash: string;
  readonly storedHash: string;
  readonly facts: PictureFacts;
  /** Where a person moved the focal point; null leaves the proposal in force. */
  readonly ownFocal: { readonly x: number; readonly y: number } | null;
  readonly altText: string;
  readonly revision: number;
  readonly createdMs: number;
}

interface MediaRow {
  id: string;
  brand_id: string;
  name: string;
  mime: string;
  width_px: number;
  height_px: number;
  bytes: number;
  source_hash: string;
  stored_hash: string;
  facts: string;
  focal_x: number | null;
  focal_y: number | null;
  alt_text: string;
  revision: number;
  created_ms: number;
}

function toItem(row: MediaRow): MediaItem {
  return {
    id: row.id,
    brandId: row.brand_id,
    name: row.name,
    mime: row.mime,
    widthPx: row.width_px,
    heightPx: row.height_px,
    bytes: row.bytes,
    sourceHash: row.source_hash,
    storedHash: row.stored_hash,
    facts: JSON.parse(row.facts),
    ownFocal: row.focal_x !== null && row.focal_y !== null ? { x: row.focal_x, y: row.focal_y } : null,
    altText: row.alt_text,
    revision: row.revision,
    createdMs: row.created_ms,
  };
}

/** What layout has to know of a stored picture. */
export function toPicture(item: MediaItem): Picture {
  return { id: item.id, widthPx: item.widthPx, heightPx: item.heightPx, facts: item.facts, focal: item.ownFocal ?? item.facts.focal, focalBy: item.ownFocal ? 'person' : 'proposal' };
}

/** Inserts an item, or answers the one the brand already has of the same source bytes. */
export async function insertMediaOnce(db: Db, item: MediaItem): Promise<MediaItem> {
  await db('media')
    .insert({
      id: item.id,
      brand_id: item.brandId,
      name: item.name,
      mime: item.mime,
      width_px: item.widthPx,
      height_px: item.heightPx,
      bytes: item.bytes,
      source_hash: item.sourceHash,
      stored_hash: item.storedHash,
      facts: JSON.stringify(item.facts),
      focal_x: item.ownFocal?.x ?? null,
      focal_y: item.ownFocal?.y ?? null,
      alt_text: item.altText,
      created_ms: item.createdMs,
    })
    .onConflict(['brand_id', 'source_hash'])
    .ignore();
  const row = await db<MediaRow>('media').where({ brand_id: item.brandId, source_hash: item.sourceHash }).first();
  if (!row) throw new Error(`Picture '${item.id}' was not kept`);
  return toItem(row);
}

export async function findMediaBySource(db: Db, brandId: string, sourceHash: string): Promise<MediaItem | null> {
  const row = await db<MediaRow>('media').where({ brand_id: brandId, source_hash: sourceHash }).first();
  return row ? toItem(row) : null;
}

export async function findMedia(db: Db, brandId: string, id: string): Promise<MediaItem | null> {
  const row = await db<MediaRow>('media').where({ brand_id: brandId, id }).first();
  return row ? toItem(row) : null;
}

export async function findMediaByIds(db: Db, brandId: string, ids: readonly string[]): Promise<readonly MediaItem[]> {
  return (await db<MediaRow>('media').where({ brand_id: brandId }).whereIn('id', [...ids])).map(toItem);
}

export async function pageMedia(db: Db, brandId: string, page: { readonly before: { readonly ms: number; readonly id: string } | null; readonly limit: number }): Promise<readonly MediaItem[]> {
  const query = db<MediaRow>('media').where({ brand_id: brandId }).orderBy([{ column: 'created_ms', order: 'desc' }, { column: 'id', order: 'desc' }]).limit(page.limit);
  if (page.before) query.whereRaw('(created_ms, id) < (?, ?)', [page.before.ms, page.before.id]);
  return (await query).map(toItem);
}

/** Changes an item if it is still at `revision`; null when it is not. */
export async function updateMedia(
  db: Db,
  brandId: string,
  id: string,
  revision: number,
  change: { readonly focal?: { readonly x: number; readonly y: number } | null; readonly altText?: string },
): Promise<MediaItem | null> {
  const fields = {
    ...(change.focal === undefined ? {} : { focal_x: change.focal?.x ?? null, focal_y: change.focal?.y ?? null }),
    ...(change.altText === undefined ? {} : { alt_text: change.altText }),
  };
  const [row] = await db<MediaRow>('media').where({ brand_id: brandId, id, revision }).update({ ...fields, revision: revision + 1 }).returning('*');
  return row ? toItem(row) : null;
}
