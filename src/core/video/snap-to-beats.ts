import type { Frame } from '../piece/piece.ts';
import { LEAST_SHOT_MS, MOST_SHOT_MS } from '../piece/shot.ts';
import { nearestBeat } from './beats.ts';
import type { Film } from './film.ts';
import { clipOf, shotLengthMs, startInClipMs } from './shot-times.ts';
import { timelineOf, toMs } from './timeline.ts';

/** A cut is moved no further than this, in milliseconds. */
const REACH_MS = 400;

/**
 * Lengths at which every shot begins on a beat of the music, where one is near and the clip before is long enough.
 * @param music plays from the start of the video, again and again
 * @returns lengths of the shots that change, by frame
 */
export function snapToBeats(frames: readonly Frame[], films: ReadonlyMap<string, Film>, music: Pick<Film, 'durationMs' | 'facts'>): ReadonlyMap<string, number> {
  const lengths = new Map<string, number>();
  for (const [index, frame] of frames.slice(0, -1).entries()) {
    const timed = timelineOf(frames.map((each) => ({ ...each, shot: { ...each.shot, lengthMs: lengths.get(each.id) ?? each.shot?.lengthMs } })), films);
    const next = timed.shots[index + 1];
    if (!next) continue;
    // A cut is seen where the new shot has half taken over.
    const seenMs = toMs(next.startFrame + next.into.frames / 2);
    const beat = nearestBeat(beatsAround(music, seenMs), seenMs, REACH_MS);
    if (beat === null) continue;
    const nowMs = lengths.get(frame.id) ?? shotLengthMs(frame, films);
    const wanted = Math.round(nowMs + beat - seenMs);
    if (wanted !== nowMs && wanted >= LEAST_SHOT_MS && wanted <= roomMs(frame, films)) lengths.set(frame.id, wanted);
  }
  return lengths;
}

function beatsAround({ durationMs, facts }: Pick<Film, 'durationMs' | 'facts'>, atMs: number): readonly number[] {
  const round = Math.floor(atMs / durationMs);
  return [round - 1, round, round + 1].flatMap((each) => (each < 0 ? [] : facts.beatsMs.map((beat) => beat + each * durationMs)));
}

function roomMs(frame: Frame, films: ReadonlyMap<string, Film>): number {
  const clip = clipOf(frame, films);
  return clip ? clip.film.durationMs - startInClipMs(frame, clip.film) : MOST_SHOT_MS;
}
