import type { Knex } from 'knex';
import { setTimeout as sleep } from 'node:timers/promises';
import SqliteClient from 'knex/lib/dialects/better-sqlite3/index.js';
import { releaseReserve } from '../upkeep/disk-reserve.ts';
import { rememberStatements } from './remember-statements.ts';

/** Another process may hold the write lock for this long before a write gives up. */
const WAIT_FOR_LOCK_MS = 10_000;
const LOOK_EVERY_MS = 15;

interface Connection {
  readonly name: string;
  readonly inTransaction: boolean;
  exec(sql: string): unknown;
  prepare(sql: string): object;
}

interface Query {
  sql: string;
}

/** Who writes next, within one process: one after the other, in the order they came. */
class Turns {
  #last: Promise<void> = Promise.resolve();

  async take(): Promise<() => void> {
    const before = this.#last;
    let release: () => void = () => undefined;
    this.#last = new Promise((resolve) => (release = resolve));
    await before;
    return release;
  }
}

const turns = new Map<string, Turns>();
/** Connections within a transaction, and how their turn ends. */
const held = new WeakMap<Connection, () => void>();

function turnsOf(connection: Connection): Turns {
  const known = turns.get(connection.name) ?? new Turns();
  turns.set(connection.name, known);
  return known;
}

const isRead = (sql: string): boolean => /^\s*(?:select|pragma|explain|with)\b/i.test(sql) && !/\b(?:insert|update|delete)\s/i.test(sql);
const isBegin = (sql: string): boolean => /^\s*begin\b/i.test(sql);
const isEnd = (sql: string): boolean => ['commit', 'rollback'].includes(sql.replace(';', '').trim().toLowerCase());

/**
 * SQLite through several connections of one process. Readers never wait: neither for a transaction of their own process nor for another
 * one's. Writers take turns here, and wait for other processes without stopping this one, which SQLite's own waiting would do.
 */
export class PatientClient extends SqliteClient {
  override async acquireRawConnection(): Promise<Connection> {
    const connection = (await super.acquireRawConnection()) as Connection;
    rememberStatements(connection);
    return connection;
  }

  override async _query(connection: Connection, query: Query): Promise<Query> {
    const run = (each: Query): Promise<Query> => super._query(connection, each) as Promise<Query>;
    if (isEnd(query.sql)) return endTransaction(connection, () => run(query));
    if (held.has(connection)) return withReserve(connection, () => run(query));
    if (isRead(query.sql)) return patiently(() => run(query));
    const release = await turnsOf(connection).take();
    try {
      if (!isBegin(query.sql)) return await withReserve(connection, () => patiently(() => run(query)));
      // Whoever begins by reading and writes later would find that another has written in between.
      const begun = await patiently(() => run({ ...query, sql: 'BEGIN IMMEDIATE;' }));
      held.set(connection, release);
      return begun;
    } finally {
      if (!held.has(connection)) release();
    }
  }
}

async function endTransaction(connection: Connection, run: () => Promise<Query>): Promise<Query> {
  try {
    return await withReserve(connection, run);
  } finally {
    // A commit that failed leaves its transaction open.
    if (connection.inTransaction) connection.exec('ROLLBACK');
    held.get(connection)?.();
    held.delete(connection);
  }
}

async function patiently(run: () => Promise<Query>): Promise<Query> {
  for (const end = Date.now() + WAIT_FOR_LOCK_MS; ; await sleep(LOOK_EVERY_MS)) {
    try {
      return await run();
    } catch (error) {
      if (codeOf(error) !== 'SQLITE_BUSY' || Date.now() > end) throw error;
    }
  }
}

/** On a full disk the last reserve is given up: enough for sign-ins and words, while pictures are refused. */
async function withReserve(connection: Connection, run: () => Promise<Query>): Promise<Query> {
  try {
    return await run();
  } catch (error) {
    // Within a transaction SQLite may have undone all of it: then only its caller can begin again.
    if (codeOf(error) !== 'SQLITE_FULL' || !releaseReserve(connection.name) || (held.has(connection) && !connection.inTransaction)) throw error;
    return run();
  }
}

function codeOf(error: unknown): unknown {
  return (error as { code?: unknown } | null)?.code;
}

/** The client as knex takes it. */
export const patientClient = PatientClient as unknown as typeof Knex.Client;
