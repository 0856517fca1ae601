import type { Knex } from 'knex';

/** How many of the parts and comments that follow a post are out. */
export async function up(db: Knex): Promise<void> {
  // As a plain statement: the schema builder would make the table anew, and others point to its rows.
  await db.raw('alter table deliveries add column followed integer not null default 0');
}

export async function down(db: Knex): Promise<void> {
  await db.raw('alter table deliveries drop column followed');
}
