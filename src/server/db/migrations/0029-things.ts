import type { Knex } from 'knex';

/** Pictures that came in before their things were boxed: their subjects are looked for again when there is time. */
export async function up(db: Knex): Promise<void> {
  await db('media').where({ kind: 'picture' }).update({ outline_due: 1 });
}

export async function down(): Promise<void> {
  // What was found stays: facts without things and facts with them are both read.
}
