import { useMutation, useQuery } from '@tanstack/react-query';
import ExternalLink from 'lucide-react/icons/external-link';
import { roleMay, type Role } from '../../core/access/access.ts';
import { getBrand } from '../../contract/brand-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import { actOnDelivery, getDeliveryPicture } from '../../contract/send-contracts.ts';
import type { DeliveryAction } from '../../core/post/delivery-action.ts';
import { canDelivery } from '../../core/post/delivery-state.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import { addressOf, call } from '../ui/call.ts';
import { Button, buttonClasses } from '../ui/Button.tsx';
import { AfterPublication } from './AfterPublication.tsx';
import { ConfirmButton } from '../ui/ConfirmButton.tsx';
import { ChannelBadge } from '../channel/ChannelBadge.tsx';
import { PictureWithFallback } from '../ui/PictureWithFallback.tsx';
import { EditWords } from './EditWords.tsx';
import { StateChip } from './StateChip.tsx';
import { toast } from '../ui/toast.tsx';
import type { Delivery } from './use-deliveries.ts';

export type Badge = AnswerOf<typeof getBrand>['sheets'][number]['badge'];

/** The signs of the brand's networks by their keys. */
export function useBadges(brand: string): ReadonlyMap<string, Badge> {
  const { data } = useQuery({ queryKey: ['brand', brand], queryFn: () => call(getBrand, { params: { brand } }), staleTime: 60_000 });
  return new Map(data?.sheets.map((sheet) => [sheet.key, sheet.badge]));
}

interface RowProps {
  readonly brand: { readonly slug: string; readonly zone: string; readonly role: Role };
  readonly delivery: Delivery;
  readonly badge: Badge | undefined;
  readonly nowMs: number;
}

/** One cut of a post on its way: where, how it stands, and what can be done about it. */
export function DeliveryRow({ brand, delivery, badge, nowMs }: RowProps) {
  const act = useMutation({
    mutationFn: (action: DeliveryAction) => call(actOnDelivery, { params: { brand: brand.slug, delivery: delivery.id, action } }),
    onError: (error) => toast('problem', error.message),
  });
  const maySend = roleMay(brand.role, 'send');
  const { state } = delivery;
  return (
    <li data-delivery={delivery.id} data-state={state} className="flex items-center gap-4 py-1.5 max-md:flex-wrap max-md:gap-x-3 max-md:gap-y-1">
      <PictureWithFallback src={addressOf(getDeliveryPicture, { brand: brand.slug, delivery: delivery.id })} alt="" className="size-11 shrink-0 rounded-md object-contain" />
      <div className="min-w-0 flex-1 max-md:min-w-48">
        <div className="flex gap-1.5 text-sm">
          {badge && (
            <span className="pt-0.5">
              <ChannelBadge badge={badge} size={15} />
            </span>
          )}
          <div className="min-w-0">
            <p className="truncate text-quiet" title={delivery.channelName}>
              {delivery.channelName}
            </p>
            {/* On a line of its own: two cuts of one channel differ in this alone. */}
            <p className="truncate">{delivery.placementName}</p>
          </div>
        </div>
        {delivery.problem && state !== 'sent' && <p className="mt-0.5 text-sm text-coral-ink">{delivery.problem}</p>}
      </div>
      <div className="w-40 shrink-0 max-md:order-1 max-md:w-auto max-md:pl-14">
        <StateChip state={state} />
        <p className="text-sm text-quiet tabular-nums">{timing(delivery, brand.zone, nowMs)}</p>
      </div>
      <div className="flex max-w-96 min-w-0 flex-wrap justify-end gap-1.5 max-md:order-2 max-md:ml-auto md:shrink-0">
        {delivery.address && (
          <a href={delivery.address} target="_blank" rel="noreferrer" className="flex min-w-0 items-center gap-1 text-sm text-house underline">
            <span className="truncate">{delivery.address.replace(/^https?:\/\//, '')}</span>
            <ExternalLink aria-hidden className="size-3.5 shrink-0" />
          </a>
        )}
        {maySend && state === 'scheduled' && delivery.address === null && <EditWords brand={brand.slug} deliveryId={delivery.id} />}
        {maySend && state === 'scheduled' && (
          <ConfirmButton label="Send now" title="Send now" isDisabled={act.isPending} keepLabel="Not yet" confirmLabel="Send it now" confirmLook="primary" onConfirm={() => act.mutate('send-now')}>
            <p className="text-sm">
              This goes out at once to {delivery.channelName}, {delivery.placementName}, and everyone can see it.
            </p>
          </ConfirmButton>
        )}
        {maySend && state === 'scheduled' && (
          <Button disabled={act.isPending} onClick={() => act.mutate('hold')}>
            Hold
          </Button>
        )}
        {maySend && state === 'held' && (
          <Button disabled={act.isPending} onClick={() => act.mutate('release')}>
            {delivery.dueMs > nowMs ? 'Release' : 'Send it now'}
          </Button>
        )}
        {state === 'in review' && (
          <a href={`/b/${brand.slug}/send/sign-off?post=${delivery.postId}`} className={buttonClasses('plain')}>
            Open sign-off
          </a>
        )}
        {state === 'by hand' && (
          <a href={`/b/${brand.slug}/send/by-hand#${delivery.id}`} className={buttonClasses('plain')}>
            Place it…
          </a>
        )}
        {state === 'sent' && <AfterPublication brand={brand} delivery={delivery} maySend={maySend} />}
        {maySend && canDelivery(state, 'retry') && (
          <Button disabled={act.isPending} onClick={() => act.mutate('retry')}>
            Retry
          </Button>
        )}
        {maySend && canDelivery(state, 'cancel') && (
          <Button look="stop" disabled={act.isPending} onClick={() => act.mutate('cancel')}>
            {delivery.address === null ? 'Cancel' : 'Leave out the rest'}
          </Button>
        )}
      </div>
    </li>
  );
}

const stepWords: Readonly<Record<NonNullable<Delivery['step']>, string>> = { render: 'Making its files', upload: 'Uploading', process: 'The network looks at it', publish: 'Publishing', follow: 'Adding what follows it' };

/** What the post's own moment does not say. */
function timing(delivery: Delivery, zone: string, nowMs: number): string {
  if (delivery.state === 'sent' && delivery.sentMs !== null) return formatMoment(delivery.sentMs, zone);
  if (delivery.state === 'sending' && delivery.step !== null) return stepWords[delivery.step];
  if (delivery.retryInMs !== null) return `Attempt ${delivery.attempt + 1} in ${Math.max(1, Math.round(delivery.retryInMs / 1000))} s`;
  if (delivery.state === 'scheduled' && delivery.dueMs <= nowMs) return delivery.kind === 'video' ? 'Due: waits for the videos before it' : 'Due now';
  return '';
}
