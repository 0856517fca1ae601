import { addDays } from '../../core/time/day.ts';
import type { Brand } from '../db/brand-repository.ts';
import { listDeliveriesOf } from '../db/delivery-repository.ts';
import { getPiecePlan, savePiecePlan } from '../db/piece-plan-repository.ts';
import { changePlanEntry, deletePlanEntry, listPlanEntries, type PlanEntry } from '../db/plan-entry-repository.ts';
import { findPost, tagPosts, type Post } from '../db/post-repository.ts';
import { findPiece } from '../db/piece-repository.ts';
import { freeSlots, takeSlots } from '../db/slot-repository.ts';
import { notFound, ProblemError } from '../errors.ts';
import { actOnPost, refreshPost, reschedulePost } from '../post/change-post.ts';
import type { Services } from '../services.ts';
import { momentOfSpot, type Spot } from './place-piece.ts';

/** Posts and entries of the plan that are changed together. */
export interface Chosen {
  readonly postIds: readonly string[];
  readonly entryIds: readonly string[];
}

/** What is done to them. `revision` guards a move: who drags what somebody else has just moved is told so. */
export type PlanChange =
  | { readonly kind: 'shift'; readonly days: number }
  | { readonly kind: 'move'; readonly spot: Spot; readonly revision?: number | undefined }
  | { readonly kind: 'theme'; readonly themeId: string | null }
  | { readonly kind: 'campaign'; readonly campaignId: string | null }
  | { readonly kind: 'label'; readonly label: string }
  | { readonly kind: 'refresh' }
  | { readonly kind: 'hold' }
  | { readonly kind: 'release' }
  | { readonly kind: 'cancel' };

/** What became of each of them. */
export interface ChangeResult {
  readonly done: number;
  /** What could not be changed, with the reason, each sentence once. */
  readonly problems: readonly string[];
  /** Where each moved one stood before, so that the move can be undone. */
  readonly before: readonly { readonly id: string; readonly kind: 'post' | 'entry'; readonly wall: string }[];
}

/** Changes posts and entries one by one; what cannot be changed stays as it is, and the others are changed all the same. */
export async function changeChosen(services: Services, brand: Brand, chosen: Chosen, change: PlanChange, nowMs: number): Promise<ChangeResult> {
  const problems = new Set<string>();
  const before: { id: string; kind: 'post' | 'entry'; wall: string }[] = [];
  let done = 0;
  const attempt = async (work: () => Promise<void>): Promise<void> => {
    try {
      await work();
      done += 1;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      problems.add(error.sentence);
    }
  };
  for (const id of chosen.postIds) {
    await attempt(async () => {
      const post = await findPost(services.db, brand.id, id);
      if (!post) throw notFound('post');
      await changePost(services, brand, post, change, nowMs);
      before.push({ id, kind: 'post', wall: post.wall });
    });
  }
  const entries = await listPlanEntries(services.db, brand.id, { ids: chosen.entryIds });
  for (const entry of entries) {
    await attempt(async () => {
      await changeEntry(services, brand, entry, change, nowMs);
      before.push({ id: entry.id, kind: 'entry', wall: entry.wall });
    });
  }
  return { done, problems: [...problems], before };
}

const shifted = (wall: string, days: number): string => `${addDays(wall.slice(0, 10), days)}${wall.slice(10)}`;

async function changePost(services: Services, brand: Brand, post: Post, change: PlanChange, nowMs: number): Promise<void> {
  const { db, clock } = services;
  const machineNowMs = clock.machineNowMs();
  switch (change.kind) {
    case 'shift':
      await movePostTo(services, brand, post, { kind: 'at', wall: shifted(post.wall, change.days) }, nowMs);
      return;
    case 'move':
      if (change.revision !== undefined && change.revision !== post.revision) throw new ProblemError(409, 'stale-revision', 'Somebody else has just moved or changed this post. Look again.');
      await movePostTo(services, brand, post, change.spot, nowMs);
      return;
    case 'theme':
      await db.transaction((trx) => tagPosts(trx, brand.id, [post.id], { themeId: change.themeId }, machineNowMs));
      return;
    case 'campaign':
      await db.transaction((trx) => tagPosts(trx, brand.id, [post.id], { campaignId: change.campaignId }, machineNowMs));
      return;
    case 'label':
      await labelPiece(services, brand, post.pieceId, change.label);
      return;
    case 'refresh': {
      const piece = await findPiece(db, brand.id, post.pieceId);
      if (!piece) throw notFound('piece');
      await refreshPost(services, brand, post, piece);
      return;
    }
    case 'hold':
      if ((await actOnPost(db, post, 'hold', { nowMs, machineNowMs })) === 0) throw new ProblemError(409, 'not-possible-now', post.state === 'in review' ? 'A post in review is not sent before somebody approves it. Hold it then, or cancel it.' : 'Only what is scheduled can be held.');
      return;
    case 'release':
      // A bulk release must not publish a post at once.
      if (post.dueMs <= nowMs) throw new ProblemError(409, 'past-moment', 'The moment of a held post has passed. Move it first, or send it from the outbox.');
      if ((await actOnPost(db, post, 'release', { nowMs, machineNowMs })) === 0) throw new ProblemError(409, 'not-possible-now', 'Only what is held can be released.');
      return;
    case 'cancel':
      if ((await actOnPost(db, post, 'cancel', { nowMs, machineNowMs })) === 0) throw new ProblemError(409, 'not-possible-now', 'A post that is being sent or has gone out cannot be cancelled.');
      await db.transaction((trx) => freeSlots(trx, { postId: post.id }));
  }
}

