import { FfmpegError } from '../ffmpeg/run-ffmpeg.ts';
import type { JobOutcome } from '../jobs/job-handler.ts';
import { TooHeavyError } from '../render/errors.ts';
import { NoCoverError } from './video-cover.ts';

const UNKNOWN = 'It could not be put together. Nothing was lost. Retry it; if that does not help, check that each of its clips plays.';

/** What an error means for the file of a video: never, or another attempt unless this was the last. */
export function videoProblem(error: unknown, isLastAttempt: boolean): JobOutcome {
  if (error instanceof NoCoverError) return { kind: 'failed', problem: 'No cover is chosen for this place. Choose one, and export again.' };
  if (error instanceof TooHeavyError) return { kind: 'failed', problem: 'No quality of this video stays below what the network takes. Make it shorter.' };
  const isFull = (error as { readonly code?: unknown }).code === 'ENOSPC' || (error instanceof FfmpegError && error.messages.includes('No space left on device'));
  if (isFull) return { kind: 'failed', problem: 'The disk of the server is full. Nothing was lost. Export again when there is room.' };
  return isLastAttempt ? { kind: 'failed', problem: UNKNOWN } : { kind: 'retry', problem: UNKNOWN };
}
