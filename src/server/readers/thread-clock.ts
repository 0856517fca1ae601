import { readFileSync, readlinkSync } from 'node:fs';

/**
 * Processor time of one task. Wall-clock time would refuse good files on a busy machine, and would include the start of the thread.
 * The thread writes its id; the waiting process reads the time from the kernel (proc(5)).
 */
export type ThreadClock = Int32Array;

const THREAD = 0;
const SPENT_BEFORE = 1;
/** The kernel counts in hundredths of a second towards programs, on every platform. */
const MS_A_TICK = 10;
/** Where they stand behind the name of the thread, which may hold spaces. */
const [USER_TICKS, SYSTEM_TICKS] = [11, 12];

export function makeThreadClock(): ThreadClock {
  return new Int32Array(new SharedArrayBuffer(2 * Int32Array.BYTES_PER_ELEMENT));
}

/** Called on the thread, before its task. */
export function beginThreadClock(clock: ThreadClock): void {
  const thread = ownThread();
  if (thread === null) return;
  Atomics.store(clock, SPENT_BEFORE, spentOf(thread) ?? 0);
  Atomics.store(clock, THREAD, thread);
}

/** Milliseconds of processor time since the task began; null before it begins, and where the system does not tell. */
export function spentOn(clock: ThreadClock): number | null {
  const thread = Atomics.load(clock, THREAD);
  const spent = thread === 0 ? null : spentOf(thread);
  return spent === null ? null : spent - Atomics.load(clock, SPENT_BEFORE);
}

function ownThread(): number | null {
  try {
    return Number(readlinkSync('/proc/thread-self').split('/').at(-1));
  } catch {
    return null;
  }
}

function spentOf(thread: number): number | null {
  try {
    const line = readFileSync(`/proc/self/task/${thread}/stat`, 'latin1');
    const fields = line.slice(line.lastIndexOf(')') + 2).split(' ');
    return (Number(fields[USER_TICKS]) + Number(fields[SYSTEM_TICKS])) * MS_A_TICK;
  } catch {
    // The thread has ended.
    return null;
  }
}
