import { deliveryStates, type DeliveryState } from './delivery-state.ts';

/**
 * The life of a post: one planned outing of a piece. It follows from the lives of its deliveries.
 *
 * - `in review`: it waits for approval.
 * - `scheduled`: at least one delivery waits for its moment, and none is being sent.
 * - `held`: nothing waits for its moment, but something is held back with everything of the brand.
 * - `sending`: at least one delivery is being sent.
 * - `by hand`: a person has to place some of it; nothing else of it waits.
 * - `out`: everything that was not cancelled has gone out.
 * - `partly out`: some deliveries have gone out, others have failed.
 * - `failed`: nothing has gone out, and at least one delivery has failed.
 * - `cancelled`: every delivery was cancelled before it went out.
 * - `removed`: a person took the published deliveries down.
 */
export const postStates = ['in review', 'scheduled', 'held', 'sending', 'by hand', 'out', 'partly out', 'failed', 'cancelled', 'removed'] as const;
export type PostState = (typeof postStates)[number];

/**
 * The state of a post by those of its deliveries, in any order.
 * @throws RangeError for a post without deliveries
 */
export function postStateOf(states: readonly DeliveryState[]): PostState {
  if (states.length === 0) throw new RangeError('A post has at least one delivery');
  const count = Object.fromEntries(deliveryStates.map((state) => [state, states.filter((each) => each === state).length])) as Record<DeliveryState, number>;
  if (count.sending > 0) return 'sending';
  if (count['in review'] > 0) return 'in review';
  if (count.scheduled > 0) return 'scheduled';
  if (count['by hand'] > 0) return 'by hand';
  if (count.held > 0) return 'held';
  if (count.sent > 0) return count.failed > 0 ? 'partly out' : 'out';
  if (count.failed > 0) return 'failed';
  return count.removed > 0 ? 'removed' : 'cancelled';
}

/** States of a post in which its moment and content can be changed. */
export const movableStates: readonly PostState[] = ['scheduled', 'in review'];

/** Whether something of a post still waits, so that its moment and its content can be changed. */
export function canReschedule(state: PostState): boolean {
  return movableStates.includes(state);
}
