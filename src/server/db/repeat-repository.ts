import type { Repeat } from '../../core/plan/recurrence.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';

/** A piece that comes round by a rule. */
export interface StoredRepeat extends Repeat {
  readonly id: string;
  readonly brandId: string;
  readonly pieceId: string;
  readonly cuts: readonly { readonly channelId: string; readonly placement: string }[];
  readonly createdBy: string;
}

interface RepeatRow {
  id: string;
  brand_id: string;
  piece_id: string;
  rule: string;
  start: string;
  zone: string;
  except: string;
  cuts: string;
  created_by: string;
}

const toRepeat = (row: RepeatRow): StoredRepeat => ({ id: row.id, brandId: row.brand_id, pieceId: row.piece_id, rule: row.rule, start: row.start, zone: row.zone, except: JSON.parse(row.except) as string[], cuts: JSON.parse(row.cuts) as StoredRepeat['cuts'], createdBy: row.created_by });

export async function insertRepeat(trx: Db, repeat: StoredRepeat, machineNowMs: number): Promise<void> {
  const { id, brandId, pieceId, rule, start, zone, except, cuts, createdBy } = repeat;
  await trx('repeats').insert({ id, brand_id: brandId, piece_id: pieceId, rule, start, zone, except: JSON.stringify(except), cuts: JSON.stringify(cuts), created_by: createdBy });
  await noteChange(trx, { brandId, kind: 'plan', subjectId: id }, machineNowMs);
}

/** Repeats that go on; of one piece when it is named. */
export async function listRepeats(db: Db, brandId: string, pieceId: string | null = null): Promise<readonly StoredRepeat[]> {
  const query = db('repeats').where({ brand_id: brandId }).whereNull('ended_ms').orderBy('id');
  if (pieceId !== null) query.where({ piece_id: pieceId });
  return ((await query) as RepeatRow[]).map(toRepeat);
}

export async function findRepeat(db: Db, brandId: string, id: string): Promise<StoredRepeat | null> {
  const row: RepeatRow | undefined = await db('repeats').where({ brand_id: brandId, id }).first();
  return row ? toRepeat(row) : null;
}

export async function changeRepeat(trx: Db, brandId: string, id: string, { rule, start, except }: Pick<Repeat, 'rule' | 'start' | 'except'>, machineNowMs: number): Promise<void> {
  await trx('repeats').where({ brand_id: brandId, id }).update({ rule, start, except: JSON.stringify(except) });
  await noteChange(trx, { brandId, kind: 'plan', subjectId: id }, machineNowMs);
}

/** Repeats that go on follow the brand's clock into another zone. */
export async function moveRepeatsTo(trx: Db, brandId: string, zone: string): Promise<void> {
  await trx('repeats').where({ brand_id: brandId }).whereNull('ended_ms').update({ zone });
}

export async function endRepeat(trx: Db, brandId: string, id: string, machineNowMs: number): Promise<boolean> {
  const ended = await trx('repeats').where({ brand_id: brandId, id }).whereNull('ended_ms').update({ ended_ms: machineNowMs });
  if (ended > 0) await noteChange(trx, { brandId, kind: 'plan', subjectId: id }, machineNowMs);
  return ended > 0;
}

/** Occurrences that posts stand for already, by their wall times. */
export async function listOccurrences(db: Db, repeatId: string): Promise<ReadonlyMap<string, string>> {
  const rows: { occurrence: string; id: string }[] = await db('posts').where({ repeat_id: repeatId }).select('occurrence', 'id');
  return new Map(rows.map(({ occurrence, id }) => [occurrence, id]));
}
