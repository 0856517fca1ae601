import { useQuery } from '@tanstack/react-query';
import { getLanes } from '../../../contract/plan-contracts.ts';
import { itemsOf, oncePerLane, type PlanItem } from '../../../core/plan/plan-items.ts';
import type { Theme } from '../../../core/plan/plan.ts';
import { timeFindings, type TimeFinding } from '../../../core/plan/time-findings.ts';
import { seriesClock } from '../../../core/time/series-clock.ts';
import { WALL_TIME_PATTERN } from '../../../core/time/wall-time.ts';
import { addDays, isDay } from '../../../core/time/day.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { dayWords } from '../../plan/lanes/LaneHead.tsx';
import type { Lanes } from '../../plan/use-plan.ts';
import { ThemeTile } from '../../plan/ThemeTile.tsx';
import { call } from '../../ui/call.ts';
import type { Cut } from '../use-cuts.ts';

/** What is wrong with the shared moment, on the channels that go out at it. */
function findingsAt(wall: string, zone: string, nowMs: number, cuts: readonly Cut[], items: readonly PlanItem[], days: Lanes['days']): readonly TimeFinding[] {
  if (!WALL_TIME_PATTERN.test(wall) || !isDay(wall.slice(0, 10))) return [];
  const { atMs } = seriesClock(zone)(wall.slice(0, 10), wall.slice(11));
  // A moment that has passed is told beside its fields already.
  if (atMs <= nowMs) return [];
  const planned = items.filter(({ state }) => state !== 'open' && state !== 'waiting' && state !== 'rotation');
  const channels = cuts.map(({ channel, sheet }) => ({ id: channel.id, name: sheet.name, ...sheet.pace }));
  return timeFindings({ atMs, day: wall.slice(0, 10), zone, nowMs, channels, planned, days });
}

/** The lanes of the days around a choice: what else is out then on the chosen channels. */
export function AroundThen({ brand, cuts, wall, themes, nowMs }: { readonly nowMs: number; readonly brand: { readonly slug: string; readonly zone: string }; readonly cuts: readonly Cut[]; readonly wall: string; readonly themes: readonly Theme[] }) {
  const day = wall.slice(0, 10);
  const channels = [...new Map(cuts.map((cut) => [cut.channel.id, cut])).values()];
  const from = isDay(day) ? addDays(day, -1) : null;
  const ids = channels.map(({ channel }) => channel.id).toSorted().join(',');
  const lanes = useQuery({
    queryKey: ['plan', brand.slug, 'lanes', from, 3, 'around', ids],
    enabled: from !== null && ids !== '',
    queryFn: ({ signal }) => call(getLanes, { params: { brand: brand.slug }, query: { from: from ?? '', days: 3, channels: ids }, signal }),
    placeholderData: (before) => before,
  });
  if (from === null || ids === '') return null;
  const days = [from, day, addDays(day, 1)];
  const items = oncePerLane(lanes.data ? itemsOf(lanes.data) : []);
  const findings = findingsAt(wall, brand.zone, nowMs, channels, items, lanes.data?.days ?? []);
  return (
    <section aria-labelledby="around-then" className="mt-6 max-w-5xl">
      {findings.length > 0 && (
        <ul aria-label="About this moment" className="mb-4 space-y-1 text-sm">
          {findings.map(({ severity, sentence }) => (
            <li key={sentence} className={`flex items-start gap-2 ${severity === 'stops' ? 'text-coral-ink' : ''}`}>
              <svg viewBox="0 0 16 16" width="12" height="12" aria-hidden className="mt-1 shrink-0">
                <path d={severity === 'stops' ? 'M8 1L15 8L8 15L1 8Z' : 'M8 1.5L15 14.5H1Z'} fill={severity === 'stops' ? 'var(--c-coral)' : 'var(--c-marigold)'} />
              </svg>
              {sentence}
            </li>
          ))}
        </ul>
      )}
      <h2 id="around-then" className="mb-1 text-base font-semibold">
        What else is out then
      </h2>
      <div className="overflow-x-auto">
        <table className="w-full min-w-[36rem] table-fixed border-t border-line text-sm">
          <thead className="text-left text-xs text-quiet">
            <tr>
              <th className="w-36 py-1 font-medium">Channel</th>
              {days.map((each) => (
                <th key={each} className={`py-1 font-medium ${each === day ? 'text-house' : ''}`}>
                  {dayWords(each, true)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {channels.map(({ channel, sheet }) => (
              <tr key={channel.id} className="border-t border-line align-top">
                <td className="py-1">
                  <span className="flex items-center gap-1.5">
                    <ChannelBadge badge={sheet.badge} size={15} />
                    <span className="truncate">{sheet.name}</span>
                  </span>
                </td>
                {days.map((each) => (
                  <td key={each} className={`py-1 pr-2 ${each === day ? 'bg-house-soft/40' : ''}`}>
                    {items.filter((item) => item.channelId === channel.id && item.day === each).map((item) => {
                      const theme = themes.find(({ id }) => id === item.themeId);
                      return (
                        <span key={item.key} className={`flex items-center gap-1 text-xs ${item.state === 'open' ? 'text-quiet' : ''}`}>
                          <span className="shrink-0 tabular-nums">{item.time}</span>
                          {theme && <ThemeTile theme={theme} />}
                          <span className="truncate">{item.state === 'open' ? 'open slot' : item.name}</span>
                        </span>
                      );
                    })}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
