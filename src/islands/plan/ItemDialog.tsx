import { useQuery } from '@tanstack/react-query';
import X from 'lucide-react/icons/x';
import { useState, type ReactNode } from 'react';
import { Dialog, Modal, ModalOverlay } from 'react-aria-components';
import { getPost } from '../../contract/send-contracts.ts';
import { roleMay } from '../../core/access/access.ts';
import { reasonInWords, type PlanItem } from '../../core/plan/plan-items.ts';
import { formatMoment } from '../../core/time/wall-time.ts';
import { ChannelBadge } from '../channel/ChannelBadge.tsx';
import { useBadges } from '../post/DeliveryRow.tsx';
import { MomentFields, type ChosenMoment } from '../post/MomentFields.tsx';
import { PostGroup } from '../post/PostGroup.tsx';
import { call } from '../ui/call.ts';
import { Button } from '../ui/Button.tsx';
import { Field, inputClasses } from '../ui/Field.tsx';
import { iconButtonClasses } from '../ui/icon-button';
import { scrimClasses } from '../ui/scrim-classes.ts';
import { PiecePick } from './PiecePick.tsx';
import { SeriesMove } from './SeriesMove.tsx';
import { planStateWord } from './state-sign.tsx';
import { ThemeTile } from './ThemeTile.tsx';
import type { PlanActions, Spot } from './use-plan-actions.ts';
import type { PlanContext } from './use-plan.ts';

interface ItemDialogProps {
  readonly item: PlanItem;
  readonly context: PlanContext;
  readonly actions: PlanActions;
  readonly onClose: () => void;
}

/** What stands at a place of the plan, and what can be done about it. */
export function ItemDialog(props: ItemDialogProps) {
  const { item, onClose, context } = props;
  const theme = item.themeId === null ? undefined : context.themes.get(item.themeId);
  const title = item.name === '' ? (item.state === 'open' ? 'Open slot' : 'Nothing yet') : item.name;
  return (
    <ModalOverlay isOpen isDismissable onOpenChange={(isOpen) => !isOpen && onClose()} className={scrimClasses}>
      <Modal className="shadow-float max-h-full w-full max-w-2xl overflow-auto rounded-md border border-line bg-panel">
        <Dialog aria-label={title} className="p-5 outline-none">
          <div className="mb-3 flex items-start gap-3">
            <div className="min-w-0 flex-1">
              <h2 className="text-base font-semibold">{title}</h2>
              <p className="mt-0.5 flex flex-wrap items-center gap-x-2 text-sm text-quiet tabular-nums">
                {planStateWord(item.state)} · {formatMoment(item.atMs, context.brand.zone)}
                {theme && (
                  <span className="inline-flex items-center gap-1">
                    <ThemeTile theme={theme} /> {theme.name}
                  </span>
                )}
              </p>
            </div>
            <button type="button" aria-label="Close" onClick={onClose} className={iconButtonClasses}>
              <X aria-hidden className="size-4" />
            </button>
          </div>
          <ItemBody {...props} />
          {item.pieceId !== null && (item.postId !== null || item.entryId !== null) && roleMay(context.brand.role, 'send') && <SeriesMove brand={context.brand.slug} pieceId={item.pieceId} actions={props.actions} onMoved={onClose} />}
        </Dialog>
      </Modal>
    </ModalOverlay>
  );
}

function ItemBody(props: ItemDialogProps): ReactNode {
  const { item } = props;
  if (item.postId !== null) return <PostBody {...props} postId={item.postId} />;
  if (item.entryId !== null) return <EntryBody {...props} />;
  return <SlotBody {...props} />;
}

function PostBody({ context: { brand, nowMs }, postId }: ItemDialogProps & { readonly postId: string }) {
  const post = useQuery({ queryKey: ['plan', brand.slug, 'post', postId], queryFn: () => call(getPost, { params: { brand: brand.slug, post: postId } }) });
  const badges = useBadges(brand.slug);
  if (post.isError) return <p className="text-sm text-coral-ink">{post.error.message}</p>;
  const [first, ...others] = post.data?.deliveries ?? [];
  if (!first) return <p className="text-sm text-quiet">Loading…</p>;
  return <PostGroup brand={brand} post={{ postId, deliveries: [first, ...others] }} badges={badges} nowMs={nowMs} />;
}

function ChannelName({ context: { channels, sheets }, channelId }: { readonly context: PlanContext; readonly channelId: string }) {
  const channel = channels.find(({ id }) => id === channelId);
  const sheet = channel && sheets.get(channel.network);
  return (
    <span className="inline-flex items-center gap-1.5 text-sm">
      {sheet && <ChannelBadge badge={sheet.badge} size={16} />}
      {sheet?.name} <span className="text-quiet">{channel?.handle}</span>
    </span>
  );
}

