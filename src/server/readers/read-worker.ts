import { runReadTask, type ReadResult, type ReadTask } from './read-task.ts';

/** A thread's one task: read what comes from outside. */
export default function read(task: ReadTask): Promise<ReadResult> {
  return runReadTask(task);
}
