import { chmodSync, existsSync, mkdirSync } from 'node:fs';
import { join } from 'node:path';
import knex, { type Knex } from 'knex';
import { lock } from 'proper-lockfile';
import { migrations } from './migrations/index.ts';
import { releaseReserve } from '../upkeep/disk-reserve.ts';
import { patientClient } from './patient-client.ts';

export type Db = Knex;

/** Connections of one process: readers do not wait for whoever writes. */
const CONNECTIONS = 4;
const OPEN_WITHIN_MS = 5_000;
/** Another process may migrate for this long, in tries of a quarter of a second; one that broke off holds its lock for ten seconds. */
const WAIT_FOR_MIGRATION = { retries: 240, factor: 1, minTimeout: 250, maxTimeout: 250 };

/** Opens the database of a data folder, creating and migrating it as needed. */
export async function openDatabase(dataFolder: string): Promise<Db> {
  mkdirSync(dataFolder, { recursive: true, mode: 0o700 });
  const file = join(dataFolder, 'confetti.db');
  keepPrivate(dataFolder, file);
  try {
    await migrate(dataFolder, file);
  } catch (error) {
    // A start on a full disk needs a little room of its own.
    if (!isFull(error) || !releaseReserve(file)) throw error;
    await migrate(dataFolder, file);
  }
  return connect(file, patientClient, CONNECTIONS, 0);
}

/** @param waitMs how long SQLite itself waits for a lock, which stops the process meanwhile */
function connect(file: string, client: Knex.Config['client'], connections: number, waitMs: number): Db {
  return knex({
    client,
    connection: { filename: file },
    useNullAsDefault: true,
    // Error messages would carry bound values, such as captions and hashes.
    compileSqlOnError: false,
    pool: {
      min: 1,
      max: connections,
      afterCreate: (connection: { pragma(text: string): unknown }, done: (error: Error | null, connection: unknown) => void) => {
        // Only the first connection of all turns it on, and may meet another process that does.
        connection.pragma(`busy_timeout = ${OPEN_WITHIN_MS}`);
        connection.pragma('journal_mode = WAL');
        // From here on waiting is the client's business where it is a patient one.
        connection.pragma(`busy_timeout = ${waitMs}`);
        connection.pragma('foreign_keys = ON');
        // What is acknowledged outlives a power cut: an intent to publish above all.
        connection.pragma('synchronous = FULL');
        done(null, connection);
      },
    },
  });
}

/** Brings the schema up to date, by one connection: migrations may change how it checks. */
async function migrate(dataFolder: string, file: string): Promise<void> {
  const unlock = await lock(dataFolder, { retries: WAIT_FOR_MIGRATION, lockfilePath: join(dataFolder, 'migrating.lock') });
  // Migrations ask for the plain client by its name.
  const db = connect(file, 'better-sqlite3', 1, OPEN_WITHIN_MS);
  try {
    const [, pending]: [unknown, readonly unknown[]] = await db.migrate.list({ migrationSource: migrations });
    if (pending.length === 0) return;
    // Whoever holds the lock is alone: a mark in the database was left by a migration that broke off.
    await db.migrate.forceFreeMigrationsLock({ migrationSource: migrations });
    await db.migrate.latest({ migrationSource: migrations });
  } finally {
    await db.destroy();
    await unlock();
  }
}

function isFull(error: unknown): boolean {
  const { code } = error as { code?: unknown };
  return code === 'ENOSPC' || code === 'SQLITE_FULL';
}

/** Hashes, sealed tokens and words not out yet are nothing for other users of the machine. */
function keepPrivate(folder: string, file: string): void {
  try {
    chmodSync(folder, 0o700);
    for (const path of ['', '-wal', '-shm'].map((end) => file + end)) if (existsSync(path)) chmodSync(path, 0o600);
  } catch (error) {
    // On a disk that can only be read for now there is nothing to change, and what is there can still be read.
    if ((error as { code?: unknown }).code !== 'EROFS') throw error;
  }
}
