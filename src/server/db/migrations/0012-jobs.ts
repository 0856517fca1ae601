import type { Knex } from 'knex';

/** One durable queue for all work that takes long, the change log that views are kept fresh by, and who looks at what. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('jobs', (table) => {
    table.text('id').primary();
    // Work of one key is one row: asking twice makes it once.
    table.text('key').notNullable().unique();
    table.text('kind').notNullable();
    table.text('lane').notNullable();
    table.text('payload').notNullable();
    table.integer('priority').notNullable().defaultTo(0);
    table.text('state').notNullable();
    // By the product's clock, which the demo can move; and by the machine's, which nobody moves.
    table.bigInteger('due_ms').notNullable().defaultTo(0);
    table.bigInteger('not_before_ms').notNullable().defaultTo(0);
    table.integer('attempt').notNullable().defaultTo(0);
    table.integer('max_attempts').notNullable();
    table.text('lease');
    table.bigInteger('lease_until_ms').notNullable().defaultTo(0);
    table.float('progress').notNullable().defaultTo(0);
    table.text('problem');
    table.text('result');
    table.bigInteger('created_ms').notNullable();
    table.bigInteger('started_ms');
    table.bigInteger('ended_ms');
    table.index(['lane', 'state', 'priority', 'due_ms']);
    table.index(['state', 'ended_ms']);
  });
  await db.schema.createTable('changes', (table) => {
    table.increments('seq');
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('kind').notNullable();
    table.text('subject_id').notNullable();
    table.bigInteger('at_ms').notNullable();
    table.index(['at_ms']);
  });
  await db.schema.createTable('presence', (table) => {
    table.text('piece_id').notNullable().references('pieces.id').onDelete('CASCADE');
    table.text('view_id').notNullable();
    table.text('person_id').notNullable().references('people.id').onDelete('CASCADE');
    table.bigInteger('until_ms').notNullable();
    table.primary(['piece_id', 'view_id']);
  });
  await db.schema.alterTable('uploads', (table) => {
    table.text('media_id');
  });

  // Deliveries that are on their way, and files of videos that are made, as jobs.
  const rows: { id: string; state: string; due_ms: number; not_before_ms: number; attempt: number; kind: string; updated_ms: number }[] = await db('deliveries')
    .join('posts', 'posts.id', 'deliveries.post_id')
    .whereIn('deliveries.state', ['scheduled', 'sending', 'failed'])
    .select('deliveries.id', 'deliveries.state', 'deliveries.due_ms', 'deliveries.not_before_ms', 'deliveries.attempt', 'posts.kind', 'deliveries.updated_ms');
  await db.batchInsert(
    'jobs',
    rows.map((row) => ({
      id: `delivery-${row.id}`, key: `delivery:${row.id}`, kind: 'delivery', lane: row.kind === 'video' ? 'send-video' : 'send', payload: JSON.stringify({ deliveryId: row.id }),
      state: row.state === 'failed' ? 'failed' : 'waiting', due_ms: row.due_ms, not_before_ms: row.not_before_ms, attempt: row.attempt, max_attempts: 8, created_ms: row.updated_ms,
    })),
    50,
  );
  const exports: { id: string; created_ms: number }[] = await db('video_exports').select('id', 'created_ms');
  await db.batchInsert(
    'jobs',
    exports.map(({ id, created_ms }) => ({ id: `export-${id}`, key: `export:${id}`, kind: 'video-export', lane: 'export', payload: JSON.stringify({ exportId: id }), state: 'done', progress: 1, attempt: 1, max_attempts: 3, created_ms, started_ms: created_ms, ended_ms: created_ms })),
    50,
  );
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('uploads', (table) => table.dropColumn('media_id'));
  for (const table of ['presence', 'changes', 'jobs']) await db.schema.dropTable(table);
}
