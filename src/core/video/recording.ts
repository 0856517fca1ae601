import type { FocalPoint } from '../crop/picture-facts.ts';

/** A stretch of time within a clip or sound, in milliseconds from its start; `to` is not in it. */
export interface Span {
  readonly fromMs: number;
  readonly toMs: number;
}

/** What is known of a clip's moving pictures and sound, taken once when it comes in. */
export interface RecordingFacts {
  /** Where the scene changes, in milliseconds, in order. */
  readonly sceneChangesMs: readonly number[];
  readonly black: readonly Span[];
  /** Where nothing is to be heard. */
  readonly silent: readonly Span[];
  /** Where the picture stands still. */
  readonly frozen: readonly Span[];
  /** Where the lens was not sharp. */
  readonly blurred: readonly Span[];
  /** Where the hand was not steady. */
  readonly shaking: readonly Span[];
  /** Where the subject is, as far as it moves; empty: where the focal point is, throughout. */
  readonly subject: readonly FocalAt[];
  /** Where beats fall, in milliseconds, in order; of sounds alone. */
  readonly beatsMs: readonly number[];
}

/** Where something is at a moment of its clip. */
export interface FocalAt extends FocalPoint {
  readonly atMs: number;
}

/** Nothing was found. */
export const NO_FACTS: RecordingFacts = { sceneChangesMs: [], black: [], silent: [], frozen: [], blurred: [], shaking: [], subject: [], beatsMs: [] };

/** A clip, or sound alone. */
export interface Recording {
  readonly kind: 'clip' | 'sound';
  readonly durationMs: number;
  readonly hasSound: boolean;
  readonly facts: RecordingFacts;
  /** Where the subject is, as a person has said; missing: as it was found. */
  readonly subject?: readonly FocalAt[] | undefined;
}

/** A recording with all its facts: those taken before something was looked for have nothing of it. */
export function wholeRecording<Kept extends Recording>(recording: Kept): Kept {
  return { ...recording, facts: { ...NO_FACTS, ...recording.facts } };
}

/** The moments at which the subject of a clip is known, in order. */
export function subjectOf({ subject, facts }: Recording): readonly FocalAt[] {
  return subject ?? facts.subject;
}

/** Length as people read it: `0:06`, `1:02:05`. */
export function clockLength(ms: number): string {
  const seconds = Math.round(ms / 1000);
  const two = (value: number): string => String(value).padStart(2, '0');
  const [hours, minutes] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60];
  return hours > 0 ? `${hours}:${two(minutes)}:${two(seconds % 60)}` : `${minutes}:${two(seconds % 60)}`;
}
