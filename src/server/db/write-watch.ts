import Database from 'better-sqlite3';
import type { Db } from './connection.ts';

/** Tells whether anybody has written to the database since it was asked last. */
export interface WriteWatch {
  hasBeenWritten(): boolean;
  close(): void;
}

/** Null when the number cannot be read, for example during recovery. Callers then assume a change. */
function version(connection: Database.Database): unknown {
  try {
    return connection.pragma('data_version', { simple: true });
  } catch {
    return null;
  }
}

/**
 * A watch on a database, by a connection of its own: SQLite counts what all others commit, this process included (`data_version`,
 * https://www.sqlite.org/pragma.html#pragma_data_version). Asking costs microseconds, where a query costs a millisecond.
 */
export function watchWrites(db: Db): WriteWatch {
  const { filename } = (db.client as { config: { connection: { filename: string } } }).config.connection;
  const connection = new Database(filename, { readonly: true });
  let seen: unknown = null;
  return {
    hasBeenWritten() {
      const now = version(connection);
      const isNew = now === null || now !== seen;
      seen = now;
      return isNew;
    },
    close: () => void connection.close(),
  };
}
