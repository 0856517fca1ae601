import { useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import { ChannelCheck } from '../channel/ChannelCheck.tsx';
import { buttonClasses } from '../ui/Button.tsx';
import { inputClasses } from '../ui/Field.tsx';
import type { NetworkSheet } from '../../core/network/network-sheet.ts';

interface Channels {
  readonly channels: readonly { readonly id: string; readonly name: string; readonly handle: string; readonly network: string }[];
  /** By the key of their network. */
  readonly sheets: ReadonlyMap<string, Pick<NetworkSheet, 'name' | 'badge'>>;
}

/** Which channels are shown; with many of them one searches. */
export function ChannelFilter({ context: { channels, sheets }, chosen, onChoose }: { readonly context: Channels; readonly chosen: string | undefined; readonly onChoose: (channels: string | undefined) => void }) {
  const [search, setSearch] = useState('');
  const ids = new Set(chosen?.split(',').filter((id) => id !== ''));
  const toggle = (id: string): void => {
    const next = new Set(ids);
    if (!next.delete(id)) next.add(id);
    onChoose(next.size === 0 ? undefined : [...next].join(','));
  };
  const only = channels.find(({ id }) => ids.size === 1 && ids.has(id));
  const words = ids.size === 0 ? 'All channels' : only ? `${sheets.get(only.network)?.name ?? ''} ${only.handle}` : `${ids.size} channels`;
  const found = channels.filter((channel) => `${channel.name} ${channel.handle} ${sheets.get(channel.network)?.name ?? ''}`.toLowerCase().includes(search.trim().toLowerCase()));
  return (
    <DialogTrigger>
      <AriaButton className={`${buttonClasses('plain')} max-w-52 ${ids.size > 0 ? 'border-house font-semibold' : ''}`}>
        <span className="truncate">{words}</span>
      </AriaButton>
      <Popover className="shadow-float rounded-md border border-line bg-panel p-3">
        <Dialog aria-label="Channels" className="w-72 outline-none">
          {channels.length > 8 && <input type="search" aria-label="Search channels" placeholder="Search" value={search} onChange={(event) => setSearch(event.target.value)} className={`${inputClasses} mb-2`} />}
          <ul className="max-h-80 overflow-auto">
            {found.map((channel) => (
              <li key={channel.id}>
                <ChannelCheck handle={channel.handle} sheet={sheets.get(channel.network)} isChecked={ids.has(channel.id)} onToggle={() => toggle(channel.id)} />
              </li>
            ))}
          </ul>
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
