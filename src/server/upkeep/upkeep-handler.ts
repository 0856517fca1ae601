import { pruneConnections } from '../db/connection-repository.ts';
import { pruneReviewLinks } from '../db/review-repository.ts';
import { SESSION_IDLE_MS } from '../auth/caller.ts';
import { keepReserve } from './disk-reserve.ts';
import { pruneChanges } from '../db/change-repository.ts';
import { sweepDocuments } from '../db/document-repository.ts';
import { pruneJobs, type NewJob } from '../db/job-repository.ts';
import { purgePieces, thinRevisions } from '../db/piece-repository.ts';
import { pruneLinks } from '../db/link-repository.ts';
import { prunePresence } from '../db/presence-repository.ts';
import { pruneSessions } from '../db/session-repository.ts';
import { listStalePackages } from '../db/package-repository.ts';
import { takeStaleUploads } from '../db/upload-repository.ts';
import { removePackage } from '../exchange/import-package.ts';
import type { JobHandler } from '../jobs/job-handler.ts';
import { sweepIncoming } from '../media/sweep-incoming.ts';
import { UploadParts } from '../media/upload-parts.ts';
import type { Services } from '../services.ts';

const KIND = 'upkeep';
const EVERY_MS = 10 * 60_000;
/** Files that nobody has gone on with for so long are thrown away. */
const STALE_UPLOAD_MS = 24 * 3_600_000;
/** Packages that nobody has imported, or that have been, are thrown away. */
const STALE_PACKAGE_MS = 3 * 24 * 3_600_000;
/** A deleted piece can be restored for so long. */
const DELETED_MS = 30 * 24 * 3_600_000;

export const upkeepJob: NewJob = { key: KIND, kind: KIND, lane: 'upkeep', payload: {}, maxAttempts: 8 };

/** Throws away what nobody will ask for any more; it comes round for ever. */
export function upkeepHandler(services: Pick<Services, 'db' | 'clock' | 'media' | 'log'>): JobHandler {
  const { db, clock, media, log } = services;
  return {
    async run() {
      const machineNowMs = clock.machineNowMs();
      const nowMs = await clock.nowMs();
      const parts = new UploadParts(media);
      for (const id of await takeStaleUploads(db, machineNowMs - STALE_UPLOAD_MS)) await parts.drop(id);
      for (const incoming of await listStalePackages(db, machineNowMs - STALE_PACKAGE_MS)) await removePackage(services, incoming);
      const pieces = await purgePieces(db, nowMs - DELETED_MS);
      const revisions = await thinRevisions(db, nowMs);
      const documents = await sweepDocuments(db, nowMs);
      await pruneChanges(db, machineNowMs);
      await pruneJobs(db, machineNowMs);
      await prunePresence(db, machineNowMs);
      await pruneSessions(db, machineNowMs, machineNowMs - SESSION_IDLE_MS);
      await pruneLinks(db, machineNowMs);
      await pruneConnections(db, machineNowMs);
      await pruneReviewLinks(db, machineNowMs);
      keepReserve(media.dataFolder);
      await sweepIncoming(media.dataFolder, machineNowMs - STALE_UPLOAD_MS);
      log.info({ pieces, revisions, documents }, 'upkeep is done');
      return { kind: 'again', afterMs: EVERY_MS };
    },
  };
}
