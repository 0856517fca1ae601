import type Database from 'better-sqlite3';

export type Prepare = (sql: string) => Database.Statement;

/** Prepares each statement once: that takes longer than most of them run. */
export function preparedOnce(db: Database.Database): Prepare {
  const statements = new Map<string, Database.Statement>();
  return (sql) => {
    const known = statements.get(sql) ?? db.prepare(sql);
    statements.set(sql, known);
    return known;
  };
}
