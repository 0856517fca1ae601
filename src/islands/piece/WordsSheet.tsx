import RotateCcw from 'lucide-react/icons/rotate-ccw';
import { useState } from 'react';
import type { NetworkSheet, WordFieldKey } from '../../core/network/network-sheet.ts';
import { countGraphemes } from '../../core/words/count-characters.ts';
import { countField, wordingCell } from '../../core/words/wording.ts';
import { Button } from '../ui/Button.tsx';
import { ChannelBadge } from '../ui/ChannelBadge.tsx';
import { FeedPreview } from './FeedPreview.tsx';
import type { SheetProps } from './LookSheet.tsx';

const fields: readonly { readonly key: WordFieldKey; readonly name: string; readonly rows: number }[] = [
  { key: 'caption', name: 'Caption', rows: 5 },
  { key: 'altText', name: 'Alt text', rows: 5 },
];
const cellClasses = 'block w-full resize-y rounded-md border bg-panel px-2.5 py-1.5 text-base hover:border-edge focus:border-house focus:outline-none focus-visible:ring-1 focus-visible:ring-house';

interface ChannelRow {
  readonly id: string;
  readonly name: string;
  readonly sheet: NetworkSheet;
}

/** The wording sheet: a shared row, then a row a channel; each cell is inherited until it differs, and can go back. */
export function WordsSheet(props: SheetProps) {
  const { cuts } = props;
  const channels = [...new Map(cuts.list.map((cut) => [cut.channelId, { id: cut.channelId, name: cut.channelName, sheet: cut.sheet }])).values()];
  const [selectedId, setSelectedId] = useState(channels[0]?.id ?? '');
  const selected = channels.find((channel) => channel.id === selectedId) ?? channels[0];
  return (
    <>
      <section aria-label="Wording sheet" className="min-w-0 flex-1 overflow-auto px-5 py-4">
        <table className="w-full table-fixed border-separate border-spacing-x-2 border-spacing-y-0">
          <thead>
            <tr className="text-left text-xs text-quiet">
              <th scope="col" className="w-32 pb-1 font-medium">
                Row
              </th>
              {fields.map((field) => (
                <th key={field.key} scope="col" className={`pb-1 font-medium ${field.key === 'altText' ? 'w-[38%]' : ''}`}>
                  {field.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <SharedRow {...props} channels={channels} />
            {channels.map((channel) => (
              <OwnRow key={channel.id} {...props} channel={channel} selected={channel.id === selected?.id} onSelect={() => setSelectedId(channel.id)} />
            ))}
          </tbody>
        </table>
      </section>
      {selected && <FeedPreview {...props} channel={selected} />}
    </>
  );
}

function SharedRow({ store, piece, readOnly, channels }: SheetProps & { readonly channels: readonly ChannelRow[] }) {
  return (
    <tr className="align-top">
      <th scope="row" className="py-2 text-left">
        <span className="text-sm font-semibold">Shared</span>
        <span className="block text-xs font-normal text-quiet">for every channel that has no words of its own</span>
      </th>
      {fields.map((field) => {
        const text = piece.words.shared[field.key];
        const inheriting = channels.filter((channel) => wordingCell(piece, channel.id, field.key).from === 'shared').length;
        return (
          <td key={field.key} className="py-2">
            <textarea
              aria-label={`Shared ${field.name.toLowerCase()}`}
              rows={field.rows}
              value={text}
              readOnly={readOnly}
              onChange={(event) => store.change(`shared-${field.key}`, (draft) => void (draft.words.shared[field.key] = event.target.value))}
              className={`${cellClasses} border-edge`}
            />
            <p className="mt-0.5 flex justify-between text-xs text-quiet tabular-nums">
              <span>{countGraphemes(text)} characters</span>
              <span>used by {inheriting === channels.length ? 'all' : `${inheriting} of ${channels.length}`}</span>
            </p>
          </td>
        );
      })}
    </tr>
  );
}

interface OwnRowProps extends SheetProps {
  readonly channel: ChannelRow;
  readonly selected: boolean;
  readonly onSelect: () => void;
}

function OwnRow({ channel, selected, onSelect, ...props }: OwnRowProps) {
  return (
    <tr className="align-top" onFocus={onSelect} data-channel={channel.id}>
      <th scope="row" className="border-t border-line py-3 text-left">
        <button type="button" aria-pressed={selected} onClick={onSelect} className={`flex items-center gap-2 text-left text-sm ${selected ? 'font-semibold text-house' : 'font-medium'}`}>
          <ChannelBadge badge={channel.sheet.badge} />
          {channel.name}
        </button>
      </th>
      {fields.map((field) => {
        const rule = channel.sheet.words.fields.find((each) => each.key === field.key);
        return (
          <td key={field.key} className="border-t border-line py-3">
            {rule ? <OwnCell {...props} channel={channel} rule={rule} name={field.name} /> : <span className="text-sm text-quiet">not taken here</span>}
          </td>
        );
      })}
    </tr>
  );
}

interface OwnCellProps extends SheetProps {
  readonly channel: ChannelRow;
  readonly rule: NetworkSheet['words']['fields'][number];
  readonly name: string;
}

function OwnCell({ channel, rule, name, store, piece, readOnly }: OwnCellProps) {
  const cell = wordingCell(piece, channel.id, rule.key);
  const count = countField(cell.text, rule, channel.sheet);
  const inherited = cell.from === 'shared';
  const write = (value: string): void =>
    store.change(`own-${channel.id}-${rule.key}`, (draft) => {
      (draft.words.own[channel.id] ??= {})[rule.key] = value;
    });
  const goBack = (): void =>
    store.change(`back-${channel.id}-${rule.key}`, (draft) => {
      const row = draft.words.own[channel.id];
      if (!row) return;
      delete row[rule.key];
      if (Object.keys(row).length === 0) delete draft.words.own[channel.id];
    });
  return (
    <>
      <textarea
        aria-label={`${name} for ${channel.name}${inherited ? ', inherited from shared' : ''}`}
        rows={4}
        value={cell.text}
        readOnly={readOnly}
        placeholder="Nothing shared yet"
        onChange={(event) => write(event.target.value)}
        className={`${cellClasses} ${count.over > 0 ? 'border-coral' : 'border-line'} ${inherited ? 'text-quiet italic' : ''}`}
      />
      <div className="mt-0.5 flex min-h-6 items-center justify-between gap-2 text-xs">
        {inherited ? (
          <span className="text-quiet">inherited: type to differ</span>
        ) : (
          <Button look="quiet" size="small" className="-ml-2 text-house" disabled={readOnly} onClick={goBack}>
            <RotateCcw aria-hidden className="size-3" />
            Back to shared
          </Button>
        )}
        <span className={`tabular-nums ${count.over > 0 ? 'font-semibold text-coral-ink' : 'text-quiet'}`} data-count={rule.key}>
          {count.over > 0 ? `${count.over} over: ` : ''}
          {count.used} / {count.max}
        </span>
      </div>
    </>
  );
}
