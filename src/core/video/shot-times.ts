import type { Adjustment } from '../piece/adjustment.ts';
import { slotText, type Frame } from '../piece/piece.ts';
import { MIN_SHOT_MS, MAX_SHOT_MS } from '../piece/shot.ts';
import type { Recording } from './recording.ts';

/** Frames a second of every video. */
export const VIDEO_FPS = 30;

/** Lengths that follow from nothing else. */
const USUAL_CLIP_MS = 4_000;
const MIN_CARD_MS = 2_500;
/** A text stays for a second and this long a character, after it has come in. */
const READING_MS_A_CHARACTER = 60;
const READING_BASE_MS = 1_500;

/** A shot as long as one cut wants it. */
export function withOwnTimes(frame: Frame, { lengthMs, fromMs }: Pick<Adjustment, 'lengthMs' | 'fromMs'>): Frame {
  if (lengthMs === undefined && fromMs === undefined) return frame;
  return { ...frame, shot: { ...frame.shot, ...(lengthMs === undefined ? {} : { lengthMs }), ...(fromMs === undefined ? {} : { fromMs }) } };
}

/** The clip that a shot shows: the first of its pictures that moves. */
export function clipOf(frame: Frame, recordings: ReadonlyMap<string, Recording>): { readonly mediaId: string; readonly recording: Recording } | null {
  for (const value of Object.values(frame.slots)) {
    const recording = value.kind === 'picture' ? recordings.get(value.mediaId) : undefined;
    if (value.kind === 'picture' && recording?.kind === 'clip') return { mediaId: value.mediaId, recording };
  }
  return null;
}

/** How long it takes to read what a shot says, in milliseconds. */
export function readingMs(frame: Frame): number {
  const characters = Object.keys(frame.slots).reduce((sum, slot) => sum + [...slotText(frame, slot).trim()].length, 0);
  return characters === 0 ? 0 : READING_BASE_MS + characters * READING_MS_A_CHARACTER;
}

/** How long a shot lasts: as a person has said, else long enough to be read, and never longer than its clip. */
export function shotLengthMs(frame: Frame, recordings: ReadonlyMap<string, Recording>): number {
  const clip = clipOf(frame, recordings);
  const wanted = frame.shot?.lengthMs ?? Math.max(clip ? Math.min(USUAL_CLIP_MS, clip.recording.durationMs) : MIN_CARD_MS, readingMs(frame));
  const most = clip ? clip.recording.durationMs - startInClipMs(frame, clip.recording) : MAX_SHOT_MS;
  return Math.max(MIN_SHOT_MS, Math.min(wanted, most, MAX_SHOT_MS));
}

/** Where the clip of a shot begins, so that at least the shortest shot is left of it. */
export function startInClipMs(frame: Frame, recording: Recording): number {
  return Math.max(0, Math.min(frame.shot?.fromMs ?? 0, recording.durationMs - MIN_SHOT_MS));
}
