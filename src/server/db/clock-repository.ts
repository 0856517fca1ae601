import type { Db } from './connection.ts';

const OFFSET_KEY = 'clock-offset-ms';

/** How far the product's clock is ahead of the machine's, in milliseconds; 0 outside the demo. */
export async function readClockOffsetMs(db: Db): Promise<number> {
  const row = await db<{ key: string; value: string }>('settings').where({ key: OFFSET_KEY }).first();
  return row ? Number(row.value) : 0;
}

/** Moves the product's clock forward and answers the new offset. */
export async function addClockOffsetMs(db: Db, forwardMs: number): Promise<number> {
  await db('settings')
    .insert({ key: OFFSET_KEY, value: String(forwardMs) })
    .onConflict('key')
    .merge({ value: db.raw('CAST(CAST(?? AS BIGINT) + ? AS TEXT)', ['settings.value', forwardMs]) });
  return readClockOffsetMs(db);
}
