import type { Db } from './connection.ts';

/** The place behind all rows of a table: lists show rows in the order in which they came. */
export async function nextPosition(db: Db, table: 'brands' | 'people' | 'memberships'): Promise<number> {
  const row = await db(table).max('position as last').first();
  return Number(row?.['last'] ?? 0) + 1;
}
