import type { NetworkSheet } from '../../core/network/network-sheet.ts';
import { ChannelBadge } from './ChannelBadge.tsx';

interface ChannelCheckProps {
  readonly handle: string;
  readonly sheet: Pick<NetworkSheet, 'name' | 'badge'> | undefined;
  readonly isChecked: boolean;
  readonly onToggle: () => void;
}

/** A channel to tick: its badge, its network and its handle. */
export function ChannelCheck({ handle, sheet, isChecked, onToggle }: ChannelCheckProps) {
  return (
    <label className="flex items-center gap-2 rounded-md px-1 py-1 text-sm hover:bg-sunk">
      <input type="checkbox" checked={isChecked} onChange={onToggle} className="size-4 accent-house" />
      {sheet && <ChannelBadge badge={sheet.badge} size={16} />}
      <span className="min-w-0 truncate">
        {sheet?.name} <span className="text-quiet">{handle}</span>
      </span>
    </label>
  );
}
