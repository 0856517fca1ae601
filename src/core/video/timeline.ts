import type { Frame } from '../piece/piece.ts';
import type { Recording } from './recording.ts';
import { MIN_TRANSITION_MS, type TransitionKind } from '../piece/shot.ts';
import { clipOf, shotLengthMs, startInClipMs, VIDEO_FPS } from './shot-times.ts';

/** A shot in its place in time. Moments are whole frames of the video, from its start. */
export interface TimedShot {
  readonly frame: Frame;
  readonly startFrame: number;
  readonly lengthFrames: number;
  /** How it takes over from the shot before, which keeps playing meanwhile; the first shot has none. */
  readonly into: { readonly kind: TransitionKind; readonly frames: number };
  /** The clip it shows and where that begins, in frames; null for a photograph or card. */
  readonly clip: { readonly mediaId: string; readonly fromFrame: number; readonly volume: number; readonly hasSound: boolean } | null;
}

export interface Timeline {
  readonly shots: readonly TimedShot[];
  readonly lengthFrames: number;
}

export const toFrames = (ms: number): number => Math.round((ms * VIDEO_FPS) / 1000);
export const toMs = (frames: number): number => (frames * 1000) / VIDEO_FPS;

/** Shots one after the other, as far as they are played. A transition overlaps two shots and takes at most half of the shorter one. */
export function timelineOf(frames: readonly Frame[], recordings: ReadonlyMap<string, Recording>): Timeline {
  const shots: TimedShot[] = [];
  let end = 0;
  for (const frame of frames) {
    if (frame.shot?.onlyCover) continue;
    const before = shots.at(-1);
    const clip = clipOf(frame, recordings);
    const lengthFrames = toFrames(shotLengthMs(frame, recordings));
    const room = before ? Math.floor(Math.min(before.lengthFrames - before.into.frames, lengthFrames) / 2) : 0;
    const wanted = frame.shot?.into;
    const overlap = wanted && wanted.kind !== 'cut' ? Math.min(toFrames(wanted.ms), room) : 0;
    const moves = overlap >= toFrames(MIN_TRANSITION_MS);
    const startFrame = end - (moves ? overlap : 0);
    shots.push({
      frame,
      startFrame,
      lengthFrames,
      into: moves && wanted ? { kind: wanted.kind, frames: overlap } : { kind: 'cut', frames: 0 },
      clip: clip && { mediaId: clip.mediaId, fromFrame: toFrames(startInClipMs(frame, clip.recording)), volume: frame.shot?.volume ?? 1, hasSound: clip.recording.hasSound },
    });
    end = startFrame + lengthFrames;
  }
  return { shots, lengthFrames: end };
}

/** What is to be seen at a moment: one shot, or two while one takes over from the other. */
export interface Moment {
  readonly shot: TimedShot;
  readonly index: number;
  /** The shot that it takes over from, while it does. */
  readonly over: { readonly shot: TimedShot; readonly index: number; readonly progress: number } | null;
}

/** @param frame counted from 0; beyond the end the last shot stays */
export function momentAt({ shots }: Timeline, frame: number): Moment | null {
  let index = 0;
  shots.forEach((shot, at) => {
    if (shot.startFrame <= frame) index = at;
  });
  const shot = shots[index];
  if (!shot) return null;
  const before = shots[index - 1];
  const inside = frame - shot.startFrame;
  const over = before && inside < shot.into.frames ? { shot: before, index: index - 1, progress: (inside + 0.5) / shot.into.frames } : null;
  return { shot, index, over };
}
