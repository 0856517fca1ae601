import type { Knex } from 'knex';
import * as first from './0001-people-brands-pieces.ts';
import * as second from './0002-deliveries.ts';

/** Migrations in order; a shipped one is never edited. */
const all: readonly { readonly name: string; readonly migration: Knex.Migration }[] = [
  { name: '0001-people-brands-pieces', migration: first },
  { name: '0002-deliveries', migration: second },
];

export const migrations: Knex.MigrationSource<(typeof all)[number]> = {
  getMigrations: () => Promise.resolve([...all]),
  getMigrationName: (each) => each.name,
  getMigration: (each) => Promise.resolve(each.migration),
};
