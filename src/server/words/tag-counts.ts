import type { Db } from '../db/connection.ts';
import { countPieces, listUsedTags, type UsedTag } from '../db/tag-repository.ts';

/** How often a brand's pieces have which hashtags. */
export interface TagCounts {
  readonly pieces: number;
  readonly used: readonly UsedTag[];
}

/** Proposals for one text after the other need no new count for each: one of the last half minute is as good. */
const FRESH_MS = 30_000;
const kept = new WeakMap<Db, Map<string, { readonly atMs: number; readonly counts: Promise<TagCounts> }>>();

/** Counts of a brand's hashtags, at most half a minute old. */
export function tagCountsOf(db: Db, brandId: string, machineNowMs: number): Promise<TagCounts> {
  const brands = kept.get(db) ?? new Map<string, { readonly atMs: number; readonly counts: Promise<TagCounts> }>();
  kept.set(db, brands);
  const known = brands.get(brandId);
  if (known && machineNowMs - known.atMs < FRESH_MS) return known.counts;
  const counts = Promise.all([countPieces(db, brandId), listUsedTags(db, brandId)]).then(([pieces, used]) => ({ pieces, used }));
  brands.set(brandId, { atMs: machineNowMs, counts });
  // A count that failed is not kept.
  counts.catch(() => brands.delete(brandId));
  return counts;
}
