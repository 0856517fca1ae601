import { ChannelBadge } from '../channel/ChannelBadge.tsx';
import type { IdeasContext } from './ideas-context.ts';

interface ChannelPickProps {
  readonly context: Pick<IdeasContext, 'channels' | 'sheets'>;
  readonly chosen: readonly string[];
  readonly onChoose: (chosen: readonly string[]) => void;
  readonly label?: string;
}

/** Channels to tick, with one press for all of them. */
export function ChannelPick({ context: { channels, sheets }, chosen, onChoose, label = 'Channels' }: ChannelPickProps) {
  const toggle = (id: string): void => onChoose(chosen.includes(id) ? chosen.filter((each) => each !== id) : [...chosen, id]);
  const isAll = chosen.length === channels.length;
  return (
    <fieldset>
      <legend className="mb-1 flex w-full items-baseline justify-between text-sm font-semibold">
        {label}
        <button type="button" onClick={() => onChoose(isAll ? [] : channels.map(({ id }) => id))} className="text-xs font-medium text-house hover:underline">
          {isAll ? 'None' : 'All'}
        </button>
      </legend>
      <ul className="grid max-h-44 grid-cols-2 gap-x-3 overflow-auto max-md:grid-cols-1">
        {channels.map((channel) => {
          const sheet = sheets.get(channel.network);
          return (
            <li key={channel.id}>
              <label className="flex items-center gap-2 rounded-md px-1 py-1 text-sm hover:bg-sunk">
                <input type="checkbox" checked={chosen.includes(channel.id)} onChange={() => toggle(channel.id)} className="size-4 accent-house" />
                {sheet && <ChannelBadge badge={sheet.badge} size={16} />}
                <span className="min-w-0 truncate">
                  {sheet?.name} <span className="text-quiet">{channel.handle}</span>
                </span>
              </label>
            </li>
          );
        })}
      </ul>
    </fieldset>
  );
}
