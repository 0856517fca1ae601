import type { Db } from './connection.ts';
import { fromRow } from './row.ts';

/** A file that comes in parts. */
export interface PendingUpload {
  readonly id: string;
  readonly brandId: string;
  readonly personId: string;
  readonly name: string;
  readonly bytes: number;
  readonly startedMs: number;
}

export async function insertUpload(db: Db, upload: PendingUpload): Promise<void> {
  await db('uploads').insert({ id: upload.id, brand_id: upload.brandId, person_id: upload.personId, name: upload.name, bytes: upload.bytes, started_ms: upload.startedMs });
}

/** An upload of this person to this brand; what others have begun is not theirs to see. */
export async function findUpload(db: Db, brandId: string, personId: string, id: string): Promise<PendingUpload | null> {
  const row = await db('uploads').where({ id, brand_id: brandId, person_id: personId }).first();
  return row ? fromRow<PendingUpload>(row) : null;
}

export async function deleteUpload(db: Db, id: string): Promise<void> {
  await db('uploads').where({ id }).delete();
}

/** Takes uploads that were begun before a moment out of the list and answers their ids. */
export async function takeStaleUploads(db: Db, beforeMs: number): Promise<readonly string[]> {
  return db.transaction(async (trx) => {
    const rows = await trx('uploads').where('started_ms', '<', beforeMs).select('id');
    await trx('uploads').whereIn('id', rows.map((row: { id: string }) => row.id)).delete();
    return rows.map((row: { id: string }) => row.id);
  });
}
