import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import { roleMay } from '../../../core/access/access.ts';
import { cellKey, type PlanItem } from '../../../core/plan/plan-items.ts';
import { addDays } from '../../../core/time/day.ts';
import { wallTimeOf, zonePlace } from '../../../core/time/wall-time.ts';
import { toast } from '../../ui/toast.tsx';
import { useInTurn } from '../../ui/use-in-turn.ts';
import type { PlanBrand, PlanChannel, PlanContext, PlanContexts, useLanes } from '../use-plan.ts';
import type { PlanActions, Spot } from '../use-plan-actions.ts';
import { LaneHead } from './LaneHead.tsx';
import { LaneRow, type LaneHandlers, type Stop } from './LaneRow.tsx';
import { isMovable, type Density } from './LaneTile.tsx';
import { useLaneDrag } from './use-lane-drag.ts';

const [CHANNEL_PX, RUNWAY_PX] = [184, 84];
/** On a phone, and in a window enlarged to twice its size, few days are seen well and the others are scrolled to. */
const NARROW = { belowPx: 640, channelPx: 116, columnPx: 66, columnOfManyPx: 30, manyDays: 14 } as const;
const MIN_COLUMN_PX = 22;
const heights: Readonly<Record<Density, number>> = { wide: 58, middle: 32, small: 18 };
const MIN_ROW_PX = 64;
/** The line that names a brand. */
const BRAND_PX = 29;
/** Rows drawn beyond the view, which a scroll reaches before they would have to be drawn. */
const OVERSCAN = 5;
/** A row that comes into view is drawn in so many frames. */
const ROW_PARTS = 6;
const HOUR_MS = 3_600_000;

interface LaneGridProps {
  readonly contexts: PlanContexts;
  readonly days: readonly string[];
  readonly lines: readonly Line[];
  readonly cells: ReadonlyMap<string, readonly PlanItem[]>;
  readonly lanes: ReturnType<typeof useLanes>;
  readonly chosen: ReadonlyMap<string, PlanItem>;
  readonly actionsOf: (brand: string) => PlanActions;
  readonly onOpen: (item: PlanItem) => void;
  readonly onChoose: (item: PlanItem) => void;
}

