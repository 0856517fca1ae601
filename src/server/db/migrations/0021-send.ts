import type { Knex } from 'knex';

const channelColumns = [
  "kind text not null default ''",
  "state text not null default 'connected'",
  'site text',
  'refresh_token text',
  'token_ends_ms bigint',
  'access_ends_ms bigint',
  'is_pinned boolean not null default false',
  "group_name text not null default ''",
  'removed_ms bigint',
] as const;
const deliveryColumns = ['step text', 'first_comment_problem text', 'handed_ms bigint', 'snoozed_until_ms bigint', 'remote_id text', 'removed_ms bigint'] as const;
const jobColumns = ["group_key text not null default ''"] as const;
const postColumns = ['sign_off_needed integer not null default 0'] as const;

/**
 * How posts are sent: accounts that are connected by consent, sign-off with its remarks and links, settings of a brand, boosts, and who did what.
 */
export async function up(db: Knex): Promise<void> {
  // As plain statements: the schema builder would make the tables anew, and other rows point to theirs.
  for (const column of channelColumns) await db.raw(`alter table channels add column ${column}`);
  for (const column of deliveryColumns) await db.raw(`alter table deliveries add column ${column}`);
  for (const column of postColumns) await db.raw(`alter table posts add column ${column}`);
  for (const column of jobColumns) await db.raw(`alter table jobs add column ${column}`);
  // A person on the way to a network's consent page and back.
  await db.schema.createTable('connections', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('person_id').notNullable().references('people.id').onDelete('cascade');
    table.text('network_key').notNullable();
    table.text('origin').notNullable();
    table.text('site');
    table.text('state_hash').notNullable().unique();
    table.text('verifier').notNullable();
    table.text('token_endpoint').notNullable();
    table.text('redirect_uri').notNullable();
    /** What the network offered, sealed: accounts with their tokens. */
    table.text('offered');
    table.text('problem');
    table.bigInteger('ends_ms').notNullable();
    table.index(['ends_ms']);
  });
  await db.schema.createTable('send_settings', (table) => {
    table.text('brand_id').primary().references('brands.id').onDelete('cascade');
    table.text('settings').notNullable();
  });
  await db.schema.createTable('verdicts', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('post_id').notNullable().references('posts.id').onDelete('cascade');
    /** Null for somebody from outside. */
    table.text('person_id');
    table.text('name').notNullable();
    table.text('verdict').notNullable();
    table.text('note').notNullable();
    /** What was looked at: the pin, and the words by delivery. */
    table.text('pin').notNullable();
    table.text('words').notNullable();
    /** Whether it still counts: a change afterwards asks again. */
    table.boolean('is_valid').notNullable();
    table.bigInteger('at_ms').notNullable();
    table.index(['post_id', 'at_ms']);
  });
  await db.schema.createTable('remarks', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('post_id').notNullable().references('posts.id').onDelete('cascade');
    table.text('answer_to');
    table.text('person_id');
    table.text('name').notNullable();
    table.text('text').notNullable();
    /** Where: a spot of a cut, a moment of a video, a field of the words; null: the post as a whole. */
    table.text('place');
    table.bigInteger('resolved_ms');
    table.bigInteger('at_ms').notNullable();
    table.index(['post_id', 'at_ms']);
  });
  await db.schema.createTable('review_links', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('post_id').notNullable().references('posts.id').onDelete('cascade');
    table.text('name').notNullable();
    table.text('secret_hash').notNullable().unique();
    table.bigInteger('ends_ms').notNullable();
    table.text('created_by').notNullable();
    table.index(['post_id']);
  });
  await db.schema.createTable('boosts', (table) => {
    table.text('post_id').primary().references('posts.id').onDelete('cascade');
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('boost').notNullable();
    table.bigInteger('done_ms');
    table.index(['brand_id', 'done_ms']);
  });
  await db.schema.createTable('acts', (table) => {
    table.increments('seq').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.bigInteger('at_ms').notNullable();
    /** Null: Confetti by itself, or somebody from outside. */
    table.text('person_id');
    table.text('name').notNullable();
    table.text('kind').notNullable();
    table.text('subject_id').notNullable();
    table.text('sentence').notNullable();
    table.index(['brand_id', 'seq']);
    table.index(['brand_id', 'kind', 'seq']);
  });
  await db.schema.createTable('brand_sheets', (table) => {
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('key').notNullable();
    table.text('sheet').notNullable();
    table.integer('revision').notNullable().defaultTo(1);
    table.primary(['brand_id', 'key']);
  });
}

export async function down(db: Knex): Promise<void> {
  for (const table of ['brand_sheets', 'acts', 'boosts', 'review_links', 'remarks', 'verdicts', 'send_settings', 'connections']) await db.schema.dropTable(table);
  const nameOf = (column: string): string => column.split(' ')[0] ?? '';
  for (const column of jobColumns) await db.raw(`alter table jobs drop column ${nameOf(column)}`);
  for (const column of postColumns) await db.raw(`alter table posts drop column ${nameOf(column)}`);
  for (const column of deliveryColumns) await db.raw(`alter table deliveries drop column ${nameOf(column)}`);
  for (const column of channelColumns) await db.raw(`alter table channels drop column ${nameOf(column)}`);
}
