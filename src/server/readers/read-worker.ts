import { runReadTask, type ReadTask } from './read-task.ts';
import type { ThreadResult } from './limited-threads.ts';

/** A thread's one task: read what comes from outside. */
export default function read(task: ReadTask): Promise<ThreadResult> {
  return runReadTask(task);
}
