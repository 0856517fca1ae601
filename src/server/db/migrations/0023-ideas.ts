import type { Knex } from 'knex';

/** Ideas and where they come from; feeds with their rules; tables of posts; boilerplates; series; versions that are tried against each other. */
export async function up(db: Knex): Promise<void> {
  // The day that a picture was taken, as its file said.
  await db.raw('alter table media add column taken_day text');
  await db.schema.createTable('ideas', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('kind').notNullable();
    /** What it comes from: an idea that comes of itself comes once. */
    table.text('idea_key').notNullable();
    table.text('title').notNullable();
    table.text('text').notNullable().defaultTo('');
    table.text('link').notNullable().defaultTo('');
    table.text('picture_url').notNullable().defaultTo('');
    table.text('media_id');
    /** The day that it is for; null when every day will do. */
    table.text('day');
    table.text('theme_id');
    table.text('source').notNullable().defaultTo('');
    /** Sentences that say why it fits, as JSON. */
    table.text('why').notNullable().defaultTo('[]');
    /** What else is known of it, by its kind, as JSON. */
    table.text('details').notNullable().defaultTo('{}');
    table.float('score').notNullable().defaultTo(0);
    table.text('state').notNullable();
    /** Until which day it is set aside. */
    table.text('snoozed_until');
    table.text('assigned_to');
    /** Null: it came of itself. */
    table.text('created_by');
    table.bigInteger('created_ms').notNullable();
    table.unique(['brand_id', 'idea_key']);
    table.index(['brand_id', 'state', 'score', 'id']);
    table.index(['brand_id', 'created_ms']);
  });
  await db.schema.createTable('idea_words', (table) => {
    table.text('idea_id').notNullable().references('ideas.id').onDelete('cascade');
    table.text('brand_id').notNullable();
    table.text('word').notNullable();
    table.primary(['word', 'idea_id']);
    table.index(['idea_id']);
  });
  // What was made of an idea.
  await db.schema.createTable('idea_uses', (table) => {
    table.text('idea_id').notNullable().references('ideas.id').onDelete('cascade');
    table.text('kind').notNullable();
    table.text('subject_id').notNullable();
    table.text('name').notNullable();
    table.bigInteger('at_ms').notNullable();
    table.text('person_id').notNullable();
    table.primary(['idea_id', 'kind', 'subject_id']);
  });
  await db.schema.createTable('idea_settings', (table) => {
    table.text('brand_id').primary().references('brands.id').onDelete('cascade');
    table.text('settings').notNullable();
    table.bigInteger('next_ms').notNullable().defaultTo(0);
  });
  await db.schema.createTable('feeds', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('name').notNullable();
    table.text('address').notNullable();
    table.text('etag');
    table.text('modified');
    /** By the machine's clock. */
    table.bigInteger('next_poll_ms').notNullable();
    table.bigInteger('polled_ms');
    table.integer('failures').notNullable().defaultTo(0);
    table.text('problem');
    table.text('created_by').notNullable();
    table.unique(['brand_id', 'address']);
    table.index(['next_poll_ms']);
  });
  await db.schema.createTable('feed_items', (table) => {
    table.text('feed_id').notNullable().references('feeds.id').onDelete('cascade');
    table.text('guid').notNullable();
    table.text('title').notNullable();
    table.text('link').notNullable();
    table.text('summary').notNullable();
    table.text('picture').notNullable();
    table.text('language');
    table.bigInteger('published_ms').notNullable();
    table.bigInteger('seen_ms').notNullable();
    table.primary(['feed_id', 'guid']);
    table.index(['feed_id', 'published_ms']);
  });
  await db.schema.createTable('feed_rules', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('feed_id').notNullable().references('feeds.id').onDelete('cascade');
    table.text('settings').notNullable();
    table.boolean('is_on').notNullable();
    /** Why it stopped by itself and asks; null: it did not. */
    table.text('stopped');
    table.bigInteger('last_ms');
    table.text('created_by').notNullable();
    table.index(['brand_id']);
    table.index(['feed_id']);
  });
  // What a rule did with an item: once each.
  await db.schema.createTable('feed_rule_log', (table) => {
    table.text('rule_id').notNullable().references('feed_rules.id').onDelete('cascade');
    table.text('guid').notNullable();
    table.text('title').notNullable();
    table.text('outcome').notNullable();
    table.text('sentence').notNullable();
    table.text('piece_id');
    table.bigInteger('at_ms').notNullable();
    table.primary(['rule_id', 'guid']);
    table.index(['rule_id', 'at_ms']);
  });
  await db.schema.createTable('post_tables', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('name').notNullable();
    /** Its columns' names: a table with the same ones is read the same way. */
    table.text('signature').notNullable();
    table.text('mapping').notNullable();
    table.text('settings').notNullable();
    table.text('created_by').notNullable();
    table.bigInteger('updated_ms').notNullable();
    table.index(['brand_id', 'updated_ms']);
    table.index(['brand_id', 'signature']);
  });
  await db.schema.createTable('post_table_rows', (table) => {
    table.text('table_id').notNullable().references('post_tables.id').onDelete('cascade');
    table.integer('number').notNullable();
    /** What names the row in a second upload of the same table. */
    table.text('row_key').notNullable();
    table.text('cells').notNullable();
    table.text('faults').notNullable().defaultTo('[]');
    table.boolean('is_faulty').notNullable().defaultTo(false);
    table.text('piece_id');
    /** What the piece was made from: another text of the same row updates it. */
    table.text('made_from');
    table.boolean('is_left_out').notNullable().defaultTo(false);
    table.primary(['table_id', 'number']);
    table.index(['table_id', 'row_key']);
  });
  await db.schema.createTable('boilerplates', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('name').notNullable();
    table.text('document').notNullable();
    table.text('created_by').notNullable();
    table.bigInteger('created_ms').notNullable();
    table.index(['brand_id', 'name']);
  });
  // Pieces that stay together in the plan.
  await db.schema.createTable('series', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('name').notNullable();
    table.bigInteger('created_ms').notNullable();
  });
  await db.schema.createTable('series_pieces', (table) => {
    table.text('series_id').notNullable().references('series.id').onDelete('cascade');
    table.text('piece_id').notNullable().unique().references('pieces.id').onDelete('cascade');
    table.integer('position').notNullable();
    table.primary(['series_id', 'piece_id']);
  });
  // What was answered to a request that must be done once.
  await db.schema.createTable('kept_requests', (table) => {
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('request_key').notNullable();
    /** Null: it is being done. */
    table.text('answer');
    table.bigInteger('at_ms').notNullable();
    table.primary(['brand_id', 'request_key']);
    table.index(['at_ms']);
  });
  // Versions of a piece that are tried against each other.
  await db.schema.createTable('trials', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.boolean('is_on').notNullable();
    table.text('created_by').notNullable();
    table.bigInteger('created_ms').notNullable();
    table.index(['brand_id', 'is_on']);
  });
  await db.schema.createTable('trial_pieces', (table) => {
    table.text('trial_id').notNullable().references('trials.id').onDelete('cascade');
    table.text('piece_id').notNullable().references('pieces.id').onDelete('cascade');
    table.integer('position').notNullable();
    table.primary(['trial_id', 'piece_id']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.raw('alter table media drop column taken_day');
  for (const table of ['trial_pieces', 'trials', 'kept_requests', 'series_pieces', 'series', 'boilerplates', 'post_table_rows', 'post_tables', 'feed_rule_log', 'feed_rules', 'feed_items', 'feeds', 'idea_settings', 'idea_uses', 'idea_words', 'ideas']) await db.schema.dropTable(table);
}
