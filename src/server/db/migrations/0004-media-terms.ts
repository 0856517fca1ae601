import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('media', (table) => {
    table.text('credit').notNullable().defaultTo('');
    table.text('licence').notNullable().defaultTo('');
    // The last day of the licence as the person chose it; it ends with that day in the brand's zone.
    table.text('licence_until');
    table.text('tags').notNullable().defaultTo('[]');
    table.text('source_address');
    table.integer('archived_ms');
    // What a search looks at, kept beside the columns it is made of.
    table.text('search').notNullable().defaultTo('');
  });
  await db.raw("update media set search = lower(name || ' ' || alt_text)");
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('media', (table) => table.dropColumns('credit', 'licence', 'licence_until', 'tags', 'source_address', 'archived_ms', 'search'));
}
