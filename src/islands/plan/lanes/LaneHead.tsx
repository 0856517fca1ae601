import { memo } from 'react';
import { daysBetween, weekdayOf } from '../../../core/time/day.ts';
import { zoneNote } from '../PlanBar.tsx';
import { ThemeTile, toneGround } from '../ThemeTile.tsx';
import type { Campaign, Lanes } from '../use-plan.ts';
import type { Density } from './LaneTile.tsx';

interface LaneHeadProps {
  readonly days: readonly string[];
  readonly columnPx: number;
  readonly density: Density;
  readonly today: string;
  readonly named: Lanes['days'];
  readonly campaigns: readonly Campaign[];
  readonly zone: string;
}

const weekdays = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'] as const;

/** `Fri 27`, with the month where it begins. */
export function dayWords(day: string, isFirst: boolean): string {
  const date = Number(day.slice(8));
  const month = months[Number(day.slice(5, 7)) - 1] ?? '';
  return `${weekdays[weekdayOf(day) - 1] ?? ''} ${date}${isFirst || date === 1 ? ` ${month}` : ''}`;
}

/** Columns that are narrower than this have no room for the weekday beside the date. */
const ONE_LINE_PX = 62;

/** A day's name as its column has room for: in one line, with the weekday above, or the date alone. */
function DayName({ day, isFirst, density, columnPx }: { readonly day: string; readonly isFirst: boolean; readonly density: Density; readonly columnPx: number }) {
  const date = Number(day.slice(8));
  if (density === 'small') return <span className="block truncate tabular-nums">{date}</span>;
  if (columnPx >= ONE_LINE_PX) return <span className="block truncate tabular-nums">{dayWords(day, isFirst)}</span>;
  return (
    <span className="block text-xs tabular-nums">
      <span className="sr-only">{dayWords(day, isFirst)}</span>
      <span aria-hidden className="block text-[11px] leading-3.5 font-normal">
        {weekdays[weekdayOf(day) - 1]}
      </span>
      <span aria-hidden>{date}</span>
    </span>
  );
}

/** The days with what they are called, and the campaigns that run over them. */
export const LaneHead = memo(function LaneHead({ days, columnPx, density, today, named, campaigns, zone }: LaneHeadProps) {
  const [first = '', last = ''] = [days[0], days.at(-1)];
  const shown = campaigns.filter(({ fromDay, untilDay }) => fromDay <= last && untilDay >= first);
  return (
    <div role="rowgroup" className="sticky top-0 z-20 bg-panel">
      <div role="row" className="flex border-b border-line">
        <div role="columnheader" className="left-0 z-10 w-46 group-data-narrow/lanes:w-29 group-data-wide/lanes:sticky shrink-0 border-r border-line bg-panel px-3 py-1.5 text-xs text-quiet" suppressHydrationWarning>
          {zoneNote(zone)}
        </div>
        {days.map((day, index) => {
          const names = named.filter(({ day: from, until }) => from <= day && day <= until);
          return (
            <div key={day} role="columnheader" style={{ width: columnPx }} aria-current={day === today ? 'date' : undefined} className={`min-w-0 shrink-0 overflow-hidden border-r border-line py-1 leading-4 ${density === 'small' ? 'px-0 text-center text-[11px]' : columnPx < ONE_LINE_PX ? 'px-1 text-sm' : 'px-1.5 text-sm'} ${day === today ? 'font-bold text-house' : 'font-semibold'} ${weekdayOf(day) >= 6 ? 'bg-wall' : ''}`}>
              <DayName day={day} isFirst={index === 0} density={density} columnPx={columnPx} />
              {names.length > 0 && (
                <span className="block truncate text-[11px] leading-4 font-normal text-quiet" title={names.map(({ name, of }) => (of === 'pause' ? `Pause: ${name}` : name)).join(', ')}>
                  {density === 'small' ? '•' : names.map(({ name, of }) => (of === 'pause' ? `Pause: ${name}` : name)).join(', ')}
                </span>
              )}
            </div>
          );
        })}
        <div role="columnheader" className="right-0 z-10 w-21 group-data-wide/lanes:sticky group-data-narrow/lanes:static! shrink-0 border-l border-line bg-panel px-2.5 py-1.5 text-xs text-quiet">
          Runway
        </div>
      </div>
      {shown.length > 0 && (
        <div className="relative border-b border-line bg-panel" style={{ height: shown.length * 18 + 4, width: 184 + days.length * columnPx + 84 }}>
          {shown.map((campaign, index) => {
            const from = Math.max(0, daysBetween(first, campaign.fromDay));
            const until = Math.min(days.length - 1, daysBetween(first, campaign.untilDay));
            return (
              <span key={campaign.id} className="absolute flex h-4 items-center gap-1 overflow-hidden text-[11px] leading-4" style={{ left: 184 + from * columnPx + 2, width: Math.max(20, (until - from + 1) * columnPx - 4), top: 2 + index * 18 }}>
                <ThemeTile theme={campaign} />
                <span className="shrink-0 truncate">{campaign.name}</span>
                <span aria-hidden className={`h-0.5 flex-1 rounded-full ${toneGround(campaign.tone)}`} />
              </span>
            );
          })}
        </div>
      )}
    </div>
  );
});
