import { useVirtualizer } from '@tanstack/react-virtual';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { roleMay } from '../../../core/access/access.ts';
import { cellKey, cellsOf, oncePerLane, type PlanItem } from '../../../core/plan/plan-items.ts';
import { addDays, daysFrom, isDay } from '../../../core/time/day.ts';
import { wallTimeOf } from '../../../core/time/wall-time.ts';
import { Queries } from '../../ui/Queries.tsx';
import { Button } from '../../ui/Button.tsx';
import { BulkBar } from '../BulkBar.tsx';
import type { Dragged } from '../drag.ts';
import { HoldButton } from '../HoldButton.tsx';
import { ItemDialog } from '../ItemDialog.tsx';
import { PlanBar } from '../PlanBar.tsx';
import { MAX_DAYS, MIN_DAYS } from '../plan-query.ts';
import { useLanes, usePlanContext, usePlanQuery, type PlanProps } from '../use-plan.ts';
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

export default function LanesView(props: PlanProps) {
  return (
    <Queries>
      <LanesOf {...props} />
    </Queries>
  );
}

function LanesOf(props: PlanProps) {
  const context = usePlanContext(props);
  const { brand, today, nowMs, channels, sheets, themes, campaigns } = context;
  const [query, setQuery] = usePlanQuery();
  const from = query.from ?? addDays(today, -1);
  const count = query.days ?? USUAL_DAYS;
  const days = useMemo(() => daysFrom(from, addDays(from, count - 1)), [from, count]);
  const lanes = useLanes(brand.slug, from, count, query);
  const actions = usePlanActions(brand);
  const mayMove = roleMay(brand.role, 'send');
  const scroller = useRef<HTMLDivElement>(null);
  const width = useWidth(scroller);
  const columnPx = Math.max(MIN_COLUMN_PX, (width - CHANNEL_PX - RUNWAY_PX) / count);
  const density: Density = columnPx >= 66 ? 'wide' : columnPx >= 30 ? 'middle' : 'small';
  const plannedCells = useMemo(() => cellsOf(oncePerLane(lanes.items)), [lanes.items]);
  // Shows rows once their heights and the campaigns are known, so that the layout does not shift.
  const isReady = (context.plan !== null || context.problem !== null) && !lanes.isPending;
  const shown = useMemo(() => {
    if (!isReady) return [];
    const ids = query.channels?.split(',').filter((id) => id !== '') ?? [];
    return ids.length === 0 ? channels : channels.filter(({ id }) => ids.includes(id));
  }, [isReady, channels, query.channels]);
  const { isOpen: isProposing, proposal } = usePlanProposal(brand.slug, query.channels?.split(',').filter((id) => id !== '') ?? []);
  const { placings } = proposal;
  const cells = useMemo(() => (isProposing ? withProposed(plannedCells, placings) : plannedCells), [plannedCells, isProposing, placings]);
  const [open, setOpen] = useState<PlanItem | null>(null);
  const [chosen, setChosen] = useState<ReadonlyMap<string, PlanItem>>(new Map());
  const [stop, setStop] = useState<Stop | null>(null);

  const rowPx = useCallback((index: number): number => {
    const channel = shown[index];
    const most = channel ? Math.max(1, ...days.map((day) => cells.get(cellKey(channel.id, day))?.length ?? 0)) : 1;
    return Math.max(MIN_ROW_PX, most * (heights[density] + 3) + 12);
  }, [shown, days, cells, density]);
  const rows = useVirtualizer({ count: shown.length, getScrollElement: () => scroller.current, estimateSize: rowPx, getItemKey: (index) => shown[index]?.id ?? index, overscan: 3 });
  useEffect(() => rows.measure(), [rows, rowPx]);

  const chosenRef = useRef(chosen);
  useEffect(() => {
    chosenRef.current = chosen;
  });
  const placeOn = useRef<(dragged: Dragged, channelId: string, day: string, slot: PlanItem | null) => void>(() => undefined);
  useEffect(() => {
    placeOn.current = (dragged, channelId, day, slot) => {
      const spotAt = (time: string): { readonly spot: Spot; readonly wall: string } => (slot?.slotKey ? { spot: { kind: 'slot', slotKey: slot.slotKey }, wall: `${slot.day}T${slot.time}` } : { spot: { kind: 'at', wall: `${day}T${time}` }, wall: `${day}T${time}` });
      if (dragged.kind === 'items') {
        const { spot, wall } = spotAt(dragged.time);
        const items = [...dragged.postIds.map((postId) => ({ postId, entryId: null })), ...dragged.entryIds.map((entryId) => ({ postId: null, entryId }))];
        void actions.move(items, spot, wall);
      } else if (dragged.kind === 'piece') {
        const usual = day === today ? wallTimeOf(Math.ceil((nowMs + 3_600_000) / 900_000) * 900_000, brand.zone) : `${day}T12:00`;
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
      onEmpty: (channelId, day) => setOpen(emptyItem(channelId, day, nowRef.current, brand.zone)),
      onDrop: (...dropped) => placeOn.current(...dropped),
      onStop: (at) => setStop((now) => (now && now.channelId === at.channelId && now.day === at.day && now.index === at.index ? now : at)),
      chosen: () => [...chosenRef.current.values()],
    }),
    [brand.zone],
  );
  const nowRef = useRef(nowMs);
  useEffect(() => {
    nowRef.current = nowMs;
  });

  const goTo = (next: Stop): void => {
    setStop(next);
    const row = shown.findIndex(({ id }) => id === next.channelId);
    rows.scrollToIndex(row);
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
      if (item && mayMove && isMovable(item)) {
        const moved = chosen.has(item.key) ? [...chosen.values()] : [item];
        void actions.shift(moved, step);
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
  const nowColumn = days.indexOf(today);
  const minutes = Number(wallTimeOf(nowMs, brand.zone).slice(11, 13)) * 60 + Number(wallTimeOf(nowMs, brand.zone).slice(14));
  const laneOf = new Map((lanes.data?.lanes ?? []).map((lane) => [lane.channelId, lane]));
  return (
    <main className="flex min-h-0 flex-1 flex-col px-4 py-4">
      <PlanBar
        title="Lanes"
        context={context}
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
      {lanes.isError && <p className="mb-2 text-sm text-coral-ink">{lanes.error.message}</p>}
      {lanes.data?.isCut && <p className="mb-2 text-sm text-marigold-ink">There is more in these days than is shown. Choose fewer channels or days.</p>}
      {chosen.size > 0 && <BulkBar items={[...chosen.values()]} context={context} actions={actions} onClear={() => setChosen(new Map())} />}
      <div className="flex min-h-0 flex-1 gap-3 max-lg:flex-col">
        <div ref={scroller} role="grid" aria-label="Lanes" aria-rowcount={shown.length} onKeyDown={onKeyDown} className="min-h-0 min-w-0 flex-1 overflow-auto rounded-md border border-line bg-panel">
          <div style={{ width: CHANNEL_PX + RUNWAY_PX + count * columnPx }} className="relative">
            <LaneHead days={days} columnPx={columnPx} density={density} today={today} named={lanes.data?.days ?? []} campaigns={[...campaigns.values()]} zone={brand.zone} />
            <div role="rowgroup" style={{ height: rows.getTotalSize() }} className="relative">
              {rows.getVirtualItems().map((row) => {
                const channel = shown[row.index];
                if (!channel) return null;
                return (
                  <div key={row.key} role="presentation" className="absolute inset-x-0" style={{ top: row.start, height: row.size }}>
                    <LaneRow channel={channel} sheet={sheets.get(channel.network)} days={days} cells={cells} columnPx={columnPx} density={density} brand={brand.slug} today={today} nowMs={Math.floor(nowMs / 3_600_000) * 3_600_000} themes={themes} lane={laneOf.get(channel.id)} mayMove={mayMove} stop={current?.channelId === channel.id ? current : null} chosenKeys={chosenKeys} handlers={handlers} />
                  </div>
                );
              })}
              {nowColumn >= 0 && <span aria-hidden className="pointer-events-none absolute inset-y-0 z-[5] w-0.5 bg-house" style={{ left: CHANNEL_PX + (nowColumn + minutes / 1_440) * columnPx }} />}
            </div>
          </div>
        </div>
        {isProposing && <ProposalPane context={context} proposal={proposal} />}
      </div>
      <WaitingStrip context={context} actions={actions} />
      {open && <ItemDialog item={open} context={context} actions={actions} onClose={() => setOpen(null)} />}
    </main>
  );
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
