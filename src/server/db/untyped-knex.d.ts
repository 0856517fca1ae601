declare module 'knex/lib/dialects/better-sqlite3/index.js' {
  export default class SqliteClient {
    _query(connection: unknown, query: unknown): Promise<unknown>;
  }
}
