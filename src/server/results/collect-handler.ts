import type { ConnectorFor } from '../connectors/registry.ts';
import { listDueCollections } from '../db/collection-repository.ts';
import { enqueueJob, type NewJob } from '../db/job-repository.ts';
import type { JobHandler } from '../jobs/job-handler.ts';
import type { Services } from '../services.ts';
import { collectChannel } from './collect-channel.ts';

const KIND = 'collect';
const CHANNEL_KIND = 'collect-channel';
const EVERY_MS = 10_000;
const MAX_A_ROUND = 100;

export const collectJob: NewJob = { key: KIND, kind: KIND, lane: 'learn', payload: {}, maxAttempts: 8 };

/** Puts the channels whose turn it is into the queue; it comes round for ever. */
export function collectHandler({ db, clock }: Pick<Services, 'db' | 'clock'>): JobHandler {
  return {
    async run() {
      for (const { channelId, network } of await listDueCollections(db, await clock.nowMs(), MAX_A_ROUND)) {
        await enqueueJob(db, { key: `${CHANNEL_KIND}:${channelId}`, kind: CHANNEL_KIND, lane: 'learn', group: `learn:${network}`, payload: { channelId }, maxAttempts: 3 }, clock.machineNowMs(), { again: true });
      }
      return { kind: 'again', afterMs: EVERY_MS };
    },
  };
}

/** Asks one channel what came back. */
export function collectChannelHandler(services: Services, connectorFor?: ConnectorFor): JobHandler {
  return {
    async run(job, { signal }) {
      await collectChannel(services, job.payload['channelId'] as string, signal, connectorFor);
      return { kind: 'done' };
    },
  };
}
