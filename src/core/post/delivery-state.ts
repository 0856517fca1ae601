/**
 * The life of one delivery: one cut with its words on its way to one channel.
 *
 * - `in review`: waits until somebody approves it. Nothing of it is sent before.
 * - `scheduled`: waits for its moment (or, after a passing fault, for the next attempt). Nothing public exists.
 * - `held`: would be scheduled, but everything of the brand is held. A person lets go.
 * - `sending`: a dispatcher holds it under a lease. If the lease runs out, another may take it over; whether a post
 *   already exists is then asked of the network before anything is published.
 * - `by hand`: the network lets no program post there; its moment has come, and a person places it.
 * - `sent`: the network has confirmed the post; its address is known; or a person has placed it.
 * - `failed`: the network refused it, or attempts are used up. A person may try again.
 * - `cancelled`: cancelled before it went out. Final.
 * - `removed`: it was out, and a person has taken it down. Final.
 */
export const deliveryStates = ['in review', 'scheduled', 'held', 'sending', 'by hand', 'sent', 'failed', 'cancelled', 'removed'] as const;
export type DeliveryState = (typeof deliveryStates)[number];

export type DeliveryEvent = 'approve' | 'ask-again' | 'claim' | 'confirm' | 'postpone' | 'refuse' | 'hand-over' | 'place' | 'cancel' | 'retry' | 'hold' | 'pause' | 'release' | 'remove';

const table: Readonly<Record<DeliveryState, Partial<Record<DeliveryEvent, DeliveryState>>>> = {
  'in review': { approve: 'scheduled', cancel: 'cancelled' },
  scheduled: { claim: 'sending', cancel: 'cancelled', hold: 'held', 'ask-again': 'in review' },
  held: { release: 'scheduled', cancel: 'cancelled', 'ask-again': 'in review' },
  // A lease that ran out is claimed again: the same state, another holder.
  sending: { claim: 'sending', confirm: 'sent', postpone: 'scheduled', refuse: 'failed', 'hand-over': 'by hand', pause: 'held' },
  'by hand': { place: 'sent', cancel: 'cancelled' },
  sent: { remove: 'removed' },
  failed: { retry: 'scheduled', cancel: 'cancelled' },
  cancelled: {},
  removed: {},
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
