import type { Knex } from 'knex';

/** Packages that come in from another installation, until they have been imported. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('packages', (table) => {
    table.text('id').primary();
    table.text('person_id').notNullable().references('people.id').onDelete('cascade');
    table.text('name').notNullable();
    table.bigInteger('bytes').notNullable();
    table.bigInteger('started_ms').notNullable();
    /** Brands that the import has begun and not yet ended, as JSON: they go when it is stopped. */
    table.text('begun').notNullable().defaultTo('[]');
    table.index(['person_id', 'started_ms']);
    table.index(['started_ms']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('packages');
}
