import { cancelChannel, holdChannel, listHeldOfChannel, releaseDelivery } from '../db/delivery-repository.ts';
import type { Brand, Channel } from '../db/brand-repository.ts';
import { removeChannel as takeChannel, setChannelState } from '../db/channel-repository.ts';
import { enqueueJob, moveJob, rescheduleJob } from '../db/job-repository.ts';
import { getPlan } from '../db/plan-repository.ts';
import { deliveryJob, deliveryJobKey } from '../dispatch/delivery-handler.ts';
import { ProblemError } from '../errors.ts';
import type { Services } from '../services.ts';

type Needed = Pick<Services, 'db' | 'clock' | 'sealer'>;

/** What became of that which waits on a channel. */
export interface Moved {
  readonly held: number;
  readonly released: number;
  /** What was due meanwhile: a person decides about it. */
  readonly missed: number;
}

/** Lets nothing out on a channel until it is resumed. @throws ProblemError 409 when it is not connected */
export async function pauseChannel({ db, clock }: Needed, channel: Channel): Promise<Moved> {
  const machineNowMs = clock.machineNowMs();
  return db.transaction(async (trx) => {
    if (!(await setChannelState(trx, channel, 'paused', ['connected'], machineNowMs))) throw new ProblemError(409, 'not-connected', `${channel.name} is not connected now, so there is nothing to pause.`);
    const held = await holdChannel(trx, channel.id, machineNowMs);
    for (const id of held) await moveJob(trx, deliveryJobKey(id), 'cancel', machineNowMs);
    return { held: held.length, released: 0, missed: 0 };
  });
}

/** Resumes a paused channel. Posts that are still ahead keep their moments. @throws ProblemError 409 when it is not paused, or everything is held */
export async function resumeChannel({ db, clock }: Needed, brand: Pick<Brand, 'id'>, channel: Channel, nowMs: number): Promise<Moved> {
  const machineNowMs = clock.machineNowMs();
  return db.transaction(async (trx) => {
    if (!(await setChannelState(trx, channel, 'connected', ['paused'], machineNowMs))) throw new ProblemError(409, 'not-paused', `${channel.name} is not paused.`);
    const isHeld = (await getPlan(trx, brand.id)).heldSinceMs !== null;
    const held = await listHeldOfChannel(trx, channel.id);
    const ahead = isHeld ? [] : held.filter(({ dueMs }) => dueMs > nowMs);
    for (const delivery of ahead) {
      if (!(await releaseDelivery(trx, brand.id, delivery.id, delivery.dueMs, machineNowMs))) continue;
      await enqueueJob(trx, deliveryJob(delivery), machineNowMs, { again: true });
      await rescheduleJob(trx, deliveryJobKey(delivery.id), delivery.dueMs);
    }
    return { held: isHeld ? held.length : 0, released: ahead.length, missed: held.filter(({ dueMs }) => dueMs <= nowMs).length };
  });
}

/** Disconnects a channel: what waits on it is cancelled, and its access is forgotten. Answers how many deliveries were cancelled. */
export async function disconnectChannel({ db, clock, sealer }: Needed, channel: Channel, nowMs: number): Promise<number> {
  const machineNowMs = clock.machineNowMs();
  return db.transaction(async (trx) => {
    const cancelled = await cancelChannel(trx, channel.id, machineNowMs);
    for (const id of cancelled) await moveJob(trx, deliveryJobKey(id), 'cancel', machineNowMs);
    await takeChannel(trx, channel, sealer.seal(''), nowMs, machineNowMs);
    return cancelled.length;
  });
}