/** Moves a post; a slot that it leaves is free again, and one that it moves into is its own. */
async function movePostTo(services: Services, brand: Brand, post: Post, spot: Spot, nowMs: number): Promise<void> {
  const { when, slotKey } = await momentOfSpot(services, brand, spot, nowMs);
  const channelIds = [...new Set((await listDeliveriesOf(services.db, post.id)).map(({ channelId }) => channelId))];
  await reschedulePost(services, brand, post, when, nowMs, async (trx) => {
    await freeSlots(trx, { postId: post.id });
    if (slotKey !== undefined && !(await takeSlots(trx, brand.id, channelIds.map((channelId) => ({ slotKey, channelId })), { postId: post.id }))) throw new ProblemError(409, 'slot-taken', 'Somebody has just filled this slot. Choose another one.');
  });
}

async function changeEntry(services: Services, brand: Brand, entry: PlanEntry, change: PlanChange, nowMs: number): Promise<void> {
  const { db, clock } = services;
  const machineNowMs = clock.machineNowMs();
  const write = async (fields: Parameters<typeof changePlanEntry>[4], slotKey?: string | null): Promise<void> => {
    await db.transaction(async (trx) => {
      if (!(await changePlanEntry(trx, brand.id, entry.id, entry.revision, fields, machineNowMs))) throw new ProblemError(409, 'stale-revision', 'Somebody else has just moved or changed this. Look again.');
      if (slotKey === undefined) return;
      await freeSlots(trx, { entryId: entry.id });
      if (slotKey !== null && !(await takeSlots(trx, brand.id, [...new Set(entry.cuts.map(({ channelId }) => channelId))].map((channelId) => ({ slotKey, channelId })), { entryId: entry.id }))) throw new ProblemError(409, 'slot-taken', 'Somebody has just filled this slot. Choose another one.');
    });
  };
  const moveTo = async (spot: Spot): Promise<void> => {
    const { wall, dueMs, slotKey } = await momentOfSpot(services, brand, spot, nowMs);
    await write({ wall, dueMs, zone: brand.zone, slotKey: slotKey ?? null }, slotKey ?? null);
  };
  switch (change.kind) {
    case 'shift':
      return moveTo({ kind: 'at', wall: shifted(entry.wall, change.days) });
    case 'move':
      if (change.revision !== undefined && change.revision !== entry.revision) throw new ProblemError(409, 'stale-revision', 'Somebody else has just moved or changed this. Look again.');
      return moveTo(change.spot);
    case 'theme':
      return write({ themeId: change.themeId });
    case 'campaign':
      return write({ campaignId: change.campaignId });
    case 'refresh':
      throw new ProblemError(422, 'no-post', 'A draft follows its piece anyway.');
    case 'hold':
    case 'release':
      throw new ProblemError(422, 'no-post', 'A draft goes out only once it is scheduled.');
    case 'label':
      if (entry.pieceId === null) throw new ProblemError(422, 'no-piece', 'A placeholder has no piece to label.');
      return labelPiece(services, brand, entry.pieceId, change.label);
    case 'cancel':
      await db.transaction(async (trx) => {
        await freeSlots(trx, { entryId: entry.id });
        await deletePlanEntry(trx, brand.id, entry.id, machineNowMs);
      });
  }
}

const MAX_LABELS = 20;

async function labelPiece({ db, clock }: Services, brand: Brand, pieceId: string, label: string): Promise<void> {
  await db.transaction(async (trx) => {
    const plan = await getPiecePlan(trx, brand.id, pieceId);
    if (plan.labels.length >= MAX_LABELS) throw new ProblemError(422, 'too-many', `A piece has at most ${MAX_LABELS} labels.`);
    await savePiecePlan(trx, brand.id, pieceId, { ...plan, labels: [...plan.labels, label] }, clock.machineNowMs());
  });
}
