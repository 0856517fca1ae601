import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';
import { fromRow } from './row.ts';

/** A file that comes in, in parts or at once, until it has been imported. */
export interface PendingUpload {
  readonly id: string;
  readonly brandId: string;
  readonly personId: string;
  readonly name: string;
  readonly bytes: number;
  readonly startedMs: number;
  /** What it has become; null until it is imported. */
  readonly mediaId: string | null;
}

export async function insertUpload(db: Db, upload: Omit<PendingUpload, 'mediaId'>): Promise<void> {
  await db('uploads').insert({ id: upload.id, brand_id: upload.brandId, person_id: upload.personId, name: upload.name, bytes: upload.bytes, started_ms: upload.startedMs });
}

/** An upload of this person to this brand; what others have begun is not theirs to see. */
export async function findUpload(db: Db, brandId: string, personId: string, id: string): Promise<PendingUpload | null> {
  const row: object | undefined = await db('uploads').where({ id, brand_id: brandId, person_id: personId }).first();
  return row ? fromRow<PendingUpload>(row) : null;
}

/** An upload by its id alone, for the work that imports it; null when it was dropped. */
export async function findUploadById(db: Db, id: string): Promise<PendingUpload | null> {
  const row: object | undefined = await db('uploads').where({ id }).first();
  return row ? fromRow<PendingUpload>(row) : null;
}

/** Notes what an upload has become. */
export async function noteImported(db: Db, upload: Pick<PendingUpload, 'id' | 'brandId'>, mediaId: string, machineNowMs: number): Promise<void> {
  await db.transaction(async (trx) => {
    await trx('uploads').where({ id: upload.id }).update({ media_id: mediaId });
    await noteChange(trx, { brandId: upload.brandId, kind: 'upload', subjectId: upload.id }, machineNowMs);
  });
}

export async function deleteUpload(db: Db, id: string): Promise<void> {
  await db('uploads').where({ id }).delete();
}

/** Removes uploads that were begun before a moment and answers their ids. */
export async function takeStaleUploads(db: Db, beforeMs: number): Promise<readonly string[]> {
  const ids: string[] = await db('uploads').where('started_ms', '<', beforeMs).pluck('id');
  await db('uploads').whereIn('id', ids).delete();
  return ids;
}

/** Files that come in to a brand: how many of one person, and the bytes of everybody's. */
export async function sumPendingBytes(db: Db, brandId: string, personId: string): Promise<{ readonly files: number; readonly bytes: number }> {
  const pending = () => db('uploads').where({ brand_id: brandId }).whereNull('media_id');
  const sum = await pending().sum<{ sum: number | string | null }[]>({ sum: 'bytes' }).first();
  const own = await pending().where({ person_id: personId }).count<{ count: number | string }[]>({ count: '*' }).first();
  return { files: Number(own?.count ?? 0), bytes: Number(sum?.sum ?? 0) };
}
