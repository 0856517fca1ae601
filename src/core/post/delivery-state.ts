/**
 * The life of one delivery: one cut with its words on its way to one channel.
 *
 * - `scheduled`: waits for its moment (or, after a passing fault, for the next attempt). Nothing public exists.
 * - `held`: would be scheduled, but everything of the brand is held. A person lets go.
 * - `sending`: a dispatcher holds it under a lease. If the lease runs out, another may take it over; whether a post
 *   already exists is then asked of the network before anything is published.
 * - `sent`: the network has confirmed the post; its address is known. Final.
 * - `failed`: the network refused it, or attempts are used up. A person may try again.
 * - `cancelled`: cancelled before it went out. Final.
 */
export const deliveryStates = ['scheduled', 'held', 'sending', 'sent', 'failed', 'cancelled'] as const;
export type DeliveryState = (typeof deliveryStates)[number];

export type DeliveryEvent = 'claim' | 'confirm' | 'postpone' | 'refuse' | 'cancel' | 'retry' | 'hold' | 'release';

const table: Readonly<Record<DeliveryState, Partial<Record<DeliveryEvent, DeliveryState>>>> = {
  scheduled: { claim: 'sending', cancel: 'cancelled', hold: 'held' },
  held: { release: 'scheduled', cancel: 'cancelled' },
  // A lease that ran out is claimed again: the same state, another holder.
  sending: { claim: 'sending', confirm: 'sent', postpone: 'scheduled', refuse: 'failed' },
  sent: {},
  failed: { retry: 'scheduled', cancel: 'cancelled' },
  cancelled: {},
};

export class IllegalTransitionError extends Error {
  override readonly name = 'IllegalTransitionError';
  readonly code = 'illegal-transition';
  constructor(
    readonly from: DeliveryState,
    readonly event: DeliveryEvent,
  ) {
    super(`A delivery that is ${from} cannot ${event}`);
  }
}

/**
 * The state after an event.
 * @throws IllegalTransitionError when the state does not allow the event
 */
export function nextDeliveryState(from: DeliveryState, event: DeliveryEvent): DeliveryState {
  const next = table[from][event];
  if (next === undefined) throw new IllegalTransitionError(from, event);
  return next;
}

export function canDelivery(from: DeliveryState, event: DeliveryEvent): boolean {
  return table[from][event] !== undefined;
}

/** States that an event can start from; what a guarded write names in its condition. */
export function statesAllowing(event: DeliveryEvent): readonly DeliveryState[] {
  return deliveryStates.filter((state) => canDelivery(state, event));
}
