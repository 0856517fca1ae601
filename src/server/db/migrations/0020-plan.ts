import type { Knex } from 'knex';
import { emptyPlan } from '../../../core/plan/plan.ts';

const postColumns = ['theme_id text', 'campaign_id text', "origin text not null default 'person'", 'repeat_id text', 'occurrence text'] as const;

/**
 * How brands plan: the plan document, campaigns, what a piece is about, who waits for a slot, which slot is whose, placeholders and
 * drafts, repeats, rotations with what has run, saved views, reminders and notices.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('plans', (table) => {
    table.text('brand_id').primary().references('brands.id').onDelete('cascade');
    table.text('plan').notNullable();
    table.integer('revision').notNullable().defaultTo(1);
    /** Since when everything is held; null: nothing is. */
    table.bigInteger('held_since_ms');
    /** Hash of the secret in the address of the calendar feed; null: there is none. */
    table.text('feed_hash').unique();
  });
  const brands: string[] = await db('brands').pluck('id');
  for (const brand_id of brands) await db('plans').insert({ brand_id, plan: JSON.stringify(emptyPlan) });
  await db.schema.createTable('campaigns', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('name').notNullable();
    table.text('from_day').notNullable();
    table.text('until_day').notNullable();
    table.text('aim').notNullable();
    table.text('note').notNullable();
    table.text('tone').notNullable();
    table.text('letter').notNullable();
    table.index(['brand_id', 'from_day', 'id']);
  });
  await db.schema.createTable('piece_plans', (table) => {
    table.text('piece_id').primary().references('pieces.id').onDelete('cascade');
    table.text('brand_id').notNullable();
    table.text('theme_id');
    table.text('campaign_id');
    table.text('subject').notNullable().defaultTo('');
    table.text('notes').notNullable().defaultTo('');
    table.index(['brand_id', 'campaign_id']);
  });
  await db.schema.createTable('piece_labels', (table) => {
    table.text('piece_id').notNullable().references('pieces.id').onDelete('cascade');
    table.text('brand_id').notNullable();
    table.text('label_key').notNullable();
    table.text('label').notNullable();
    table.primary(['piece_id', 'label_key']);
    table.index(['brand_id', 'label_key', 'piece_id']);
  });
  await db.schema.createTable('queue_entries', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('channel_id').notNullable().references('channels.id').onDelete('cascade');
    table.text('piece_id').notNullable().references('pieces.id').onDelete('cascade');
    table.text('placement').notNullable();
    table.float('position', 53).notNullable();
    table.text('added_by').notNullable();
    table.bigInteger('added_ms').notNullable();
    // A piece waits once on a channel.
    table.unique(['channel_id', 'piece_id']);
    table.index(['brand_id', 'channel_id', 'position']);
  });
  await db.schema.createTable('plan_entries', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    /** A placeholder has a text, a draft a piece. */
    table.text('piece_id').references('pieces.id').onDelete('cascade');
    table.text('text').notNullable();
    table.text('theme_id');
    table.text('campaign_id');
    table.text('wall').notNullable();
    table.text('zone').notNullable();
    table.bigInteger('due_ms').notNullable();
    table.text('slot_key');
    table.text('created_by').notNullable();
    table.integer('revision').notNullable().defaultTo(1);
    table.index(['brand_id', 'due_ms', 'id']);
  });
  await db.schema.createTable('plan_entry_cuts', (table) => {
    table.text('entry_id').notNullable().references('plan_entries.id').onDelete('cascade');
    table.text('channel_id').notNullable().references('channels.id').onDelete('cascade');
    /** Empty for a placeholder. */
    table.text('placement').notNullable();
    table.primary(['entry_id', 'channel_id', 'placement']);
  });
  // A slot of a channel is somebody's once: a post's or an entry's.
  await db.schema.createTable('slot_fills', (table) => {
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('slot_key').notNullable();
    table.text('channel_id').notNullable();
    table.text('post_id').references('posts.id').onDelete('cascade');
    table.text('entry_id').references('plan_entries.id').onDelete('cascade');
    table.primary(['brand_id', 'slot_key', 'channel_id']);
    table.index(['post_id']);
    table.index(['entry_id']);
  });
  await db.schema.createTable('repeats', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('piece_id').notNullable().references('pieces.id').onDelete('cascade');
    table.text('rule').notNullable();
    table.text('start').notNullable();
    table.text('zone').notNullable();
    table.text('except').notNullable();
    table.text('cuts').notNullable();
    table.text('created_by').notNullable();
    table.bigInteger('ended_ms');
    table.index(['brand_id', 'ended_ms']);
    table.index(['piece_id']);
  });
  await db.schema.createTable('rotations', (table) => {
    table.text('piece_id').primary().references('pieces.id').onDelete('cascade');
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('settings').notNullable();
    table.boolean('is_on').notNullable();
    table.text('created_by').notNullable();
    table.index(['brand_id']);
  });
  await db.schema.createTable('rotation_runs', (table) => {
    table.text('post_id').notNullable().references('posts.id').onDelete('cascade');
    table.text('brand_id').notNullable();
    table.text('piece_id').notNullable();
    table.text('channel_id').notNullable();
    table.text('wording').notNullable();
    table.text('picture').notNullable();
    table.text('day').notNullable();
    table.primary(['post_id', 'channel_id']);
    table.index(['brand_id', 'day']);
  });
  // Why something of the plan could not be made into a post; gone as soon as it can.
  await db.schema.createTable('plan_problems', (table) => {
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('subject').notNullable();
    table.text('channel_id').notNullable();
    table.text('piece_id').notNullable().references('pieces.id').onDelete('cascade');
    table.bigInteger('due_ms').notNullable();
    table.text('sentence').notNullable();
    table.primary(['brand_id', 'subject', 'channel_id']);
  });
  await db.schema.createTable('plan_views', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('person_id').notNullable().references('people.id').onDelete('cascade');
    table.text('name').notNullable();
    table.text('address').notNullable();
    table.unique(['brand_id', 'person_id', 'name']);
  });
  await db.schema.createTable('reminder_settings', (table) => {
    table.text('person_id').notNullable().references('people.id').onDelete('cascade');
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('settings').notNullable();
    table.primary(['person_id', 'brand_id']);
  });
  await db.schema.createTable('notices', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('person_id').notNullable().references('people.id').onDelete('cascade');
    /** What it is about; the same thing is noticed once. */
    table.text('subject').notNullable();
    table.text('sentence').notNullable();
    table.text('path').notNullable();
    table.bigInteger('at_ms').notNullable();
    table.bigInteger('read_ms');
    table.unique(['person_id', 'subject']);
    table.index(['person_id', 'brand_id', 'at_ms']);
  });
  // As plain statements: the schema builder would make the table anew, and deliveries point to its rows.
  for (const column of postColumns) await db.raw(`alter table posts add column ${column}`);
  await db.schema.alterTable('posts', (table) => {
    table.unique(['repeat_id', 'occurrence'], { indexName: 'posts_by_occurrence' });
    table.index(['brand_id', 'campaign_id'], 'posts_by_campaign');
  });
  await db.schema.alterTable('deliveries', (table) => {
    table.index(['brand_id', 'channel_id', 'due_ms', 'id'], 'deliveries_by_channel');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('deliveries', (table) => {
    table.dropIndex(['brand_id', 'channel_id', 'due_ms', 'id'], 'deliveries_by_channel');
  });
  await db.schema.alterTable('posts', (table) => {
    table.dropUnique(['repeat_id', 'occurrence'], 'posts_by_occurrence');
    table.dropIndex(['brand_id', 'campaign_id'], 'posts_by_campaign');
  });
  for (const column of postColumns) await db.raw(`alter table posts drop column ${column.split(' ')[0] ?? ''}`);
  for (const table of ['notices', 'reminder_settings', 'plan_views', 'plan_problems', 'rotation_runs', 'rotations', 'repeats', 'slot_fills', 'plan_entry_cuts', 'plan_entries', 'queue_entries', 'piece_labels', 'piece_plans', 'campaigns', 'plans']) await db.schema.dropTable(table);
}
