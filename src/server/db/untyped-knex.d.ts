declare module 'knex/lib/dialects/better-sqlite3/index.js' {
  export default class SqliteClient {
    acquireRawConnection(): Promise<unknown>;
    _query(connection: unknown, query: unknown): Promise<unknown>;
  }
}
