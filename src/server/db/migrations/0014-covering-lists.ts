import type { Knex } from 'knex';

/** Indexes that answer a question by themselves, without a look at each row of the table, in the place of those that do not. */
const COVERING = [
  { table: 'media_words', before: ['media_id'], after: ['media_id', 'word'] },
  { table: 'post_media', before: ['media_id'], after: ['media_id', 'post_id'] },
  { table: 'piece_media', before: ['media_id'], after: ['media_id', 'piece_id'] },
];

/** What lists say of a template gets columns of its own, so that a list reads no documents; uses and searches get covering indexes. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('templates', (table) => {
    table.text('name').notNullable().defaultTo('');
    table.text('purpose').notNullable().defaultTo('');
    table.text('kind').notNullable().defaultTo('graphic');
    table.index(['brand_id', 'updated_ms']);
  });
  const rows: { brand_id: string; key: string }[] = await db('templates').select('brand_id', 'key');
  for (const { brand_id, key } of rows) {
    const row: { document: string } = await db('templates').where({ brand_id, key }).first('document');
    const { name, purpose, kind } = JSON.parse(row.document) as { name: string; purpose: string; kind: string };
    await db('templates').where({ brand_id, key }).update({ name, purpose, kind });
  }
  for (const { table, before, after } of COVERING) {
    await db.schema.alterTable(table, (altered) => {
      altered.dropIndex(before);
      altered.index(after);
    });
  }
  // Rows of media are long: a walk through them reads each one only to learn that it is not archived.
  await db.schema.alterTable('media', (table) => {
    table.index(['brand_id', 'archived_ms', 'created_ms', 'id']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('media', (table) => {
    table.dropIndex(['brand_id', 'archived_ms', 'created_ms', 'id']);
  });
  for (const { table, before, after } of COVERING) {
    await db.schema.alterTable(table, (altered) => {
      altered.dropIndex(after);
      altered.index(before);
    });
  }
  await db.schema.alterTable('templates', (table) => {
    table.dropIndex(['brand_id', 'updated_ms']);
    table.dropColumns('name', 'purpose', 'kind');
  });
}
