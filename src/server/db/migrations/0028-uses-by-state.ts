import type { Knex } from 'knex';

/** Uses of a picture keep the state of their post: how many wait and how many are out is counted in one index, without a look at each post. */
export async function up(db: Knex): Promise<void> {
  // As plain statements: the schema builder would make the table anew.
  await db.raw("alter table post_media add column state text not null default 'scheduled'");
  await db.raw('update post_media set state = (select posts.state from posts where posts.id = post_media.post_id)');
  await db.schema.alterTable('post_media', (table) => {
    table.dropIndex(['media_id', 'post_id']);
    table.index(['media_id', 'state', 'post_id']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('post_media', (table) => {
    table.dropIndex(['media_id', 'state', 'post_id']);
    table.index(['media_id', 'post_id']);
  });
  await db.raw('alter table post_media drop column state');
}
