import type { Db } from './connection.ts';

/** A typeface file that a brand has imported. */
export interface KeptTypeface {
  readonly hash: string;
  readonly family: string;
  readonly weight: number;
}

export async function keepTypeface(db: Db, brandId: string, typeface: KeptTypeface, nowMs: number): Promise<void> {
  await db('typefaces').insert({ brand_id: brandId, ...typeface, created_ms: nowMs }).onConflict(['brand_id', 'hash']).ignore();
}

/** Whether a brand has imported each of these files. */
export async function hasTypefaces(db: Db, brandId: string, hashes: readonly string[]): Promise<boolean> {
  const rows = await db('typefaces').where({ brand_id: brandId }).whereIn('hash', [...hashes]).select('hash');
  return rows.length === new Set(hashes).size;
}

/** Removes a typeface from a brand; its file stays, as other brands may use it. */
export async function dropTypeface(db: Db, brandId: string, hash: string): Promise<void> {
  await db('typefaces').where({ brand_id: brandId, hash }).delete();
}
