import { setTimeout as sleep } from 'node:timers/promises';
import { nanoid } from 'nanoid';
import { backoffMs, spreadOf } from '../../core/job/backoff.ts';
import { claimJob, endAttempt, noteJobProgress, prolongJob, type Job, type JobEnd } from '../db/job-repository.ts';
import { watchWrites } from '../db/write-watch.ts';
import type { Services } from '../services.ts';
import { undisturbed, type JobContext, type JobHandlers, type JobOutcome } from './job-handler.ts';
import { PLACES_OF_GROUP, resourcePlaces, type Lane, type Resource } from './lanes.ts';

export type RunnerServices = Pick<Services, 'db' | 'clock' | 'log'>;

/** How long a job is held without a sign of life, and how often one is given. A cancelled job stops at the next one. */
export const LEASE_MS = 15_000;
const SIGN_OF_LIFE_MS = 1_000;
/** How often the database is asked for news when nothing was due: soon enough that a page hardly waits for it. */
const IDLE_MS = 50;
/** Without news the queue is read this often all the same, as time alone makes jobs due. */
const READ_EVERY_MS = 1_000;
/** Work that has not come to its end so long after it was asked to is left to its lease: another process takes it up again. */
const END_WITHIN_MS = 45_000;
/** Progress is written down this often. */
const NOTE_EVERY_MS = 500;

/** What a person reads when work ended its process each time, or failed each time for a reason unknown. */
const BROKEN_OFF = 'It broke off each time, for a reason that Confetti does not know. The log has more. Try again, or with another file.';

/** Counts the jobs that hold each resource in this process. */
class Resources {
  readonly #held = new Map<Resource, number>();

