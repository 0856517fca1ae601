import { join } from 'node:path';
import type { Logger } from 'pino';
import { Piscina } from 'piscina';
import { ProblemError } from '../errors.ts';
import type { ReadAnswers, ReadResult, ReadTask } from './read-task.ts';

const THREADS = 2;
const MAX_QUEUE = 50;
const MEMORY_LIMIT_MB = 256;
const IDLE_MS = 60_000;
/**
 * Far longer than any file of a person takes, also where a thread has to start first on a busy machine: one that takes longer was
 * made for that. Others do not wait for it.
 */
const WITHIN_MS: Readonly<Record<ReadTask['kind'], number>> = { svg: 10_000, icon: 10_000, page: 10_000, look: 10_000, 'brand-files': 10_000, typeface: 20_000, desk: 15_000, 'check-version': 10_000, tags: 10_000, spelling: 15_000, 'link-page': 10_000, article: 15_000 };

/**
 * Reads what comes from outside in threads of its own, with limits of time and memory: a file that would freeze or fill the
 * process ends its thread, and nobody else waits.
 */
export class ReaderPool {
  #pool: Piscina | null = null;

  constructor(
    readonly buildFolder: string,
    readonly log: Pick<Logger, 'warn'>,
  ) {}

  /** @throws ProblemError what the reader says of the file, or 422 `too-heavy` when it took too long or too much memory */
  async read<Kind extends ReadTask['kind']>(task: Extract<ReadTask, { kind: Kind }>): Promise<ReadAnswers[Kind]> {
    this.#pool ??= new Piscina({
      filename: join(this.buildFolder, 'read-worker.mjs'),
      minThreads: 0,
      maxThreads: THREADS,
      maxQueue: MAX_QUEUE,
      idleTimeout: IDLE_MS,
      resourceLimits: { maxOldGenerationSizeMb: MEMORY_LIMIT_MB },
    });
    const result = await this.#run(this.#pool, task);
    if (result.kind === 'problem') throw new ProblemError(result.status, result.code, result.sentence, result.details);
    return result.value as ReadAnswers[Kind];
  }

  async close(): Promise<void> {
    await this.#pool?.destroy();
    this.#pool = null;
  }

  async #run(pool: Piscina, task: ReadTask): Promise<ReadResult> {
    try {
      return (await pool.run(task, { signal: AbortSignal.timeout(WITHIN_MS[task.kind]) })) as ReadResult;
    } catch (error) {
      if (error instanceof Error && error.message.includes('Task queue is at limit')) throw new ProblemError(503, 'busy', 'Many files are being read right now. Try again in a moment.', { retryAfterSeconds: 5 });
      this.log.warn({ err: error, kind: task.kind }, 'a file from outside could not be read within its limits');
      throw new ProblemError(422, 'too-heavy', 'This takes too long or too much memory to read: it is nested too deep, or far larger than it needs to be. Simplify it, then try again.');
    }
  }
}
