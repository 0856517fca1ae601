import { useMutation } from '@tanstack/react-query';
import { nanoid } from 'nanoid';
import { useRef, useState } from 'react';
import { schedulePiece } from '../../../contract/send-contracts.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { ApiProblem, call } from '../../ui/call.ts';
import { toast } from '../../ui/toast.tsx';
import type { ViewProps } from '../view-props.ts';
import type { PlaceRow } from './places.ts';

/** What is to be scheduled: the places that are ticked, each at its moment, or all of them now. */
export interface Order {
  readonly rows: readonly PlaceRow[];
  readonly isNow: boolean;
  /** A person has agreed that cuts go out once more. */
  readonly again: boolean;
}

/** Why something was not scheduled. `again`: a person may agree to it. */
export interface Refusal {
  readonly sentence: string;
  readonly again: Order | null;
}

/** Schedules a piece from its saved state, once, however often it is asked for and whatever the network does. */
export function useSchedule({ brand, store, pieceId, onScheduled }: Pick<ViewProps, 'brand' | 'store' | 'pieceId'> & { readonly onScheduled: () => void }) {
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  // An order whose answer was lost is repeated under its own name.
  const request = useRef<string | null>(null);
  const mutation = useMutation({
    mutationFn: async ({ rows, isNow, again }: Order) => {
      await store.flush();
      request.current ??= nanoid();
      const [first] = rows;
      const shared = isNow || !first ? { kind: 'now' as const } : { kind: 'at' as const, ...first.moment };
      const cuts = rows.map(({ cut, moment }) => ({ ...cut.ref, when: isNow ? shared : { kind: 'at' as const, ...moment } }));
      return call(schedulePiece, { params: { brand: brand.slug, piece: pieceId }, body: { revision: store.getState().revision, cuts, when: shared, again, request: request.current } });
    },
    onSuccess: ({ deliveries }, { isNow }) => {
      request.current = null;
      setRefusal(null);
      const moments = [...new Set(deliveries.map(({ dueMs }) => dueMs))].toSorted((a, b) => a - b);
      const places = `${deliveries.length} ${deliveries.length === 1 ? 'place' : 'places'}`;
      const first = formatMoment(moments[0] ?? 0, brand.zone);
      if (deliveries.some(({ state }) => state === 'in review')) {
        toast('done', `You asked for sign-off in ${places}. The post goes out ${isNow ? 'once it is approved' : `${first}, once it is approved`}.`, { label: 'Open sign-off', run: () => location.assign(`/b/${brand.slug}/send/sign-off?post=${deliveries[0]?.postId ?? ''}`) });
        onScheduled();
        return;
      }
      toast('done', isNow ? `On its way to ${places}.` : moments.length > 1 ? `Scheduled in ${places} at ${moments.length} times, the first ${first}.` : `Scheduled in ${places} for ${first}.`);
      onScheduled();
    },
    onError: (error, order) => {
      if (!(error instanceof ApiProblem)) throw error;
      if (error.code !== 'offline') request.current = null;
      setRefusal({ sentence: error.message, again: error.code === 'goes-out-again' ? { ...order, again: true } : null });
    },
  });
  return { schedule: (order: Order) => mutation.mutate(order), isPending: mutation.isPending, refusal, dismiss: () => setRefusal(null) };
}