  isFree(resource: Resource | null): boolean {
    return resource === null || (this.#held.get(resource) ?? 0) < resourcePlaces[resource];
  }

  hold(resource: Resource | null): () => void {
    if (resource === null) return () => undefined;
    this.#held.set(resource, (this.#held.get(resource) ?? 0) + 1);
    return () => void this.#held.set(resource, (this.#held.get(resource) ?? 1) - 1);
  }
}

/**
 * Works on the queue until its signal aborts. Then it returns the jobs that can begin anew and waits for the others, which
 * return by themselves what has not begun to count. One that does not come to its end in time is named in the log.
 */
export async function runJobs(services: RunnerServices, handlers: JobHandlers, lanes: readonly Lane[], stop: AbortSignal, endWithinMs = END_WITHIN_MS): Promise<void> {
  const resources = new Resources();
  const running = new Map<string, number>();
  const runningOfGroup = new Map<string, number>();
  const work = new Map<Promise<void>, Job>();
  const watch = watchWrites(services.db);
  let hasPlace = false;
  const isOpen = (lane: Lane): boolean => (running.get(lane.name) ?? 0) < lane.places && resources.isFree(lane.takes);
  while (!stop.aborted) {
    const open = lanes.filter(isOpen);
    const fullGroups = [...runningOfGroup].filter(([, count]) => count >= PLACES_OF_GROUP).map(([group]) => group);
    const job = open.length > 0 ? await nextJob(services, open.map(({ name }) => name), fullGroups) : null;
    const lane = open.find(({ name }) => name === job?.lane);
    if (!job || !lane) {
      await untilNews(() => watch.hasBeenWritten() || hasPlace, stop);
      hasPlace = false;
      continue;
    }
    const release = resources.hold(lane.takes);
    running.set(lane.name, (running.get(lane.name) ?? 0) + 1);
    const { groupKey } = job;
    if (groupKey !== '') runningOfGroup.set(groupKey, (runningOfGroup.get(groupKey) ?? 0) + 1);
    const one: Promise<void> = runJob(services, handlers, job, { stopping: stop, isInterruptible: lane.isInterruptible }).finally(() => {
      release();
      running.set(lane.name, (running.get(lane.name) ?? 1) - 1);
      if (groupKey !== '') runningOfGroup.set(groupKey, (runningOfGroup.get(groupKey) ?? 1) - 1);
      work.delete(one);
      hasPlace = true;
    });
    work.set(one, job);
  }
  const waited = new AbortController();
  await Promise.race([Promise.all(work.keys()), sleep(endWithinMs, undefined, { signal: waited.signal }).catch(() => undefined)]);
  waited.abort();
  if (work.size > 0) services.log.error({ jobs: [...work.values()].map(({ key }) => key) }, 'work did not come to its end in time: it is left to be taken up again');
  watch.close();
}

/** Waits until something is new, the queue is due to be read, or work stops. */
async function untilNews(isNew: () => boolean, stop: AbortSignal): Promise<void> {
  for (let waitedMs = 0; waitedMs < READ_EVERY_MS && !stop.aborted && !isNew(); waitedMs += IDLE_MS) await sleep(IDLE_MS, undefined, { signal: stop }).catch(() => undefined);
}

/** Runs everything of some lanes that is due right now, one job after the other; answers how many attempts that were. */
export async function runDueJobs(services: RunnerServices, handlers: JobHandlers, lanes: readonly string[]): Promise<number> {
  let attempts = 0;
  for (let job = await nextJob(services, lanes); job; job = await nextJob(services, lanes)) {
    attempts += 1;
    await runJob(services, handlers, job, { stopping: undisturbed.stopping, isInterruptible: false });
  }
  return attempts;
}

/** A database that is locked for a moment must not end the worker: the lane looks again. */
async function nextJob({ db, clock, log }: RunnerServices, lanes: readonly string[], fullGroups: readonly string[] = []): Promise<Job | null> {
  try {
    return await claimJob(db, { lease: nanoid(), lanes, fullGroups, nowMs: await clock.nowMs(), machineNowMs: clock.machineNowMs(), leaseMs: LEASE_MS });
  } catch (error) {
    log.error({ err: error, lanes }, 'the queue could not be read');
    return null;
  }
}

async function runJob(services: RunnerServices, handlers: JobHandlers, job: Job, { stopping, isInterruptible }: { readonly stopping: AbortSignal; readonly isInterruptible: boolean }): Promise<void> {
  const { db, clock } = services;
  const lease = job.lease ?? '';
  const log = services.log.child({ job: job.id, key: job.key, attempt: job.attempt });
  const lost = new AbortController();
  const alive = setInterval(() => {
    prolongJob(db, job.id, lease, clock.machineNowMs() + LEASE_MS).then(
      (held) => void (held || lost.abort()),
      (error: unknown) => log.warn({ err: error }, 'the lease could not be prolonged'),
    );
  }, SIGN_OF_LIFE_MS);
  try {
    const outcome = await attempt(services, handlers, job, { signal: isInterruptible ? AbortSignal.any([stopping, lost.signal]) : lost.signal, stopping }, log);
    if (lost.signal.aborted) return log.info('the job was cancelled or taken over');
    const end = isInterruptible && stopping.aborted && outcome.kind === 'retry' ? ({ event: 'release' } as const) : endOf(outcome, job, clock.machineNowMs());
    await endAttempt(db, job.id, lease, end, clock.machineNowMs());
    log.info({ outcome: end.event }, 'attempt ended');
  } catch (error) {
    // The lease runs out, and the job is claimed again.
    log.error({ err: error }, 'the end of an attempt could not be written down');
  } finally {
    clearInterval(alive);
  }
}

/** One attempt. What a handler throws is unknown: it is logged whole, and the job is retried until its attempts are used up. */
async function attempt(services: RunnerServices, handlers: JobHandlers, job: Job, { signal, stopping }: Pick<JobContext, 'signal' | 'stopping'>, log: RunnerServices['log']): Promise<JobOutcome> {
  const handler = handlers[job.kind];
  if (!handler) return { kind: 'failed', problem: `Confetti does not know how to do ‘${job.kind}’.` };
  const giveUp = async (problem: string): Promise<JobOutcome> => {
    await handler.giveUp?.(job, problem);
    return { kind: 'failed', problem };
  };
  // More attempts than allowed were claimed: those before ended their process.
  if (job.attempt > job.maxAttempts) return giveUp(job.problem ?? BROKEN_OFF);
  try {
    return await handler.run(job, { signal, stopping, progress: progressNoter(services, job) });
  } catch (error) {
    if (signal.aborted) return { kind: 'retry', problem: 'It was stopped.' };
    log.error({ err: error }, 'attempt failed');
    return job.attempt >= job.maxAttempts ? giveUp(BROKEN_OFF) : { kind: 'retry', problem: 'Something went wrong on our side. Confetti tries again.' };
  }
}

function endOf(outcome: JobOutcome, job: Job, machineNowMs: number): JobEnd {
  switch (outcome.kind) {
    case 'done':
      return { event: 'finish', result: outcome.result ?? null };
    case 'failed':
      return { event: 'fail', problem: outcome.problem, result: outcome.result ?? null };
    case 'retry':
      return { event: 'postpone', problem: outcome.problem, notBeforeMs: machineNowMs + (outcome.afterMs ?? backoffMs(job.attempt, spreadOf(job.id, job.attempt), null)) };
    case 'stopped':
      return { event: 'release' };
    case 'again':
      return { event: 'repeat', notBeforeMs: machineNowMs + outcome.afterMs };
  }
}

function progressNoter({ db, clock, log }: RunnerServices, { id, lease }: Job): (share: number) => void {
  let lastMs = 0;
  return (share) => {
    const nowMs = clock.machineNowMs();
    if (nowMs - lastMs < NOTE_EVERY_MS) return;
    lastMs = nowMs;
    noteJobProgress(db, id, lease ?? '', share).catch((error: unknown) => log.warn({ err: error, job: id }, 'progress was not noted'));
  };
}
