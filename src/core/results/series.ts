/** A figure as it was measured. `counted` rises when its network begins to count it anew: such figures are another series. */
export interface Measurement {
  readonly atMs: number;
  readonly value: number;
  readonly counted: number;
}

/** Measurements further apart than this leave a gap. */
export const GAP_MS = 8 * 86_400_000;

/**
 * The value that a figure had at an age, between two measurements by straight line. The newest series counts; the first series begins with
 * nothing at the moment of publishing. Null where the post was not that old when it was measured last, or the measurements around are a gap.
 */
export function valueAtAge(measured: readonly Measurement[], publishedMs: number, ageMs: number): number | null {
  const newest = measured.at(-1)?.counted;
  if (newest === undefined) return null;
  const points = measured.filter(({ counted }) => counted === newest);
  const begun = newest === 1 ? [{ atMs: publishedMs, value: 0, counted: 1 }, ...points] : points;
  const wantedMs = publishedMs + ageMs;
  const after = begun.findIndex(({ atMs }) => atMs >= wantedMs);
  const [before, next] = [begun[after - 1], begun[after]];
  if (!next) return null;
  if (next.atMs === wantedMs || !before) return next.atMs === wantedMs ? next.value : null;
  if (next.atMs - before.atMs > GAP_MS) return null;
  return before.value + ((next.value - before.value) * (wantedMs - before.atMs)) / (next.atMs - before.atMs);
}

/** One stretch of a curve: measurements without a gap and of one way of counting. */
export type Stretch = readonly (readonly [hours: number, value: number])[];

/** A curve over the age in hours, broken where measurements are missing or begin anew. */
export function stretchesOf(measured: readonly Measurement[], publishedMs: number): readonly Stretch[] {
  const stretches: [number, number][][] = [];
  let last: Measurement | null = null;
  for (const each of measured) {
    const isNew = last === null || each.counted !== last.counted || each.atMs - last.atMs > GAP_MS;
    if (isNew) stretches.push([]);
    stretches.at(-1)?.push([(each.atMs - publishedMs) / 3_600_000, each.value]);
    last = each;
  }
  const [first] = stretches;
  if (first && measured[0]?.counted === 1 && measured[0].atMs - publishedMs <= GAP_MS) first.unshift([0, 0]);
  return stretches;
}
