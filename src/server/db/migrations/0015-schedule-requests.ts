import type { Knex } from 'knex';

/** The request that a post was made by, named by the client: sent twice, it makes its posts once. Several moments make several posts. */
export async function up(db: Knex): Promise<void> {
  // As plain statements: the schema builder would make the table anew, and deliveries point to its rows.
  await db.raw('alter table posts add column request text');
  await db.raw('alter table posts add column request_part integer');
  await db.schema.alterTable('posts', (table) => {
    table.unique(['brand_id', 'request', 'request_part'], { indexName: 'posts_request_unique' });
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('posts', (table) => {
    table.dropUnique(['brand_id', 'request', 'request_part'], 'posts_request_unique');
  });
  for (const column of ['request', 'request_part']) await db.raw(`alter table posts drop column ${column}`);
}
