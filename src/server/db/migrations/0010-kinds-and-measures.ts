import type { Knex } from 'knex';

/** Deliveries know what kind of piece they send, as videos take a lane of their own; films keep what was measured on them. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('deliveries', (table) => {
    table.text('kind').notNullable().defaultTo('graphic');
  });
  for (const { id, content } of await db('snapshots').select('id', 'content')) {
    await db('deliveries').where({ snapshot_id: id }).update({ kind: (JSON.parse(content) as { piece: { kind?: string } }).piece.kind ?? 'graphic' });
  }
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
