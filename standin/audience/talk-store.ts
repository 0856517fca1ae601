import { randomBytes } from 'node:crypto';
import type Database from 'better-sqlite3';
import { preparedOnce, type Prepare } from '../prepared-once.ts';
import type { Answered } from './talk.ts';

/** What an account has made of something that was written to it. */
export type Fate = 'hidden' | 'removed';

/** An address that a network tells of what comes in. */
export interface Hook {
  readonly network: string;
  readonly handle: string;
  readonly url: string;
  readonly secret: string;
  /** What came until then has been told. */
  readonly toldMs: number;
}

/** A figure that a network stops to tell, or counts anew, from a moment on. */
export interface MetricChange {
  readonly network: string;
  readonly metric: string;
  readonly kind: 'stops' | 'anew';
  readonly atMs: number;
}

/** What accounts do with what people write to them, whom the networks tell of it, and how they count. */
export class TalkStore {
  readonly #prepare: Prepare;

  constructor(db: Database.Database) {
    this.#prepare = preparedOnce(db);
    db.exec(`
      CREATE TABLE IF NOT EXISTS answers (id TEXT PRIMARY KEY, network TEXT NOT NULL, handle TEXT NOT NULL, target TEXT NOT NULL, text TEXT NOT NULL, atMs INTEGER NOT NULL, key TEXT NOT NULL, UNIQUE (network, handle, key));
      CREATE TABLE IF NOT EXISTS fates (network TEXT, handle TEXT, id TEXT, fate TEXT NOT NULL, PRIMARY KEY (network, handle, id));
      CREATE TABLE IF NOT EXISTS hooks (network TEXT, handle TEXT, url TEXT NOT NULL, secret TEXT NOT NULL, toldMs INTEGER NOT NULL, PRIMARY KEY (network, handle));
      CREATE TABLE IF NOT EXISTS metric_changes (network TEXT, metric TEXT, kind TEXT NOT NULL, atMs INTEGER NOT NULL, PRIMARY KEY (network, metric));
    `);
  }

  /** Keeps an answer under a key once; a second call answers the first one's id. */
  answer(network: string, handle: string, given: { readonly target: string; readonly text: string; readonly key: string }, atMs: number): string {
    this.#prepare('INSERT INTO answers VALUES (@id, @network, @handle, @target, @text, @atMs, @key) ON CONFLICT DO NOTHING').run({ ...given, id: `a${randomBytes(9).toString('hex')}`, network, handle, atMs });
    return this.findAnswer(network, handle, given.key) ?? '';
  }

  findAnswer(network: string, handle: string, key: string): string | null {
    return (this.#prepare('SELECT id FROM answers WHERE network = ? AND handle = ? AND key = ?').pluck().get(network, handle, key) as string | undefined) ?? null;
  }

  listAnswers(network: string, handle: string): readonly Answered[] {
    return this.#prepare('SELECT id, target, text, atMs FROM answers WHERE network = ? AND handle = ? ORDER BY atMs').all(network, handle) as Answered[];
  }

  setFate(network: string, handle: string, id: string, fate: Fate | null): void {
    if (fate === null) this.#prepare('DELETE FROM fates WHERE network = ? AND handle = ? AND id = ?').run(network, handle, id);
    else this.#prepare('INSERT INTO fates VALUES (?, ?, ?, ?) ON CONFLICT DO UPDATE SET fate = excluded.fate').run(network, handle, id, fate);
  }

  fates(network: string, handle: string): ReadonlyMap<string, Fate> {
    const rows = this.#prepare('SELECT id, fate FROM fates WHERE network = ? AND handle = ?').all(network, handle) as { id: string; fate: Fate }[];
    return new Map(rows.map(({ id, fate }) => [id, fate]));
  }

  keepHook(hook: Hook): void {
    this.#prepare('INSERT INTO hooks VALUES (@network, @handle, @url, @secret, @toldMs) ON CONFLICT DO UPDATE SET url = excluded.url, secret = excluded.secret').run(hook);
  }

  listHooks(): readonly Hook[] {
    return this.#prepare('SELECT * FROM hooks').all() as Hook[];
  }

  noteTold(network: string, handle: string, toldMs: number): void {
    this.#prepare('UPDATE hooks SET toldMs = ? WHERE network = ? AND handle = ?').run(toldMs, network, handle);
  }

  keepMetricChange(change: MetricChange): void {
    this.#prepare('INSERT INTO metric_changes VALUES (@network, @metric, @kind, @atMs) ON CONFLICT DO UPDATE SET kind = excluded.kind, atMs = excluded.atMs').run(change);
  }

  metricChanges(network: string): readonly MetricChange[] {
    return this.#prepare('SELECT * FROM metric_changes WHERE network = ?').all(network) as MetricChange[];
  }
}
