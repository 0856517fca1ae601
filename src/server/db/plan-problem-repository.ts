import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';

/** Why something of the plan could not be made into a post. */
export interface PlanProblem {
  /** The slot or the occurrence, by its key. */
  readonly subject: string;
  readonly channelId: string;
  readonly pieceId: string;
  readonly pieceName: string;
  readonly dueMs: number;
  readonly sentence: string;
}

const MAX_LISTED = 100;

export async function listPlanProblems(db: Db, brandId: string, fromMs: number): Promise<readonly PlanProblem[]> {
  const rows: { subject: string; channel_id: string; piece_id: string; name: string; due_ms: number; sentence: string }[] = await db('plan_problems')
    .join('pieces', 'pieces.id', 'plan_problems.piece_id')
    .where({ 'plan_problems.brand_id': brandId })
    .where('due_ms', '>=', fromMs)
    .orderBy('due_ms')
    .limit(MAX_LISTED)
    .select('subject', 'channel_id', 'piece_id', 'pieces.name', 'due_ms', 'sentence');
  return rows.map((row) => ({ subject: row.subject, channelId: row.channel_id, pieceId: row.piece_id, pieceName: row.name, dueMs: Number(row.due_ms), sentence: row.sentence }));
}

/** Keeps what was found in one round of making posts: what is not found any more is gone. */
export async function replacePlanProblems(db: Db, brandId: string, problems: readonly Omit<PlanProblem, 'pieceName'>[], machineNowMs: number): Promise<void> {
  await db.transaction(async (trx) => {
    const gone = await trx('plan_problems').where({ brand_id: brandId }).delete();
    if (problems.length > 0) await trx.batchInsert('plan_problems', problems.map(({ subject, channelId, pieceId, dueMs, sentence }) => ({ brand_id: brandId, subject, channel_id: channelId, piece_id: pieceId, due_ms: dueMs, sentence })), 50);
    if (gone + problems.length > 0) await noteChange(trx, { brandId, kind: 'plan', subjectId: brandId }, machineNowMs);
  });
}
