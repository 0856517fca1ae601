import { useMutation, type UseMutationResult } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { addToQueue, placePiece, removeFromQueue } from '../../../contract/plan-contracts.ts';
import type { AnswerOf, BodyOf } from '../../../contract/contract.ts';
import { addMinutes, formatMoment } from '../../../core/time/wall-time.ts';
import { roleMay } from '../../../core/access/access.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { useBadges } from '../../post/DeliveryRow.tsx';
import { TypedMoment } from '../../post/TypedMoment.tsx';
import { ApiProblem, call } from '../../ui/call.ts';
import { toast } from '../../ui/toast.tsx';
import { AboutPiece } from './AboutPiece.tsx';
import { AroundThen } from './AroundThen.tsx';
import { GoodMoments } from './GoodMoments.tsx';
import { RepeatDialog } from './RepeatDialog.tsx';
import { RepeatList } from './RepeatList.tsx';
import { RotationDialog } from './RotationDialog.tsx';
import { usePiecePlan, type PiecePlan } from './use-piece-plan.ts';
import { nextQuarter, type ChosenMoment } from '../../post/MomentFields.tsx';
import { groupByPost, PostGroup } from '../../post/PostGroup.tsx';
import { useDeliveries, type Delivery } from '../../post/use-deliveries.ts';
import { Button } from '../../ui/Button.tsx';
import { ConfirmButton } from '../../ui/ConfirmButton.tsx';
import { useNow } from '../../ui/use-now.ts';
import { NoCuts } from '../NoCuts.tsx';
import type { ViewProps } from '../view-props.ts';
import { placesOf } from '../../../core/cut/places.ts';
import { afterScheduling, rowsOf, type Choices, type PlaceRow } from './places.ts';
import { NotThere } from './NotThere.tsx';
import { PlaceRows } from './PlaceRows.tsx';
import { useSchedule, type Refusal } from './use-schedule.ts';

/** A slot that is taken for some channels; `again`: a person agrees that the piece goes out there once more. */
interface SlotOrder {
  readonly slotKey: string;
  readonly channelIds: readonly string[];
  readonly again?: boolean;
}

interface TimesProps extends ViewProps {
  readonly nowMs: number;
}

const HOUR_MS = 3_600_000;
const PAGE = 48;

