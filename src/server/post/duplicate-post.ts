import { nanoid } from 'nanoid';
import { mediaOfPiece } from '../../core/piece/piece.ts';
import { signOffNeeded } from '../../core/post/send-settings.ts';
import { listChannels, type Brand } from '../db/brand-repository.ts';
import { insertDeliveries, listDeliveriesOf } from '../db/delivery-repository.ts';
import { enqueueJob } from '../db/job-repository.ts';
import { getPlan } from '../db/plan-repository.ts';
import { insertPost, type Post } from '../db/post-repository.ts';
import { getSendSettings } from '../db/send-settings-repository.ts';
import { deliveryJob } from '../dispatch/delivery-handler.ts';
import { readPin } from '../documents/pins.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';
import { resolveMoment, type When } from './moment.ts';
import { requirePassed, type Scheduler } from './schedule.ts';

/**
 * Schedules a post once more, exactly as it was, on those of its channels that the brand still has.
 * @throws ProblemError 422 for a moment that cannot be, or when preflight stops it then; 409 when none of its channels is there
 */
export async function duplicatePost(services: Services, brand: Brand, post: Post, when: When, { personId, maySend }: Scheduler, nowMs: number): Promise<Pick<Post, 'id' | 'dueMs'>> {
  const { db, clock } = services;
  const moment = resolveMoment(when, brand.zone, nowMs);
  const channels = await listChannels(db, brand.id);
  const deliveries = (await listDeliveriesOf(db, post.id)).filter(({ channelId }) => channels.some(({ id }) => id === channelId));
  if (deliveries.length === 0) throw new ProblemError(409, 'no-channel', 'None of the channels of this post is connected any more.');
  const snapshot = await readPin(db, post.pin);
  await requirePassed(services, brand, snapshot, deliveries, moment.dueMs);
  const needed = signOffNeeded(await getSendSettings(db, brand.id), post.themeId, maySend);
  const machineNowMs = clock.machineNowMs();
  return db.transaction(async (trx) => {
    const isHeld = (await getPlan(trx, brand.id)).heldSinceMs !== null;
    const made = { ...post, id: nanoid(12), ...moment, zone: brand.zone, createdBy: personId, origin: 'person' as const, signOffNeeded: needed, state: needed > 0 ? ('in review' as const) : isHeld ? ('held' as const) : ('scheduled' as const) };
    await insertPost(trx, made, mediaOfPiece(snapshot.piece), machineNowMs);
    const copies = deliveries.map(({ channelId, placement, placementName, words, network }) => ({ id: nanoid(12), idempotencyKey: nanoid(24), channelId, placement, placementName, words, network }));
    await insertDeliveries(trx, made, copies, machineNowMs);
    if (made.state === 'scheduled') for (const { id, network } of copies) await enqueueJob(trx, deliveryJob({ id, network, kind: post.kind, dueMs: moment.dueMs }), machineNowMs);
    return { id: made.id, dueMs: moment.dueMs };
  });
}
