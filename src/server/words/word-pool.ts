import type { Logger } from 'pino';
import { LimitedThreads } from '../readers/limited-threads.ts';
import type { WordAnswers, WordTask } from './word-task.ts';

/** Of processor time. The first task of a thread loads a lexicon or a dictionary. */
const WITHIN_MS: Readonly<Record<WordTask['kind'], number>> = { desk: 20_000, 'check-version': 20_000, tags: 20_000, spelling: 20_000, 'link-page': 15_000, article: 20_000, propose: 30_000 };

export type WordPool = LimitedThreads<WordTask, WordAnswers>;

export function openWordPool(buildFolder: string, log: Pick<Logger, 'warn'>): WordPool {
  return new LimitedThreads(buildFolder, log, { file: 'word-worker.mjs', withinMs: WITHIN_MS, tooHeavy: 'This text is too long to work on. Shorten it, then try again.' });
}
