import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { jobEvents, jobStates, type JobState } from '../../src/core/job/job-state.ts';
import { openDatabase, type Db } from '../../src/server/db/connection.ts';
import { claimJob, endAttempt, enqueueJob, getJob, moveJob, noteJobProgress, prolongJob, pruneJobs, rescheduleJob, restartJob, type JobEnd, type NewJob } from '../../src/server/db/job-repository.ts';
import type { JobHandlers, JobOutcome } from '../../src/server/jobs/job-handler.ts';
import { runDueJobs, runJobs, type RunnerServices } from '../../src/server/jobs/job-runner.ts';
import { watchWrites } from '../../src/server/db/write-watch.ts';
import { openLog } from '../../src/server/log.ts';
import { until } from '../fixtures/programs.ts';

let folder: string;
let db: Db;
let nowMs: number;
let lines: Record<string, unknown>[];
let services: RunnerServices;
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'confetti-jobs-'));
  db = await openDatabase(folder);
  nowMs = 1_000_000;
  lines = [];
  const log = openLog('info', { write: (line: string) => void lines.push(JSON.parse(line) as Record<string, unknown>) });
  services = { db, clock: { nowMs: () => Promise.resolve(nowMs), machineNowMs: () => nowMs }, log };
});
afterEach(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true });
});

const work = (key: string, more: Partial<NewJob> = {}): NewJob => ({ key, kind: 'work', lane: 'a', payload: { key }, maxAttempts: 3, ...more });
const claim = (lease: string, lanes: readonly string[] = ['a'], at: Partial<{ nowMs: number; machineNowMs: number }> = {}) => claimJob(db, { lease, lanes, fullGroups: [], nowMs, machineNowMs: nowMs, leaseMs: 500, ...at });
const stateOf = async (key: string): Promise<JobState> => (await getJob(db, key)).state;

describe('the queue', () => {
  it('keeps work of one key once, however often it is asked for', async () => {
    const jobs = await Promise.all([enqueueJob(db, work('one'), 1), enqueueJob(db, work('one'), 2), enqueueJob(db, work('one'), 3)]);
    expect(new Set(jobs.map(({ id }) => id)).size).toBe(1);
    expect(await db('jobs')).toHaveLength(1);
  });

  it('gives each job to one worker, the most urgent first, then what was due first', async () => {
    await enqueueJob(db, work('late', { dueMs: 30 }), 1);
    await enqueueJob(db, work('early', { dueMs: 10 }), 2);
    await enqueueJob(db, work('urgent', { dueMs: 40, priority: 5 }), 3);
    await enqueueJob(db, work('future', { dueMs: nowMs + 1 }), 4);
    await enqueueJob(db, work('elsewhere', { lane: 'b' }), 5);
    const taken = await Promise.all(['w1', 'w2', 'w3', 'w4'].map((lease) => claim(lease)));
    expect(taken.map((job) => job?.key ?? null)).toEqual(['urgent', 'early', 'late', null]);
    expect((await claim('w5', ['b']))?.key).toBe('elsewhere');
  });

  it('counts an attempt when it is claimed, and claims again what a worker has let run out', async () => {
    await enqueueJob(db, work('one'), 1);
    expect((await claim('w1'))?.attempt).toBe(1);
    expect(await claim('w2')).toBeNull();
    expect(await prolongJob(db, (await getJob(db, 'one')).id, 'w1', nowMs + 1_000)).toBe(true);
    expect(await claim('w2', ['a'], { machineNowMs: nowMs + 600 })).toBeNull();
    expect(await claim('w2', ['a'], { machineNowMs: nowMs + 1_001 })).toMatchObject({ lease: 'w2', attempt: 2 });
    expect(await prolongJob(db, (await getJob(db, 'one')).id, 'w1', nowMs + 9_000)).toBe(false);
  });

  it('waits by both clocks', async () => {
    await enqueueJob(db, work('one', { dueMs: 50 }), 1);
    const job = await claim('w1', ['a'], { nowMs: 50 });
    await endAttempt(db, job?.id ?? '', 'w1', { event: 'postpone', problem: 'Busy', notBeforeMs: nowMs + 5_000 }, nowMs);
    expect(await claim('w2', ['a'], { nowMs: nowMs * 9, machineNowMs: nowMs + 4_999 })).toBeNull();
    expect(await claim('w2', ['a'], { nowMs: 49, machineNowMs: nowMs + 5_000 })).toBeNull();
    expect(await claim('w2', ['a'], { nowMs: 50, machineNowMs: nowMs + 5_000 })).toMatchObject({ attempt: 2, problem: 'Busy' });
  });

  const ends: readonly JobEnd[] = [{ event: 'finish', result: { a: 1 } }, { event: 'postpone', problem: 'p', notBeforeMs: 5 }, { event: 'release' }, { event: 'repeat', notBeforeMs: 5 }, { event: 'fail', problem: 'p', result: null }];
  it.each(ends.map((end) => [end.event, end] as const))('%s ends an attempt of the holder, and of nobody else', async (event, end) => {
    await enqueueJob(db, work('one'), 1);
    const job = await claim('w1');
    expect(await endAttempt(db, job?.id ?? '', 'other', end, nowMs)).toBe(false);
    expect(await endAttempt(db, job?.id ?? '', 'w1', end, nowMs)).toBe(true);
    expect(await stateOf('one')).toBe(jobEvents[event].to);
    expect((await getJob(db, 'one')).attempt).toBe({ finish: 1, postpone: 1, release: 0, repeat: 0, fail: 1 }[event as 'finish']);
  });

  it.each(jobStates)('that is %s is cancelled and begun anew as the table of states says', async (state) => {
    const put = async (): Promise<void> => void (await db('jobs').where({ key: 'one' }).update({ state }));
    await enqueueJob(db, work('one'), 1);
    await put();
    expect(await moveJob(db, 'one', 'cancel', nowMs)).toBe(jobEvents.cancel.from.includes(state));
    await put();
    expect(await restartJob(db, 'one')).toBe(jobEvents.restart.from.includes(state));
    await put();
    expect(await rescheduleJob(db, 'one', 7)).toBe(state === 'waiting');
  });

  it('forgets work that ended long ago, and keeps what waits', async () => {
    for (const key of ['done', 'waiting']) await enqueueJob(db, work(key), 1);
    await db('jobs').where({ key: 'done' }).update({ state: 'done', ended_ms: 1 });
    await pruneJobs(db, 30 * 24 * 3_600_000);
    expect(await db('jobs').pluck('key')).toEqual(['waiting']);
  });
});

