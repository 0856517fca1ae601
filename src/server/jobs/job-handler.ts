import type { Job } from '../db/job-repository.ts';

/** What a handler is handed beside its job. */
export interface JobContext {
  /** Aborts when the lease is lost, the job is cancelled, or the worker stops and the job can be begun anew. */
  readonly signal: AbortSignal;
  /** Aborts when the worker stops, also where the job must not be stopped at any moment: its handler knows the moments at which it may be. */
  readonly stopping: AbortSignal;
  /** Notes how much is done, in [0, 1]; as often as the handler likes. */
  readonly progress: (share: number) => void;
}

const never = new AbortController().signal;
/** For work that runs outside the queue: nothing stops it, and nobody follows its progress. */
export const undisturbed: JobContext = { signal: never, stopping: never, progress: () => undefined };

/** How an attempt ended, as a value: classes of errors do not survive the way between threads. */
export type JobOutcome =
  | { readonly kind: 'done'; readonly result?: Readonly<Record<string, unknown>> }
  /** Another attempt may succeed; missing `afterMs`: after the usual wait. */
  | { readonly kind: 'retry'; readonly problem: string; readonly afterMs?: number | undefined }
  /** No further attempt will succeed; the problem is a sentence for a person. */
  | { readonly kind: 'failed'; readonly problem: string; readonly result?: Readonly<Record<string, unknown>> }
  /** The worker stops, and nothing that counts has happened yet: another one begins anew. It is no attempt. */
  | { readonly kind: 'stopped' }
  /** It is due again by itself, after a while: work that is repeated for ever. */
  | { readonly kind: 'again'; readonly afterMs: number };

/** How one kind of work is done. An error that a handler throws is unknown: it is logged whole and the job is retried. */
export interface JobHandler {
  readonly run: (job: Job, context: JobContext) => Promise<JobOutcome>;
  /** Called once when all attempts are used up without an answer of the handler itself, also when its work ended the process. */
  readonly giveUp?: (job: Job, problem: string) => Promise<void>;
}

export type JobHandlers = Readonly<Record<string, JobHandler>>;
