import { useVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef, useState } from 'react';
import { roleMay } from '../../../core/access/access.ts';
import { cellKey, cellsOf, oncePerLane, type PlanItem } from '../../../core/plan/plan-items.ts';
import { addDays, daysFrom, isDay } from '../../../core/time/day.ts';
import { wallTimeOf, zonePlace } from '../../../core/time/wall-time.ts';
import { Queries } from '../../ui/Queries.tsx';
import { Button } from '../../ui/Button.tsx';
import { toast } from '../../ui/toast.tsx';
import { BulkBar } from '../BulkBar.tsx';
import type { Dragged } from '../drag.ts';
import { HoldButton } from '../HoldButton.tsx';
import { ItemDialog } from '../ItemDialog.tsx';
import { PlanBar } from '../PlanBar.tsx';
import { MAX_DAYS, MIN_DAYS } from '../plan-query.ts';
import { useLanes, usePlanContexts, usePlanQuery, type PlanBrand, type PlanChannel, type PlanContext, type PlanContexts, type PlanViewProps } from '../use-plan.ts';
import { usePlanActions, type Spot } from '../use-plan-actions.ts';
import { WaitingStrip } from '../WaitingStrip.tsx';
import { dayWords, LaneHead } from './LaneHead.tsx';
import { LaneRow, type LaneHandlers, type Stop } from './LaneRow.tsx';
import { isMovable, type Density } from './LaneTile.tsx';
import { ProposalPane } from './ProposalPane.tsx';
import { usePlanProposal, withProposed } from './use-plan-proposal.ts';

const [CHANNEL_PX, RUNWAY_PX] = [184, 84];
const USUAL_DAYS = 11;
const MIN_COLUMN_PX = 22;
const heights: Readonly<Record<Density, number>> = { wide: 58, middle: 32, small: 18 };
const MIN_ROW_PX = 64;
/** The line that names a brand. */
const BRAND_PX = 29;

export default function LanesView(props: PlanViewProps) {
  return (
    <Queries>
      <LanesOf {...props} />
    </Queries>
  );
}

