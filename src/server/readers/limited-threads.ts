import { join } from 'node:path';
import type { Logger } from 'pino';
import { Piscina } from 'piscina';
import { ProblemError } from '../errors.ts';
import { makeThreadClock, spentOn } from './thread-clock.ts';
import type { ThreadJob, ThreadResult } from './thread-job.ts';

const THREADS = 2;
const MAX_QUEUE = 50;
const MEMORY_LIMIT_MB = 256;
const IDLE_MS = 60_000;
const LOOK_MS = 100;
/** Wall-clock limit as a multiple of the processor limit: leaves room for the queue and a busy machine, and ends a task that waits for ever. */
const PATIENCE = 12;

interface Limits<Kind extends string> {
  /** The program of a thread, in the build folder. */
  readonly file: string;
  /** Processor time, in milliseconds. */
  readonly withinMs: Readonly<Record<Kind, number>>;
  /** The sentence for work that takes too long or too much memory. */
  readonly tooHeavy: string;
}

/**
 * Work in threads of its own, with limits of time and memory: what would freeze or fill the process ends its thread, and nobody else waits.
 * `Answers` says what each kind of task answers.
 */
export class LimitedThreads<Task extends { readonly kind: string }, Answers extends Readonly<Record<Task['kind'], unknown>>> {
  #pool: Piscina | null = null;

  constructor(
    readonly buildFolder: string,
    readonly log: Pick<Logger, 'warn'>,
    readonly limits: Limits<Task['kind']>,
  ) {}

  /** @throws ProblemError what the thread says, or 422 `too-heavy` when it took too long or too much memory */
  async run<Kind extends Task['kind']>(task: Extract<Task, { kind: Kind }>): Promise<Answers[Kind]> {
    this.#pool ??= new Piscina({
      filename: join(this.buildFolder, this.limits.file),
      minThreads: 0,
      maxThreads: THREADS,
      maxQueue: MAX_QUEUE,
      idleTimeout: IDLE_MS,
      resourceLimits: { maxOldGenerationSizeMb: MEMORY_LIMIT_MB },
    });
    const result = await this.#result(this.#pool, task);
    if (result.kind === 'problem') throw new ProblemError(result.status, result.code, result.sentence, result.details);
    return result.value as Answers[Kind];
  }

  async close(): Promise<void> {
    await this.#pool?.destroy();
    this.#pool = null;
  }

  async #result(pool: Piscina, task: Task): Promise<ThreadResult> {
    const withinMs = this.limits.withinMs[task.kind as Task['kind']];
    const job: ThreadJob<Task> = { task, clock: makeThreadClock() };
    const spent = new AbortController();
    const watch = setInterval(() => {
      if ((spentOn(job.clock) ?? 0) > withinMs) spent.abort();
    }, LOOK_MS);
    try {
      return (await pool.run(job, { signal: AbortSignal.any([spent.signal, AbortSignal.timeout(withinMs * PATIENCE)]) })) as ThreadResult;
    } catch (error) {
      if (error instanceof Error && error.message.includes('Task queue is at limit')) throw new ProblemError(503, 'busy', 'Many files are being read right now. Try again in a moment.', { retryAfterSeconds: 5 });
      this.log.warn({ err: error, kind: task.kind }, 'a thread could not do its work within its limits');
      throw new ProblemError(422, 'too-heavy', this.limits.tooHeavy);
    } finally {
      clearInterval(watch);
    }
  }
}