function EntryBody({ item, context, actions, onClose }: ItemDialogProps) {
  const { brand, nowMs } = context;
  const [moment, setMoment] = useState<ChosenMoment>({ wall: `${item.day}T${item.time}` });
  const [isPicking, setPicking] = useState(false);
  const mayChange = roleMay(brand.role, 'send');
  const after = (work: Promise<unknown>): void => void work.then(onClose);
  return (
    <div className="space-y-4">
      <ChannelName context={context} channelId={item.channelId} />
      {item.state === 'placeholder' && <p className="text-sm text-quiet">A placeholder keeps this time free. Put a piece in its place when there is one.</p>}
      {item.state === 'draft' && (
        <p className="text-sm">
          This draft does not go out by itself.{' '}
          <a href={`/b/${brand.slug}/make/pieces/${item.pieceId ?? ''}`} className="font-medium text-house underline">
            Open the piece
          </a>{' '}
          to finish it, then schedule it here.
        </p>
      )}
      {mayChange && <MomentFields moment={moment} zone={brand.zone} nowMs={nowMs} onChange={setMoment} />}
      {isPicking && <PiecePick brand={brand.slug} onPick={(piece) => after(actions.place({ id: piece.id, entryId: item.entryId ?? '' }, [item.channelId], spotOf(item)))} />}
      {mayChange && (
        <div className="flex flex-wrap justify-end gap-2">
          <Button look="stop" onClick={() => after(actions.change([item], { kind: 'cancel' }, () => 'Removed from the plan.'))}>
            Remove
          </Button>
          <Button onClick={() => after(actions.move([item], { kind: 'at', wall: moment.wall, ...(moment.repeated ? { repeated: moment.repeated } : {}) }, moment.wall))}>Move</Button>
          {item.state === 'draft' ? (
            <Button look="primary" onClick={() => after(actions.place({ id: item.pieceId, entryId: item.entryId ?? '' }, [item.channelId], spotOf(item)))}>
              Schedule
            </Button>
          ) : (
            <Button look="primary" onClick={() => setPicking(true)}>
              Choose a piece
            </Button>
          )}
        </div>
      )}
    </div>
  );
}

const spotOf = ({ slotKey, day, time }: Pick<PlanItem, 'slotKey' | 'day' | 'time'>): Spot => (slotKey === null ? { kind: 'at', wall: `${day}T${time}` } : { kind: 'slot', slotKey });

/** An open or foreseen slot, or an empty place: a piece or a placeholder is put there. */
function SlotBody({ item, context, actions, onClose }: ItemDialogProps) {
  const { brand, nowMs } = context;
  const [text, setText] = useState('');
  const [moment, setMoment] = useState<ChosenMoment>({ wall: `${item.day}T${item.time}` });
  const mayChange = roleMay(brand.role, 'send');
  const spot: Spot = item.slotKey === null ? ({ kind: 'at', wall: moment.wall, ...(moment.repeated ? { repeated: moment.repeated } : {}) }) : spotOf(item);
  const put = (piece: Parameters<PlanActions['place']>[0]): void => void actions.place(piece, [item.channelId], spot).then((isDone) => isDone && onClose());
  return (
    <div className="space-y-4">
      <ChannelName context={context} channelId={item.channelId} />
      {item.why !== null && <p className="text-sm">{reasonInWords(item.why)}</p>}
      {(item.state === 'waiting' || item.state === 'rotation') && (
        <p className="text-sm">
          {item.state === 'waiting' ? 'It waits in this channel’s queue and takes this slot as things stand.' : 'It is evergreen, and its turn comes here as things stand.'} It is made into a post a day before.{' '}
          <a href={`/b/${brand.slug}/make/pieces/${item.pieceId ?? ''}`} className="font-medium text-house underline">
            Open the piece
          </a>
        </p>
      )}
      {item.slotKey === null && mayChange && <MomentFields moment={moment} zone={brand.zone} nowMs={nowMs} onChange={setMoment} />}
      {mayChange ? (
        <>
          {item.state === 'waiting' && (
            <Button look="primary" onClick={() => put({ id: item.pieceId })}>
              Schedule it here now
            </Button>
          )}
          <div>
            <p className="mb-1 text-sm font-semibold">{item.pieceId === null ? 'Put a piece here' : 'Put another piece here'}</p>
            <PiecePick brand={brand.slug} onPick={(piece) => put({ id: piece.id })} />
          </div>
          <form
            className="flex items-end gap-2"
            onSubmit={(event) => {
              event.preventDefault();
              if (text.trim() !== '') put({ id: null, text: text.trim(), themeId: item.themeId });
            }}
          >
            <div className="flex-1">
              <Field label="Or keep it free for">{({ id }) => <input id={id} value={text} maxLength={200} placeholder="Something about the summer party" onChange={(event) => setText(event.target.value)} className={inputClasses} />}</Field>
            </div>
            <Button type="submit" disabled={text.trim() === ''}>
              Add placeholder
            </Button>
          </form>
        </>
      ) : (
        <p className="text-sm text-quiet">As {brand.role} you may look; an owner or designer fills slots.</p>
      )}
    </div>
  );
}
