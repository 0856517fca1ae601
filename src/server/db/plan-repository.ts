import type { Plan } from '../../core/plan/plan.ts';
import { noteChange } from './change-repository.ts';
import type { Db } from './connection.ts';

/** A brand's plan as it is kept. */
export interface StoredPlan {
  readonly plan: Plan;
  readonly revision: number;
  /** Since when everything is held; null: nothing is. */
  readonly heldSinceMs: number | null;
  readonly hasFeed: boolean;
}

interface PlanRow {
  plan: string;
  revision: number;
  held_since_ms: number | null;
  feed_hash: string | null;
}

/** @throws RangeError when there is no such brand */
export async function getPlan(db: Db, brandId: string): Promise<StoredPlan> {
  const row: PlanRow | undefined = await db('plans').where({ brand_id: brandId }).first('plan', 'revision', 'held_since_ms', 'feed_hash');
  if (!row) throw new RangeError(`There is no plan of brand '${brandId}'`);
  return { plan: JSON.parse(row.plan) as Plan, revision: row.revision, heldSinceMs: row.held_since_ms === null ? null : Number(row.held_since_ms), hasFeed: row.feed_hash !== null };
}

/** Saves a plan if it is still at `revision`; null when somebody saved in between. */
export async function savePlan(db: Db, brandId: string, revision: number, plan: Plan, machineNowMs: number): Promise<number | null> {
  return db.transaction(async (trx) => {
    const saved = await trx('plans').where({ brand_id: brandId, revision }).update({ plan: JSON.stringify(plan), revision: revision + 1 });
    if (saved === 0) return null;
    await noteChange(trx, { brandId, kind: 'plan', subjectId: brandId }, machineNowMs);
    return revision + 1;
  });
}

/** Holds everything from a moment on, or nothing any more; false when it is so already. */
export async function setHeld(trx: Db, brandId: string, heldSinceMs: number | null, machineNowMs: number): Promise<boolean> {
  const query = trx('plans').where({ brand_id: brandId });
  const changed = await (heldSinceMs === null ? query.whereNotNull('held_since_ms') : query.whereNull('held_since_ms')).update({ held_since_ms: heldSinceMs });
  if (changed > 0) await noteChange(trx, { brandId, kind: 'plan', subjectId: brandId }, machineNowMs);
  return changed > 0;
}

/** Gives the calendar feed another secret, by its hash; null ends the feed. */
export async function setFeed(db: Db, brandId: string, feedHash: string | null): Promise<void> {
  await db('plans').where({ brand_id: brandId }).update({ feed_hash: feedHash });
}

export async function findBrandOfFeed(db: Db, feedHash: string): Promise<string | null> {
  const row: { brand_id: string } | undefined = await db('plans').where({ feed_hash: feedHash }).first('brand_id');
  return row?.brand_id ?? null;
}

/** Brands whose plan may have something to make: all but those that are held. */
export async function listPlannedBrands(db: Db): Promise<readonly string[]> {
  return db('plans').whereNull('held_since_ms').orderBy('brand_id').pluck('brand_id');
}
