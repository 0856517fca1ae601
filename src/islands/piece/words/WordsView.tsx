import { useCallback, useDeferredValue, useMemo, useState } from 'react';
import { call } from '../../ui/call.ts';
import { suggestWords } from '../../../contract/word-contracts.ts';
import { differingRows } from '../../../core/wording/edit.ts';
import { resetCells } from '../../../core/wording/edit.ts';
import { Button } from '../../ui/Button.tsx';
import { NoCuts } from '../NoCuts.tsx';
import type { ViewProps } from '../view-props.ts';
import { CellPanel } from './CellPanel.tsx';
import { FilledText } from './FilledText.tsx';
import { clamped, single, type Selection } from './sheet/selection.ts';
import { channelsOf, columnsOf, rowsOf, type RowFilter } from './sheet/sheet-rows.ts';
import { WordingGrid } from './WordingGrid.tsx';
import type { Suggest } from './WordArea.tsx';

function focusLarge(): void {
  document.querySelector<HTMLElement>('[data-cell-editor] input, [data-cell-editor] textarea, [data-cell-editor] select')?.focus();
}

const selectClasses = 'h-7 rounded-md border border-line bg-panel px-2 text-xs';

/** The wording sheet with the chosen cell beside it: a shared row, then a row a channel; a cell is inherited until it differs, and can go back. */
export function WordsView(props: ViewProps) {
  const { cuts, brandData, piece, store, readOnly, brand } = props;
  const { book } = brandData;
  const { voice } = book;
  const [filter, setFilter] = useState<RowFilter>({ network: null, only: 'all', text: '' });
  const [isGrouped, setGrouped] = useState(false);
  const [wanted, setSelection] = useState<Selection | null>(null);
  const [lastChannel, setLastChannel] = useState<string | null>(null);
  const [width, setWidth] = useState<'phone' | 'wide'>('phone');
  const { list } = cuts;
  const channels = useMemo(() => channelsOf(list), [list]);
  // The field follows every key; the sheet with all its rows when there is time.
  const sheetPiece = useDeferredValue(piece);
  const columns = useMemo(() => columnsOf(channels, sheetPiece, book), [channels, sheetPiece, book]);
  const rows = useMemo(() => rowsOf(channels, sheetPiece, filter, isGrouped), [channels, sheetPiece, filter, isGrouped]);
  const firstColumn = Math.max(0, columns.findIndex(({ field }) => field === 'caption'));
  const selection = useMemo(() => clamped(wanted ?? single({ row: 0, column: firstColumn }), { rows: rows.length, columns: columns.length }), [wanted, firstColumn, rows.length, columns.length]);
  const row = rows[selection.cursor.row];
  const column = columns[selection.cursor.column];
  const select = useCallback(
    (next: Selection): void => {
      setSelection(next);
      const chosen = rows[next.cursor.row];
      if (chosen?.channel) setLastChannel(chosen.id);
    },
    [rows],
  );
  const shown = row?.channel ?? channels.find(({ channel }) => channel.id === lastChannel) ?? channels[0] ?? null;
  const network = shown?.channel.id ?? null;
  const suggest = useMemo(
    (): Suggest => ({ key: `${brand.slug} ${network ?? ''}`, ask: async (word) => (await call(suggestWords, { params: { brand: brand.slug }, query: { word, ...(network === null ? {} : { channel: network }) } })).items.map(({ put, more }) => ({ put, more })) }),
    [brand.slug, network],
  );
  if (!row || !column || channels.length === 0) {
    return (
      <section aria-label="Wording sheet" className="flex-1 p-5">
        <NoCuts brand={brand.slug} kind={piece.kind} />
      </section>
    );
  }
  const networks = [...new Map(channels.map(({ sheet }) => [sheet.key, sheet.name])).entries()];
  const differing = differingRows(piece, channels.map(({ channel }) => channel.id));
  return (
    <>
      <section aria-label="Words" className="flex min-w-0 flex-1 flex-col px-4 py-3 max-md:min-h-[28rem]">
        <div className="mb-2 flex flex-wrap items-center gap-2 text-xs">
          <label>
            <span className="sr-only">Rows</span>
            <select value={filter.only} onChange={(event) => setFilter({ ...filter, only: event.target.value === 'differ' ? 'differ' : 'all' })} className={selectClasses}>
              <option value="all">All rows</option>
              <option value="differ">Rows that differ</option>
            </select>
          </label>
          {networks.length > 1 && (
            <label>
              <span className="sr-only">Network</span>
              <select value={filter.network ?? ''} onChange={(event) => setFilter({ ...filter, network: event.target.value || null })} className={selectClasses}>
                <option value="">All networks</option>
                {networks.map(([key, name]) => (
                  <option key={key} value={key}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
          )}
          {channels.length > networks.length && (
            <label className="flex items-center gap-1.5">
              <input type="checkbox" checked={isGrouped} onChange={(event) => setGrouped(event.target.checked)} />
              By network
            </label>
          )}
          {channels.length > 12 && <input type="search" aria-label="Find a channel" placeholder="Find a channel" value={filter.text} onChange={(event) => setFilter({ ...filter, text: event.target.value })} className={`${selectClasses} w-36`} />}
          <span className="ml-auto text-quiet">
            {channels.length} {channels.length === 1 ? 'channel' : 'channels'}
            {differing > 0 ? ` · ${differing} ${differing === 1 ? 'differs' : 'differ'}` : ''}
          </span>
          {!readOnly && differing > 0 && (
            <Button size="small" look="quiet" className="text-house" onClick={() => store.change('reset-cells', (draft) => resetCells(draft, Object.entries(piece.words.own).flatMap(([id, own]) => columns.filter(({ field }) => own[field] !== undefined).map(({ field }) => ({ row: id, field })))))}>
              Everything back to shared
            </Button>
          )}
        </div>
        <WordingGrid
          rows={rows}
          columns={columns}
          piece={sheetPiece}
          book={book}
          store={store}
          readOnly={readOnly}
          selection={selection}
          suggest={suggest}
          onSelect={select}
          onOpenLarge={focusLarge}
        />
        <FilledText {...props} piece={sheetPiece} />
        {(voice.tone !== '' || voice.guidance !== '') && (
          <aside aria-label="The brand’s voice" className="mt-2 max-h-16 overflow-auto border-l-2 border-line pl-3 text-xs text-quiet" tabIndex={0}>
            {voice.tone !== '' && <p className="font-medium">{voice.tone}</p>}
            {voice.guidance !== '' && <p className="mt-0.5 whitespace-pre-wrap">{voice.guidance}</p>}
          </aside>
        )}
      </section>
      <CellPanel {...props} row={row} column={column} rows={rows} shown={shown} suggest={suggest} width={width} onWidth={setWidth} />
    </>
  );
}