function LanesOf(props: PlanViewProps) {
  const [query, setQuery] = usePlanQuery();
  const contexts = usePlanContexts(props, query.brands);
  const [context] = contexts.all;
  const { brand, today, nowMs, campaigns } = context;
  const from = query.from ?? addDays(today, -1);
  const count = query.days ?? USUAL_DAYS;
  const days = useMemo(() => daysFrom(from, addDays(from, count - 1)), [from, count]);
  const lanes = useLanes(contexts.brands, from, count, query);
  const actionsOf = usePlanActions(contexts.brands);
  const mayMove = roleMay(brand.role, 'send');
  const scroller = useRef<HTMLDivElement>(null);
  const width = useWidth(scroller);
  const columnPx = Math.max(MIN_COLUMN_PX, (width - CHANNEL_PX - RUNWAY_PX) / count);
  const density: Density = columnPx >= 66 ? 'wide' : columnPx >= 30 ? 'middle' : 'small';
  const plannedCells = useMemo(() => cellsOf(oncePerLane(lanes.items)), [lanes.items]);
  // Shows rows once their heights and the campaigns are known, so that the layout does not shift.
  const isReady = (context.plan !== null || context.problem !== null) && !lanes.isPending;
  const lines = isReady ? linesOf(contexts, query.channels) : NO_LINES;
  const shown = lines.flatMap(({ channel }) => channel ?? []);
  const { isOpen: isProposing, proposal } = usePlanProposal(brand.slug, query.channels?.split(',').filter((id) => id !== '') ?? []);
  const { placings } = proposal;
  const cells = useMemo(() => (isProposing ? withProposed(plannedCells, placings) : plannedCells), [plannedCells, isProposing, placings]);
  const [open, setOpen] = useState<PlanItem | null>(null);
  const [chosen, setChosen] = useState<ReadonlyMap<string, PlanItem>>(new Map());
  const [stop, setStop] = useState<Stop | null>(null);

  const rowPx = (index: number): number => {
    const channel = lines[index]?.channel;
    if (!channel) return BRAND_PX;
    const most = Math.max(1, ...days.map((day) => cells.get(cellKey(channel.id, day))?.length ?? 0));
    return Math.max(MIN_ROW_PX, most * (heights[density] + 3) + 12);
  };
  const rows = useVirtualizer({ count: lines.length, getScrollElement: () => scroller.current, estimateSize: rowPx, getItemKey: (index) => lines[index]?.key ?? index, overscan: 3 });
  const lineKeys = lines.map(({ key }) => key).join(' ');
  useEffect(() => rows.measure(), [rows, lineKeys, days, cells, density]);

  const chosenRef = useRef(chosen);
  useEffect(() => {
    chosenRef.current = chosen;
  });
  const placeOn = useRef<(dragged: Dragged, channelId: string, day: string, slot: PlanItem | null) => void>(() => undefined);
  useEffect(() => {
    placeOn.current = (dragged, channelId, day, slot) => {
      const { brand: own, today: day0 } = contexts.of(channelId);
      if ((dragged.kind === 'items' || dragged.kind === 'piece') && dragged.brand !== own.slug) return toast('problem', 'It belongs to another brand, and goes out on the channels of that brand alone.');
      const actions = actionsOf(own.slug);
      const spotAt = (time: string): { readonly spot: Spot; readonly wall: string } => (slot?.slotKey ? { spot: { kind: 'slot', slotKey: slot.slotKey }, wall: `${slot.day}T${slot.time}` } : { spot: { kind: 'at', wall: `${day}T${time}` }, wall: `${day}T${time}` });
      if (dragged.kind === 'items') {
        const { spot, wall } = spotAt(dragged.time);
        const items = [...dragged.postIds.map((postId) => ({ postId, entryId: null })), ...dragged.entryIds.map((entryId) => ({ postId: null, entryId }))];
        void actions.move(items, spot, wall);
      } else if (dragged.kind === 'piece') {
        const usual = day === day0 ? wallTimeOf(Math.ceil((nowMs + 3_600_000) / 900_000) * 900_000, own.zone) : `${day}T12:00`;
        void actions.place({ id: dragged.pieceId }, [channelId], spotAt(usual.startsWith(day) ? usual.slice(11) : '23:45').spot);
      }
    };
  });
  const handlers = useMemo<LaneHandlers>(
    () => ({
      onPress: (item, event) => {
        if (item.state === 'proposed') return document.getElementById(`placing ${item.slotKey ?? ''}`)?.focus();
        const adds = event.ctrlKey || event.metaKey || event.shiftKey;
        if (!adds || !isMovable(item)) return setOpen(item);
        setChosen((now) => {
          const next = new Map(now);
          if (!next.delete(item.key)) next.set(item.key, item);
          return next;
        });
      },
      onEmpty: (channelId, day) => setOpen(emptyRef.current(channelId, day)),
      onDrop: (...dropped) => placeOn.current(...dropped),
      onStop: (at) => setStop((now) => (now && now.channelId === at.channelId && now.day === at.day && now.index === at.index ? now : at)),
      chosen: () => [...chosenRef.current.values()],
    }),
    [],
  );
  const emptyRef = useRef<(channelId: string, day: string) => PlanItem>((channelId, day) => emptyItem(channelId, day, nowMs, brand.zone));
  useEffect(() => {
    emptyRef.current = (channelId, day) => emptyItem(channelId, day, nowMs, contexts.of(channelId).brand.zone);
  });

  const goTo = (next: Stop): void => {
    setStop(next);
    rows.scrollToIndex(lines.findIndex(({ channel }) => channel?.id === next.channelId));
    requestAnimationFrame(() => {
      const cell = scroller.current?.querySelector<HTMLElement>(`[data-cell="${cellKey(next.channelId, next.day)}"]`);
      const stops = cell?.querySelectorAll<HTMLElement>('[data-item], [tabindex]');
      (stops?.[next.index] ?? stops?.[0])?.focus();
    });
  };
  const onKeyDown = (event: React.KeyboardEvent): void => {
    const at = stop;
    if (!at) return;
    const [row, column] = [shown.findIndex(({ id }) => id === at.channelId), days.indexOf(at.day)];
    const items = cells.get(cellKey(at.channelId, at.day)) ?? [];
    const item = items[at.index];
    const step = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
    if (event.altKey && step !== 0) {
      event.preventDefault();
      const own = contexts.of(at.channelId);
      if (item && roleMay(own.brand.role, 'send') && isMovable(item)) {
        const moved = chosen.has(item.key) ? [...chosen.values()].filter(({ channelId }) => contexts.of(channelId) === own) : [item];
        void actionsOf(own.brand.slug).shift(moved, step);
        goTo({ ...at, day: addDays(at.day, step), index: 0 });
      }
      return;
    }
    if (event.key === ' ' && item && isMovable(item)) {
      event.preventDefault();
      handlers.onPress(item, { ctrlKey: true, metaKey: false, shiftKey: false });
      return;
    }
    if (step !== 0) {
      const day = days[column + step];
      if (day !== undefined) goTo({ ...at, day, index: 0 });
    } else if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
      const down = event.key === 'ArrowDown';
      const within = at.index + (down ? 1 : -1);
      const channel = shown[row + (down ? 1 : -1)];
      if (within >= 0 && within < items.length) goTo({ ...at, index: within });
      else if (channel) goTo({ channelId: channel.id, day: at.day, index: down ? 0 : Math.max(0, (cells.get(cellKey(channel.id, at.day))?.length ?? 1) - 1) });
    } else return;
    event.preventDefault();
  };
  const current: Stop | null = stop && shown.some(({ id }) => id === stop.channelId) && isDay(stop.day) && days.includes(stop.day) ? stop : shown[0] ? { channelId: shown[0].id, day: days[0] ?? from, index: 0 } : null;
  const chosenKeys = [...chosen.keys()].join('\n');
  const laneOf = new Map(lanes.lanes.map((lane) => [lane.channelId, lane]));
  return (
    <main className="flex min-h-0 flex-1 flex-col px-4 py-4">
      <PlanBar
        title="Lanes"
        contexts={contexts}
        brands={props.brands}
        query={query}
        onChange={setQuery}
        steps={{ back: () => setQuery({ from: addDays(from, -count) }), today: () => setQuery({ from: undefined }), on: () => setQuery({ from: addDays(from, count) }), words: `${dayWords(from, true)} – ${dayWords(days.at(-1) ?? from, true)}` }}
        zoom={<Zoom days={count} onChange={(next) => setQuery({ days: next === USUAL_DAYS ? undefined : next })} />}
        actions={
          <>
            {mayMove && !isProposing && <Button onClick={() => proposal.propose(proposal.days)}>Fill open slots</Button>}
            <HoldButton context={context} />
          </>
        }
      />
      {context.problem !== null && <p className="mb-2 text-sm text-coral-ink">{context.problem}</p>}
      {lanes.problem !== null && <p className="mb-2 text-sm text-coral-ink">{lanes.problem}</p>}
      {lanes.isCut && <p className="mb-2 text-sm text-marigold-ink">There is more in these days than is shown. Choose fewer channels or days.</p>}
      {chosen.size > 0 && <BulkBar items={[...chosen.values()]} contexts={contexts} actionsOf={actionsOf} onClear={() => setChosen(new Map())} />}
      <div className="flex min-h-0 flex-1 gap-3 max-lg:flex-col">
        <div ref={scroller} role="grid" aria-label="Lanes" aria-rowcount={shown.length} onKeyDown={onKeyDown} className="min-h-0 min-w-0 flex-1 overflow-auto rounded-md border border-line bg-panel">
          <div style={{ width: CHANNEL_PX + RUNWAY_PX + count * columnPx }} className="relative">
            <LaneHead days={days} columnPx={columnPx} density={density} today={today} named={lanes.days} campaigns={[...campaigns.values()]} zone={brand.zone} />
            <div role="rowgroup" style={{ height: rows.getTotalSize() }} className="relative">
              {rows.getVirtualItems().map((row) => {
                const line = lines[row.index];
                if (!line) return null;
                const { channel, context: own } = line;
                return (
                  <div key={row.key} role="presentation" className="absolute inset-x-0" style={{ top: row.start, height: row.size }}>
                    {channel ? (
                      <LaneRow channel={channel} sheet={own.sheets.get(channel.network)} days={days} cells={cells} columnPx={columnPx} density={density} brand={own.brand.slug} today={own.today} nowMs={Math.floor(nowMs / 3_600_000) * 3_600_000} themes={own.themes} lane={laneOf.get(channel.id)} mayMove={roleMay(own.brand.role, 'send')} stop={current?.channelId === channel.id ? current : null} chosenKeys={chosenKeys} handlers={handlers} />
                    ) : (
                      <BrandLine brand={own.brand} />
                    )}
                    {channel && <NowLine context={own} days={days} columnPx={columnPx} />}
                  </div>
                );
              })}
            </div>
          </div>
        </div>
        {isProposing && <ProposalPane context={context} proposal={proposal} />}
      </div>
      <WaitingStrip context={context} actions={actionsOf(brand.slug)} />
      {open && <ItemDialog item={open} context={contexts.of(open.channelId)} actions={actionsOf(contexts.of(open.channelId).brand.slug)} onClose={() => setOpen(null)} />}
    </main>
  );
}

