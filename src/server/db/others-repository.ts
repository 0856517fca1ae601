import type { Db } from './connection.ts';

/** A public account that a brand looks at beside its own. */
export interface Other {
  readonly network: string;
  readonly handle: string;
  readonly name: string;
}

export async function listOthersOf(db: Db, brandId: string): Promise<readonly Other[]> {
  return db('others').where({ brand_id: brandId }).orderBy(['network_key', 'name']).select('network_key as network', 'handle', 'name');
}

export async function keepOther(db: Db, brandId: string, { network, handle, name }: Other): Promise<void> {
  await db('others').insert({ brand_id: brandId, network_key: network, handle, name }).onConflict(['brand_id', 'network_key', 'handle']).merge(['name']);
}

export async function removeOther(db: Db, brandId: string, { network, handle }: Pick<Other, 'network' | 'handle'>): Promise<boolean> {
  return (await db('others').where({ brand_id: brandId, network_key: network, handle }).delete()) > 0;
}