/** A handler that answers the given outcomes in turn. */
function answering(...outcomes: readonly (JobOutcome | Error)[]): { readonly handlers: JobHandlers; readonly gaveUp: string[]; readonly runs: () => number } {
  const left = [...outcomes];
  const gaveUp: string[] = [];
  let runs = 0;
  return {
    gaveUp,
    runs: () => runs,
    handlers: {
      work: {
        run() {
          runs += 1;
          const next = left.shift() ?? { kind: 'done' as const };
          return next instanceof Error ? Promise.reject(next) : Promise.resolve(next);
        },
        giveUp: (_, problem) => Promise.resolve(void gaveUp.push(problem)),
      },
    },
  };
}

describe('the runner', () => {
  it('retries an unknown error, logs it whole with the job’s name, and never takes it for an answer', async () => {
    const { handlers, runs } = answering(new Error('SQLITE_BUSY: database is locked', { cause: new Error('the other process') }));
    await enqueueJob(db, work('one'), 1);
    await runDueJobs(services, handlers, ['a']);
    expect(await getJob(db, 'one')).toMatchObject({ state: 'waiting', attempt: 1, problem: 'Something went wrong on our side. Confetti tries again.' });
    expect(lines.find(({ msg }) => msg === 'attempt failed')).toMatchObject({ key: 'one', attempt: 1, err: { message: 'SQLITE_BUSY: database is locked', cause: { message: 'the other process' } } });
    nowMs += 60_000;
    await runDueJobs(services, handlers, ['a']);
    expect([await stateOf('one'), runs()]).toEqual(['done', 2]);
  });

  it('gives up after the last attempt, and tells the handler once', async () => {
    const { handlers, gaveUp } = answering(...Array.from({ length: 9 }, () => new Error('no')));
    await enqueueJob(db, work('one'), 1);
    for (let count = 0; count < 5; count += 1, nowMs += 3_600_000) await runDueJobs(services, handlers, ['a']);
    expect(await getJob(db, 'one')).toMatchObject({ state: 'failed', attempt: 3 });
    expect(gaveUp).toHaveLength(1);
  });

  it('ends work that ends its process each time, with its reason', async () => {
    const { handlers, gaveUp, runs } = answering();
    await enqueueJob(db, work('one'), 1);
    // Three workers claim it and end before they can say anything.
    for (const lease of ['w1', 'w2', 'w3']) {
      expect((await claim(lease))?.lease).toBe(lease);
      nowMs += 60_000;
    }
    await runDueJobs(services, handlers, ['a']);
    expect(await getJob(db, 'one')).toMatchObject({ state: 'failed', problem: expect.stringContaining('It broke off each time') as string });
    expect([gaveUp.length, runs()]).toEqual([1, 0]);
  });

  it('keeps results, waits until the given moment, and repeats jobs that never finish', async () => {
    const { handlers } = answering({ kind: 'retry', problem: 'Later', afterMs: 7_000 }, { kind: 'done', result: { made: 'it' } }, { kind: 'again', afterMs: 60_000 }, { kind: 'again', afterMs: 60_000 });
    await enqueueJob(db, work('one'), 1);
    await runDueJobs(services, handlers, ['a']);
    expect(await getJob(db, 'one')).toMatchObject({ state: 'waiting', notBeforeMs: nowMs + 7_000, problem: 'Later' });
    nowMs += 7_000;
    await runDueJobs(services, handlers, ['a']);
    expect(await getJob(db, 'one')).toMatchObject({ state: 'done', result: { made: 'it' }, progress: 1 });
    await enqueueJob(db, work('round'), 1);
    expect([await runDueJobs(services, handlers, ['a']), (nowMs += 60_000) && (await runDueJobs(services, handlers, ['a']))]).toEqual([1, 1]);
    expect(await getJob(db, 'round')).toMatchObject({ state: 'waiting', attempt: 0 });
  });

  it('stops work that a person cancels, and gives back what can be begun anew when it stops itself', async () => {
    const started: string[] = [];
    const handlers: JobHandlers = {
      work: {
        run: (job, { signal, progress }) => {
          started.push(job.key);
          progress(0.5);
          return new Promise((_, reject) => signal.addEventListener('abort', () => reject(new Error('stopped'))));
        },
      },
    };
    const stop = new AbortController();
    const running = runJobs({ ...services, clock: { nowMs: () => Promise.resolve(Date.now()), machineNowMs: () => Date.now() } }, handlers, [{ name: 'a', places: 2, takes: null, isInterruptible: true }], stop.signal);
    await enqueueJob(db, work('cancelled'), 1);
    await enqueueJob(db, work('released'), 2);
    await until('both to run', () => started.length === 2);
    expect((await getJob(db, 'cancelled')).progress).toBe(0.5);
    await moveJob(db, 'cancelled', 'cancel', Date.now());
    await until('the cancelled one to end', () => lines.some(({ msg }) => msg === 'the job was cancelled or taken over'));
    stop.abort();
    await running;
    expect([await stateOf('cancelled'), await getJob(db, 'released')]).toMatchObject(['cancelled', { state: 'waiting', attempt: 0 }]);
  });

  it('waits for what must not be stopped at any moment, which gives itself back at one where it may', async () => {
    const said: string[] = [];
    const handlers: JobHandlers = {
      work: {
        run: (_, { signal, stopping }) =>
          new Promise((resolve) => {
            said.push('begun');
            stopping.addEventListener('abort', () => {
              said.push(signal.aborted ? 'stopped at any moment' : 'asked');
              resolve({ kind: 'stopped' });
            });
          }),
      },
    };
    const stop = new AbortController();
    const running = runJobs({ ...services, clock: { nowMs: () => Promise.resolve(Date.now()), machineNowMs: () => Date.now() } }, handlers, [{ name: 'a', places: 1, takes: null, isInterruptible: false }], stop.signal);
    await enqueueJob(db, work('sending'), 1);
    await until('it to begin', () => said.length === 1);
    stop.abort();
    await running;
    expect([said, await getJob(db, 'sending')]).toMatchObject([['begun', 'asked'], { state: 'waiting', attempt: 0 }]);
  });

  it('never runs more jobs at once than their lanes and their resource have places', async () => {
    let [now, most, started] = [0, 0, 0];
    const handlers: JobHandlers = {
      work: {
        async run() {
          most = Math.max(most, (now += 1));
          started += 1;
          // Each holds its place until another runs beside it; the last has none.
          await until('another job', () => most >= 2 && (now >= 2 || started === 12));
          now -= 1;
          return { kind: 'done' };
        },
      },
    };
    for (let count = 0; count < 12; count += 1) await enqueueJob(db, work(`job-${count}`, { lane: ['a', 'b', 'c'][count % 3] ?? 'a' }), count);
    const stop = new AbortController();
    const lane = (name: string) => ({ name, places: 3, takes: 'ffmpeg' as const, isInterruptible: true });
    const running = runJobs(services, handlers, ['a', 'b', 'c'].map(lane), stop.signal);
    await until('all jobs', async () => (await db('jobs').where({ state: 'done' })).length === 12);
    stop.abort();
    await running;
    expect(most).toBe(2);
  });

  it('tells what has been written from what has only been read, tried or undone', async () => {
    const watch = watchWrites(db);
    watch.hasBeenWritten();
    await db('jobs').select('id');
    await claim('w1');
    await db.transaction(async (trx) => {
      await enqueueJob(trx, work('undone'), 1);
      await trx.rollback();
    }).catch(() => undefined);
    expect(watch.hasBeenWritten()).toBe(false);
    await enqueueJob(db, work('one'), 1);
    expect([watch.hasBeenWritten(), watch.hasBeenWritten()]).toEqual([true, false]);
    await claim('w1');
    expect(watch.hasBeenWritten()).toBe(true);
    watch.close();
  });

  it('keeps working when the database cannot be read for a moment, and when a heartbeat fails', async () => {
    const { handlers } = answering();
    await enqueueJob(db, work('one'), 1);
    let faults = 2;
    const broken: RunnerServices = { ...services, clock: { machineNowMs: () => nowMs, nowMs: () => (faults-- > 0 ? Promise.reject(new Error('SQLITE_IOERR')) : Promise.resolve(nowMs)) } };
    const stop = new AbortController();
    const running = runJobs(broken, handlers, [{ name: 'a', places: 1, takes: null, isInterruptible: true }], stop.signal);
    await until('the job', async () => (await stateOf('one')) === 'done');
    stop.abort();
    await running;
    expect(lines.filter(({ msg }) => msg === 'the queue could not be read')).toHaveLength(2);
  });

  it('does not wait for ever for work that does not stop, and names it', async () => {
    await enqueueJob(db, work('stuck'), 1);
    const held: { release?: () => void } = {};
    const stuck: JobHandlers = { work: { run: () => new Promise((resolve) => void (held.release = () => resolve({ kind: 'done' }))) } };
    const stop = new AbortController();
    const running = runJobs(services, stuck, [{ name: 'a', places: 1, takes: null, isInterruptible: true }], stop.signal, 100);
    await until('the job to begin', () => held.release !== undefined);
    stop.abort();
    await running;
    expect(lines.filter(({ msg }) => msg === 'work did not come to its end in time: it is left to be taken up again')).toMatchObject([{ jobs: ['stuck'] }]);
    expect(await stateOf('stuck')).toBe('running');
    held.release?.();
    await until('the job to end', async () => (await stateOf('stuck')) === 'done');
  });

  it('notes progress of the holder alone', async () => {
    await enqueueJob(db, work('one'), 1);
    const job = await claim('w1');
    await noteJobProgress(db, job?.id ?? '', 'other', 0.9);
    expect((await getJob(db, 'one')).progress).toBe(0);
    await noteJobProgress(db, job?.id ?? '', 'w1', 0.4);
    expect((await getJob(db, 'one')).progress).toBe(0.4);
  });
});

describe('a program that ends', () => {
  it('is started again, and does not take the others with it', async () => {
    const script = `
      import { startChild, stopOnSignals } from './scripts/processes.mjs';
      stopOnSignals();
      startChild('The web server', process.execPath, ['-e', 'setInterval(() => {}, 1000); console.log("web up")']);
      startChild('The worker', process.execPath, ['-e', 'console.log("worker up"); process.exit(3)']);
    `;
    const child = spawn(process.execPath, ['--input-type=module', '-e', script], { stdio: ['ignore', 'pipe', 'pipe'] });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (bytes: Buffer) => (said += bytes.toString()));
    await until('the worker to come back', () => said.split('worker up').length > 2);
    expect(said.split('web up')).toHaveLength(2);
    expect(said).toContain('The worker has ended (3). It starts again in 1 s.');
    child.kill('SIGTERM');
    await once(child, 'exit');
  });
});
