import { retimeMissed, type ReleaseRule, type Retimed } from '../../core/plan/hold.ts';
import { formatMoment, wallTimeOf } from '../../core/time/wall-time.ts';
import type { Brand } from '../db/brand-repository.ts';
import type { Db } from '../db/connection.ts';
import { holdDeliveries, listHeld, moveDelivery, releaseDelivery, type Delivery } from '../db/delivery-repository.ts';
import { enqueueJob, moveJob, rescheduleJob } from '../db/job-repository.ts';
import { setHeld } from '../db/plan-repository.ts';
import { setPostMoment } from '../db/post-repository.ts';
import { deliveryJob, deliveryJobKey } from '../dispatch/delivery-handler.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';
import { forecastFrom, readSources } from './brand-forecast.ts';

/** Held deliveries that are let go in one go; more stay for the next. */
const MAX_RELEASED = 5_000;
const HORIZON_MS = 90 * 86_400_000;

/** Holds everything that is scheduled, with its moments; answers how many deliveries. @throws ProblemError 409 when it is held already */
export async function holdEverything({ db, clock }: Services, brand: Brand, nowMs: number): Promise<number> {
  const machineNowMs = clock.machineNowMs();
  return db.transaction(async (trx) => {
    if (!(await setHeld(trx, brand.id, nowMs, machineNowMs))) throw new ProblemError(409, 'held-already', 'Everything of this brand is held already.');
    const held = await holdDeliveries(trx, brand.id, machineNowMs);
    for (const id of held) await moveJob(trx, deliveryJobKey(id), 'cancel', machineNowMs);
    return held.length;
  });
}

/** A held post with its moment, and the one that it gets. */
export interface Release {
  readonly postId: string;
  readonly pieceName: string;
  readonly dueMs: number;
  /** Null: it is cancelled. */
  readonly atMs: number | null;
  readonly isMissed: boolean;
}

/** What letting go would do by a rule: what is still ahead keeps its moment, what was missed gets another one. */
export async function previewRelease(services: Services, brand: Brand, rule: ReleaseRule, nowMs: number): Promise<readonly Release[]> {
  const held = await listHeld(services.db, brand.id, MAX_RELEASED);
  const posts = byPost(held);
  const missed = [...posts.values()].filter(({ dueMs }) => dueMs <= nowMs);
  const retimed = new Map((await retime(services, brand, missed, rule, nowMs)).map(({ id, atMs }) => [id, atMs]));
  return [...posts.values()].map(({ id, pieceName, dueMs }) => ({ postId: id, pieceName, dueMs, isMissed: dueMs <= nowMs, atMs: dueMs <= nowMs ? (retimed.get(id) ?? null) : dueMs }));
}

interface HeldPost {
  readonly id: string;
  readonly pieceName: string;
  readonly dueMs: number;
  readonly channelIds: readonly string[];
}

function byPost(held: readonly Delivery[]): ReadonlyMap<string, HeldPost> {
  const posts = new Map<string, HeldPost>();
  for (const { postId, pieceName, dueMs, channelId } of held) {
    const known = posts.get(postId);
    posts.set(postId, { id: postId, pieceName, dueMs: Math.min(dueMs, known?.dueMs ?? dueMs), channelIds: [...(known?.channelIds ?? []), channelId] });
  }
  return posts;
}

async function retime(services: Services, brand: Brand, missed: readonly HeldPost[], rule: ReleaseRule, nowMs: number): Promise<readonly Retimed[]> {
  if (rule !== 'slot' || missed.length === 0) return retimeMissed(missed, rule, nowMs, []);
  const sources = await readSources(services, brand, nowMs, nowMs + HORIZON_MS);
  const { fills } = forecastFrom({ ...sources, waiting: [], rotations: [] }, brand.zone, nowMs, nowMs + HORIZON_MS);
  return retimeMissed(missed, rule, nowMs, fills.flatMap(({ slot, channelId }) => [{ key: `${slot.key} ${channelId}`, atMs: slot.atMs, channelIds: [channelId] }]));
}

/** Releases every held post at its moment, or at the one that the rule gives it. Answers what became of each. */
export async function releaseEverything(services: Services, brand: Brand, rule: ReleaseRule, nowMs: number): Promise<readonly Release[]> {
  const { db, clock } = services;
  const releases = await previewRelease(services, brand, rule, nowMs);
  const machineNowMs = clock.machineNowMs();
  await db.transaction(async (trx) => {
    if (!(await setHeld(trx, brand.id, null, machineNowMs))) throw new ProblemError(409, 'not-held', 'Nothing of this brand is held.');
    const held = await listHeld(trx, brand.id, MAX_RELEASED);
    for (const { postId, atMs } of releases) {
      const deliveries = held.filter((delivery) => delivery.postId === postId);
      for (const delivery of deliveries) await letGo(trx, delivery, atMs, { nowMs, machineNowMs });
      if (atMs !== null) await setPostMoment(trx, brand.id, postId, { dueMs: atMs, wall: wallTimeOf(atMs, brand.zone), zone: brand.zone }, machineNowMs);
    }
  });
  services.log.info({ brand: brand.slug, posts: releases.length, rule, at: formatMoment(nowMs, brand.zone) }, 'held posts released');
  return releases;
}

async function letGo(trx: Db, delivery: Delivery, atMs: number | null, times: { readonly nowMs: number; readonly machineNowMs: number }): Promise<void> {
  if (atMs === null) {
    await moveDelivery(trx, delivery.brandId, delivery.id, 'cancel', times);
    return;
  }
  if (!(await releaseDelivery(trx, delivery.brandId, delivery.id, atMs, times.machineNowMs))) return;
  await enqueueJob(trx, deliveryJob({ ...delivery, dueMs: atMs }), times.machineNowMs, { again: true });
  await rescheduleJob(trx, deliveryJobKey(delivery.id), atMs);
}
