import type { Frame } from '../piece/piece.ts';
import { MIN_SHOT_MS } from '../piece/shot.ts';
import type { Recording } from './recording.ts';
import { clipOf, readingMs, shotLengthMs, startInClipMs } from './shot-times.ts';
import { lastPauseBefore } from './speech.ts';
import { timelineOf, toMs } from './timeline.ts';

/** What of a video is kept in a shorter one. */
export interface Shortened {
  /** Lengths of the shots that stay, by frame, in milliseconds. */
  readonly lengths: ReadonlyMap<string, number>;
  /** Shots that are left out. */
  readonly without: readonly string[];
  readonly lengthMs: number;
}

/** No shot becomes shorter than this: one has to see what it is. */
const MIN_KEPT_MS = 900;
/** Rounds of giving back what transitions and whole words took. */
const ROUNDS = 6;

/** The rule, as it is shown. */
export const SHORTEN_RULE = 'Every shot gives in proportion to what it can spare; words stay long enough to be read, no spoken word is cut in two. Where that is not enough, the shots with the fewest words go, but never the first and the last.';

/**
 * A video of at most a length: all shots are shortened in proportion to what they can spare, and where that is not enough, shots
 * are left out. Null when even the first and last shot alone take longer.
 */
export function shorten(frames: readonly Frame[], recordings: ReadonlyMap<string, Recording>, targetMs: number): Shortened | null {
  const without: string[] = [];
  for (let kept = frames; ; ) {
    const lengths = lengthsWithin(kept, recordings, targetMs);
    if (lengths) return { lengths, without, lengthMs: lengthOf(kept, recordings, lengths) };
    const leaving = leastSaying(kept);
    if (!leaving) return null;
    without.push(leaving.id);
    kept = kept.filter((frame) => frame !== leaving);
  }
}

function lengthOf(frames: readonly Frame[], recordings: ReadonlyMap<string, Recording>, lengths: ReadonlyMap<string, number>): number {
  return toMs(timelineOf(frames.map((frame) => ({ ...frame, shot: { ...frame.shot, lengthMs: lengths.get(frame.id) } })), recordings).lengthFrames);
}

function lengthsWithin(frames: readonly Frame[], recordings: ReadonlyMap<string, Recording>, targetMs: number): ReadonlyMap<string, number> | null {
  const shots = frames.map((frame) => ({ frame, nowMs: shotLengthMs(frame, recordings), leastMs: leastLengthMs(frame, recordings) }));
  const spareMs = shots.reduce((sum, { nowMs, leastMs }) => sum + nowMs - leastMs, 0);
  let share = 0;
  for (let round = 0; round < ROUNDS; round += 1) {
    const lengths = new Map(shots.map(({ frame, nowMs, leastMs }) => [frame.id, wholeWords(frame, recordings, nowMs - (nowMs - leastMs) * share, leastMs)]));
    const overMs = lengthOf(frames, recordings, lengths) - targetMs;
    if (overMs <= 0) return lengths;
    if (share >= 1 || spareMs <= 0) return null;
    share = Math.min(1, share + overMs / spareMs + 0.002);
  }
  return null;
}

function leastLengthMs(frame: Frame, recordings: ReadonlyMap<string, Recording>): number {
  const nowMs = shotLengthMs(frame, recordings);
  return Math.min(nowMs, wholeWords(frame, recordings, Math.max(MIN_KEPT_MS, readingMs(frame)), nowMs));
}

/** A length at which the sound of the clip is not in the middle of a word: shorter where there is a pause, else as long as the shot was. */
function wholeWords(frame: Frame, recordings: ReadonlyMap<string, Recording>, lengthMs: number, elseMs: number): number {
  const clip = clipOf(frame, recordings);
  const rounded = Math.floor(lengthMs / 10) * 10;
  if (!clip?.recording.hasSound || frame.shot?.volume === 0 || clip.recording.facts.silent.length === 0) return rounded;
  const fromMs = startInClipMs(frame, clip.recording);
  const pause = lastPauseBefore(clip.recording, fromMs + MIN_SHOT_MS, fromMs + rounded);
  return pause === null ? elseMs : Math.floor((pause - fromMs) / 10) * 10;
}

/** Of the shots between the first and the last, the one with the fewest words; of those alike, the last. */
function leastSaying(frames: readonly Frame[]): Frame | null {
  const between = frames.slice(1, -1);
  return between.reduce<Frame | null>((least, frame) => (least === null || readingMs(frame) <= readingMs(least) ? frame : least), null);
}
