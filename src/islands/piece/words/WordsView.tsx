import RotateCcw from 'lucide-react/icons/rotate-ccw';
import { useState } from 'react';
import type { NetworkSheet, WordField } from '../../../core/network/network-sheet.ts';
import type { FieldKey } from '../../../core/words/fields.ts';
import { countGraphemes } from '../../../core/words/count-characters.ts';
import { fieldsOfChannel, countField, wordingCell } from '../../../core/wording/wording.ts';
import { Button } from '../../ui/Button.tsx';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { fillFacts } from '../../../core/brand/facts.ts';
import { FactMenu, WITH_FACTS } from '../FactMenu.tsx';
import { FeedPreview } from './FeedPreview.tsx';
import type { ViewProps } from '../view-props.ts';
import { FilledText } from './FilledText.tsx';

interface SheetField {
  readonly key: FieldKey;
  readonly name: string;
  readonly rows: number;
}

/** The sheet's two columns, and what stands in each from top to bottom. */
const columns: readonly { readonly name: string; readonly fields: readonly SheetField[] }[] = [
  {
    name: 'Words',
    fields: [
      { key: 'title', name: 'Title', rows: 1 },
      { key: 'caption', name: 'Caption', rows: 4 },
      { key: 'link', name: 'Link', rows: 1 },
      { key: 'firstComment', name: 'First comment', rows: 2 },
    ],
  },
  { name: 'Alt text', fields: [{ key: 'altText', name: 'Alt text', rows: 4 }] },
];
const cellClasses = 'block w-full resize-y rounded-md border bg-panel px-2.5 py-1.5 text-base hover:border-edge focus:border-house focus:outline-none focus-visible:ring-1 focus-visible:ring-house';

interface ChannelRow {
  readonly id: string;
  readonly name: string;
  readonly sheet: NetworkSheet;
  /** What this piece has to say there. */
  readonly fields: readonly WordField[];
}

/** Where the sheet is narrow its rows stand one below the other; the roles say that it still is a table. */
const stacked = '@max-[38rem]:block';

