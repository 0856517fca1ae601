import { FfmpegError } from '../ffmpeg/run-ffmpeg.ts';

/** Why a recording could not be made, in a sentence for the person who wanted it. */
export function videoProblem(error: unknown): string {
  const { code } = error as { readonly code?: unknown };
  if (code === 'no-cover') return 'No cover is chosen for this place. Choose one, and make it again.';
  if (code === 'too-heavy') return 'No quality of this video stays below what the network takes. Make it shorter.';
  if (code === 'ENOSPC' || (error instanceof FfmpegError && error.messages.includes('No space left on device'))) return 'The disk of the server is full. Nothing was lost; make it again when there is room.';
  return 'It could not be put together. Nothing was lost; make it again, and if that does not help, look whether one of its clips plays.';
}
