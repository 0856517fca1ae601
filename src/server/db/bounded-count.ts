import type { Knex } from 'knex';
import type { Db } from './connection.ts';

/** Counts stop here: nobody needs to know whether it is 4,000 or 40,000, and finding out costs more with every row. */
export const MAX_COUNTED = 1_000;

/** The number of rows of a query, at most `MAX_COUNTED`. */
export async function boundedCount(db: Db, query: Knex.QueryBuilder): Promise<number> {
  const row: { count: number | string } | undefined = await db.from(query.clone().select(db.raw('1 as one')).limit(MAX_COUNTED).as('counted')).count({ count: '*' }).first();
  return Number(row?.count ?? 0);
}
