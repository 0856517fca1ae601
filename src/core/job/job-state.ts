/**
 * The life of one piece of work in the queue.
 *
 * - `waiting`: nobody works on it. It is due at a moment, or after a pause between two attempts.
 * - `running`: a worker holds it under a lease. When the lease runs out, another worker may claim it.
 * - `done`: it has been carried out; its result is kept. Asking for it again starts it anew.
 * - `failed`: it cannot be done, or its attempts are used up; it says why. A person may retry it.
 * - `cancelled`: a person has cancelled it.
 */
export const jobStates = ['waiting', 'running', 'done', 'failed', 'cancelled'] as const;
export type JobState = (typeof jobStates)[number];

/**
 * `claim` also takes over a lease that ran out; `release` gives an unfinished job back, as when a worker stops; `repeat` makes
 * work that is never finished due again; `restart` begins an ended job anew.
 */
export type JobEvent = 'claim' | 'finish' | 'postpone' | 'release' | 'repeat' | 'fail' | 'cancel' | 'restart';

/** Which states an event is allowed in, and where it leads. Guarded writes name these states in their condition. */
export const jobEvents: Readonly<Record<JobEvent, { readonly from: readonly JobState[]; readonly to: JobState }>> = {
  claim: { from: ['waiting', 'running'], to: 'running' },
  finish: { from: ['running'], to: 'done' },
  postpone: { from: ['running'], to: 'waiting' },
  release: { from: ['running'], to: 'waiting' },
  repeat: { from: ['running'], to: 'waiting' },
  fail: { from: ['running'], to: 'failed' },
  cancel: { from: ['waiting', 'running'], to: 'cancelled' },
  restart: { from: ['done', 'failed', 'cancelled'], to: 'waiting' },
};

/** States in which nothing more happens by itself. */
export function hasEnded(state: JobState): boolean {
  return state === 'done' || state === 'failed' || state === 'cancelled';
}
