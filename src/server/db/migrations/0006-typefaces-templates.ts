import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  // Typeface files that a brand has imported; the book says which of them are used.
  await db.schema.createTable('typefaces', (table) => {
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('hash').notNullable();
    table.text('family').notNullable();
    table.integer('weight').notNullable();
    table.integer('created_ms').notNullable();
    table.primary(['brand_id', 'hash']);
  });
  // Templates that a brand has made or changed; the shipped ones are files of the program.
  await db.schema.createTable('templates', (table) => {
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('key').notNullable();
    table.text('document').notNullable();
    table.integer('revision').notNullable().defaultTo(1);
    table.integer('updated_ms').notNullable();
    table.integer('archived_ms');
    table.primary(['brand_id', 'key']);
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('templates');
  await db.schema.dropTable('typefaces');
}
