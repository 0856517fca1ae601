import type { Recording, Span } from './recording.ts';

/** A pause is taken for the end of a word when it lasts this long, in milliseconds. */
const MIN_PAUSE_MS = 120;

/** The pauses of a sound: where it can be cut without cutting a word. */
export function pausesOf({ facts, durationMs }: Pick<Recording, 'facts' | 'durationMs'>): readonly Span[] {
  return [...facts.silent.filter(({ fromMs, toMs }) => toMs - fromMs >= MIN_PAUSE_MS), { fromMs: durationMs, toMs: durationMs }];
}

/** The last moment up to `atMs` at which nobody is in the middle of a word; null when there is none after `fromMs`. */
export function lastPauseBefore(recording: Pick<Recording, 'facts' | 'durationMs'>, fromMs: number, atMs: number): number | null {
  const ends = pausesOf(recording).flatMap((pause) => (pause.fromMs <= atMs && pause.toMs > fromMs ? [Math.min(pause.toMs, atMs)] : []));
  const last = ends.length === 0 ? null : Math.max(...ends);
  return last !== null && last > fromMs ? last : null;
}

/** Where a voice ends in a video that is shorter than it: with its last whole words. */
export function voiceEndMs(recording: Pick<Recording, 'facts' | 'durationMs'>, videoMs: number): number {
  return videoMs >= recording.durationMs ? recording.durationMs : (lastPauseBefore(recording, 0, videoMs) ?? 0);
}
