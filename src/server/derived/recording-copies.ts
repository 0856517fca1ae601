import type { StoredRecording } from '../db/media-repository.ts';
import type { JobHandler } from '../jobs/job-handler.ts';
import { clipStrip, clipStripPath } from '../recording/clip-strip.ts';
import { playbackCopy, playbackCopyPath } from '../recording/playback-copy.ts';
import { soundWave, soundWavePath } from '../recording/sound-wave.ts';
import type { Services } from '../services.ts';
import type { DerivedFile } from './derived-file.ts';

const KIND = 'recording-copy';

/** What pages show of a clip or sound: the copy that plays, the strip of its frames, the wave form of its sound. */
export type RecordingCopy = 'playback' | 'strip' | 'wave';

/** One of the files that stand for a clip or sound on a page. */
export function recordingCopy({ media }: Pick<Services, 'media'>, { storedHash, durationMs }: Pick<StoredRecording, 'storedHash' | 'durationMs'>, copy: RecordingCopy): DerivedFile {
  const paths: Readonly<Record<RecordingCopy, string>> = { playback: playbackCopyPath(media, storedHash), strip: clipStripPath(media, storedHash), wave: soundWavePath(media, storedHash) };
  return { path: paths[copy], job: { key: `${KIND}:${storedHash}:${copy}`, kind: KIND, lane: 'recording', payload: { storedHash, durationMs, copy }, maxAttempts: 3, priority: copy === 'strip' ? 0 : 1 } };
}

export function recordingCopyHandler({ media }: Pick<Services, 'media'>): JobHandler {
  return {
    async run({ payload }, { signal }) {
      const storedHash = payload['storedHash'] as string;
      switch (payload['copy'] as RecordingCopy) {
        case 'playback':
          await playbackCopy(media, storedHash, signal);
          break;
        case 'strip':
          await clipStrip(media, { storedHash, durationMs: payload['durationMs'] as number }, signal);
          break;
        case 'wave':
          await soundWave(media, storedHash, signal);
          break;
      }
      return { kind: 'done' };
    },
  };
}
