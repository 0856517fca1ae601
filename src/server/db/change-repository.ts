import type { Db } from './connection.ts';

/** What changed: views that show it ask for it anew, by its id. */
export const changeKinds = ['plan', 'entry', 'queue', 'notice', 'piece', 'post', 'delivery', 'media', 'upload', 'export', 'presence', 'clock', 'channel', 'review', 'results', 'conversation', 'idea', 'feed', 'table'] as const;
export type ChangeKind = (typeof changeKinds)[number];

export interface Change {
  readonly seq: number;
  readonly brandId: string;
  readonly kind: ChangeKind;
  readonly subjectId: string;
}

/** Views that were away for longer load everything anew. */
const KEEP_MS = 24 * 3_600_000;

/** Writes a change down, in the transaction that makes it: a watcher never hears of what was rolled back. */
export async function noteChange(db: Db, change: Omit<Change, 'seq'>, machineNowMs: number): Promise<void> {
  await db('changes').insert({ brand_id: change.brandId, kind: change.kind, subject_id: change.subjectId, at_ms: machineNowMs });
}

/** The number of the latest change; 0 when there is none. */
export async function latestSeq(db: Db): Promise<number> {
  const row = await db('changes').max('seq as latest').first();
  return Number(row?.['latest'] ?? 0);
}

/** Changes after one, in order. */
export async function changesAfter(db: Db, seq: number, limit: number): Promise<readonly Change[]> {
  const rows: { seq: number; brand_id: string; kind: ChangeKind; subject_id: string }[] = await db('changes').where('seq', '>', seq).orderBy('seq').limit(limit);
  return rows.map((row) => ({ seq: row.seq, brandId: row.brand_id, kind: row.kind, subjectId: row.subject_id }));
}

export async function pruneChanges(db: Db, machineNowMs: number): Promise<void> {
  await db('changes').where('at_ms', '<', machineNowMs - KEEP_MS).delete();
}
