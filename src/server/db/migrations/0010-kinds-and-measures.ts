import type { Knex } from 'knex';

/** Deliveries know what kind of piece they send, as videos take a lane of their own; films keep what was measured on them. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('deliveries', (table) => {
    table.text('kind').notNullable().defaultTo('graphic');
  });
  await db('deliveries').update({ kind: db.raw("coalesce((select json_extract(content, '$.piece.kind') from snapshots where snapshots.id = deliveries.snapshot_id), 'graphic')") });
  await db.schema.alterTable('film_exports', (table) => {
    table.text('measures');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('deliveries', (table) => {
    table.dropColumn('kind');
  });
  await db.schema.alterTable('film_exports', (table) => {
    table.dropColumn('measures');
  });
}
