import { nanoid } from 'nanoid';
import { jobEvents, type JobEvent, type JobState } from '../../core/job/job-state.ts';
import type { Db } from './connection.ts';
import { fromRow } from './row.ts';

/** One piece of work in the queue. `due` is by the product's clock; waits and leases are by the machine's. */
export interface Job {
  readonly id: string;
  readonly key: string;
  readonly kind: string;
  readonly lane: string;
  /** Jobs of one group share places within their lane; empty: none. */
  readonly groupKey: string;
  readonly payload: Readonly<Record<string, unknown>>;
  readonly state: JobState;
  readonly dueMs: number;
  readonly notBeforeMs: number;
  /** Counted when the job is claimed, so that work which ends its process counts as well. */
  readonly attempt: number;
  readonly maxAttempts: number;
  readonly lease: string | null;
  /** How much is done, in [0, 1]. */
  readonly progress: number;
  readonly problem: string | null;
  readonly result: Readonly<Record<string, unknown>> | null;
  readonly startedMs: number | null;
}

export interface NewJob {
  /** Work of one key exists once. */
  readonly key: string;
  readonly kind: string;
  readonly lane: string;
  readonly group?: string;
  readonly payload: Readonly<Record<string, unknown>>;
  readonly maxAttempts: number;
  /** Higher goes first. */
  readonly priority?: number;
  readonly dueMs?: number;
}

const toJob = (row: object): Job => {
  const job = fromRow<Omit<Job, 'payload' | 'result'> & { readonly payload: string; readonly result: string | null }>(row);
  return { ...job, payload: JSON.parse(job.payload) as Job['payload'], result: job.result === null ? null : (JSON.parse(job.result) as Job['payload']) };
};

/** Ended jobs are kept for this long, to tell what became of them. */
const KEEP_ENDED_MS = 7 * 24 * 3_600_000;

/**
 * Puts work into the queue, or finds the work of that key which is there already.
 * @param again whether work that has ended begins anew
 */
export async function enqueueJob(db: Db, job: NewJob, machineNowMs: number, { again }: { readonly again: boolean } = { again: false }): Promise<Job> {
  await db('jobs')
    .insert({ id: nanoid(16), key: job.key, kind: job.kind, lane: job.lane, group_key: job.group ?? '', payload: JSON.stringify(job.payload), priority: job.priority ?? 0, state: 'waiting', due_ms: job.dueMs ?? 0, max_attempts: job.maxAttempts, created_ms: machineNowMs })
    .onConflict('key')
    .ignore();
  if (again) await restartJob(db, job.key, job.payload);
  return getJob(db, job.key);
}

/** Begins ended work anew, with all its attempts; false when it has not ended. */
export async function restartJob(db: Db, key: string, payload?: Job['payload']): Promise<boolean> {
  return (await db('jobs').where({ key }).whereIn('state', [...jobEvents.restart.from]).update({ state: jobEvents.restart.to, attempt: 0, not_before_ms: 0, progress: 0, problem: null, result: null, started_ms: null, ended_ms: null, ...(payload === undefined ? {} : { payload: JSON.stringify(payload) }) })) > 0;
}

export async function findJob(db: Db, key: string): Promise<Job | null> {
  const row: object | undefined = await db('jobs').where({ key }).first();
  return row ? toJob(row) : null;
}

export async function findJobs(db: Db, keys: readonly string[]): Promise<ReadonlyMap<string, Job>> {
  const rows: object[] = await db('jobs').whereIn('key', [...keys]);
  return new Map(rows.map((row) => toJob(row)).map((job) => [job.key, job]));
}

/** @throws RangeError when there is no such work */
export async function getJob(db: Db, key: string): Promise<Job> {
  const job = await findJob(db, key);
  if (!job) throw new RangeError(`There is no job '${key}'`);
  return job;
}

export interface Claim {
  readonly lease: string;
  readonly lanes: readonly string[];
  /** Groups that have as many jobs running as they may. */
  readonly fullGroups: readonly string[];
  readonly nowMs: number;
  readonly machineNowMs: number;
  readonly leaseMs: number;
}

/**
 * Takes the next job that is due, or whose holder has let its lease run out, in one statement that names the state it expects, so
 * that no two workers get the same. The attempt is counted here.
 */
