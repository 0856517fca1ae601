import type { Knex } from 'knex';

const BATCH = 500;

/** What each item takes of its brand's room on the disk: its picture, and its clip or sound. */
export async function up(db: Knex): Promise<void> {
  // As a plain statement: the schema builder would make the table anew, and others point to its rows.
  await db.raw('alter table media add column kept_bytes bigint not null default 0');
  for (let after = ''; ; ) {
    const rows: { id: string; bytes: number; recording: string | null }[] = await db('media').where('id', '>', after).orderBy('id').limit(BATCH).select('id', 'bytes', 'recording');
    const last = rows.at(-1);
    if (!last) break;
    for (const { id, bytes, recording } of rows) await db('media').where({ id }).update({ kept_bytes: Number(bytes) + (recording === null ? 0 : (JSON.parse(recording) as { bytes: number }).bytes) });
    after = last.id;
  }
  await db.schema.alterTable('media', (table) => {
    table.index(['brand_id', 'kept_bytes'], 'media_by_room');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('media', (table) => table.dropIndex(['brand_id', 'kept_bytes'], 'media_by_room'));
  await db.raw('alter table media drop column kept_bytes');
}
