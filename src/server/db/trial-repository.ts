import type { Db } from './connection.ts';
import { noteChange } from './change-repository.ts';

/** Versions of a piece that are tried against each other: evergreen pieces that share their slots. */
export interface Trial {
  readonly id: string;
  /** The first version, then those made of it. */
  readonly pieceIds: readonly string[];
}

/** Trials that have not ended, the oldest first. */
export async function listTrials(db: Db, brandId: string): Promise<readonly Trial[]> {
  const rows: { id: string; piece_id: string }[] = await db('trials').join('trial_pieces', 'trial_pieces.trial_id', 'trials.id').where({ brand_id: brandId, is_on: true }).orderBy([{ column: 'created_ms' }, { column: 'trials.id' }, { column: 'position' }]).select('trials.id', 'trial_pieces.piece_id');
  const trials = new Map<string, string[]>();
  for (const { id, piece_id } of rows) trials.set(id, [...(trials.get(id) ?? []), piece_id]);
  return [...trials].map(([id, pieceIds]) => ({ id, pieceIds }));
}

/** Adds a version to the trial of a piece; one that is in none begins one. */
export async function addVersion(trx: Db, brandId: string, trial: { readonly id: string; readonly pieceId: string; readonly versionId: string; readonly personId: string }, nowMs: number): Promise<void> {
  const known = (await listTrials(trx, brandId)).find(({ pieceIds }) => pieceIds.includes(trial.pieceId));
  if (!known) {
    await trx('trials').insert({ id: trial.id, brand_id: brandId, is_on: true, created_by: trial.personId, created_ms: nowMs });
    await trx('trial_pieces').insert({ trial_id: trial.id, piece_id: trial.pieceId, position: 0 });
  }
  await trx('trial_pieces').insert({ trial_id: known?.id ?? trial.id, piece_id: trial.versionId, position: known?.pieceIds.length ?? 1 });
}

/** Ends a trial; false when it has ended already. */
export async function endTrial(trx: Db, brandId: string, id: string, machineNowMs: number): Promise<boolean> {
  const ended = await trx('trials').where({ brand_id: brandId, id, is_on: true }).update({ is_on: false });
  if (ended > 0) await noteChange(trx, { brandId, kind: 'plan', subjectId: id }, machineNowMs);
  return ended > 0;
}
