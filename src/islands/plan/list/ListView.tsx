import { createColumnHelper, createSortedRowModel, rowSortingFeature, sortFns, tableFeatures, useTable } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import ArrowDown from 'lucide-react/icons/arrow-down';
import ArrowUp from 'lucide-react/icons/arrow-up';
import { useMemo, useRef, useState } from 'react';
import { groupItems, type PlanGroup, type PlanItem } from '../../../core/plan/plan-items.ts';
import { addDays } from '../../../core/time/day.ts';
import { formatMoment } from '../../../core/time/wall-time.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { Button } from '../../ui/Button.tsx';
import { saveTextFile } from '../../ui/save-file.ts';
import { PieceThumbnail } from '../../ui/PieceThumbnail.tsx';
import { Queries } from '../../ui/Queries.tsx';
import { GuideLink } from '../../ui/GuideLink.tsx';
import { BulkBar } from '../BulkBar.tsx';
import { HoldButton } from '../HoldButton.tsx';
import { ItemDialog } from '../ItemDialog.tsx';
import { dayWords } from '../lanes/LaneHead.tsx';
import { isMovable } from '../lanes/LaneTile.tsx';
import { PlanBar } from '../PlanBar.tsx';
import { planStateWord, StateSign } from '../state-sign.tsx';
import { ThemeTile } from '../ThemeTile.tsx';
import { useLanes, usePlanContexts, usePlanQuery, type PlanContext, type PlanViewProps } from '../use-plan.ts';
import { usePlanActions } from '../use-plan-actions.ts';

const SPAN_DAYS = 35;
const ROW_PX = 44;

const features = tableFeatures({ rowSortingFeature, sortedRowModel: createSortedRowModel(), sortFns });

/** A post as the table sorts it. */
interface Line {
  readonly group: PlanGroup;
  readonly atMs: number;
  readonly name: string;
  /** The brand's name. */
  readonly brand: string;
  readonly theme: string;
  readonly campaign: string;
  readonly state: string;
  readonly channels: number;
}

const column = createColumnHelper<typeof features, Line>();
const columns = column.columns([
  column.accessor('atMs', { header: 'When', sortFn: 'basic' }),
  column.accessor('name', { header: 'Piece', sortFn: 'text' }),
  column.accessor('channels', { header: 'Channels', sortFn: 'basic' }),
  column.accessor('theme', { header: 'Theme', sortFn: 'text' }),
  column.accessor('campaign', { header: 'Campaign', sortFn: 'text' }),
  column.accessor('state', { header: 'Status', sortFn: 'text' }),
]);
const layout = 'grid grid-cols-[2rem_3rem_12.5rem_minmax(12rem,1fr)_9rem_9rem_9rem_8rem] items-center gap-2 px-3';

export default function ListView(props: PlanViewProps) {
  return (
    <Queries>
      <ListOf {...props} />
    </Queries>
  );
}

