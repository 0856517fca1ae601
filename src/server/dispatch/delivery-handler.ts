import { MAX_ATTEMPTS } from '../../core/job/backoff.ts';
import { connectorFor as usualConnectorFor, type ConnectorFor } from '../connectors/registry.ts';
import { beginDelivery, finishDelivery, getDelivery, type Delivery, type Outcome } from '../db/delivery-repository.ts';
import type { Job, NewJob } from '../db/job-repository.ts';
import type { JobHandler, JobOutcome } from '../jobs/job-handler.ts';
import { TooHeavyError } from '../render/errors.ts';
import type { Services } from '../services.ts';
import { deliver, LeaseLostError, StoppedError } from './deliver.ts';
import { unknownOutcome } from './unknown-outcome.ts';

const KIND = 'delivery';

/** The key of the work that sends a delivery. */
export const deliveryJobKey = (deliveryId: string): string => `${KIND}:${deliveryId}`;

/**
 * The work that sends a delivery at its moment.
 * @param isAskedFor a person wants it sent, however late it is
 * Videos are made before they are sent: they have a lane of their own.
 */
export function deliveryJob({ id, kind, network, dueMs }: Pick<Delivery, 'id' | 'kind' | 'network' | 'dueMs'>, { isAskedFor }: { readonly isAskedFor: boolean } = { isAskedFor: false }): NewJob {
  return { key: deliveryJobKey(id), kind: KIND, lane: kind === 'video' ? 'send-video' : 'send', group: network, payload: { deliveryId: id, isAskedFor }, maxAttempts: MAX_ATTEMPTS, dueMs };
}

const idOf = (job: Job): string => job.payload['deliveryId'] as string;

/** Sends deliveries. What cannot be known is never final: it is tried again, and the network is asked first. */
export function deliveryHandler(services: Services, connectorFor: ConnectorFor = usualConnectorFor): JobHandler {
  const { db, clock } = services;
  const begin = (job: Job): Promise<Delivery | null> => beginDelivery(db, idOf(job), { lease: job.lease ?? '', attempt: job.attempt }, clock.machineNowMs());
  const finish = async (job: Job, outcome: Outcome): Promise<JobOutcome> => {
    await finishDelivery(db, idOf(job), job.lease ?? '', outcome, clock.machineNowMs());
    return outcomeOfJob(outcome, clock.machineNowMs());
  };
  return {
    async run(job, { signal, stopping }) {
      const delivery = await begin(job);
      if (!delivery) return { kind: 'done' };
      const log = services.log.child({ delivery: delivery.id, attempt: delivery.attempt });
      try {
        const outcome = await deliver(services, delivery, { connectorFor, isAskedFor: job.payload['isAskedFor'] === true }, { signal, stopping });
        log.info({ outcome: outcome.kind }, 'attempt ended');
        return await finish(job, outcome);
      } catch (error) {
        if (error instanceof LeaseLostError) return { kind: 'retry', problem: 'Another worker has taken it over.' };
        if (error instanceof StoppedError) return { kind: 'stopped' };
        if (error instanceof TooHeavyError) return finish(job, { kind: 'refuse', problem: `No quality of this ${nameOf(delivery)} is light enough for the network.` });
        log.error({ err: error }, 'attempt failed');
        return finish(job, unknownOutcome(await getDelivery(db, delivery.id), clock.machineNowMs()));
      }
    },
    async giveUp(job) {
      const delivery = await begin(job);
      if (delivery) await finish(job, unknownOutcome({ ...delivery, attempt: job.maxAttempts }, clock.machineNowMs()));
    },
  };
}

const nameOf = ({ kind }: Pick<Delivery, 'kind'>): string => (kind === 'video' ? 'video' : 'picture');

function outcomeOfJob(outcome: Outcome, machineNowMs: number): JobOutcome {
  switch (outcome.kind) {
    case 'confirm':
    case 'hand-over':
    case 'pause':
      return { kind: 'done' };
    case 'refuse':
      return { kind: 'failed', problem: outcome.problem };
    case 'postpone':
      return { kind: 'retry', problem: outcome.problem, afterMs: outcome.notBeforeMs - machineNowMs };
  }
}
