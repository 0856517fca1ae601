import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('media', (table) => {
    // Clips and sounds: what is known of them, and where their working copy lies. The row's own file is the picture that stands for them.
    table.text('film');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('media', (table) => table.dropColumn('film'));
}
