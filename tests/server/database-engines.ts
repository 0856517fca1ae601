import { execFile, spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { chownSync, cpSync, mkdirSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import knex from 'knex';
import pg from 'pg';
import { openDatabase, type Db } from '../../src/server/db/connection.ts';
import { migrations } from '../../src/server/db/migrations/index.ts';
import { until } from '../fixtures/programs.ts';

/** A database program that repositories and migrations have to run on. */
export interface DatabaseEngine {
  readonly name: string;
  /** Starts the program, where there is one, and migrates the database that others are copied from. */
  start(): Promise<void>;
  /** A new, migrated, empty database. */
  open(): Promise<Db>;
  /** Closes a database and removes it. */
  discard(db: Db): Promise<void>;
  stop(): Promise<void>;
}

function sqlite(): DatabaseEngine {
  const folders = new Map<Db, string>();
  let migrated = '';
  return {
    name: 'SQLite',
    start: async () => {
      migrated = mkdtempSync(join(tmpdir(), 'confetti-db-'));
      await (await openDatabase(migrated)).destroy();
    },
    open: async () => {
      const folder = mkdtempSync(join(tmpdir(), 'confetti-db-'));
      cpSync(migrated, folder, { recursive: true });
      const db = await openDatabase(folder);
      folders.set(db, folder);
      return db;
    },
    discard: async (db) => {
      await db.destroy();
      rmSync(folders.get(db) ?? '', { recursive: true });
    },
    stop: () => rm(migrated, { recursive: true }),
  };
}

// Milliseconds and counts fit a double; the driver answers them as texts.
pg.types.setTypeParser(pg.types.builtins.INT8, Number);

/** The newest of Debian's PostgreSQL servers on this machine. */
function postgresPrograms(): string {
  const root = '/usr/lib/postgresql';
  const newest = readdirSync(root).toSorted((a, b) => Number(b) - Number(a))[0];
  return join(root, newest ?? '', 'bin');
}

/** PostgreSQL refuses to run as root, so that it runs as the user which Debian made for it. */
function postgresUser(): { readonly uid?: number; readonly gid?: number } {
  if (process.getuid?.() !== 0) return {};
  const id = (flag: string): number => Number(spawnSync('id', [flag, 'postgres']).stdout.toString());
  return { uid: id('-u'), gid: id('-g') };
}

/** A server of its own in a folder of its own, reached by a socket in that folder. */
function postgres(): DatabaseEngine {
  let folder = '';
  let server: ReturnType<typeof spawn> | undefined;
  let made = 0;
  const connect = (database: string): Db => knex({ client: 'pg', connection: { host: folder, user: 'confetti', database }, compileSqlOnError: false, pool: { min: 0, max: 4 } });
  const administer = async (statement: string): Promise<void> => {
    const db = connect('postgres');
    await db.raw(statement).finally(() => db.destroy());
  };
  return {
    name: 'PostgreSQL',
    start: async () => {
      folder = mkdtempSync(join(tmpdir(), 'confetti-pg-'));
      const [programs, user, data] = [postgresPrograms(), postgresUser(), join(folder, 'data')];
      mkdirSync(data);
      for (const each of [folder, data]) if (user.uid !== undefined && user.gid !== undefined) chownSync(each, user.uid, user.gid);
      // Words are found by ranges of code points, which other collations do not keep.
      await promisify(execFile)(join(programs, 'initdb'), ['-D', data, '-U', 'confetti', '-E', 'UTF8', '--locale=C', '--auth=trust', '--no-sync'], { ...user, cwd: folder });
      server = spawn(join(programs, 'postgres'), ['-D', data, '-k', folder, '-c', 'listen_addresses=', '-c', 'fsync=off'], { ...user, cwd: folder, stdio: 'ignore' });
      await until('PostgreSQL', () => spawnSync(join(programs, 'pg_isready'), ['-h', folder, '-q']).status === 0);
      await administer('create database migrated');
      const db = connect('migrated');
      await db.migrate.latest({ migrationSource: migrations }).finally(() => db.destroy());
    },
    open: async () => {
      made += 1;
      await administer(`create database copy${made} template migrated`);
      return connect(`copy${made}`);
    },
    discard: (db) => db.destroy(),
    stop: async () => {
      if (server && server.exitCode === null) {
        server.kill('SIGINT');
        await once(server, 'exit');
      }
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** SQLite, which the product runs on, and PostgreSQL, which larger installations can move to. */
export const databaseEngines: readonly DatabaseEngine[] = [sqlite(), postgres()];
