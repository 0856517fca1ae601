import { useMutation, useQuery } from '@tanstack/react-query';
import ChevronDown from 'lucide-react/icons/chevron-down';
import { useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { actOnPost, getDeliveryPicture, getPostDifferences, refreshPost, reschedulePost } from '../../contract/send-contracts.ts';
import { roleMay, type Role } from '../../core/access/access.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import { Button, buttonClasses } from '../ui/Button.tsx';
import { ConfirmButton } from '../ui/ConfirmButton.tsx';
import { DialogActions } from '../ui/DialogActions.tsx';
import { addressOf, call } from '../ui/call.ts';
import { PictureWithFallback } from '../ui/PictureWithFallback.tsx';
import { getCutFile } from '../../contract/piece-contracts.ts';
import { WordDiff } from '../ui/WordDiff.tsx';
import { toast } from '../ui/toast.tsx';
import { ChannelBadge } from '../channel/ChannelBadge.tsx';
import { iconButtonClasses } from '../ui/icon-button';
import { BoostButton } from './BoostButton.tsx';
import { DeliveryRow, type Badge } from './DeliveryRow.tsx';
import { DuplicatePost } from './DuplicatePost.tsx';
import { StateChip } from './StateChip.tsx';
import { useChangedAreas, type Compared } from './use-changed-areas.ts';
import { MomentFields, type ChosenMoment } from './MomentFields.tsx';
import type { Delivery } from './use-deliveries.ts';

/** Deliveries that stand together in a list, by the post that they are of. */
export interface PostOfList {
  readonly postId: string;
  readonly deliveries: readonly [Delivery, ...Delivery[]];
}

/** Gathers neighbours of one post; a post whose cuts go out at different moments stands in several places. */
export function groupByPost(items: readonly Delivery[]): readonly PostOfList[] {
  const groups: PostOfList[] = [];
  for (const item of items) {
    const last = groups.at(-1);
    if (last?.postId === item.postId) groups[groups.length - 1] = { ...last, deliveries: [...last.deliveries, item] };
    else groups.push({ postId: item.postId, deliveries: [item] });
  }
  return groups;
}

/** By channel, as one looks for them. */
function inOrder(deliveries: readonly Delivery[]): readonly Delivery[] {
  return deliveries.toSorted((a, b) => a.channelName.localeCompare(b.channelName) || a.placementName.localeCompare(b.placementName));
}

interface GroupProps {
  readonly brand: { readonly slug: string; readonly zone: string; readonly role: Role };
  readonly post: PostOfList;
  readonly badges: ReadonlyMap<string, Badge>;
  readonly nowMs: number;
  /** Beside its own piece a post need not say which piece it is of. */
  readonly isBesidePiece?: boolean;
}

/** One post: its piece, its moment, what can be done about all of it, and its cuts on their channels. */
export function PostGroup({ brand, post, badges, nowMs, isBesidePiece = false }: GroupProps) {
  const { deliveries } = post;
  const [first] = deliveries;
  const waiting = deliveries.filter(({ state }) => state === 'scheduled' || state === 'in review');
  // A row says how all stands; it opens where something wants attention, and beside its own piece.
  const isCalm = deliveries.every(({ state }) => state === 'sent' || state === 'cancelled' || state === 'removed' || state === 'scheduled' || state === 'in review');
  const [isOpen, setOpen] = useState(isBesidePiece || deliveries.length === 1 || !isCalm);
  const hasChanged = first.pieceChanged === 'yes' && waiting.length > 0;
  const mayChange = roleMay(brand.role, 'send') && waiting.length > 0;
  return (
    <article data-post={post.postId} className="border-b border-line py-2">
      <div className="flex items-center gap-1.5 max-md:flex-wrap max-md:gap-x-2 max-md:gap-y-1">
        {!isBesidePiece && <PictureWithFallback src={addressOf(getDeliveryPicture, { brand: brand.slug, delivery: first.id })} alt="" className="mr-2.5 size-9 shrink-0 rounded-md object-cover" />}
        <p className={`min-w-0 flex-1 truncate max-md:whitespace-normal ${isBesidePiece ? 'max-md:basis-full' : 'max-md:basis-[calc(100%-4rem)]'}`}>
          {isBesidePiece ? (
            <span className="text-sm font-semibold">{formatMoment(first.dueMs, first.zone)}</span>
          ) : (
            <a href={`/b/${brand.slug}/make/pieces/${first.pieceId}`} className="text-base font-semibold hover:underline">
              {first.pieceName}
            </a>
          )}
          <span className="ml-2 text-sm text-quiet tabular-nums max-md:ml-0 max-md:block">
            {isBesidePiece ? '' : `${formatMoment(first.dueMs, first.zone)}, `}
            {deliveries.length} {deliveries.length === 1 ? 'place' : 'places'}
          </span>
        </p>
        {!isOpen && <Summary deliveries={deliveries} badges={badges} />}
        {hasChanged && <PieceChanged brand={brand.slug} postId={post.postId} shown={waiting[0] ?? first} mayUpdate={mayChange && deliveries.every(({ state }) => state === 'scheduled' || state === 'in review' || state === 'cancelled')} />}
        {mayChange && <Reschedule brand={brand} postId={post.postId} first={first} count={waiting.length} nowMs={nowMs} />}
        {mayChange && waiting.length > 1 && <CancelAll brand={brand.slug} postId={post.postId} count={waiting.length} />}
        {roleMay(brand.role, 'send') && !isBesidePiece && isOpen && <BoostButton brand={brand} postId={post.postId} />}
        {roleMay(brand.role, 'send') && isOpen && <DuplicatePost brand={brand} postId={post.postId} nowMs={nowMs} />}
        {!isBesidePiece && deliveries.length > 1 && (
          <button type="button" aria-expanded={isOpen} aria-label={`${first.pieceName}: its ${deliveries.length} places`} onClick={() => setOpen(!isOpen)} className={iconButtonClasses}>
            <ChevronDown aria-hidden className={`size-4 transition-transform duration-100 ${isOpen ? 'rotate-180' : ''}`} />
          </button>
        )}
      </div>
      {isOpen && (
        <ul className={isBesidePiece ? 'pl-3' : 'pl-11 max-md:pl-3'}>
          {inOrder(deliveries).map((delivery) => (
            <DeliveryRow key={delivery.id} brand={brand} delivery={delivery} badge={badges.get(delivery.network)} nowMs={nowMs} />
          ))}
        </ul>
      )}
    </article>
  );
}

/** How the places of a post stand, in a line: the sign of each channel with that of its state. */
function Summary({ deliveries, badges }: { readonly deliveries: readonly Delivery[]; readonly badges: ReadonlyMap<string, Badge> }) {
  const states = [...new Set(deliveries.map(({ state }) => state))];
  return (
    <span className="mr-3 flex shrink-0 items-center gap-4 max-md:flex-wrap">
      {states.map((state) => (
        <span key={state} className="flex items-center gap-1.5">
          {[...new Set(deliveries.filter((each) => each.state === state).map(({ network }) => network))].toSorted().map((network) => {
            const badge = badges.get(network);
            return badge ? <ChannelBadge key={network} badge={badge} size={15} /> : null;
          })}
          <StateChip state={state} />
        </span>
      ))}
    </span>
  );
}

const panelClasses = 'shadow-float w-96 max-w-[calc(100vw-1rem)] rounded-md border border-line bg-panel p-4';

function Reschedule({ brand, postId, first, count, nowMs }: { readonly brand: GroupProps['brand']; readonly postId: string; readonly first: Delivery; readonly count: number; readonly nowMs: number }) {
  const [moment, setMoment] = useState<ChosenMoment>({ wall: first.wall });
  const move = useMutation({
    mutationFn: () => call(reschedulePost, { params: { brand: brand.slug, post: postId }, body: { when: { kind: 'at' as const, ...moment } } }),
    onSuccess: ({ dueMs }) => toast('done', `Rescheduled for ${formatMoment(dueMs, brand.zone)}.`),
  });
  return (
    <DialogTrigger>
      <AriaButton className={buttonClasses('plain', 'small')}>Reschedule</AriaButton>
      <Popover placement="bottom end" className={panelClasses}>
        <Dialog aria-label="Reschedule the post" className="outline-none">
          {({ close }) => (
            <>
              <MomentFields moment={moment} zone={brand.zone} nowMs={nowMs} onChange={setMoment} />
              {count > 1 && <p className="mt-1 text-xs text-quiet">All {count} places that still wait move together.</p>}
              {move.error && (
                <p role="alert" className="mt-2 text-sm text-coral-ink">
                  {move.error.message}
                </p>
              )}
              <DialogActions keepLabel="Close" onKeep={close} label="Reschedule" look="primary" isDisabled={move.isPending} onConfirm={() => move.mutate(undefined, { onSuccess: close })} />
            </>
          )}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}

function CancelAll({ brand, postId, count }: { readonly brand: string; readonly postId: string; readonly count: number }) {
  const cancel = useMutation({ mutationFn: () => call(actOnPost, { params: { brand, post: postId, action: 'cancel' as const } }), onError: (error) => toast('problem', error.message) });
  return (
    <ConfirmButton label="Cancel all" title="Cancel the whole post" size="small" isDisabled={cancel.isPending} keepLabel="Keep it" confirmLabel={`Cancel all ${count}`} confirmLook="stop" onConfirm={() => cancel.mutate()}>
      <p className="text-sm">This post will not go out in any of its {count} places that still wait.</p>
    </ConfirmButton>
  );
}

function PieceChanged({ brand, postId, shown, mayUpdate }: { readonly brand: string; readonly postId: string; readonly shown: Delivery; readonly mayUpdate: boolean }) {
  return (
    <DialogTrigger>
      <AriaButton className="mr-2 text-xs text-marigold-ink underline">The piece has changed since</AriaButton>
      <Popover placement="bottom end" className={`${panelClasses} max-h-[60vh] overflow-auto`}>
        <Dialog aria-label="What has changed" className="outline-none">
          {({ close }) => <Differences brand={brand} postId={postId} shown={shown} mayUpdate={mayUpdate} onClose={close} />}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}

function Differences({ brand, postId, shown, mayUpdate, onClose }: { readonly brand: string; readonly postId: string; readonly shown: Delivery; readonly mayUpdate: boolean; readonly onClose: () => void }) {
  const found = useQuery({ queryKey: ['post-differences', brand, postId], queryFn: () => call(getPostDifferences, { params: { brand, post: postId } }) });
  const refresh = useMutation({
    mutationFn: () => call(refreshPost, { params: { brand, post: postId } }),
    onSuccess: () => {
      toast('done', 'The post follows the piece as it is now.');
      onClose();
    },
  });
  const differences = found.data?.differences ?? [];
  const [before, now] = [addressOf(getDeliveryPicture, { brand, delivery: shown.id }), addressOf(getCutFile, { brand, piece: shown.pieceId, channelId: shown.channelId, placement: shown.placement }, { as: 'webp' })];
  const compared = useChangedAreas(before, now);
  const parts = compared?.areas.length ?? 0;
  return (
    <>
      <p className="text-sm font-semibold">This post goes out as it was scheduled.</p>
      {found.error && <p className="mt-1 text-sm text-coral-ink">{found.error.message}</p>}
      <div className="mt-2 grid grid-cols-2 gap-2 text-xs text-quiet">
        <figure>
          <Framed compared={compared} src={before} alt="The post as it was scheduled" />
          <figcaption className="mt-0.5">The post</figcaption>
        </figure>
        <figure>
          <Framed compared={compared} src={now} alt="The piece as it is now" />
          <figcaption className="mt-0.5">The piece now</figcaption>
        </figure>
      </div>
      {parts > 0 && <p className="mt-1 text-xs text-quiet">{parts === 1 ? 'Framed: the part that differs.' : `Framed: the ${parts} parts that differ.`}</p>}
      <ul className="mt-2 space-y-2 text-sm">
        {differences.map(({ place, pinned, now }) => (
          <li key={`${place}${pinned}${now}`}>
            <span className="block text-xs font-medium text-quiet">{place}</span>
            <WordDiff before={pinned} now={now} />
          </li>
        ))}
      </ul>
      {found.isSuccess && differences.length === 0 && <p className="mt-1 text-sm text-quiet">The piece reads as it did.</p>}
      {refresh.error && (
        <p role="alert" className="mt-2 text-sm text-coral-ink">
          {refresh.error.message}
        </p>
      )}
      <div className="mt-3 flex justify-end gap-2">
        <Button size="small" onClick={onClose}>
          Keep the post
        </Button>
        {mayUpdate && (
          <Button size="small" look="primary" disabled={refresh.isPending} onClick={() => refresh.mutate()}>
            Update the post
          </Button>
        )}
      </div>
    </>
  );
}

/** A picture with frames around the parts in which it differs from another one. */
function Framed({ compared, src, alt }: { readonly compared: Compared | null; readonly src: string; readonly alt: string }) {
  if (!compared || compared.areas.length === 0) return <PictureWithFallback src={src} alt={alt} className="h-36 w-full rounded-md border border-line object-contain" />;
  return (
    <span className="grid h-36 place-items-center overflow-hidden rounded-md border border-line">
      <span className="relative block" style={{ width: `min(100%, ${9 * compared.ratio}rem)`, aspectRatio: compared.ratio }}>
        <PictureWithFallback src={src} alt={alt} className="absolute inset-0 size-full" />
        {compared.areas.map(({ x, y, width, height }) => (
          <span key={`${x} ${y}`} aria-hidden className="absolute rounded-sm border-2 border-marigold outline outline-ink/60" style={{ left: `${x * 100}%`, top: `${y * 100}%`, width: `${width * 100}%`, height: `${height * 100}%` }} />
        ))}
      </span>
    </span>
  );
}
