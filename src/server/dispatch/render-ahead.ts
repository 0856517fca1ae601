import { listDueSoon, getDelivery } from '../db/delivery-repository.ts';
import { enqueueJob, type NewJob } from '../db/job-repository.ts';
import { readPin } from '../documents/pins.ts';
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

export function aheadHandler(services: Services): JobHandler {
  return {
    async run(job, { signal }) {
      const delivery = await getDelivery(services.db, job.payload['deliveryId'] as string);
      if (delivery.state !== 'scheduled') return { kind: 'done' };
      await makeFiles(services, planFiles(services, await readPin(services.db, delivery.pin), delivery), delivery, signal);
      return { kind: 'done' };
    },
  };
}
