import type { Knex } from 'knex';
import { MAX_COUNTED } from '../../contract/contract.ts';
import type { Db } from './connection.ts';

/** The number of rows of a query, at most `MAX_COUNTED`. */
export async function boundedCount(db: Db, query: Knex.QueryBuilder): Promise<number> {
  const row: { count: number | string } | undefined = await db.from(query.clone().select(db.raw('1 as one')).limit(MAX_COUNTED).as('counted')).count({ count: '*' }).first();
  return Number(row?.count ?? 0);
}
