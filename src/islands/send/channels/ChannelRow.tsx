import { useMutation, useQuery } from '@tanstack/react-query';
import Pin from 'lucide-react/icons/pin';
import { useState } from 'react';
import { describeChannel, getLeaving, pauseChannel, removeChannel } from '../../../contract/channel-contracts.ts';
import { roleMay, type Role } from '../../../core/access/access.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { Field, inputClasses } from '../../ui/Field.tsx';
import { iconButtonClasses } from '../../ui/icon-button';
import { ModalFrame } from '../../ui/ModalFrame.tsx';
import { toast } from '../../ui/toast.tsx';
import { Abilities } from './ChooseDialog.tsx';
import { endsSoon, type ShownChannel } from './shown-channel.ts';
import { useConnect } from './ConnectDialog.tsx';

interface ChannelRowProps {
  readonly channel: ShownChannel;
  readonly brand: { readonly slug: string; readonly zone: string; readonly role: Role };
  readonly nowMs: number;
  readonly groups: readonly string[];
  readonly onChanged: () => Promise<void>;
}

const stateLooks = {
  connected: { word: 'Connected', path: 'M6.2 13.2L1.4 8.4l1.9-1.9l2.9 2.9l6.5-6.6l1.9 1.9Z', fill: 'var(--c-mint)', tone: 'text-mint-ink' },
  paused: { word: 'Paused', path: 'M3 2h3.6v12H3Zm6.4 0H13v12H9.4Z', fill: 'var(--c-marigold)', tone: 'text-marigold-ink' },
  ended: { word: 'Access has ended', path: 'M8 1L15 8L8 15L1 8Z', fill: 'var(--c-coral)', tone: 'text-coral-ink' },
} as const;

/** One channel: how it stands, what waits on it, and what can be done about it. */
export function ChannelRow({ channel, brand, nowMs, groups, onChanged }: ChannelRowProps) {
  const [open, setOpen] = useState<'describe' | 'leave' | null>(null);
  const params = { brand: brand.slug, channel: channel.id };
  const connect = useConnect(brand.slug);
  const act = useMutation({
    mutationFn: (action: 'pause' | 'resume') => call(pauseChannel, { params: { ...params, action } }),
    onSuccess: ({ held, missed }, action) => {
      const missedWords = missed > 0 ? ` ${missed} ${missed === 1 ? 'post was' : 'posts were'} missed meanwhile and ${missed === 1 ? 'stays' : 'stay'} held: decide in the outbox.` : '';
      toast('done', action === 'pause' ? `${channel.name} is paused. ${held} ${held === 1 ? 'post is' : 'posts are'} held.` : `${channel.name} is resumed.${missedWords}`);
      return onChanged();
    },
    onError: (error) => toast('problem', error.message),
  });
  const pin = useMutation({ mutationFn: () => call(describeChannel, { params, body: { isPinned: !channel.isPinned } }), onSuccess: onChanged, onError: (error) => toast('problem', error.message) });
  const [maySend, mayChange] = [roleMay(brand.role, 'send'), roleMay(brand.role, 'brand')];
  const look = stateLooks[channel.state];
  const isEnding = channel.state === 'connected' && endsSoon(channel, nowMs);
  return (
    <li data-channel={channel.id} data-state={channel.state} className="flex items-center gap-4 border-b border-line py-2.5 max-md:flex-wrap max-md:gap-x-3">
      {mayChange ? (
        <button type="button" aria-label={channel.isPinned ? `Unpin ${channel.name}` : `Pin ${channel.name} to the top`} aria-pressed={channel.isPinned} disabled={pin.isPending} onClick={() => pin.mutate()} className={`${iconButtonClasses} ${channel.isPinned ? 'text-house' : ''}`}>
          <Pin aria-hidden className="size-3.5" fill={channel.isPinned ? 'currentColor' : 'none'} />
        </button>
      ) : null}
      <ChannelBadge badge={channel.badge} />
      <div className="min-w-0 flex-1">
        <p className="truncate text-sm font-semibold">
          {channel.name} {!channel.name.includes(channel.handle) && <span className="font-normal text-quiet">{channel.handle}</span>}
        </p>
        <p className="text-xs text-quiet">
          {channel.networkName}, {channel.kindName.toLowerCase()}
          {channel.isByHand && '. You place its posts by hand'}
        </p>
      </div>
      <div className="w-56 shrink-0 text-sm max-md:w-auto">
        <span className={`inline-flex items-center gap-1.5 font-medium ${look.tone}`}>
          <svg viewBox="0 0 16 16" width="12" height="12" aria-hidden>
            <path d={look.path} fill={look.fill} />
          </svg>
          {look.word}
        </span>
        {isEnding && channel.accessEndsMs !== null && <p className="text-xs text-marigold-ink">Access ends {formatMoment(channel.accessEndsMs, brand.zone)}</p>}
      </div>
      <p className="w-40 shrink-0 text-sm text-quiet tabular-nums max-md:w-auto">
        {countWords(channel)}
        {channel.failed > 0 && (
          <a href={`/b/${brand.slug}/send/outbox?state=failed`} className="block text-coral-ink underline">
            {channel.failed} failed
          </a>
        )}
      </p>
      <div className="flex w-72 shrink-0 justify-end gap-1.5 max-md:w-auto max-md:flex-wrap">
        {mayChange && (channel.state === 'ended' || isEnding) && (
          <Button look="primary" disabled={connect.isPending} onClick={() => connect.mutate({ network: channel.network, ...(channel.site === null ? {} : { site: channel.site }) })}>
            Reconnect
          </Button>
        )}
        {maySend && channel.state !== 'ended' && (
          <Button disabled={act.isPending} onClick={() => act.mutate(channel.state === 'paused' ? 'resume' : 'pause')}>
            {channel.state === 'paused' ? 'Resume' : 'Pause'}
          </Button>
        )}
        {mayChange && <Button onClick={() => setOpen('describe')}>Change…</Button>}
        {mayChange && (
          <Button look="stop" onClick={() => setOpen('leave')}>
            Disconnect…
          </Button>
        )}
      </div>
      {connect.error && (
        <p role="alert" className="basis-full text-sm text-coral-ink">
          {connect.error.message}
        </p>
      )}
      {open === 'describe' && <DescribeDialog channel={channel} brand={brand.slug} groups={groups} onClose={() => setOpen(null)} onChanged={onChanged} />}
      {open === 'leave' && <LeaveDialog channel={channel} brand={brand} onClose={() => setOpen(null)} onChanged={onChanged} />}
    </li>
  );
}

