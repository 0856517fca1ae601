import type { PictureFacts } from '../../core/crop/picture-facts.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';

/** A picture whose subject nobody has looked for yet. */
export interface OutlineDue {
  readonly id: string;
  readonly brandId: string;
  readonly storedHash: string;
  readonly facts: PictureFacts;
}

export async function listOutlinesDue(db: Db, limit: number): Promise<readonly OutlineDue[]> {
  const rows: { id: string; brand_id: string; stored_hash: string; facts: string }[] = await db('media').where({ outline_due: 1 }).orderBy('id').limit(limit).select('id', 'brand_id', 'stored_hash', 'facts');
  return rows.map((row) => ({ id: row.id, brandId: row.brand_id, storedHash: row.stored_hash, facts: JSON.parse(row.facts) as PictureFacts }));
}

/** Keeps what was found. Another file that took its place meanwhile has brought its own. */
export async function keepOutline(db: Db, { id, brandId, storedHash, facts }: OutlineDue, found: Required<Pick<PictureFacts, 'outline' | 'things'>>, machineNowMs: number): Promise<void> {
  await db.transaction(async (trx) => {
    const kept = await trx('media').where({ id, stored_hash: storedHash }).update({ facts: JSON.stringify({ ...facts, ...found }), outline_due: 0 });
    if (kept === 0) await trx('media').where({ id }).update({ outline_due: 0 });
    else await noteChange(trx, { brandId, kind: 'media', subjectId: id }, machineNowMs);
  });
}
