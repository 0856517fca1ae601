import { listDueSoon, getDelivery, type Delivery } from '../db/delivery-repository.ts';
import { enqueueJob, type NewJob } from '../db/job-repository.ts';
import { readPin } from '../documents/pins.ts';
import { ProblemError } from '../errors.ts';
import { waitForJob } from '../jobs/wait-for-job.ts';
import type { JobHandler } from '../jobs/job-handler.ts';
import type { Services } from '../services.ts';
import { makeFiles, planFiles } from './outgoing-files.ts';

const KIND = 'ahead';
/** Files are made so long before they are sent. */
const AHEAD_MS = 3_600_000;
/** Deliveries that one round looks at: the others come with the next. */
const MAX_A_ROUND = 500;

const aheadJob = (deliveryId: string, isVideo: boolean): NewJob => ({ key: `${KIND}:${deliveryId}`, kind: KIND, lane: isVideo ? 'export' : 'picture', payload: { deliveryId }, maxAttempts: 2, priority: -1 });

/** Asks for the files of what is due within the hour, once each. What cannot be made ahead is made, or refused, when it is sent. */
export async function renderAhead({ db, clock }: Pick<Services, 'db' | 'clock'>, brandId: string, nowMs: number): Promise<void> {
  for (const { id, kind } of await listDueSoon(db, brandId, nowMs, nowMs + AHEAD_MS, MAX_A_ROUND)) await enqueueJob(db, aheadJob(id, kind === 'video'), clock.machineNowMs());
}

/** A request waits this long for a video; after that it asks to be sent again. */
const WAIT_MS = 20_000;
const ASK_AGAIN_S = 2;

/**
 * Waits until the files of a delivery are made by a worker.
 * @throws ProblemError 503 when they are still being made, 422 when they cannot be made
 */
export async function madeByWorker({ db, clock }: Pick<Services, 'db' | 'clock'>, { id, kind }: Pick<Delivery, 'id' | 'kind'>, signal: AbortSignal): Promise<void> {
  const job = aheadJob(id, kind === 'video');
  await enqueueJob(db, job, clock.machineNowMs(), { again: true });
  const ended = await waitForJob(db, job.key, WAIT_MS, signal);
  if (ended?.state === 'failed') throw new ProblemError(422, 'not-made', ended.problem ?? 'This file cannot be made.');
  if (ended?.state !== 'done') throw new ProblemError(503, 'not-ready', 'This video is still being made. Ask again in a moment.', { retryAfterSeconds: ASK_AGAIN_S });
}

export function aheadHandler(services: Services): JobHandler {
  return {
    async run(job, { signal }) {
      const delivery = await getDelivery(services.db, job.payload['deliveryId'] as string);
      if (delivery.state === 'sending' || delivery.state === 'cancelled') return { kind: 'done' };
      await makeFiles(services, planFiles(services, await readPin(services.db, delivery.pin), delivery), delivery, signal);
      return { kind: 'done' };
    },
  };
}
