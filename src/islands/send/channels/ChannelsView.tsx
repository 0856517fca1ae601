import { useQuery, useQueryClient } from '@tanstack/react-query';
import Plus from 'lucide-react/icons/plus';
import { useEffect, useState } from 'react';
import { listChannels } from '../../../contract/channel-contracts.ts';
import { roleMay, type Role } from '../../../core/access/access.ts';
import { useChanges } from '../../shell/change-events.ts';
import { call } from '../../ui/call.ts';
import { Button } from '../../ui/Button.tsx';
import { inputClasses } from '../../ui/Field.tsx';
import { Queries } from '../../ui/Queries.tsx';
import { EmptyBox } from '../../ui/EmptyBox.tsx';
import { useNow } from '../../ui/use-now.ts';
import { ChannelRow } from './ChannelRow.tsx';
import { ChooseDialog } from './ChooseDialog.tsx';
import { ConnectDialog } from './ConnectDialog.tsx';
import { endsSoon, type ShownChannel } from './shown-channel.ts';

interface ChannelsProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly zone: string; readonly role: Role };
  readonly nowMs: number;
}

const filters = [
  ['all', 'All'],
  ['attention', 'Needs you'],
  ['paused', 'Paused'],
  ['by-hand', 'By hand'],
] as const;
type Filter = (typeof filters)[number][0];

export default function ChannelsView(props: ChannelsProps) {
  return (
    <Queries>
      <Channels {...props} />
    </Queries>
  );
}

const connectionInAddress = (): string | null => new URLSearchParams(location.search).get('connection');

function Channels({ brand, nowMs: serverNowMs }: ChannelsProps) {
  const client = useQueryClient();
  const nowMs = useNow(serverNowMs);
  const [search, setSearch] = useState('');
  const [filter, setFilter] = useState<Filter>('all');
  const [isConnecting, setConnecting] = useState(false);
  const [connectionId, setConnectionId] = useState<string | null>(null);
  useEffect(() => setConnectionId(connectionInAddress()), []);
  const found = useQuery({ queryKey: ['channels', brand.slug], queryFn: () => call(listChannels, { params: { brand: brand.slug } }) });
  const refresh = (): Promise<void> => client.invalidateQueries({ queryKey: ['channels', brand.slug] });
  useChanges(brand.slug, { onChange: (kind) => void (kind === 'channel' || kind === 'delivery' ? refresh() : undefined) });
  const closeConnection = (): void => {
    setConnectionId(null);
    history.replaceState(null, '', location.pathname);
  };
  const mayChange = roleMay(brand.role, 'brand');
  const channels = found.data?.channels ?? [];
  const shown = channels.filter((channel) => matches(channel, search, filter, nowMs));
  const groups = groupsOf(shown);
  return (
    <main className="min-h-0 flex-1 overflow-auto px-4 py-5 md:px-6">
      <div className="mb-4 flex flex-wrap items-center gap-x-6 gap-y-2">
        <h1 className="text-xl font-semibold">Channels</h1>
        <div role="group" aria-label="Show channels" className="flex flex-wrap gap-1">
          {filters.map(([key, name]) => (
            <button key={key} type="button" aria-pressed={filter === key} onClick={() => setFilter(key)} className={`rounded-md px-2 py-1 text-sm ${filter === key ? 'bg-panel font-semibold text-house shadow-[inset_0_0_0_1px_var(--c-line)]' : 'text-quiet hover:text-ink'}`}>
              {name} <span className="tabular-nums">{channels.filter((channel) => matches(channel, '', key, nowMs)).length}</span>
            </button>
          ))}
        </div>
        <div className="ml-auto flex items-center gap-2">
          <input aria-label="Search channels" placeholder="Search" value={search} onChange={(event) => setSearch(event.target.value)} className={`${inputClasses} w-44`} />
          {mayChange && (
            <Button look="primary" onClick={() => setConnecting(true)}>
              <Plus aria-hidden className="size-4" />
              Connect a channel
            </Button>
          )}
        </div>
      </div>
      {found.error && <p className="text-coral-ink">{found.error.message}</p>}
      {found.isSuccess && channels.length === 0 && (
        <EmptyBox title="No channel is connected" words="A channel is an account of yours on a network. Pieces get a cut for every place that your channels have." view="channels" />
      )}
      {channels.length > 0 && shown.length === 0 && <p className="text-sm text-quiet">No channel fits. Clear the search, or show all.</p>}
      {groups.map(([group, members]) => (
        <section key={group} aria-label={group === '' ? 'Channels' : group} className="mb-5">
          {group !== '' && <h2 className="mb-1 text-sm font-semibold">{group}</h2>}
          <ul className="border-t border-line">
            {members.map((channel) => (
              <ChannelRow key={channel.id} channel={channel} brand={brand} nowMs={nowMs} groups={[...new Set(channels.map(({ groupName }) => groupName))].filter((name) => name !== '')} onChanged={refresh} />
            ))}
          </ul>
        </section>
      ))}
      {isConnecting && <ConnectDialog brand={brand.slug} networks={found.data?.networks ?? []} onClose={() => setConnecting(false)} />}
      {connectionId !== null && (
        <ChooseDialog
          brand={brand.slug}
          connectionId={connectionId}
          onClose={closeConnection}
          onChosen={() => {
            closeConnection();
            void refresh();
          }}
        />
      )}
    </main>
  );
}

function matches(channel: ShownChannel, search: string, filter: Filter, nowMs: number): boolean {
  const words = search.trim().toLowerCase();
  const hit = words === '' || [channel.name, channel.handle, channel.networkName, channel.groupName].some((text) => text.toLowerCase().includes(words));
  switch (filter) {
    case 'all':
      return hit;
    case 'attention':
      return hit && (channel.state === 'ended' || channel.failed > 0 || endsSoon(channel, nowMs));
    case 'paused':
      return hit && channel.state === 'paused';
    case 'by-hand':
      return hit && channel.isByHand;
  }
}

/** Pinned channels come first in their group; channels of no group come last. */
function groupsOf(channels: readonly ShownChannel[]): readonly (readonly [string, readonly ShownChannel[]])[] {
  const names = [...new Set(channels.map(({ groupName }) => groupName))].toSorted((a, b) => (a === '' ? 1 : b === '' ? -1 : a.localeCompare(b)));
  return names.map((name) => [name, channels.filter(({ groupName }) => groupName === name).toSorted((a, b) => Number(b.isPinned) - Number(a.isPinned))] as const);
}
