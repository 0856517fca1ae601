import type { Logger } from 'pino';
import { LimitedThreads } from './limited-threads.ts';
import type { ReadAnswers, ReadTask } from './read-task.ts';

/** Far longer than any file of a person takes: one that takes longer was made for that. Others do not wait for it. */
const WITHIN_MS: Readonly<Record<ReadTask['kind'], number>> = { svg: 10_000, icon: 10_000, page: 10_000, look: 10_000, 'brand-files': 10_000, typeface: 20_000, calendar: 10_000, docx: 20_000, pdf: 30_000, sheet: 30_000, feed: 10_000, 'feeds-of-page': 10_000 };

/** Reads what comes from outside. */
export class ReaderPool {
  readonly #threads: LimitedThreads<ReadTask, ReadAnswers>;

  constructor(buildFolder: string, log: Pick<Logger, 'warn'>) {
    this.#threads = new LimitedThreads(buildFolder, log, { file: 'read-worker.mjs', withinMs: WITHIN_MS, tooHeavy: 'This takes too long or too much memory to read: it is nested too deep, or far larger than it needs to be. Simplify it, then try again.' });
  }

  /** @throws ProblemError what the reader says of the file, or 422 `too-heavy` when it took too long or too much memory */
  read<Kind extends ReadTask['kind']>(task: Extract<ReadTask, { kind: Kind }>): Promise<ReadAnswers[Kind]> {
    return this.#threads.run(task);
  }

  close(): Promise<void> {
    return this.#threads.close();
  }
}
