import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  // A post's own copy of all that its picture and words are made of, shared by the deliveries scheduled together.
  await db.schema.createTable('snapshots', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('content').notNullable();
    table.integer('created_ms').notNullable();
  });
  await db.schema.createTable('deliveries', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('piece_id').notNullable().references('pieces.id');
    table.integer('piece_revision').notNullable();
    table.text('piece_name').notNullable();
    table.text('snapshot_id').notNullable().references('snapshots.id');
    table.text('channel_id').notNullable().references('channels.id');
    table.text('placement').notNullable();
    table.text('placement_name').notNullable();
    table.text('caption').notNullable();
    table.text('alt_text').notNullable();
    table.text('state').notNullable();
    // The moment by the product's clock, and what the person chose.
    table.integer('due_ms').notNullable();
    table.text('wall').notNullable();
    table.text('zone').notNullable();
    // By the machine's clock, which nobody moves: not before this, and who holds it until when.
    table.integer('not_before_ms').notNullable().defaultTo(0);
    table.text('lease');
    table.integer('lease_until_ms').notNullable().defaultTo(0);
    table.integer('attempt').notNullable().defaultTo(0);
    table.text('idempotency_key').notNullable().unique();
    // How far the attempt before has come on the network's side.
    table.text('remote_media_id');
    table.text('remote_draft_id');
    table.integer('publish_intent_ms');
    table.text('address');
    table.text('problem');
    table.integer('sent_ms');
    table.text('created_by').notNullable().references('people.id');
    table.integer('created_ms').notNullable();
    table.integer('updated_ms').notNullable();
    table.index(['state', 'due_ms']);
    table.index(['brand_id', 'due_ms', 'id']);
    table.index(['piece_id']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('deliveries');
  await db.schema.dropTable('snapshots');
}
