import type { Knex } from 'knex';

/** A post may have several pictures: their ids on the network, in order, as a JSON list. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('deliveries', (table) => {
    table.text('remote_media').notNullable().defaultTo('[]');
  });
  for (const { id, remote_media_id } of await db('deliveries').whereNotNull('remote_media_id').select('id', 'remote_media_id')) {
    await db('deliveries').where({ id }).update({ remote_media: JSON.stringify([remote_media_id]) });
  }
  await db.schema.alterTable('deliveries', (table) => {
    table.dropColumn('remote_media_id');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('deliveries', (table) => {
    table.text('remote_media_id');
  });
  for (const { id, remote_media } of await db('deliveries').select('id', 'remote_media')) {
    await db('deliveries').where({ id }).update({ remote_media_id: (JSON.parse(remote_media) as string[])[0] ?? null });
  }
  await db.schema.alterTable('deliveries', (table) => {
    table.dropColumn('remote_media');
  });
}