/** A line of the lanes: a channel's, or the name of the brand that the next ones belong to. */
interface Line {
  readonly key: string;
  readonly context: PlanContext;
  readonly channel: PlanChannel | null;
}

const NO_LINES: readonly Line[] = [];

/** The channels shown, brand after brand; a brand is named where there are several. */
function linesOf({ all }: PlanContexts, chosen: string | undefined): readonly Line[] {
  const ids = chosen?.split(',').filter((id) => id !== '') ?? [];
  return all.flatMap((context) => {
    const channels = ids.length === 0 ? context.channels : context.channels.filter(({ id }) => ids.includes(id));
    const named = all.length > 1 && channels.length > 0 ? [{ key: context.brand.slug, context, channel: null }] : [];
    return [...named, ...channels.map((channel): Line => ({ key: channel.id, context, channel }))];
  });
}

function BrandLine({ brand }: { readonly brand: PlanBrand }) {
  return (
    <div role="row" className="flex h-full border-b border-line bg-sunk">
      <div role="rowheader" className="sticky left-0 px-3 text-sm leading-7 font-semibold">
        {brand.name} <span className="ml-1 text-xs font-normal text-quiet">{zonePlace(brand.zone)} time</span>
      </div>
    </div>
  );
}

/** Where the present stands in a brand's own time. */
function NowLine({ context: { brand, today, nowMs }, days, columnPx }: { readonly context: PlanContext; readonly days: readonly string[]; readonly columnPx: number }) {
  const column = days.indexOf(today);
  if (column < 0) return null;
  const time = wallTimeOf(nowMs, brand.zone);
  const minutes = Number(time.slice(11, 13)) * 60 + Number(time.slice(14));
  return <span aria-hidden className="pointer-events-none absolute inset-y-0 z-[5] w-0.5 bg-house" style={{ left: CHANNEL_PX + (column + minutes / 1_440) * columnPx }} />;
}

