import type { DeliveryState } from './delivery-state.ts';

/** A cut of a piece on its way, or on the way it would go. */
export interface Outing {
  readonly channelId: string;
  readonly placement: string;
  readonly dueMs: number;
}

/** An outing that would not be the first of its cut. `same`: at this very moment; `again`: at another. */
export interface Repeat {
  readonly kind: 'same' | 'again';
  readonly planned: Outing;
  readonly before: Outing & { readonly state: DeliveryState };
}

/** Moments that lie closer than this are the same: a second press, or a second person. */
export const SAME_MOMENT_MS = 60_000;

const counts = (state: DeliveryState): boolean => state !== 'failed' && state !== 'cancelled' && state !== 'removed';

/**
 * Planned outings of cuts that are scheduled, being sent or out already; of several the nearest in time.
 * @param before earlier deliveries of the same piece
 */
export function findRepeats(before: readonly (Outing & { readonly state: DeliveryState })[], planned: readonly Outing[]): readonly Repeat[] {
  return planned.flatMap((each): Repeat[] => {
    const [nearest] = before
      .filter((other) => counts(other.state) && other.channelId === each.channelId && other.placement === each.placement)
      .toSorted((a, b) => Math.abs(a.dueMs - each.dueMs) - Math.abs(b.dueMs - each.dueMs));
    if (!nearest) return [];
    return [{ kind: Math.abs(nearest.dueMs - each.dueMs) < SAME_MOMENT_MS ? 'same' : 'again', planned: each, before: nearest }];
  });
}
