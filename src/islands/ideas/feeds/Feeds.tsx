import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { addFeed, followChannel, keepFeedRule, listFeeds, pollFeed, removeFeed, removeFeedRule } from '../../../contract/idea-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { roleMay } from '../../../core/access/access.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { ConfirmButton } from '../../ui/ConfirmButton.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { toast } from '../../ui/toast.tsx';
import type { IdeasContext } from '../ideas-context.ts';
import { RuleDialog } from './RuleDialog.tsx';

type Feed = AnswerOf<typeof addFeed>;
export type Rule = AnswerOf<typeof listFeeds>['rules'][number];

/** The feeds that the brand reads, and the rules by which their items become posts. */
export default function Feeds({ context }: { readonly context: IdeasContext }) {
  const { brand, channels, sheets } = context;
  const client = useQueryClient();
  const [address, setAddress] = useState('');
  const params = { brand: brand.slug };
  const feeds = useQuery({ queryKey: ['feeds', brand.slug], queryFn: () => call(listFeeds, { params }) });
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['feeds', brand.slug] });
  const mayMake = roleMay(brand.role, 'make');
  const free = channels.filter(({ id }) => !feeds.data?.feeds.some(({ channelId }) => channelId === id));
  const add = useMutation({
    mutationFn: (from: { readonly address: string } | { readonly channelId: string }) => ('channelId' in from ? call(followChannel, { params, body: from }) : call(addFeed, { params, body: from })),
    onSuccess: async ({ name }) => {
      toast('done', `“${name}” is read from now on`);
      setAddress('');
      await refresh();
    },
    onError: (error) => toast('problem', error.message),
  });
  return (
    <div className="min-h-0 flex-1 overflow-auto pb-5">
      {mayMake && (
        <form
          className="mb-5 flex max-w-3xl gap-2 max-md:flex-wrap"
          onSubmit={(event) => {
            event.preventDefault();
            if (address.trim().length >= 4) add.mutate({ address: address.trim() });
          }}
        >
          <input aria-label="Address of a site or a feed" placeholder="Address of a site or of its feed, e.g. blog.example" value={address} inputMode="url" onChange={(event) => setAddress(event.target.value)} className={inputClasses} />
          <Button type="submit" look="primary" disabled={add.isPending || address.trim().length < 4}>
            {add.isPending ? 'Looking…' : 'Add a feed'}
          </Button>
          <select aria-label="Follow what is posted by hand on a channel" value="" disabled={add.isPending || free.length === 0} onChange={(event) => event.target.value !== '' && add.mutate({ channelId: event.target.value })} className="h-9 w-56 shrink-0 rounded-md border border-line bg-panel px-2 text-sm">
            <option value="">or follow a channel</option>
            {free.map(({ id, name, network }) => (
              <option key={id} value={id}>
                {sheets.get(network)?.name ?? network}, {name}
              </option>
            ))}
          </select>
        </form>
      )}
      {feeds.isError && <p className="text-sm text-coral-ink">{feeds.error.message}</p>}
      {feeds.data?.feeds.length === 0 && <p className="max-w-xl text-sm text-quiet">No feed is read yet. Your own blog is a good one to begin with: what is new there comes to the shelf, and by a rule it becomes a post on the channels you choose.</p>}
      <ul className="grid grid-cols-[minmax(0,1fr)] gap-5">
        {feeds.data?.feeds.map((feed) => (
          <li key={feed.id}>
            <FeedView feed={feed} rules={feeds.data.rules.filter(({ feedId }) => feedId === feed.id)} context={context} onChanged={refresh} />
          </li>
        ))}
      </ul>
    </div>
  );
}

