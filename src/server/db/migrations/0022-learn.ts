import type { Knex } from 'knex';

const open = { comments: true, mentions: true, messages: true, hide: true, remove: true, counting: 'graphemes' };
/** What the sheets that ship say of this from now on; kept sheets learn it here. */
const talkOf: Readonly<Record<string, Readonly<Record<string, unknown>>>> = {
  petalry: { ...open, maxAnswer: 2200 },
  hearthside: { ...open, maxAnswer: 8000 },
  quipline: { ...open, hide: false, remove: false, maxAnswer: 280, counting: 'weighted' },
  guildrow: { ...open, messages: false, hide: false, maxAnswer: 1250 },
  whirlo: { ...open, messages: false, maxAnswer: 150 },
  tackboard: { ...open, mentions: false, messages: false, hide: false, maxAnswer: 500 },
  kerbside: { ...open, comments: false, mentions: false, hide: false, remove: false, maxAnswer: 1500 },
  longhall: { ...open, mentions: false, messages: false, maxAnswer: 10_000 },
};

/** Whether a short link still leads somewhere: when it is looked at next, and what was wrong. */
const linkColumns = ['next_check_ms bigint not null default 0', 'checked_ms bigint', 'problem text', 'problem_since_ms bigint'] as const;

/** What comes back from the networks: what is public on each channel, its figures as they were measured, and what people write. */
export async function up(db: Knex): Promise<void> {
  // What is public on a channel: deliveries that went out, and posts that nobody made here.
  await db.schema.createTable('publications', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('channel_id').notNullable().references('channels.id').onDelete('cascade');
    /** Null: made without Confetti. */
    table.text('delivery_id').unique();
    table.text('post_id');
    table.text('piece_id');
    /** Its name at its network; the last part of its address. */
    table.text('remote_id').notNullable();
    table.text('address').notNullable();
    table.bigInteger('published_ms').notNullable();
    table.text('title').notNullable().defaultTo('');
    /** What it is, for comparisons; null until it was described. */
    table.text('format');
    table.text('theme_id');
    table.text('campaign_id');
    table.text('template_key');
    table.text('made_by');
    table.text('traits').notNullable().defaultTo('{}');
    /** Whether the brand answered a comment in its first hours. */
    table.boolean('answered_early').notNullable().defaultTo(false);
    table.bigInteger('removed_ms');
    /** By the product's clock; null: its figures are not asked for any more. */
    table.bigInteger('next_measure_ms');
    table.bigInteger('measured_ms');
    // The latest figures, to sort and add up by; null where the network gives none.
    for (const column of ['impressions', 'reach', 'reactions', 'comments', 'shares', 'saves', 'clicks', 'plays', 'engagement']) table.bigInteger(column);
    table.float('rate_reach');
    table.float('rate_impressions');
    /** All other figures, and which are counted anew, as JSON. */
    table.text('parts').notNullable().defaultTo('{}');
    /** Engagement, reach and impressions at the ages at which posts are compared, as JSON. */
    table.text('aged').notNullable().defaultTo('{}');
    table.unique(['channel_id', 'remote_id']);
    // What the sums of a period need, so that they read no other page.
    table.index(['brand_id', 'published_ms', 'channel_id', 'engagement', 'reach', 'impressions', 'clicks'], 'publications_sums');
    table.index(['channel_id', 'published_ms']);
    table.index(['channel_id', 'next_measure_ms']);
    table.index(['post_id']);
  });
  await db.schema.createTable('measurements', (table) => {
    table.text('publication_id').notNullable().references('publications.id').onDelete('cascade');
    table.text('metric').notNullable();
    table.bigInteger('at_ms').notNullable();
    table.bigInteger('value').notNullable();
    table.integer('counted').notNullable().defaultTo(1);
    table.primary(['publication_id', 'metric', 'at_ms']);
  });
  await db.schema.createTable('account_days', (table) => {
    table.text('channel_id').notNullable().references('channels.id').onDelete('cascade');
    table.text('day').notNullable();
    table.text('metric').notNullable();
    table.bigInteger('value').notNullable();
    table.primary(['channel_id', 'day', 'metric']);
  });
  // How far each channel has been asked.
  await db.schema.createTable('collections', (table) => {
    table.text('channel_id').primary().references('channels.id').onDelete('cascade');
    table.bigInteger('next_ms').notNullable().defaultTo(0);
    table.bigInteger('account_next_ms').notNullable().defaultTo(0);
    table.bigInteger('posts_since_ms').notNullable().defaultTo(0);
    table.text('heard_after').notNullable().defaultTo('');
    table.text('audience');
    table.text('problem');
    table.bigInteger('problem_since_ms');
    /** Sealed; signs what the network tells by itself. */
    table.text('hook_secret');
    table.index(['next_ms']);
  });
  await db.schema.createTable('learn_settings', (table) => {
    table.text('brand_id').primary().references('brands.id').onDelete('cascade');
    table.text('settings').notNullable();
  });
  await db.schema.createTable('conversations', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('channel_id').notNullable().references('channels.id').onDelete('cascade');
    table.text('thread').notNullable();
    table.text('kind').notNullable();
    table.text('publication_id').references('publications.id').onDelete('set null');
    table.text('author_handle').notNullable();
    table.text('author_name').notNullable();
    table.integer('author_followers').notNullable();
    table.text('state').notNullable();
    table.text('assigned_to');
    table.text('snippet').notNullable();
    table.bigInteger('first_ms').notNullable();
    table.bigInteger('last_ms').notNullable();
    /** Since when somebody waits for an answer; null: nobody does. */
    table.bigInteger('waiting_since_ms');
    /** How long the first answer took. */
    table.bigInteger('first_answer_ms');
    table.integer('revision').notNullable().defaultTo(1);
    table.unique(['channel_id', 'thread']);
    table.index(['brand_id', 'state', 'last_ms']);
    table.index(['brand_id', 'last_ms']);
    table.index(['brand_id', 'waiting_since_ms']);
    table.index(['channel_id', 'author_handle']);
  });
  await db.schema.createTable('conversation_labels', (table) => {
    table.text('conversation_id').notNullable().references('conversations.id').onDelete('cascade');
    table.text('label').notNullable();
    table.primary(['conversation_id', 'label']);
    table.index(['label']);
  });
  // Words that conversations are found by.
  await db.schema.createTable('conversation_words', (table) => {
    table.text('brand_id').notNullable();
    table.text('word').notNullable();
    table.text('conversation_id').notNullable().references('conversations.id').onDelete('cascade');
    table.primary(['brand_id', 'word', 'conversation_id']);
    table.index(['conversation_id']);
  });
  await db.schema.createTable('utterances', (table) => {
    table.text('id').primary();
    table.text('conversation_id').notNullable().references('conversations.id').onDelete('cascade');
    /** `in`: somebody wrote it; `out`: our answer; `note`: among colleagues. */
    table.text('kind').notNullable();
    table.text('remote_id');
    table.text('person_id');
    table.text('author').notNullable();
    table.text('text').notNullable();
    table.bigInteger('at_ms').notNullable();
    /** Of an answer: how it fares. */
    table.text('state').notNullable();
    table.text('problem');
    /** What it answers, and the key under which the network knows it. */
    table.text('target');
    table.text('answer_key').unique();
    table.bigInteger('intent_ms');
    /** `hidden` or `removed` at the network. */
    table.text('fate');
    table.unique(['conversation_id', 'remote_id']);
    table.index(['conversation_id', 'at_ms']);
  });
  // Who is writing an answer now: two people on one conversation see each other.
  await db.schema.createTable('answer_writers', (table) => {
    table.text('conversation_id').notNullable().references('conversations.id').onDelete('cascade');
    table.text('person_id').notNullable().references('people.id').onDelete('cascade');
    table.bigInteger('until_ms').notNullable();
    table.primary(['conversation_id', 'person_id']);
  });
  await db.schema.createTable('reports', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('name').notNullable();
    table.text('report').notNullable();
    /** When it goes out by itself; null: it does not. */
    table.bigInteger('next_ms');
    table.bigInteger('last_sent_ms');
    table.text('problem');
    table.index(['brand_id', 'name']);
    table.index(['next_ms']);
  });
  // Public accounts that a brand looks at beside its own.
  await db.schema.createTable('others', (table) => {
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('network_key').notNullable();
    table.text('handle').notNullable();
    table.text('name').notNullable();
    table.primary(['brand_id', 'network_key', 'handle']);
  });
  await db.schema.createTable('saved_answers', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('cascade');
    table.text('name').notNullable();
    table.text('text').notNullable();
    table.index(['brand_id', 'name']);
  });
  // As plain statements: the schema builder would make the table anew, and clicks point to its rows.
  for (const column of linkColumns) await db.raw(`alter table short_links add column ${column}`);
  for (const table of ['network_sheets', 'brand_sheets']) {
    const sheets: { key: string; sheet: string; brand_id?: string }[] = await db(table).whereIn('key', Object.keys(talkOf));
    for (const { key, sheet, brand_id } of sheets) {
      const known = JSON.parse(sheet) as { readonly talk?: unknown };
      if (known.talk === undefined) await db(table).where({ key, ...(brand_id === undefined ? {} : { brand_id }) }).update({ sheet: JSON.stringify({ ...known, talk: talkOf[key] }) });
    }
  }
  // What went out before is measured as well.
  const sent: { id: string; brand_id: string; channel_id: string; post_id: string; address: string; sent_ms: number | string; piece_id: string; piece_name: string }[] = await db('deliveries').join('posts', 'posts.id', 'deliveries.post_id').where('deliveries.state', 'sent').whereNotNull('address').whereNotNull('sent_ms').select('deliveries.id', 'deliveries.brand_id', 'channel_id', 'post_id', 'address', 'sent_ms', 'posts.piece_id', 'posts.piece_name');
  for (const row of sent) {
    const remoteId = row.address.split(/[?#]/)[0]?.split('/').findLast((part) => part !== '') ?? row.id;
    await db('publications')
      .insert({ id: row.id, brand_id: row.brand_id, channel_id: row.channel_id, delivery_id: row.id, post_id: row.post_id, piece_id: row.piece_id, remote_id: remoteId, address: row.address, published_ms: row.sent_ms, title: row.piece_name, next_measure_ms: row.sent_ms })
      .onConflict(['channel_id', 'remote_id'])
      .ignore();
  }
}

export async function down(db: Knex): Promise<void> {
  for (const table of ['others', 'reports', 'answer_writers', 'saved_answers', 'utterances', 'conversation_labels', 'conversation_words', 'conversations', 'learn_settings', 'collections', 'account_days', 'measurements', 'publications']) await db.schema.dropTable(table);
  for (const column of linkColumns) await db.raw(`alter table short_links drop column ${column.split(' ')[0] ?? ''}`);
}
