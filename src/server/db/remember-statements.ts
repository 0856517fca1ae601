import { LRUCache } from 'lru-cache';

interface Preparing<Statement> {
  prepare(sql: string): Statement;
}

const MAX_STATEMENTS = 500;

/** Lets a connection prepare each statement once: preparing takes longer than most of our statements run. */
export function rememberStatements<Statement extends object>(connection: Preparing<Statement>): void {
  const statements = new LRUCache<string, Statement>({ max: MAX_STATEMENTS });
  const prepare = connection.prepare.bind(connection);
  connection.prepare = (sql) => {
    const known = statements.get(sql) ?? prepare(sql);
    statements.set(sql, known);
    return known;
  };
}
