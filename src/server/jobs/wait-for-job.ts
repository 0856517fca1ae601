import { setTimeout as sleep } from 'node:timers/promises';
import { hasEnded } from '../../core/job/job-state.ts';
import type { Db } from '../db/connection.ts';
import { findJob, type Job } from '../db/job-repository.ts';

const LOOK_EVERY_MS = 60;

/** Waits until a job has ended, for a while; answers it as it is then. A request waits here; it does none of the work. */
export async function waitForJob(db: Db, key: string, withinMs: number, signal: AbortSignal | null = null): Promise<Job | null> {
  const end = performance.now() + withinMs;
  for (;;) {
    const job = await findJob(db, key);
    if (!job || hasEnded(job.state) || performance.now() >= end || signal?.aborted) return job;
    await sleep(LOOK_EVERY_MS);
  }
}
