import type { Boilerplate } from '../../core/ideas/boilerplate.ts';
import type { Db } from './connection.ts';

export interface StoredBoilerplate extends Boilerplate {
  readonly id: string;
  readonly name: string;
}

interface BoilerplateRow {
  id: string;
  name: string;
  document: string;
}

const toBoilerplate = ({ id, name, document }: BoilerplateRow): StoredBoilerplate => ({ id, name, ...(JSON.parse(document) as Boilerplate) });

export async function listBoilerplates(db: Db, brandId: string): Promise<readonly StoredBoilerplate[]> {
  return ((await db('boilerplates').where({ brand_id: brandId }).orderBy('name').limit(200)) as BoilerplateRow[]).map(toBoilerplate);
}

export async function findBoilerplate(db: Db, brandId: string, id: string): Promise<StoredBoilerplate | null> {
  const row: BoilerplateRow | undefined = await db('boilerplates').where({ brand_id: brandId, id }).first();
  return row ? toBoilerplate(row) : null;
}

export async function insertBoilerplate(db: Db, brandId: string, { id, name, ...document }: StoredBoilerplate, personId: string, nowMs: number): Promise<void> {
  await db('boilerplates').insert({ id, brand_id: brandId, name, document: JSON.stringify(document), created_by: personId, created_ms: nowMs });
}

export async function deleteBoilerplate(db: Db, brandId: string, id: string): Promise<boolean> {
  return (await db('boilerplates').where({ brand_id: brandId, id }).delete()) > 0;
}
