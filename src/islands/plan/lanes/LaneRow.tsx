import { memo } from 'react';
import { cellKey, type PlanItem } from '../../../core/plan/plan-items.ts';
import type { Theme } from '../../../core/plan/plan.ts';
import { weekdayOf } from '../../../core/time/day.ts';
import { isShallowEqual } from '../../ui/shallow-equal.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { planStateWord } from '../state-sign.tsx';
import type { Lanes, PlanChannel, PlanSheet } from '../use-plan.ts';
import { isMovable, LaneTile, type Density } from './LaneTile.tsx';
import { Runway } from './Runway.tsx';

/** Where the keyboard stands in the lanes. */
export interface Stop {
  readonly channelId: string;
  readonly day: string;
  readonly index: number;
}

export interface LaneHandlers {
  readonly onPress: (item: PlanItem, event: { readonly ctrlKey: boolean; readonly metaKey: boolean; readonly shiftKey: boolean }) => void;
  readonly onEmpty: (channelId: string, day: string) => void;
  readonly onStop: (stop: Stop) => void;
}

interface LaneRowProps {
  readonly channel: PlanChannel;
  readonly sheet: PlanSheet | undefined;
  readonly days: readonly string[];
  /** So many of the days are drawn already; the others keep their place. */
  readonly drawnDays: number;
  readonly cells: ReadonlyMap<string, readonly PlanItem[]>;
  readonly columnPx: number;
  readonly density: Density;
  readonly brand: string;
  readonly today: string;
  readonly nowMs: number;
  readonly themes: ReadonlyMap<string, Theme>;
  readonly lane: Lanes['lanes'][number] | undefined;
  readonly mayMove: boolean;
  /** The keyboard’s place in this row; null when it is in another one. */
  readonly stop: Stop | null;
  /** Keys of chosen items, joined: a row is drawn anew only when its own change. */
  readonly chosenKeys: string;
  readonly handlers: LaneHandlers;
}

const NONE: readonly PlanItem[] = [];

/** One channel's time line. */
export const LaneRow = memo(function LaneRow(props: LaneRowProps) {
  const { channel, sheet, days, drawnDays, cells, columnPx, lane, nowMs } = props;
  return (
    <div role="row" className="flex h-full border-b border-line">
      <div role="rowheader" className="left-0 z-10 flex w-46 group-data-narrow/lanes:w-29 group-data-wide/lanes:sticky shrink-0 items-center gap-2.5 border-r border-line bg-panel px-3">
        {sheet && <ChannelBadge badge={sheet.badge} size={20} />}
        <span className="min-w-0">
          <span className="block truncate text-sm font-semibold">{sheet?.name ?? channel.name}</span>
          <span className="block truncate text-xs text-quiet">{channel.handle}</span>
        </span>
      </div>
      {days.slice(0, drawnDays).map((day) => (
        <Cell key={day} channel={channel} sheet={sheet} day={day} items={cells.get(cellKey(channel.id, day)) ?? NONE} width={columnPx} density={props.density} brand={props.brand} today={props.today} themes={props.themes} mayMove={props.mayMove} stopIndex={props.stop?.day === day ? props.stop.index : null} chosenKeys={props.chosenKeys} handlers={props.handlers} />
      ))}
      {drawnDays < days.length && <div aria-hidden style={{ width: (days.length - drawnDays) * columnPx }} className="shrink-0" />}
      <div role="gridcell" className="right-0 z-10 flex w-21 group-data-wide/lanes:sticky group-data-narrow/lanes:static! shrink-0 items-center border-l border-line bg-panel px-2.5">
        {lane && <Runway lane={lane} nowMs={nowMs} />}
      </div>
    </div>
  );
}, isSameRow);

const sameItems = (before: readonly PlanItem[] = NONE, now: readonly PlanItem[] = NONE): boolean => before === now || (before.length === now.length && before.every((item, index) => item === now[index]));

function isSameRow({ cells: before, ...was }: LaneRowProps, { cells: now, ...is }: LaneRowProps): boolean {
  return isShallowEqual(was, is) && (before === now || is.days.every((day) => sameItems(before.get(cellKey(is.channel.id, day)), now.get(cellKey(is.channel.id, day)))));
}

interface CellProps extends Pick<LaneRowProps, 'channel' | 'sheet' | 'density' | 'brand' | 'today' | 'themes' | 'mayMove' | 'chosenKeys' | 'handlers'> {
  readonly day: string;
  readonly items: readonly PlanItem[];
  readonly width: number;
  /** Which of its items the keyboard is at; null when it is elsewhere. */
  readonly stopIndex: number | null;
}

const isSameCell = ({ items: before, ...was }: CellProps, { items: now, ...is }: CellProps): boolean => isShallowEqual(was, is) && sameItems(before, now);

const Cell = memo(function Cell({ channel, sheet, day, items, width, density, brand, today, themes, mayMove, stopIndex, chosenKeys, handlers }: CellProps) {
  const isHere = stopIndex !== null;
  const isWeekend = weekdayOf(day) >= 6;
  const chosen = new Set(chosenKeys.split('\n'));
  const place = `${sheet?.name ?? channel.name} ${channel.handle}`;
  return (
    <div
      role="gridcell"
      data-cell={cellKey(channel.id, day)}
      style={{ width }}
      className={`relative shrink-0 border-r border-line px-1.5 py-1.5 last:border-r-0 ${density === 'small' ? 'px-0.5' : ''} ${day < today ? 'bg-wall' : isWeekend ? 'bg-wall/60' : ''} data-drop-target:bg-house-soft`}
    >
      <div className={`flex flex-col ${density === 'wide' ? 'gap-1' : 'gap-0.5'}`}>
        {items.map((item, index) => (
          <LaneTile
            key={item.key}
            item={item}
            brand={brand}
            theme={item.themeId === null ? undefined : themes.get(item.themeId)}
            density={density}
            label={`${item.name || (item.state === 'open' ? 'Open slot' : 'Nothing yet')}, ${place}, ${item.day} ${item.time}, ${planStateWord(item.state)}${item.hasChanged ? ', piece has changed' : ''}${mayMove && isMovable(item) ? '. Alt and arrows move it by a day' : ''}`}
            isFocusable={stopIndex === index}
            isChosen={chosen.has(item.key)}
            mayMove={mayMove}
            onPress={handlers.onPress}
            onFocus={() => handlers.onStop({ channelId: channel.id, day, index })}
          />
        ))}
      </div>
      {items.length === 0 && day >= today && mayMove && (
        <button
          type="button"
          aria-label={`${place}, ${day}: nothing planned. Add`}
          tabIndex={isHere ? 0 : -1}
          onFocus={() => handlers.onStop({ channelId: channel.id, day, index: 0 })}
          onClick={() => handlers.onEmpty(channel.id, day)}
          className="absolute inset-0.5 grid place-items-center rounded-md text-lg text-transparent hover:bg-sunk hover:text-quiet focus-visible:text-quiet"
        >
          +
        </button>
      )}
      {items.length === 0 && !(day >= today && mayMove) && <span tabIndex={isHere ? 0 : -1} onFocus={() => handlers.onStop({ channelId: channel.id, day, index: 0 })} className="absolute inset-0.5 block" aria-label={`${place}, ${day}: nothing`} role="img" />}
    </div>
  );
}, isSameCell);
