import { wordsIn } from '../text/word-numbers.ts';
import type { Cue, Track } from '../piece/track.ts';
import type { Recording, Span } from './recording.ts';
import { speechSpans, syllables } from './time-script.ts';

/** Where somebody speaks in a video: all of it, as far as is known, where it has no voice of its own. */
export function spokenSpans(track: Track | undefined, recordings: ReadonlyMap<string, Recording>): readonly Span[] | null {
  const voice = track?.voice === undefined ? undefined : recordings.get(track.voice);
  return voice ? speechSpans(voice) : null;
}

/**
 * When each word of a subtitle begins to be spoken: its words share the time in which somebody speaks while it is shown, by their
 * syllables.
 * @param speech where somebody speaks; null where that is not known
 * @returns milliseconds of the video, one a word, in order
 */
export function wordStartsMs({ fromMs, toMs, text }: Cue, speech: readonly Span[] | null): readonly number[] {
  const inside = (speech ?? []).map((span) => ({ fromMs: Math.max(fromMs, span.fromMs), toMs: Math.min(toMs, span.toMs) })).filter((span) => span.toMs > span.fromMs);
  const spans = inside.length > 0 ? inside : [{ fromMs, toMs }];
  const spokenMs = spans.reduce((sum, span) => sum + span.toMs - span.fromMs, 0);
  const weights = wordsIn(text).map((word) => Math.max(1, syllables(word)));
  const whole = weights.reduce((sum, weight) => sum + weight, 0);
  let said = 0;
  return weights.map((weight) => {
    const startMs = momentAfter((said / whole) * spokenMs, spans);
    said += weight;
    return Math.round(startMs);
  });
}

/** The moment after so much speech. */
function momentAfter(spokenMs: number, spans: readonly Span[]): number {
  let left = spokenMs;
  for (const { fromMs, toMs } of spans) {
    if (left < toMs - fromMs) return fromMs + left;
    left -= toMs - fromMs;
  }
  return spans.at(-1)?.toMs ?? 0;
}

/** The word of a subtitle that is spoken at a moment, counted from 0. */
export function saidWordAt(startsMs: readonly number[], atMs: number): number {
  return Math.max(0, startsMs.findLastIndex((startMs) => startMs <= atMs));
}
