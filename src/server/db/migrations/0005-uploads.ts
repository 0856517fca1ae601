import type { Knex } from 'knex';

/** Files that come in parts; their bytes so far lie in the folder of incoming files under the id. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('uploads', (table) => {
    table.text('id').primary();
    table.text('brand_id').notNullable().references('brands.id').onDelete('CASCADE');
    table.text('person_id').notNullable().references('people.id').onDelete('CASCADE');
    table.text('name').notNullable();
    table.integer('bytes').notNullable();
    table.integer('started_ms').notNullable();
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.dropTable('uploads');
}
