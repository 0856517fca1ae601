import type { Knex } from 'knex';

/** Cuts of videos that are made into files; each keeps its own copy of what it is made of. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('film_exports', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('piece_id').notNullable().references('pieces.id').onDelete('CASCADE');
    table.text('channel_id').notNullable();
    table.text('placement').notNullable();
    table.text('format').notNullable();
    table.text('state').notNullable();
    table.text('snapshot').notNullable();
    table.float('share').notNullable().defaultTo(0);
    table.text('problem');
    table.integer('created_ms').notNullable();
    table.integer('begun_ms');
    table.index(['piece_id', 'created_ms']);
    table.index(['state', 'created_ms']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('film_exports');
}