function FeedView({ feed, rules, context, onChanged }: { readonly feed: Feed; readonly rules: readonly Rule[]; readonly context: IdeasContext; readonly onChanged: () => Promise<void> }) {
  const { brand } = context;
  const params = { brand: brand.slug };
  const [editing, setEditing] = useState<Rule | 'new' | null>(null);
  const onError = (error: Error): void => toast('problem', error.message);
  const act = useMutation({ mutationFn: (work: () => Promise<unknown>) => work(), onSuccess: onChanged, onError });
  const maySend = roleMay(brand.role, 'send');
  return (
    <section aria-label={feed.name} className="rounded-md border border-line bg-panel p-4">
      <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
        <h2 className="text-base font-semibold">{feed.name}</h2>
        <span className="min-w-0 flex-1 truncate text-xs text-quiet">{feed.channelId === null ? feed.address : 'What somebody posts there without Confetti'}</span>
        <span className="text-xs text-quiet" suppressHydrationWarning>
          {feed.polledMs === null ? 'not read yet' : `read ${formatMoment(feed.polledMs, brand.zone)}`}
        </span>
        {roleMay(brand.role, 'make') && (
          <>
            <Button size="small" disabled={act.isPending} onClick={() => act.mutate(() => call(pollFeed, { params: { ...params, feed: feed.id }, body: {} }))}>
              Read now
            </Button>
            <ConfirmButton label="Remove" title="Remove the feed" size="small" keepLabel="Keep" confirmLabel="Remove" confirmLook="stop" onConfirm={() => act.mutate(() => call(removeFeed, { params: { ...params, feed: feed.id } }))}>
              It is read no more, and its rules go. What was made of it stays.
            </ConfirmButton>
          </>
        )}
      </div>
      {feed.problem !== null && <p className="mt-1 text-sm text-coral-ink">■ {feed.problem} It is tried again.</p>}
      <div className="mt-3 grid grid-cols-2 gap-6 max-md:grid-cols-1">
        <div>
          <h3 className="mb-1 text-xs font-semibold text-quiet">Latest</h3>
          <ul className="text-sm">
            {feed.items.map(({ title, link, publishedMs }) => (
              <li key={`${title}${publishedMs}`} className="flex gap-3 py-0.5">
                <span className="min-w-0 flex-1 truncate">{link === '' ? title : <a href={link} target="_blank" rel="noreferrer noopener" className="hover:underline">{title}</a>}</span>
                <time className="text-xs text-quiet tabular-nums" suppressHydrationWarning>
                  {new Date(publishedMs).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', timeZone: brand.zone })}
                </time>
              </li>
            ))}
            {feed.items.length === 0 && <li className="text-quiet">Nothing in it yet.</li>}
          </ul>
        </div>
        <div>
          <h3 className="mb-1 text-xs font-semibold text-quiet">Rules</h3>
          {rules.map((rule) => (
            <RuleView key={rule.id} rule={rule} context={context} onEdit={() => setEditing(rule)} onChanged={onChanged} />
          ))}
          {maySend && (
            <Button size="small" onClick={() => setEditing('new')}>
              Let items become posts
            </Button>
          )}
        </div>
      </div>
      {editing !== null && <RuleDialog feedId={feed.id} rule={editing === 'new' ? null : editing} context={context} onClose={() => setEditing(null)} onSaved={onChanged} />}
    </section>
  );
}

function RuleView({ rule, context, onEdit, onChanged }: { readonly rule: Rule; readonly context: IdeasContext; readonly onEdit: () => void; readonly onChanged: () => Promise<void> }) {
  const { brand, channels } = context;
  const { settings, acts, stopped, isOn } = rule;
  const params = { brand: brand.slug };
  const act = useMutation({ mutationFn: (work: () => Promise<unknown>) => work(), onSuccess: onChanged, onError: (error: Error) => toast('problem', error.message) });
  const names = settings.channelIds.flatMap((id) => channels.find((channel) => channel.id === id)?.name ?? []);
  const maySend = roleMay(brand.role, 'send');
  const keep = (on: boolean): void => act.mutate(() => call(keepFeedRule, { params, body: { id: rule.id, feedId: rule.feedId, settings, isOn: on } }));
  return (
    <div className="mb-3 border-b border-line pb-3 text-sm">
      <p>
        To {names.slice(0, 3).join(', ')}
        {names.length > 3 ? ` and ${names.length - 3} more` : ''}, {settings.as === 'draft' ? 'as drafts' : 'into the queue'}, at most one in {settings.everyHours} h{isOn ? '' : ' (off)'}
      </p>
      {stopped !== null && (
        <p className="mt-1 rounded-md border border-marigold bg-marigold-soft px-2 py-1">
          ▲ It has stopped and asks: {stopped}{' '}
          {maySend && (
            <button type="button" onClick={() => keep(true)} className="font-semibold text-house underline">
              Go on
            </button>
          )}
        </p>
      )}
      {maySend && (
        <p className="mt-1 flex gap-1">
          <Button size="small" look="quiet" onClick={onEdit}>
            Change
          </Button>
          <Button size="small" look="quiet" onClick={() => keep(!isOn)}>
            {isOn ? 'Turn off' : 'Turn on'}
          </Button>
          <Button size="small" look="quiet" onClick={() => act.mutate(() => call(removeFeedRule, { params: { ...params, rule: rule.id } }))}>
            Remove
          </Button>
        </p>
      )}
      {acts.length > 0 && (
        <details className="mt-1 text-xs">
          <summary className="cursor-pointer text-quiet">What it did</summary>
          <ul className="mt-1">
            {acts.map(({ title, outcome, sentence, pieceId, atMs }) => (
              <li key={`${title}${atMs}`} className="py-0.5">
                <span className={outcome === 'failed' ? 'text-coral-ink' : outcome === 'made' ? 'text-mint-ink' : 'text-quiet'}>{outcome === 'failed' ? '■' : outcome === 'made' ? '✓' : '–'}</span> {pieceId === null ? title : <a href={`/b/${brand.slug}/make/pieces/${pieceId}`} className="underline">{title}</a>} <span className="text-quiet">{sentence}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </div>
  );
}
