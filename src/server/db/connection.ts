import { chmodSync, existsSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import knex, { type Knex } from 'knex';
import { migrations } from './migrations/index.ts';

export type Db = Knex;

/** Another process may hold the write lock for this long before a write gives up. */
const BUSY_TIMEOUT_MS = 10_000;

/** Opens the database of a data folder, creating and migrating it as needed. */
export async function openDatabase(dataFolder: string): Promise<Db> {
  mkdirSync(dataFolder, { recursive: true, mode: 0o700 });
  const file = join(dataFolder, 'confetti.db');
  // Hashes, sealed tokens and words not out yet: nothing for other users of the machine.
  if (existsSync(file)) for (const path of [dataFolder, ...['', '-wal', '-shm'].map((end) => file + end)]) if (existsSync(path)) chmodSync(path, path === dataFolder ? 0o700 : 0o600);
  const db = knex({
    client: 'better-sqlite3',
    connection: { filename: file },
    useNullAsDefault: true,
    // Error messages would carry bound values, such as captions and hashes.
    compileSqlOnError: false,
    pool: {
      min: 1,
      max: 1,
      afterCreate: (connection: { pragma(text: string): unknown }, done: (error: Error | null, connection: unknown) => void) => {
        connection.pragma('journal_mode = WAL');
        connection.pragma('foreign_keys = ON');
        connection.pragma(`busy_timeout = ${BUSY_TIMEOUT_MS}`);
        connection.pragma('synchronous = FULL');
        done(null, connection);
      },
    },
  });
  await db.migrate.latest({ migrationSource: migrations });
  return db;
}
