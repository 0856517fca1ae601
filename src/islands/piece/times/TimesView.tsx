import { useState } from 'react';
import { roleMay } from '../../../core/access/access.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { useBadges } from '../../post/DeliveryRow.tsx';
import { nextQuarter, type ChosenMoment } from '../../post/MomentFields.tsx';
import { groupByPost, PostGroup } from '../../post/PostGroup.tsx';
import { useDeliveries, type Delivery } from '../../post/use-deliveries.ts';
import { Button } from '../../ui/Button.tsx';
import { ConfirmButton } from '../../ui/ConfirmButton.tsx';
import { useNow } from '../../ui/use-now.ts';
import type { ViewProps } from '../view-props.ts';
import { placesOf } from '../../../core/cut/places.ts';
import { rowsOf, type Choices, type PlaceRow } from './places.ts';
import { PlaceRows } from './PlaceRows.tsx';
import { useSchedule, type Refusal } from './use-schedule.ts';

interface TimesProps extends ViewProps {
  readonly nowMs: number;
}

const HOUR_MS = 3_600_000;
const PAGE = 48;

/** When and where: the places that the piece goes out to, each at its moment, and what of it is already on its way. */
export function TimesView(props: TimesProps) {
  const { brand, cuts, pieceId } = props;
  const nowMs = useNow(props.nowMs);
  const [choices, setChoices] = useState<Choices>({});
  const [shared, setShared] = useState<ChosenMoment>(() => ({ wall: nextQuarter(nowMs + HOUR_MS, brand.zone) }));
  const deliveries = useDeliveries(brand.slug, { piece: pieceId }, PAGE);
  const rows = rowsOf(placesOf(cuts.list), choices, shared, deliveries.items);
  const on = rows.filter(({ isOn }) => isOn);
  // What is scheduled is left out from now on; moments that were typed stay for the next time.
  const { schedule, isPending, refusal, dismiss } = useSchedule({ ...props, onScheduled: () => setChoices((now) => Object.fromEntries(Object.entries(now).map(([key, { isOn: _, ...rest }]) => [key, rest]))) });
  const maySend = roleMay(brand.role, 'send');
  // Until it is known what is on its way, everything would be ticked.
  const disabled = !maySend || on.length === 0 || isPending || !deliveries.isSuccess;
  return (
    <section aria-label="Times" className="min-w-0 flex-1 overflow-auto px-4 py-5 md:px-6">
      <div className="max-w-5xl">
        <h2 className="mb-3 text-base font-semibold">Where and when</h2>
        <PlaceRows rows={rows} choices={choices} onChoices={setChoices} shared={shared} onShared={setShared} zone={brand.zone} nowMs={nowMs} />
        {!maySend && <p className="mt-3 text-sm text-quiet">As {brand.role} you may look, but an owner or designer sends.</p>}
        {refusal && <RefusalNote refusal={refusal} onAgain={schedule} onDismiss={dismiss} />}
        <div className="mt-4 flex flex-wrap gap-2">
          <Button look="primary" disabled={disabled} onClick={() => schedule({ rows: on, isNow: false, again: false })}>
            Schedule in {on.length} {on.length === 1 ? 'place' : 'places'}
          </Button>
          <SendNow rows={on} isDisabled={disabled} onSend={() => schedule({ rows: on, isNow: true, again: false })} />
        </div>
      </div>
      <PostsOfPiece {...props} deliveries={deliveries} nowMs={nowMs} />
    </section>
  );
}

function RefusalNote({ refusal, onAgain, onDismiss }: { readonly refusal: Refusal; readonly onAgain: (order: NonNullable<Refusal['again']>) => void; readonly onDismiss: () => void }) {
  const { sentence, again } = refusal;
  return (
    <div role="alert" className="mt-3 rounded-md border border-coral px-3 py-2 text-sm">
      <p className="font-medium text-coral-ink">{sentence}</p>
      {again && (
        <div className="mt-2 flex gap-2">
          <Button size="small" onClick={() => onAgain(again)}>
            Schedule it once more
          </Button>
          <Button size="small" onClick={onDismiss}>
            Leave it
          </Button>
        </div>
      )}
    </div>
  );
}

/** Asks before it sends, and lists the places. */
function SendNow({ rows, isDisabled, onSend }: { readonly rows: readonly PlaceRow<Delivery>[]; readonly isDisabled: boolean; readonly onSend: () => void }) {
  return (
    <ConfirmButton label="Send now" title="Send now" isDisabled={isDisabled} keepLabel="Not yet" confirmLabel={`Send to ${rows.length} ${rows.length === 1 ? 'place' : 'places'}`} confirmLook="primary" onConfirm={onSend}>
      <p className="text-sm font-semibold">This goes out at once, and everyone can see it:</p>
      <ul className="mt-2 max-h-60 space-y-1 overflow-auto text-sm">
        {rows.map(({ place, cut }) => (
          <li key={place.key} className="flex items-center gap-2">
            <ChannelBadge badge={cut.sheet.badge} size={15} />
            <span className="min-w-0 truncate">
              {cut.channel.name}, {cut.placement.name}
            </span>
          </li>
        ))}
      </ul>
    </ConfirmButton>
  );
}

function PostsOfPiece({ brand, nowMs, deliveries }: TimesProps & { readonly deliveries: ReturnType<typeof useDeliveries> }) {
  const badges = useBadges(brand.slug);
  const { items } = deliveries;
  if (items.length === 0) return null;
  return (
    <section aria-labelledby="on-its-way" className="mt-9 max-w-5xl">
      <h2 id="on-its-way" className="mb-2 text-base font-semibold">
        Posts of this piece
      </h2>
      <ul className="border-t border-line">
        {groupByPost(items).map((post) => (
          <li key={post.deliveries[0].id}>
            <PostGroup brand={brand} post={post} badges={badges} nowMs={nowMs} isBesidePiece />
          </li>
        ))}
      </ul>
      {deliveries.hasNextPage && (
        <div className="mt-3">
          <Button onClick={() => void deliveries.fetchNextPage()}>Show earlier ones</Button>
        </div>
      )}
    </section>
  );
}
