import type { Knex } from 'knex';

/** What lists say of a template gets columns of its own, so that a list reads no documents. */
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
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('templates', (table) => {
    table.dropIndex(['brand_id', 'updated_ms']);
    table.dropColumns('name', 'purpose', 'kind');
  });
}