export async function claimJob(db: Db, { lease, lanes, fullGroups, nowMs, machineNowMs, leaseMs }: Claim): Promise<Job | null> {
  const isClaimable = (query: import('knex').Knex.QueryBuilder): void =>
    void query.where((either) =>
      either
        .where((waiting) => waiting.where({ state: 'waiting' }).where('due_ms', '<=', nowMs).where('not_before_ms', '<=', machineNowMs))
        .orWhere((abandoned) => abandoned.where({ state: 'running' }).where('lease_until_ms', '<', machineNowMs)),
    );
  const next = db('jobs')
    .select('id')
    .whereIn('lane', [...lanes])
    .whereNotIn('group_key', [...fullGroups])
    .modify(isClaimable)
    .orderBy([{ column: 'priority', order: 'desc' }, { column: 'due_ms' }, { column: 'created_ms' }, { column: 'id' }])
    .limit(1);
  const [row] = await db('jobs')
    .where('id', '=', next)
    .modify(isClaimable)
    .update({ state: jobEvents.claim.to, lease, lease_until_ms: machineNowMs + leaseMs, attempt: db.raw('attempt + 1'), started_ms: machineNowMs, progress: 0 })
    .returning('*');
  return row ? toJob(row) : null;
}

/** Prolongs a lease; false when it was lost or the job was cancelled. */
export async function prolongJob(db: Db, id: string, lease: string, untilMs: number): Promise<boolean> {
  return (await db('jobs').where({ id, lease, state: 'running' }).update({ lease_until_ms: untilMs })) > 0;
}

export async function noteJobProgress(db: Db, id: string, lease: string, progress: number): Promise<void> {
  await db('jobs').where({ id, lease, state: 'running' }).update({ progress });
}

/** How an attempt ended. `release` does not count as an attempt; after `repeat` they are counted from the start. */
export type JobEnd =
  | { readonly event: 'finish'; readonly result: Job['payload'] | null }
  | { readonly event: 'postpone'; readonly problem: string | null; readonly notBeforeMs: number }
  | { readonly event: 'release' }
  | { readonly event: 'repeat'; readonly notBeforeMs: number }
  | { readonly event: 'fail'; readonly problem: string; readonly result: Job['payload'] | null };

/** Ends an attempt, if the lease is still held; false when it was lost. */
export async function endAttempt(db: Db, id: string, lease: string, end: JobEnd, machineNowMs: number): Promise<boolean> {
  const fields = { state: jobEvents[end.event].to, lease: null, lease_until_ms: 0 };
  const more = ((): Record<string, unknown> => {
    switch (end.event) {
      case 'finish':
        return { progress: 1, problem: null, result: end.result === null ? null : JSON.stringify(end.result), ended_ms: machineNowMs };
      case 'postpone':
        return { problem: end.problem, not_before_ms: end.notBeforeMs };
      case 'release':
        return { attempt: db.raw('attempt - 1') };
      case 'repeat':
        return { attempt: 0, problem: null, not_before_ms: end.notBeforeMs };
      case 'fail':
        return { problem: end.problem, result: end.result === null ? null : JSON.stringify(end.result), ended_ms: machineNowMs };
    }
  })();
  return (await db('jobs').where({ id, lease, state: 'running' }).update({ ...fields, ...more })) > 0;
}

/** Moves a job on by its key, if its state allows the event; false when it does not. */
export async function moveJob(db: Db, key: string, event: Extract<JobEvent, 'cancel'>, machineNowMs: number): Promise<boolean> {
  const { from, to } = jobEvents[event];
  return (await db('jobs').where({ key }).whereIn('state', [...from]).update({ state: to, lease: null, ended_ms: machineNowMs })) > 0;
}

/** Makes waiting work due at another moment; false when it does not wait. */
export async function rescheduleJob(db: Db, key: string, dueMs: number): Promise<boolean> {
  return (await db('jobs').where({ key, state: 'waiting' }).update({ due_ms: dueMs, not_before_ms: 0 })) > 0;
}

export async function pruneJobs(db: Db, machineNowMs: number): Promise<void> {
  await db('jobs').whereIn('state', [...jobEvents.restart.from]).where('ended_ms', '<', machineNowMs - KEEP_ENDED_MS).delete();
}