/** The wording sheet: a shared row, then a row a channel; each cell is inherited until it differs, and can go back. */
export function WordsView(props: ViewProps) {
  const { cuts, brandData, piece } = props;
  const { voice } = brandData.book;
  const channels = [...new Map(cuts.list.map((cut) => [cut.channel.id, { id: cut.channel.id, name: cut.channel.name, sheet: cut.sheet, fields: fieldsOfChannel(piece, cut.channel.id, cut.sheet) }])).values()];
  const [selectedId, setSelectedId] = useState(channels[0]?.id ?? '');
  const selected = channels.find((channel) => channel.id === selectedId) ?? channels[0];
  return (
    <>
      <section aria-label="Wording sheet" className="@container min-w-0 flex-1 overflow-auto px-5 py-4">
        <table role="table" className={`w-full table-fixed border-separate border-spacing-x-2 border-spacing-y-0 ${stacked}`}>
          <thead className="@max-[38rem]:sr-only">
            <tr role="row" className="text-left text-xs text-quiet">
              <th role="columnheader" scope="col" className="w-32 pb-1 font-medium">
                Row
              </th>
              {columns.map((column) => (
                <th key={column.name} role="columnheader" scope="col" className={`pb-1 font-medium ${column.fields.length === 1 ? 'w-[36%]' : ''}`}>
                  {column.name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody role="rowgroup" className={stacked}>
            <SharedRow {...props} channels={channels} />
            {channels.map((channel) => (
              <OwnRow key={channel.id} {...props} channel={channel} selected={channel.id === selected?.id} onSelect={() => setSelectedId(channel.id)} />
            ))}
          </tbody>
        </table>
        <FilledText {...props} />
        {(voice.tone !== '' || voice.guidance !== '') && (
          <aside aria-label="The brand’s voice" className="mt-5 max-w-prose border-l-2 border-line pl-3 text-xs text-quiet">
            {voice.tone !== '' && <p className="font-medium">{voice.tone}</p>}
            {voice.guidance !== '' && <p className="mt-0.5 whitespace-pre-wrap">{voice.guidance}</p>}
          </aside>
        )}
      </section>
      {selected && <FeedPreview {...props} channel={selected} />}
    </>
  );
}

function SharedRow({ store, piece, brandData, readOnly, channels }: ViewProps & { readonly channels: readonly ChannelRow[] }) {
  return (
    <tr role="row" className={`align-top ${stacked}`}>
      <th role="rowheader" scope="row" className={`py-2 text-left ${stacked}`}>
        <span className="text-sm font-semibold">Shared</span>
        <span className="block text-xs font-normal text-quiet">for every channel that has no words of its own</span>
      </th>
      {columns.map((column) => (
        <td key={column.name} role="cell" className={`py-2 ${stacked}`}>
          {column.fields.filter((field) => isTaken(field, channels)).map((field) => (
            <SharedCell key={field.key} field={field} store={store} piece={piece} brandData={brandData} readOnly={readOnly} channels={channels} />
          ))}
        </td>
      ))}
    </tr>
  );
}

/** Whether any channel of the piece has use for a field. */
function isTaken(field: SheetField, channels: readonly ChannelRow[]): boolean {
  return channels.some((channel) => channel.fields.some((each) => each.key === field.key));
}

function SharedCell({ field, store, piece, brandData, readOnly, channels }: Pick<ViewProps, 'store' | 'piece' | 'brandData' | 'readOnly'> & { readonly field: SheetField; readonly channels: readonly ChannelRow[] }) {
  const text = piece.words.shared[field.key] ?? '';
  const { facts, voice } = brandData.book;
  const write = (value: string): void => store.change(`shared-${field.key}`, (draft) => void (draft.words.shared[field.key] = value));
  const taking = channels.filter((channel) => channel.fields.some((each) => each.key === field.key));
  const inheriting = taking.filter((channel) => wordingCell(piece, channel.id, field.key).from !== 'own').length;
  return (
    <div {...WITH_FACTS} className="mb-1.5">
      <p className="mb-0.5 flex min-h-6 items-center justify-between text-xs font-medium text-quiet">
        <span className={field.key === 'altText' ? 'hidden @max-[38rem]:inline' : ''}>{field.name}</span>
        <span className="ml-auto">{!readOnly && field.key !== 'altText' && <FactMenu facts={facts} hashtags={field.key === 'caption' ? voice.hashtags : []} onText={write} />}</span>
      </p>
      <textarea
        aria-label={`Shared ${field.name.toLowerCase()}`}
        rows={field.rows}
        value={text}
        readOnly={readOnly}
        onChange={(event) => write(event.target.value)}
        placeholder={field.key === 'title' ? wordingCell(piece, '', 'title').text : undefined}
        className={`${cellClasses} border-edge`}
      />
      <p className="mt-0.5 flex justify-between text-xs text-quiet tabular-nums">
        <span>{countGraphemes(text)} characters</span>
        <span>used by {inheriting === channels.length ? 'all' : `${inheriting} of ${taking.length}`}</span>
      </p>
    </div>
  );
}

interface OwnRowProps extends ViewProps {
  readonly channel: ChannelRow;
  readonly selected: boolean;
  readonly onSelect: () => void;
}

function OwnRow({ channel, selected, onSelect, ...props }: OwnRowProps) {
  return (
    <tr role="row" className={`align-top ${stacked}`} onFocus={onSelect} data-channel={channel.id}>
      <th role="rowheader" scope="row" className={`border-t border-line py-3 text-left ${stacked}`}>
        <button type="button" aria-pressed={selected} onClick={onSelect} className={`flex items-center gap-2 text-left text-sm ${selected ? 'font-semibold text-house' : 'font-medium'}`}>
          <ChannelBadge badge={channel.sheet.badge} />
          {channel.name}
        </button>
      </th>
      {columns.map((column) => {
        const taken = column.fields.flatMap((field) => channel.fields.filter((rule) => rule.key === field.key).map((rule) => ({ field, rule })));
        return (
          <td key={column.name} role="cell" className={`border-t border-line py-3 @max-[38rem]:border-0 @max-[38rem]:py-1 ${stacked}`}>
            {taken.map(({ field, rule }) => (
              <OwnCell key={field.key} {...props} channel={channel} rule={rule} field={field} />
            ))}
            {taken.length === 0 && <span className="text-sm text-quiet">not taken here</span>}
          </td>
        );
      })}
    </tr>
  );
}

interface OwnCellProps extends ViewProps {
  readonly channel: ChannelRow;
  readonly rule: NetworkSheet['words']['fields'][number];
  readonly field: SheetField;
}

function OwnCell({ channel, rule, field, store, piece, brandData, readOnly }: OwnCellProps) {
  const cell = wordingCell(piece, channel.id, rule.key);
  const count = countField(fillFacts(cell.text, brandData.book.facts).text, rule, channel.sheet);
  const inherited = cell.from !== 'own';
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
    <div className="mb-1">
      <p className={`mb-0.5 text-xs font-medium text-quiet ${field.key === 'altText' ? 'hidden @max-[38rem]:block' : ''}`}>{rule.label}</p>
      <textarea
        aria-label={`${field.name} for ${channel.name}${inherited ? ', inherited from shared' : ''}`}
        rows={field.rows}
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
    </div>
  );
}
