import { workOn, type ThreadJob, type ThreadResult } from './thread-job.ts';
import { answerOf, type ReadTask } from './read-task.ts';

/** A thread's one task: read what comes from outside. */
export default function read(job: ThreadJob<ReadTask>): Promise<ThreadResult> {
  return workOn(job, answerOf);
}
