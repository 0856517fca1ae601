import type { Db } from './connection.ts';

/** What acts are about. */
export const actKinds = ['post', 'channel', 'network', 'people', 'settings'] as const;
export type ActKind = (typeof actKinds)[number];

/** What somebody did, in a sentence. */
export interface Act {
  readonly seq: number;
  readonly atMs: number;
  /** Null: Confetti by itself, or somebody from outside. */
  readonly personId: string | null;
  readonly name: string;
  readonly kind: ActKind;
  readonly subjectId: string;
  readonly sentence: string;
}

export type NewAct = Omit<Act, 'seq'> & { readonly brandId: string };

/** Writes an act down, in the transaction that does it. */
export async function noteAct(trx: Db, act: NewAct): Promise<void> {
  await trx('acts').insert({ brand_id: act.brandId, at_ms: act.atMs, person_id: act.personId, name: act.name, kind: act.kind, subject_id: act.subjectId, sentence: act.sentence });
}

export interface ActFilter {
  readonly kind?: ActKind | undefined;
  readonly personId?: string | undefined;
  readonly subjectId?: string | undefined;
  readonly beforeSeq?: number | undefined;
  readonly limit: number;
}

/** A page of a brand's acts, the latest first. */
export async function pageActs(db: Db, brandId: string, filter: ActFilter): Promise<readonly Act[]> {
  const query = db('acts').where({ brand_id: brandId }).orderBy('seq', 'desc').limit(filter.limit);
  if (filter.kind) query.where({ kind: filter.kind });
  if (filter.personId) query.where({ person_id: filter.personId });
  if (filter.subjectId) query.where({ subject_id: filter.subjectId });
  if (filter.beforeSeq !== undefined) query.where('seq', '<', filter.beforeSeq);
  const rows: { seq: number; at_ms: number; person_id: string | null; name: string; kind: ActKind; subject_id: string; sentence: string }[] = await query.select('seq', 'at_ms', 'person_id', 'name', 'kind', 'subject_id', 'sentence');
  return rows.map((row) => ({ seq: row.seq, atMs: Number(row.at_ms), personId: row.person_id, name: row.name, kind: row.kind, subjectId: row.subject_id, sentence: row.sentence }));
}
