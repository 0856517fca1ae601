import { ProblemError } from '../errors.ts';
import { beginThreadClock, type ThreadClock } from './thread-clock.ts';

/** Errors do not come out of threads whole, so they come out as values. */
export type ThreadResult =
  | { readonly kind: 'done'; readonly value: unknown }
  | { readonly kind: 'problem'; readonly status: ProblemError['status']; readonly code: string; readonly sentence: string; readonly details: Readonly<Record<string, unknown>> };

/** What a thread is given. */
export interface ThreadJob<Task> {
  readonly task: Task;
  readonly clock: ThreadClock;
}

/** Does a thread's work against its clock, and turns the problems that people should hear of into values. */
export async function workOn<Task>({ task, clock }: ThreadJob<Task>, work: (task: Task) => unknown): Promise<ThreadResult> {
  beginThreadClock(clock);
  try {
    return { kind: 'done', value: await work(task) };
  } catch (error) {
    if (error instanceof ProblemError) return { kind: 'problem', status: error.status, code: error.code, sentence: error.sentence, details: error.details };
    throw error;
  }
}