function ListOf(props: PlanViewProps) {
  const [query, setQuery] = usePlanQuery();
  const contexts = usePlanContexts(props, query.brands);
  const [context] = contexts.all;
  const { brand, today } = context;
  const from = query.from ?? addDays(today, -7);
  const lanes = useLanes(contexts.brands, from, SPAN_DAYS, query);
  const actionsOf = usePlanActions(contexts.brands);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [open, setOpen] = useState<PlanItem | null>(null);
  const scroller = useRef<HTMLDivElement>(null);
  const lines = useMemo(
    () =>
      groupItems(lanes.items).map((group): Line => {
        const { first } = group;
        const { brand: of, themes, campaigns } = contexts.of(first.channelId);
        return { group, atMs: first.atMs, name: first.name || (first.state === 'open' ? 'Open slot' : ''), brand: of.name, theme: first.themeId === null ? '' : (themes.get(first.themeId)?.name ?? ''), campaign: first.campaignId === null ? '' : (campaigns.get(first.campaignId)?.name ?? ''), state: planStateWord(first.state), channels: group.channels };
      }),
    [lanes.items, contexts],
  );
  const table = useTable({ features, columns, data: lines, initialState: { sorting: sortingOf(query.sort) } });
  const rows = table.getRowModel().rows;
  const virtual = useVirtualizer({ count: rows.length, getScrollElement: () => scroller.current, estimateSize: () => ROW_PX, overscan: 12 });
  const movable = lines.filter(({ group }) => isMovable(group.first));
  const picked = movable.filter(({ group }) => chosen.has(group.key)).flatMap(({ group }) => group.items);
  const exportCsv = async (): Promise<void> => {
    const { planCsv } = await import('./plan-csv.ts');
    const nameOf = (channelId: string): string => {
      const { channels, sheets } = contexts.of(channelId);
      const channel = channels.find(({ id }) => id === channelId);
      const isOnly = channels.filter(({ network }) => network === channel?.network).length === 1;
      return channel ? (isOnly ? (sheets.get(channel.network)?.name ?? channel.name) : channel.handle) : '';
    };
    const planned = rows.map(({ original: { group, brand: of, theme, campaign } }) => ({ ...group, brand: of, theme, campaign }));
    saveTextFile(`${brand.slug}-plan-${from}.csv`, planCsv(planned, nameOf, contexts.all.length > 1), 'text/csv;charset=utf-8');
  };
  const toggle = (key: string): void =>
    setChosen((now) => {
      const next = new Set(now);
      if (!next.delete(key)) next.add(key);
      return next;
    });
  return (
    <main className="flex min-h-0 flex-1 flex-col px-4 py-4">
      <PlanBar
        title="List"
        contexts={contexts}
        brands={props.brands}
        query={query}
        onChange={setQuery}
        steps={{ back: () => setQuery({ from: addDays(from, -SPAN_DAYS) }), today: () => setQuery({ from: undefined }), on: () => setQuery({ from: addDays(from, SPAN_DAYS) }), words: `${dayWords(from, true)} – ${dayWords(addDays(from, SPAN_DAYS - 1), true)}` }}
        actions={
          <>
            <Button disabled={rows.length === 0} onClick={() => void exportCsv()}>
              Export CSV
            </Button>
            <HoldButton context={context} />
          </>
        }
      />
      {lanes.problem !== null && <p className="mb-2 text-sm text-coral-ink">{lanes.problem}</p>}
      {picked.length > 0 && <BulkBar items={picked} contexts={contexts} actionsOf={actionsOf} onClear={() => setChosen(new Set())} />}
      <div ref={scroller} role="table" aria-label="Posts" aria-rowcount={rows.length + 1} className="min-h-0 flex-1 overflow-auto rounded-md border border-line bg-panel text-sm">
        <div role="rowgroup" className="sticky top-0 z-10 min-w-[64rem] bg-panel">
          <div role="row" className={`${layout} h-9 border-b border-line text-xs font-semibold`}>
            <span role="columnheader">
              <input
                type="checkbox"
                aria-label="Choose all"
                checked={movable.length > 0 && movable.every(({ group }) => chosen.has(group.key))}
                onChange={(event) => setChosen(event.target.checked ? new Set(movable.map(({ group }) => group.key)) : new Set())}
                className="size-4 accent-house"
              />
            </span>
            <span role="columnheader">
              <span className="sr-only">Picture</span>
            </span>
            {table.getHeaderGroups()[0]?.headers.map((header) => {
              const sorted = header.column.getIsSorted();
              return (
                <span key={header.id} role="columnheader" aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}>
                  <button type="button" onClick={header.column.getToggleSortingHandler()} className="inline-flex items-center gap-1 rounded-md py-1 hover:text-house">
                    {String(header.column.columnDef.header)}
                    {sorted === 'asc' && <ArrowUp aria-hidden className="size-3" />}
                    {sorted === 'desc' && <ArrowDown aria-hidden className="size-3" />}
                  </button>
                </span>
              );
            })}
          </div>
        </div>
        <div role="rowgroup" className="relative min-w-[64rem]" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((drawn) => {
            const line = rows[drawn.index]?.original;
            if (!line) return null;
            return (
              <div key={line.group.key} role="row" aria-rowindex={drawn.index + 2} className={`${layout} absolute inset-x-0 border-b border-line`} style={{ top: drawn.start, height: ROW_PX }}>
                <ListCells line={line} context={contexts.of(line.group.first.channelId)} isBrandShown={contexts.all.length > 1} isChosen={chosen.has(line.group.key)} onToggle={() => toggle(line.group.key)} onOpen={() => setOpen(line.group.first)} />
              </div>
            );
          })}
        </div>
        {!lanes.isPending && lanes.problem === null && rows.length === 0 && <p className="py-16 text-center text-sm text-quiet">Nothing is planned in these days with these filters. <GuideLink view="list" /></p>}
      </div>
      {open && <ItemDialog item={open} context={contexts.of(open.channelId)} actions={actionsOf(contexts.of(open.channelId).brand.slug)} onClose={() => setOpen(null)} />}
    </main>
  );
}

function ListCells({ line: { group, name, campaign, state }, context: { brand, channels, sheets, themes, campaigns }, isBrandShown, isChosen, onToggle, onOpen }: { readonly line: Line; readonly context: PlanContext; readonly isBrandShown: boolean; readonly isChosen: boolean; readonly onToggle: () => void; readonly onOpen: () => void }) {
  const { first, items } = group;
  const theme = first.themeId === null ? undefined : themes.get(first.themeId);
  const networks = [...new Set(items.map(({ channelId }) => channels.find(({ id }) => id === channelId)?.network ?? ''))];
  const ofCampaign = first.campaignId === null ? undefined : campaigns.get(first.campaignId);
  return (
    <>
      <span role="cell">{isMovable(first) && <input type="checkbox" aria-label={`Choose ${name}, ${first.day} ${first.time}`} checked={isChosen} onChange={onToggle} className="size-4 accent-house" />}</span>
      <span role="cell" className="relative w-9">
        {first.pieceId !== null && <PieceThumbnail brand={brand.slug} piece={first.pieceId} className="size-9 rounded-sm object-contain" />}
        <StateSign item={first} />
      </span>
      <span role="cell" className="text-quiet tabular-nums">
        {formatMoment(first.atMs, brand.zone).replace(/ \d{4},/, ',')}
      </span>
      <span role="cell" className="min-w-0">
        <button type="button" onClick={onOpen} className="max-w-full truncate rounded-md text-left font-medium hover:underline">
          {name}
        </button>
        {isBrandShown && <span className="block truncate text-xs leading-4 text-quiet">{brand.name}</span>}
      </span>
      <span role="cell" className="flex items-center gap-1">
        {networks.map((key) => {
          const sheet = sheets.get(key);
          return sheet && <ChannelBadge key={key} badge={sheet.badge} name={sheet.name} size={16} />;
        })}
      </span>
      <span role="cell" className="flex min-w-0 items-center gap-1.5">
        {theme && <ThemeTile theme={theme} />}
        <span className="truncate">{theme?.name}</span>
      </span>
      <span role="cell" className="flex min-w-0 items-center gap-1.5">
        {ofCampaign && <ThemeTile theme={ofCampaign} />}
        <span className="truncate">{campaign}</span>
      </span>
      <span role="cell" className="truncate">
        {state}
      </span>
    </>
  );
}

function sortingOf(sort: string | undefined): { id: string; desc: boolean }[] {
  const id = sort?.replace(/^-/, '') ?? 'atMs';
  return [{ id, desc: sort?.startsWith('-') ?? false }];
}