function countWords({ waiting, held }: ShownChannel): string {
  const parts = [waiting > 0 ? `${waiting} waiting` : '', held > 0 ? `${held} held` : ''].filter((part) => part !== '');
  return parts.length === 0 ? 'Nothing waits' : parts.join(', ');
}

function DescribeDialog({ channel, brand, groups, onClose, onChanged }: { readonly channel: ShownChannel; readonly brand: string; readonly groups: readonly string[]; readonly onClose: () => void; readonly onChanged: () => Promise<void> }) {
  const [name, setName] = useState(channel.name);
  const [groupName, setGroupName] = useState(channel.groupName);
  const save = useMutation({
    mutationFn: () => call(describeChannel, { params: { brand, channel: channel.id }, body: { name, groupName } }),
    onSuccess: async () => {
      await onChanged();
      onClose();
    },
  });
  return (
    <ModalFrame title={channel.name} onClose={onClose}>
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          save.mutate();
        }}
      >
        <Field label="Name">{({ id }) => <input id={id} value={name} maxLength={80} onChange={(event) => setName(event.target.value)} className={inputClasses} />}</Field>
        <Field label="Group" hint="Channels of one group stand together. Empty: none.">
          {({ id, describedBy }) => (
            <>
              <input id={id} aria-describedby={describedBy} list={`${id}-groups`} value={groupName} maxLength={40} onChange={(event) => setGroupName(event.target.value)} className={inputClasses} />
              <datalist id={`${id}-groups`}>{groups.map((each) => <option key={each} value={each} />)}</datalist>
            </>
          )}
        </Field>
        <div>
          <p className="mb-1 text-sm font-semibold">{channel.kindName}</p>
          <Abilities can={channel.can} cannot={channel.cannot} />
        </div>
        {save.error && (
          <p role="alert" className="text-sm text-coral-ink">
            {save.error.message}
          </p>
        )}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Close</Button>
          <Button type="submit" look="primary" disabled={save.isPending || name.trim() === ''}>
            Save
          </Button>
        </div>
      </form>
    </ModalFrame>
  );
}

function LeaveDialog({ channel, brand, onClose, onChanged }: { readonly channel: ShownChannel; readonly brand: { readonly slug: string; readonly zone: string }; readonly onClose: () => void; readonly onChanged: () => Promise<void> }) {
  const params = { brand: brand.slug, channel: channel.id };
  const leaving = useQuery({ queryKey: ['leaving', channel.id], queryFn: () => call(getLeaving, { params }), gcTime: 0 });
  const leave = useMutation({
    mutationFn: () => call(removeChannel, { params }),
    onSuccess: async ({ cancelled }) => {
      toast('done', `${channel.name} is disconnected. ${cancelled} waiting ${cancelled === 1 ? 'post was' : 'posts were'} cancelled.`);
      await onChanged();
    },
  });
  const { data } = leaving;
  return (
    <ModalFrame title={`Disconnect ${channel.name}`} onClose={onClose}>
      {data ? (
        <div className="space-y-2 text-sm">
          <p>{data.waiting === 0 ? 'Nothing waits on this channel.' : `${data.waiting} ${data.waiting === 1 ? 'post that waits here is' : 'posts that wait here are'} cancelled.`}</p>
          {data.next.length > 0 && (
            <ul className="border-y border-line py-1 text-quiet">
              {data.next.map(({ pieceName, dueMs }) => (
                <li key={`${pieceName}${dueMs}`}>
                  {pieceName}, {formatMoment(dueMs, brand.zone)}
                </li>
              ))}
              {data.waiting > data.next.length && <li>and {data.waiting - data.next.length} more</li>}
            </ul>
          )}
          {data.queued > 0 && <p>{data.queued} {data.queued === 1 ? 'piece leaves' : 'pieces leave'} its queue.</p>}
          {data.repeats > 0 && <p>{data.repeats} {data.repeats === 1 ? 'repeat goes' : 'repeats go'} on without it.</p>}
          <p className="text-quiet">What is out stays out, with its address. Confetti forgets the access. Cuts and words that pieces have for this channel stay with them: connect it again, and they are back.</p>
        </div>
      ) : (
        <p className="text-sm text-quiet">{leaving.error?.message ?? 'Looking at what waits here…'}</p>
      )}
      {leave.error && (
        <p role="alert" className="mt-2 text-sm text-coral-ink">
          {leave.error.message}
        </p>
      )}
      <div className="mt-4 flex justify-end gap-2">
        <Button onClick={onClose}>Keep it</Button>
        <Button look="stop" disabled={!data || leave.isPending} onClick={() => leave.mutate()}>
          Disconnect
        </Button>
      </div>
    </ModalFrame>
  );
}
