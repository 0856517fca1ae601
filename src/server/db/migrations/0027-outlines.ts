import type { Knex } from 'knex';

/** Pictures that came in before subjects were outlined: their outlines are taken when there is time. */
export async function up(db: Knex): Promise<void> {
  // As a plain statement: the schema builder would make the table anew, and others point to its rows.
  await db.raw('alter table media add column outline_due integer not null default 0');
  await db('media').where({ kind: 'picture' }).update({ outline_due: 1 });
  await db.schema.alterTable('media', (table) => {
    table.index(['outline_due'], 'media_by_outline_due');
  });
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('media', (table) => table.dropIndex(['outline_due'], 'media_by_outline_due'));
  await db.raw('alter table media drop column outline_due');
}
