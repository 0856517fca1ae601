import type { Knex } from 'knex';

/** A post may have several pictures: their ids on the network, in order, as a JSON list. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('deliveries', (table) => {
    table.text('remote_media').notNullable().defaultTo('[]');
  });
  await db('deliveries').whereNotNull('remote_media_id').update({ remote_media: db.raw('json_array(remote_media_id)') });
  await db.schema.alterTable('deliveries', (table) => {
    table.dropColumn('remote_media_id');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('deliveries', (table) => {
    table.text('remote_media_id');
  });
  await db('deliveries').update({ remote_media_id: db.raw("json_extract(remote_media, '$[0]')") });
  await db.schema.alterTable('deliveries', (table) => {
    table.dropColumn('remote_media');
  });
}
