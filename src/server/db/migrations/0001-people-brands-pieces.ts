import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('settings', (table) => {
    table.text('key').primary();
    table.text('value').notNullable();
  });
  await db.schema.createTable('people', (table) => {
    table.text('id').primary();
    table.text('email').notNullable().unique();
    table.text('name').notNullable();
    table.text('password_hash').notNullable();
    table.integer('created_ms').notNullable();
  });
  await db.schema.createTable('sessions', (table) => {
    table.text('secret_hash').primary();
    table.text('person_id').notNullable().references('people.id').onDelete('CASCADE');
    table.integer('expires_ms').notNullable();
  });
  await db.schema.createTable('sign_in_attempts', (table) => {
    table.increments('id');
    table.text('subject').notNullable();
    table.integer('at_ms').notNullable();
    table.index(['subject', 'at_ms']);
  });
  await db.schema.createTable('access_tokens', (table) => {
    table.text('id').primary();
    table.text('person_id').notNullable().references('people.id').onDelete('CASCADE');
    table.text('name').notNullable();
    table.text('secret_hash').notNullable().unique();
    table.integer('created_ms').notNullable();
    table.integer('last_used_ms');
    table.integer('revoked_ms');
  });
  await db.schema.createTable('brands', (table) => {
    table.text('id').primary();
    table.text('slug').notNullable().unique();
    table.text('name').notNullable();
    table.text('zone').notNullable();
    table.text('book').notNullable();
    table.integer('revision').notNullable().defaultTo(1);
  });
  await db.schema.createTable('memberships', (table) => {
    table.text('person_id').notNullable().references('people.id').onDelete('CASCADE');
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('role').notNullable();
    table.primary(['person_id', 'brand_id']);
  });
  await db.schema.createTable('network_sheets', (table) => {
    table.text('key').primary();
    table.text('sheet').notNullable();
  });
  await db.schema.createTable('channels', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('network_key').notNullable().references('network_sheets.key');
    table.text('name').notNullable();
    table.text('handle').notNullable();
    table.text('origin').notNullable();
    table.text('token').notNullable();
    table.integer('position').notNullable();
    table.index(['brand_id', 'position']);
  });
  await db.schema.createTable('media', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('name').notNullable();
    table.text('mime').notNullable();
    table.integer('width_px').notNullable();
    table.integer('height_px').notNullable();
    table.integer('bytes').notNullable();
    /** Hash of the bytes as they came, to know a file again; and of the bytes as kept, which name the stored file. */
    table.text('source_hash').notNullable();
    table.text('stored_hash').notNullable();
    table.text('facts').notNullable();
    table.float('focal_x');
    table.float('focal_y');
    table.text('alt_text').notNullable().defaultTo('');
    table.integer('revision').notNullable().defaultTo(1);
    table.integer('created_ms').notNullable();
    table.unique(['brand_id', 'source_hash']);
    table.index(['brand_id', 'created_ms', 'id']);
  });
  await db.schema.createTable('pieces', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('name').notNullable();
    table.text('document').notNullable();
    table.integer('revision').notNullable().defaultTo(1);
    table.text('created_by').notNullable().references('people.id');
    table.integer('created_ms').notNullable();
    table.integer('updated_ms').notNullable();
    table.index(['brand_id', 'updated_ms', 'id']);
  });
}

export async function down(db: Knex): Promise<void> {
  for (const table of ['pieces', 'media', 'channels', 'network_sheets', 'memberships', 'brands', 'access_tokens', 'sign_in_attempts', 'sessions', 'people', 'settings']) {
    await db.schema.dropTable(table);
  }
}