/** An empty place of a channel, for the dialog that fills it: at noon, or soon when that is today. */
function emptyItem(channelId: string, day: string, nowMs: number, zone: string): PlanItem {
  const soon = wallTimeOf(Math.ceil((nowMs + 3_600_000) / 900_000) * 900_000, zone);
  const wall = soon.startsWith(day) ? soon : `${day}T12:00`;
  return { key: `${channelId} ${day}`, state: 'open', channelId, atMs: nowMs, day: wall.slice(0, 10), time: wall.slice(11), name: '', pieceId: null, pieceKind: null, themeId: null, campaignId: null, postId: null, deliveryId: null, entryId: null, slotKey: null, revision: null, hasChanged: false, isRotation: false, problem: null, why: null };
}

const zoomSteps = [3, 7, 11, 14, 21, 28, 42, 56, 84] as const;

/** How many days are shown, from three to twelve weeks. */
function Zoom({ days, onChange }: { readonly days: number; readonly onChange: (days: number) => void }) {
  const at = zoomSteps.findIndex((step) => step >= days);
  const words = (count: number): string => (count < 14 || count % 7 !== 0 ? `${count} days` : `${count / 7} weeks`);
  return (
    <label className="flex items-center gap-2 text-xs text-quiet">
      <span className="w-14 text-right tabular-nums">{words(Math.min(MAX_DAYS, Math.max(MIN_DAYS, days)))}</span>
      <input type="range" aria-label="Days shown" aria-valuetext={words(days)} min={0} max={zoomSteps.length - 1} value={at < 0 ? zoomSteps.length - 1 : at} onChange={(event) => onChange(zoomSteps[Number(event.target.value)] ?? USUAL_DAYS)} className="w-24 accent-house" />
    </label>
  );
}

/** The width of an element, as it changes; a usual one until it is known. */
function useWidth(element: React.RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(1_240);
  useEffect(() => {
    const current = element.current;
    if (!current) return undefined;
    const observer = new ResizeObserver(() => setWidth(current.clientWidth));
    observer.observe(current);
    return () => observer.disconnect();
  }, [element]);
  return width;
}