/** Draws the lanes with their days. It is a component of its own so that scrolling renders new rows only. */
export function LaneGrid({ contexts, days, lines, cells, lanes, chosen, actionsOf, onOpen, onChoose }: LaneGridProps) {
  const { brand, today, nowMs, campaigns } = contexts.all[0];
  const scroller = useRef<HTMLDivElement>(null);
  const width = useWidth(scroller);
  const isNarrow = width < NARROW.belowPx;
  const channelPx = isNarrow ? NARROW.channelPx : CHANNEL_PX;
  const minColumnPx = !isNarrow ? MIN_COLUMN_PX : days.length > NARROW.manyDays ? NARROW.columnOfManyPx : NARROW.columnPx;
  const columnPx = Math.max(minColumnPx, (width - channelPx - RUNWAY_PX) / days.length);
  const density: Density = columnPx >= 66 ? 'wide' : columnPx >= 30 ? 'middle' : 'small';
  const shown = useMemo(() => lines.flatMap(({ channel }) => channel ?? []), [lines]);
  const [stop, setStop] = useState<Stop | null>(null);

  const rowPx = (index: number): number => {
    const channel = lines[index]?.channel;
    if (!channel) return BRAND_PX;
    const most = Math.max(1, ...days.map((day) => cells.get(cellKey(channel.id, day))?.length ?? 0));
    return Math.max(MIN_ROW_PX, most * (heights[density] + 3) + 12);
  };
  const rows = useVirtualizer({ count: lines.length, getScrollElement: () => scroller.current, estimateSize: rowPx, getItemKey: (index) => lines[index]?.key ?? index, overscan: OVERSCAN, useFlushSync: false });
  useEffect(() => rows.measure(), [rows, lines, days, cells, density]);

  const inView = rows.getVirtualItems();
  const drawn = useInTurn(inView, ROW_PARTS);

  const laneDrag = useLaneDrag({
    itemOf: (key) => lanes.items.find((item) => item.key === key),
    together: (item) => (chosen.has(item.key) ? [...chosen.values()].filter(({ channelId }) => contexts.of(channelId) === contexts.of(item.channelId)) : [item]),
    brandOf: (channelId) => contexts.of(channelId).brand.slug,
    mayDrop: (channelId, day) => roleMay(contexts.of(channelId).brand.role, 'send') && day >= contexts.of(channelId).today,
    onDrop: (dragged, channelId, day) => {
      const { brand: own, today: ownToday } = contexts.of(channelId);
      if (dragged.kind !== 'items' && dragged.kind !== 'piece') return;
      if (dragged.brand !== own.slug) return toast('problem', 'It belongs to another brand, and goes out on the channels of that brand alone.');
      const actions = actionsOf(own.slug);
      const slot = cells.get(cellKey(channelId, day))?.find(({ state }) => state === 'open' || state === 'proposed' || state === 'waiting' || state === 'rotation');
      const spotAt = (time: string): { readonly spot: Spot; readonly wall: string } => (slot?.slotKey ? { spot: { kind: 'slot', slotKey: slot.slotKey }, wall: `${slot.day}T${slot.time}` } : { spot: { kind: 'at', wall: `${day}T${time}` }, wall: `${day}T${time}` });
      if (dragged.kind === 'items') {
        const { spot, wall } = spotAt(dragged.time);
        void actions.move([...dragged.postIds.map((postId) => ({ postId, entryId: null })), ...dragged.entryIds.map((entryId) => ({ postId: null, entryId }))], spot, wall);
      } else {
        const usual = day === ownToday ? wallTimeOf(Math.ceil((nowMs + HOUR_MS) / 900_000) * 900_000, own.zone) : `${day}T12:00`;
        void actions.place({ id: dragged.pieceId }, [channelId], spotAt(usual.startsWith(day) ? usual.slice(11) : '23:45').spot);
      }
    },
  });
  const emptyRef = useRef<(channelId: string, day: string) => PlanItem>((channelId, day) => emptyItem(channelId, day, nowMs, brand.zone));
  useEffect(() => {
    emptyRef.current = (channelId, day) => emptyItem(channelId, day, nowMs, contexts.of(channelId).brand.zone);
  });
  const handlers = useMemo<LaneHandlers>(
    () => ({
      onPress: (item, event) => {
        if (item.state === 'proposed') return document.getElementById(`placing ${item.slotKey ?? ''}`)?.focus();
        const adds = event.ctrlKey || event.metaKey || event.shiftKey;
        return adds && isMovable(item) ? onChoose(item) : onOpen(item);
      },
      onEmpty: (channelId, day) => onOpen(emptyRef.current(channelId, day)),
      onStop: (at) => setStop((now) => (now && now.channelId === at.channelId && now.day === at.day && now.index === at.index ? now : at)),
    }),
    [onOpen, onChoose],
  );

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
      onChoose(item);
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
  const current = useMemo<Stop | null>(() => {
    if (stop && shown.some(({ id }) => id === stop.channelId) && days.includes(stop.day)) return stop;
    return shown[0] ? { channelId: shown[0].id, day: days[0] ?? '', index: 0 } : null;
  }, [stop, shown, days]);
  const chosenKeys = [...chosen.keys()].join('\n');
  const spans = useMemo(() => [...campaigns.values()], [campaigns]);
  const laneOf = useMemo(() => new Map(lanes.lanes.map((lane) => [lane.channelId, lane])), [lanes.lanes]);
  return (
    <div ref={scroller} role="grid" aria-label="Lanes" aria-rowcount={shown.length} onKeyDown={onKeyDown} {...laneDrag} data-wide={columnPx === minColumnPx || undefined} data-narrow={isNarrow || undefined} className="group/lanes min-h-0 min-w-0 flex-1 overflow-auto rounded-md border border-line bg-panel">
      <div style={{ width: channelPx + RUNWAY_PX + days.length * columnPx }} className="relative">
        <LaneHead days={days} columnPx={columnPx} density={density} today={today} named={lanes.days} campaigns={spans} zone={brand.zone} />
        <div role="rowgroup" style={{ height: rows.getTotalSize() }} className="relative">
          {inView.map((row) => {
            const line = lines[row.index];
            const parts = drawn.get(row.key);
            if (!line || parts === undefined) return null;
            const { channel, context: own } = line;
            return (
              <div key={row.key} role="presentation" className="absolute inset-x-0 contain-strict" style={{ top: row.start, height: row.size }}>
                {channel ? (
                  <LaneRow drawnDays={Math.ceil((days.length * parts) / ROW_PARTS)} channel={channel} sheet={own.sheets.get(channel.network)} days={days} cells={cells} columnPx={columnPx} density={density} brand={own.brand.slug} today={own.today} nowMs={Math.floor(nowMs / HOUR_MS) * HOUR_MS} themes={own.themes} lane={laneOf.get(channel.id)} mayMove={roleMay(own.brand.role, 'send')} stop={current?.channelId === channel.id ? current : null} chosenKeys={chosenKeys} handlers={handlers} />
                ) : (
                  <BrandLine brand={own.brand} />
                )}
                {channel && <NowLine context={own} days={days} columnPx={columnPx} channelPx={channelPx} />}
              </div>
            );
          })}
        </div>
      </div>
    </div>
  );
}

/** A line of the lanes: a channel's, or the name of the brand that the next ones belong to. */
export interface Line {
  readonly key: string;
  readonly context: PlanContext;
  readonly channel: PlanChannel | null;
}

/** The channels shown, brand after brand; a brand is named where there are several. */
export function linesOf({ all }: PlanContexts, chosen: string | undefined): readonly Line[] {
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
const NowLine = memo(function NowLine({ context: { brand, today, nowMs }, days, columnPx, channelPx }: { readonly context: PlanContext; readonly days: readonly string[]; readonly columnPx: number; readonly channelPx: number }) {
  const column = days.indexOf(today);
  if (column < 0) return null;
  const time = wallTimeOf(nowMs, brand.zone);
  const minutes = Number(time.slice(11, 13)) * 60 + Number(time.slice(14));
  return <span aria-hidden className="pointer-events-none absolute inset-y-0 z-[5] w-0.5 bg-house" style={{ left: channelPx + (column + minutes / 1_440) * columnPx }} />;
});

/** An empty place of a channel, for the dialog that fills it: at noon, or soon when that is today. */
function emptyItem(channelId: string, day: string, nowMs: number, zone: string): PlanItem {
  const soon = wallTimeOf(Math.ceil((nowMs + HOUR_MS) / 900_000) * 900_000, zone);
  const wall = soon.startsWith(day) ? soon : `${day}T12:00`;
  return { key: `${channelId} ${day}`, state: 'open', channelId, atMs: nowMs, day: wall.slice(0, 10), time: wall.slice(11), name: '', pieceId: null, pieceKind: null, themeId: null, campaignId: null, postId: null, deliveryId: null, entryId: null, slotKey: null, revision: null, hasChanged: false, isRotation: false, problem: null, why: null };
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