/** When and where: the places that the piece goes out to, each at its moment, and what of it is already on its way. */
export function TimesView(props: TimesProps) {
  const { brand, cuts, piece, pieceId, store } = props;
  const planning = usePiecePlan(brand.slug, pieceId);
  const nowMs = useNow(props.nowMs);
  const [choices, setChoices] = useState<Choices>({});
  const [shared, setShared] = useState<ChosenMoment>(() => ({ wall: nextQuarter(nowMs + HOUR_MS, brand.zone) }));
  // A moment that was typed and is not taken yet: what is scheduled meanwhile would go out at the one before.
  const [isTyping, setTyping] = useState(false);
  // Once a moment is entered and the button can be pressed, the keyboard goes on there.
  const scheduleButton = useRef<HTMLButtonElement>(null);
  const [entered, setEntered] = useState(0);
  useEffect(() => {
    if (entered > 0) scheduleButton.current?.focus();
  }, [entered]);
  const deliveries = useDeliveries(brand.slug, { piece: pieceId }, PAGE);
  const rows = rowsOf(placesOf(cuts.list), choices, shared, deliveries.isSuccess ? deliveries.items : null);
  const on = rows.filter(({ isOn }) => isOn);
  const { schedule, isPending, refusal, dismiss } = useSchedule({ ...props, onScheduled: () => setChoices(afterScheduling) });
  const maySend = roleMay(brand.role, 'send');
  // Whoever may not send asks somebody who approves.
  const mayAsk = roleMay(brand.role, 'make');
  const disabled = !mayAsk || on.length === 0 || isPending;
  const channelIds = [...new Set(on.map(({ cut }) => cut.channel.id))];
  const theme = planning.plan?.plan.themes.find(({ id }) => id === planning.own?.themeId) ?? null;
  const flush = (): Promise<unknown> => store.flush();
  const takeSlot: UseMutationResult<AnswerOf<typeof placePiece>, Error, SlotOrder> = useMutation({
    mutationFn: async (slot: SlotOrder) => {
      await store.flush();
      const body = { pieceId, channelIds: [...slot.channelIds], spot: { kind: 'slot' as const, slotKey: slot.slotKey }, again: slot.again === true } as BodyOf<typeof placePiece>;
      return call(placePiece, { params: { brand: brand.slug }, body });
    },
    onSuccess: ({ kind, dueMs, sentence }) => {
      if (kind === 'post') toast('done', `Scheduled in the slot of ${formatMoment(dueMs, brand.zone)}.`);
      else toast('problem', `It keeps the slot of ${formatMoment(dueMs, brand.zone)} as a draft: ${sentence ?? ''}`);
      return planning.refresh();
    },
    onError: (error, slot) => toast('problem', error.message, error instanceof ApiProblem && error.code === 'goes-out-again' ? { label: 'Schedule it once more', run: () => takeSlot.mutate({ ...slot, again: true }) } : undefined),
  });
  return (
    <section aria-label="Times" className="flex min-w-0 flex-1 gap-6 overflow-auto px-4 py-5 max-xl:block md:px-6">
      <div className="min-w-0 flex-1">
      {cuts.list.length === 0 ? (
        <div className="mb-6 max-w-5xl">
          <NoCuts brand={brand.slug} kind={piece.kind} />
          <NotThere {...props} />
        </div>
      ) : (
        <div className="max-w-5xl">
          <div className="mb-3 flex flex-wrap items-center gap-x-5 gap-y-2">
            <h2 className="text-base font-semibold">Where and when</h2>
            <TypedMoment moment={shared} zone={brand.zone} nowMs={nowMs} onChange={setShared} onTyping={setTyping} onEntered={() => setEntered((count) => count + 1)} />
            <Stagger rows={on} shared={shared} onChoices={(own) => setChoices((now) => ({ ...now, ...Object.fromEntries(Object.entries(own).map(([key, moment]) => [key, { ...now[key], moment }])) }))} />
          </div>
          <PlaceRows rows={rows} isKnown={deliveries.isSuccess} onChoices={setChoices} shared={shared} onShared={setShared} zone={brand.zone} nowMs={nowMs} />
          <NotThere {...props} />
          {!maySend && <p className="mt-3 text-sm text-quiet">{mayAsk ? `As ${brand.role} you ask for sign-off: somebody else approves it, then it goes out at its time.` : `As ${brand.role} you may look, but an owner or designer sends.`}</p>}
          {refusal && <RefusalNote refusal={refusal} onAgain={schedule} onDismiss={dismiss} />}
          <div className="mt-4 flex flex-wrap items-center gap-2">
            <Button ref={scheduleButton} look="primary" disabled={disabled || isTyping} onClick={() => schedule({ rows: on, isNow: false, again: false })}>
              {maySend || !mayAsk ? 'Schedule' : 'Ask for sign-off'} in {on.length} {on.length === 1 ? 'place' : 'places'}
            </Button>
            {(maySend || !mayAsk) && <SendNow rows={on} isDisabled={disabled} onSend={() => schedule({ rows: on, isNow: true, again: false })} />}
            <WaitForSlot brand={brand} pieceId={pieceId} rows={on} plan={planning.own} isDisabled={!maySend || on.length === 0} flush={flush} onChanged={() => void planning.refresh()} />
            <RepeatDialog brand={brand} pieceId={pieceId} cuts={on.map(({ cut }) => cut.ref)} shared={shared} nowMs={nowMs} isDisabled={!maySend || on.length === 0 || isTyping} flush={flush} onStarted={() => void planning.refresh()} />
            {planning.own && maySend && <RotationDialog brand={brand} pieceId={pieceId} plan={planning.own} cuts={on.length > 0 ? on.map(({ cut }) => cut.ref) : (planning.own.rotation?.settings.cuts ?? [])} isDisabled={on.length === 0} flush={flush} onChanged={() => void planning.refresh()} />}
            {isPending && <span role="status" className="text-sm text-quiet">Checking and scheduling…</span>}
          </div>
        </div>
      )}
      <AroundThen nowMs={nowMs} brand={brand} cuts={on.map(({ cut }) => cut)} wall={shared.wall} themes={planning.plan?.plan.themes ?? []} />
      {planning.own && <RepeatList brand={brand} repeats={planning.own.repeats} nowMs={nowMs} mayChange={maySend} onChanged={() => void planning.refresh()} />}
      <PostsOfPiece {...props} deliveries={deliveries} nowMs={nowMs} />
      </div>
      <aside aria-label="Plan of the piece" className="w-64 shrink-0 space-y-7 max-xl:mt-8 max-xl:w-auto max-xl:max-w-xl">
        <GoodMoments brand={brand} channelIds={channelIds} theme={theme} mayChange={maySend && !takeSlot.isPending} onSlot={(slot) => takeSlot.mutate(slot)} onMoment={(wall) => setShared({ wall })} />
        <AboutPiece role={brand.role} planning={planning} />
      </aside>
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

/** Each place so many minutes after the one before. */
function Stagger({ rows, shared, onChoices }: { readonly rows: readonly PlaceRow<Delivery>[]; readonly shared: ChosenMoment; readonly onChoices: (moments: Readonly<Record<string, ChosenMoment>>) => void }) {
  const [minutes, setMinutes] = useState(10);
  return (
    <span className="flex items-center gap-1.5 text-sm">
      <Button size="small" disabled={rows.length < 2 || shared.wall.length !== 16} onClick={() => onChoices(Object.fromEntries(rows.map(({ place }, index) => [place.key, { wall: addMinutes(shared.wall, index * minutes) }])))}>
        Stagger by
      </Button>
      <input type="number" aria-label="Minutes between places" min={1} max={1_440} value={minutes} onChange={(event) => setMinutes(Math.max(1, Math.min(1_440, Math.round(Number(event.target.value) || 1))))} className="h-6 w-14 rounded-md border border-line bg-panel px-1 text-center text-xs tabular-nums" />
      <span className="text-xs text-quiet">min</span>
    </span>
  );
}

interface WaitProps {
  readonly brand: { readonly slug: string };
  readonly pieceId: string;
  readonly rows: readonly PlaceRow<Delivery>[];
  readonly plan: PiecePlan | null;
  readonly isDisabled: boolean;
  readonly flush: () => Promise<unknown>;
  readonly onChanged: () => void;
}

/** Lets the piece wait in the queues of the ticked channels, or removes it from them. */
function WaitForSlot({ brand, pieceId, rows, plan, isDisabled, flush, onChanged }: WaitProps) {
  const waits = plan?.queue ?? [];
  const add = useMutation({
    mutationFn: async () => {
      await flush();
      return call(addToQueue, { params: { brand: brand.slug }, body: { pieceId, channelIds: [...new Set(rows.map(({ cut }) => cut.channel.id))], cuts: rows.map(({ cut }) => ({ ...cut.ref })) } });
    },
    onSuccess: ({ added }) => {
      toast('done', added.length === 0 ? 'It waits there already.' : `It waits for a slot on ${added.length} ${added.length === 1 ? 'channel' : 'channels'}.`);
      onChanged();
    },
    onError: (error) => toast('problem', error.message),
  });
  const remove = useMutation({
    mutationFn: async () => {
      for (const { id } of waits) await call(removeFromQueue, { params: { brand: brand.slug, entry: id } });
    },
    onSuccess: () => {
      toast('done', 'Removed from the queue.');
      onChanged();
    },
    onError: (error) => toast('problem', error.message),
  });
  return waits.length > 0 ? (
    <Button disabled={remove.isPending} onClick={() => remove.mutate()}>
      Remove from {waits.length} {waits.length === 1 ? 'queue' : 'queues'}
    </Button>
  ) : (
    <Button disabled={isDisabled || add.isPending} onClick={() => add.mutate()}>
      Wait for a slot
    </Button>
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
