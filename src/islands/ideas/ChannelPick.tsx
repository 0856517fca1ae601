import { ChannelCheck } from '../channel/ChannelCheck.tsx';
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
        {channels.map((channel) => (
          <li key={channel.id}>
            <ChannelCheck handle={channel.handle} sheet={sheets.get(channel.network)} isChecked={chosen.includes(channel.id)} onToggle={() => toggle(channel.id)} />
          </li>
        ))}
      </ul>
    </fieldset>
  );
}
