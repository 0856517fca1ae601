import type { Recording, Span } from './recording.ts';

/** Nothing shorter than this is worth a proposal. */
const MIN_PART_MS = 800;

/** What of a clip is worth showing: the parts of one scene in which it is neither black, nor still, nor blurred, nor shaking; the longest first. */
export function goodParts({ durationMs, facts }: Pick<Recording, 'durationMs' | 'facts'>): readonly Span[] {
  const bad = [...facts.black, ...facts.frozen, ...facts.blurred, ...facts.shaking].sort((a, b) => a.fromMs - b.fromMs);
  const bounds = [0, ...facts.sceneChangesMs, durationMs];
  const parts = bounds.slice(1).flatMap((toMs, index) => without({ fromMs: bounds[index] ?? 0, toMs }, bad));
  return parts.filter(({ fromMs, toMs }) => toMs - fromMs >= MIN_PART_MS).sort((a, b) => b.toMs - b.fromMs - (a.toMs - a.fromMs));
}

function without(span: Span, bad: readonly Span[]): readonly Span[] {
  const parts: Span[] = [];
  let { fromMs } = span;
  for (const each of bad) {
    if (each.toMs <= fromMs || each.fromMs >= span.toMs) continue;
    if (each.fromMs > fromMs) parts.push({ fromMs, toMs: each.fromMs });
    fromMs = Math.max(fromMs, each.toMs);
  }
  return fromMs < span.toMs ? [...parts, { fromMs, toMs: span.toMs }] : parts;
}
