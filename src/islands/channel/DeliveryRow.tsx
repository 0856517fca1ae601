import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import ExternalLink from 'lucide-react/icons/external-link';
import { getBrand } from '../../contract/brand-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { actOnDelivery, getDeliveryPicture, type listDeliveries } from '../../contract/send-contracts.ts';
import { canDelivery } from '../../core/post/delivery-state.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import { addressOf, call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { ChannelBadge } from './ChannelBadge.tsx';
import { PictureWithFallback } from '../ui/PictureWithFallback.tsx';
import { StateChip } from './StateChip.tsx';
import { toast } from '../ui/toast.tsx';

export type Delivery = AnswerOf<typeof listDeliveries>['items'][number];
type Badge = AnswerOf<typeof getBrand>['sheets'][number]['badge'];

/** The signs of the brand's networks by their keys. */
export function useBadges(brand: string): ReadonlyMap<string, Badge> {
  const { data } = useQuery({ queryKey: ['brand', brand], queryFn: () => call(getBrand, { params: { brand } }), staleTime: 60_000 });
  return new Map(data?.sheets.map((sheet) => [sheet.key, sheet.badge]));
}

interface RowProps {
  readonly brand: { readonly slug: string; readonly zone: string; readonly role: string };
  readonly delivery: Delivery;
  readonly badge: Badge | undefined;
  readonly nowMs: number;
  /** Beside its own piece a row need not say which piece it is of. */
  readonly compact?: boolean;
}

/** One post on its way: what, where, when, how it stands, and what can be done about it. */
export function DeliveryRow({ brand, delivery, badge, nowMs, compact = false }: RowProps) {
  const client = useQueryClient();
  const act = useMutation({
    mutationFn: (action: 'cancel' | 'retry' | 'send-now') => call(actOnDelivery, { params: { brand: brand.slug, delivery: delivery.id, action } }),
    onError: (error) => toast('problem', error.message),
    onSettled: () => client.invalidateQueries({ queryKey: ['deliveries', brand.slug] }),
  });
  const maySend = brand.role === 'owner' || brand.role === 'designer';
  const { state } = delivery;
  return (
    <li data-delivery={delivery.id} data-state={state} className="flex items-center gap-4 border-b border-line py-2.5">
      <PictureWithFallback src={addressOf(getDeliveryPicture, { brand: brand.slug, delivery: delivery.id })} alt="" className="size-14 shrink-0 rounded-md object-contain" />
      <div className="min-w-0 flex-1">
        {!compact && (
          <a href={`/b/${brand.slug}/make/pieces/${delivery.pieceId}`} className="block truncate text-base font-semibold hover:underline">
            {delivery.pieceName}
          </a>
        )}
        <p className="flex items-center gap-1.5 text-sm text-quiet">
          {badge && <ChannelBadge badge={badge} size={15} />}
          <span className="truncate">
            {delivery.channelName}, {delivery.placementName}
          </span>
        </p>
        {delivery.problem && state !== 'sent' && <p className="mt-0.5 text-sm text-coral-ink">{delivery.problem}</p>}
        {delivery.pieceChanged === 'yes' && (state === 'scheduled' || state === 'failed') && <p className="mt-0.5 text-xs text-marigold-ink">The piece has changed since. This post goes out as it was scheduled.</p>}
      </div>
      <div className="w-60 shrink-0">
        <StateChip state={state} />
        <p className="text-sm text-quiet tabular-nums">{timing(delivery, brand.zone, nowMs)}</p>
      </div>
      <div className={`flex shrink-0 justify-end gap-1.5 ${compact ? 'w-48' : 'w-64'}`}>
        {delivery.address && (
          <a href={delivery.address} target="_blank" rel="noreferrer" className="flex min-w-0 items-center gap-1 text-sm text-house underline">
            <span className="truncate">{delivery.address.replace(/^https?:\/\//, '')}</span>
            <ExternalLink aria-hidden className="size-3.5 shrink-0" />
          </a>
        )}
        {maySend && state === 'scheduled' && (
          <Button disabled={act.isPending} onClick={() => act.mutate('send-now')}>
            Send now
          </Button>
        )}
        {maySend && canDelivery(state, 'retry') && (
          <Button disabled={act.isPending} onClick={() => act.mutate('retry')}>
            Try again
          </Button>
        )}
        {maySend && canDelivery(state, 'cancel') && (
          <Button look="stop" disabled={act.isPending} onClick={() => act.mutate('cancel')}>
            Take back
          </Button>
        )}
      </div>
    </li>
  );
}

function timing(delivery: Delivery, zone: string, nowMs: number): string {
  if (delivery.state === 'sent' && delivery.sentMs !== null) return formatMoment(delivery.sentMs, zone);
  if (delivery.retryInMs !== null) return `Attempt ${delivery.attempt + 1} in ${Math.max(1, Math.round(delivery.retryInMs / 1000))} s`;
  if (delivery.state === 'scheduled' && delivery.dueMs <= nowMs) return 'Due now';
  return formatMoment(delivery.dueMs, delivery.zone);
}
