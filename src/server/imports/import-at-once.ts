import { nanoid } from 'nanoid';
import { rename } from 'node:fs/promises';
import type { Brand } from '../db/brand-repository.ts';
import { enqueueJob } from '../db/job-repository.ts';
import { findMedia, type MediaItem } from '../db/media-repository.ts';
import { deleteUpload, findUploadById, insertUpload } from '../db/upload-repository.ts';
import { ProblemError } from '../errors.ts';
import { waitForJob } from '../jobs/wait-for-job.ts';
import type { ReceivedFile } from '../media/receive-upload.ts';
import { UploadParts } from '../media/upload-parts.ts';
import type { Services } from '../services.ts';
import { importJob, importJobKey, importProblem, type ImportAbout } from './import-upload.ts';

/** A clip of half an hour is transcoded within this time; when the caller leaves earlier, the import continues. */
const WAIT_MS = 30 * 60_000;

export interface FileAtOnce {
  readonly received: ReceivedFile;
  readonly name: string;
  readonly personId: string;
  readonly signal: AbortSignal;
  readonly about?: ImportAbout;
}

/**
 * Queues the import of a file that came in one request, and waits for its result.
 * @throws ProblemError saying what is wrong with the file; 503 when it takes too long
 */
export async function imported(services: Pick<Services, 'db' | 'media' | 'clock'>, brand: Brand, { received, name, personId, signal, about }: FileAtOnce): Promise<MediaItem> {
  const { db, media, clock } = services;
  const parts = new UploadParts(media);
  const id = nanoid(16);
  await rename(received.path, parts.pathOf(id));
  await insertUpload(db, { id, brandId: brand.id, personId, name, bytes: received.bytes, startedMs: clock.machineNowMs() });
  await enqueueJob(db, await importJob(parts, id, about), clock.machineNowMs());
  const job = await waitForJob(db, importJobKey(id), WAIT_MS, signal);
  if (job?.state === 'failed') {
    // Nobody has been told the upload's name, so nobody can retry it.
    await parts.drop(id);
    await deleteUpload(db, id);
    throw importProblem(job);
  }
  const mediaId = (await findUploadById(db, id))?.mediaId ?? null;
  const item = mediaId === null ? null : await findMedia(db, brand.id, mediaId);
  if (!item) throw new ProblemError(503, 'not-ready', 'The import takes longer than this request can wait. Look among the media in a while.', { retryAfterSeconds: 30 });
  await deleteUpload(db, id);
  return item;
}
