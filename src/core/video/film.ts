/** A stretch of time within a clip or sound, in milliseconds from its start; `to` is not in it. */
export interface Span {
  readonly fromMs: number;
  readonly toMs: number;
}

/** What is known of a clip's moving pictures and sound, taken once when it comes in. */
export interface FilmFacts {
  /** Where the scene changes, in milliseconds, in order. */
  readonly sceneChangesMs: readonly number[];
  readonly black: readonly Span[];
  /** Where nothing is to be heard. */
  readonly silent: readonly Span[];
  /** Where the picture stands still. */
  readonly frozen: readonly Span[];
}

/** A clip, or sound alone. */
export interface Film {
  readonly kind: 'clip' | 'sound';
  readonly durationMs: number;
  readonly hasSound: boolean;
  readonly facts: FilmFacts;
}

/** Length as people read it: `0:06`, `1:02:05`. */
export function clockLength(ms: number): string {
  const seconds = Math.round(ms / 1000);
  const two = (value: number): string => String(value).padStart(2, '0');
  const [hours, minutes] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60];
  return hours > 0 ? `${hours}:${two(minutes)}:${two(seconds % 60)}` : `${minutes}:${two(seconds % 60)}`;
}
