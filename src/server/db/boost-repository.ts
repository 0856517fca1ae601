import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';
import type { PostState } from '../../core/post/post-state.ts';

/** A paid boost that a person sets up on a network. */
export interface Boost {
  readonly budget: number;
  readonly currency: string;
  readonly days: number;
  readonly audience: string;
  readonly aim: string;
}

export interface PlannedBoost extends Boost {
  readonly postId: string;
  readonly pieceName: string;
  readonly dueMs: number;
  readonly state: PostState;
}

export async function keepBoost(db: Db, brandId: string, postId: string, boost: Boost, machineNowMs: number): Promise<void> {
  await db('boosts').insert({ post_id: postId, brand_id: brandId, boost: JSON.stringify(boost), done_ms: null }).onConflict('post_id').merge(['boost', 'done_ms']);
  await noteChange(db, { brandId, kind: 'post', subjectId: postId }, machineNowMs);
}

/** Notes that a boost is set up, or removes it; false when the post has none. */
export async function endBoost(db: Db, brandId: string, postId: string, action: 'done' | 'remove', nowMs: number, machineNowMs: number): Promise<boolean> {
  const query = db('boosts').where({ brand_id: brandId, post_id: postId });
  const changed = await (action === 'done' ? query.update({ done_ms: nowMs }) : query.delete());
  if (changed > 0) await noteChange(db, { brandId, kind: 'post', subjectId: postId }, machineNowMs);
  return changed > 0;
}

/** Boosts that nobody has set up yet, the earliest post first. */
export async function listBoosts(db: Db, brandId: string, limit: number): Promise<readonly PlannedBoost[]> {
  const rows: { post_id: string; boost: string; piece_name: string; due_ms: number; state: PostState }[] = await db('boosts').join('posts', 'posts.id', 'boosts.post_id').where({ 'boosts.brand_id': brandId }).whereNull('boosts.done_ms').whereNot('posts.state', 'cancelled').orderBy('posts.due_ms').limit(limit).select('boosts.post_id', 'boosts.boost', 'posts.piece_name', 'posts.due_ms', 'posts.state');
  return rows.map((row) => ({ ...(JSON.parse(row.boost) as Boost), postId: row.post_id, pieceName: row.piece_name, dueMs: Number(row.due_ms), state: row.state }));
}
