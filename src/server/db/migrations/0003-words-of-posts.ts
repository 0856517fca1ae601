import type { Knex } from 'knex';

const columns = ['title', 'link', 'first_comment'] as const;

export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('deliveries', (table) => {
    for (const column of columns) table.text(column).notNullable().defaultTo('');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('deliveries', (table) => table.dropColumns(...columns));
}
