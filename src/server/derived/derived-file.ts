import { enqueueJob, findJob, type NewJob } from '../db/job-repository.ts';
import { ProblemError } from '../errors.ts';
import { waitForJob } from '../jobs/wait-for-job.ts';
import { exists } from '../media/derivatives.ts';
import type { Services } from '../services.ts';

/** A file that is made from what is kept, and may be deleted: where it lies, and the work that makes it. */
export interface DerivedFile {
  readonly path: string;
  readonly job: NewJob;
}

/** A request waits this long for its file; after that it asks to be sent again. */
const WAIT_MS = 20_000;
const ASK_AGAIN_S = 2;

/**
 * The path of a derived file. What is not there is asked for in the queue, where a worker makes it; the request only waits.
 * @throws ProblemError 503 when it is still being made, 422 when it cannot be made
 */
export async function derivedFile(services: Pick<Services, 'db' | 'clock'>, { path, job }: DerivedFile, signal: AbortSignal | null = null): Promise<string> {
  if (await exists(path)) return path;
  await requestDerived(services, job);
  const ended = await waitForJob(services.db, job.key, WAIT_MS, signal);
  if (await exists(path)) return path;
  if (ended?.state === 'failed') throw new ProblemError(422, 'not-made', ended.problem ?? 'This file cannot be made.');
  throw new ProblemError(503, 'not-ready', 'This file is still being made. Ask again in a moment.', { retryAfterSeconds: ASK_AGAIN_S });
}

/** Asks for a derived file without waiting for it. What failed is not tried again by asking: that would never end. */
export async function requestDerived({ db, clock }: Pick<Services, 'db' | 'clock'>, job: NewJob): Promise<void> {
  const known = await findJob(db, job.key);
  await enqueueJob(db, job, clock.machineNowMs(), { again: known?.state === 'done' || known?.state === 'cancelled' });
}
