import type { Frame } from '../piece/piece.ts';
import { MIN_SHOT_MS, MAX_SHOT_MS } from '../piece/shot.ts';
import { nearestBeat } from './beats.ts';
import type { Recording } from './recording.ts';
import { clipOf, shotLengthMs, startInClipMs } from './shot-times.ts';
import { timelineOf, toMs } from './timeline.ts';

/** A cut is moved no further than this, in milliseconds. */
const REACH_MS = 400;

/**
 * Lengths at which every shot begins on a beat of the music, where one is near and the clip before is long enough.
 * @param music plays from the start of the video, again and again
 * @returns lengths of the shots that change, by frame
 */
export function snapToBeats(frames: readonly Frame[], recordings: ReadonlyMap<string, Recording>, music: Pick<Recording, 'durationMs' | 'facts'>): ReadonlyMap<string, number> {
  const lengths = new Map<string, number>();
  for (const [index, frame] of frames.slice(0, -1).entries()) {
    const timed = timelineOf(frames.map((each) => ({ ...each, shot: { ...each.shot, lengthMs: lengths.get(each.id) ?? each.shot?.lengthMs } })), recordings);
    const next = timed.shots[index + 1];
    if (!next) continue;
    // A cut is seen where the new shot has half taken over.
    const seenMs = toMs(next.startFrame + next.into.frames / 2);
    const beat = nearestBeat(beatsAround(music, seenMs), seenMs, REACH_MS);
    if (beat === null) continue;
    const nowMs = lengths.get(frame.id) ?? shotLengthMs(frame, recordings);
    const wanted = Math.round(nowMs + beat - seenMs);
    if (wanted !== nowMs && wanted >= MIN_SHOT_MS && wanted <= roomMs(frame, recordings)) lengths.set(frame.id, wanted);
  }
  return lengths;
}

function beatsAround({ durationMs, facts }: Pick<Recording, 'durationMs' | 'facts'>, atMs: number): readonly number[] {
  const round = Math.floor(atMs / durationMs);
  return [round - 1, round, round + 1].flatMap((each) => (each < 0 ? [] : facts.beatsMs.map((beat) => beat + each * durationMs)));
}

function roomMs(frame: Frame, recordings: ReadonlyMap<string, Recording>): number {
  const clip = clipOf(frame, recordings);
  return clip ? clip.recording.durationMs - startInClipMs(frame, clip.recording) : MAX_SHOT_MS;
}
