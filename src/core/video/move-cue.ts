import type { Cue } from '../piece/track.ts';
import type { Span } from './recording.ts';

/** A subtitle is there for at least this long, in milliseconds. */
export const MIN_CUE_MS = 300;

/** Subtitles with one of them at another time, as far as those beside it leave room: no two overlap. */
export function moveCue(cues: readonly Cue[], index: number, { fromMs, toMs }: Span): readonly Cue[] {
  const cue = cues[index];
  if (!cue) return cues;
  const least = cues[index - 1]?.toMs ?? 0;
  const most = cues[index + 1]?.fromMs ?? Infinity;
  const from = Math.min(Math.max(fromMs, least), most - MIN_CUE_MS);
  const to = Math.max(Math.min(toMs, most), from + MIN_CUE_MS);
  return from < 0 || from < least ? cues : cues.map((each, at) => (at === index ? { ...each, fromMs: from, toMs: to } : each));
}
