import { Fragment } from 'react';
import type { AnswerOf } from '../../../contract/contract.ts';
import type { getWhatWorks } from '../../../contract/results-contracts.ts';
import { signed } from '../figure-words.ts';
import { ChartFrame } from '../Figure.tsx';

type Hour = AnswerOf<typeof getWhatWorks>['hours'][number];

const days = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;
const hours = Array.from({ length: 24 }, (_, hour) => hour);

/** A week of hours: stronger where posts had more than the average, hatched where less; a dot where posts went out. */
export function HoursMap({ hours: standings }: { readonly hours: readonly Hour[] }) {
  const strongest = Math.max(0.05, ...standings.map(({ effect }) => Math.abs(effect)));
  const of = (weekday: number, hour: number): Hour | undefined => standings.find((each) => each.weekday === weekday && each.hour === hour);
  const told = standings.filter(({ count }) => count > 0).toSorted((a, b) => b.effect - a.effect);
  return (
    <ChartFrame title="Hours" about="engagement of posts against the average" head={['Hour', 'Engagement', 'Posts']} rows={told.map(({ weekday, hour, effect, count }) => [`${days[weekday - 1] ?? ''} ${String(hour).padStart(2, '0')}:00`, signed(effect), String(count)])}>
      <div className="grid gap-px text-[10px] text-quiet" style={{ gridTemplateColumns: '2rem repeat(24, minmax(0, 1fr))' }}>
        <span />
        {hours.map((hour) => (
          <span key={hour} className="text-center tabular-nums">
            {hour % 3 === 0 ? hour : ''}
          </span>
        ))}
        {days.map((day, index) => (
          <Fragment key={day}>
            <span className="self-center">{day}</span>
            {hours.map((hour) => {
              const each = of(index + 1, hour);
              const effect = each?.effect ?? 0;
              return (
                <span
                  key={hour}
                  title={each ? `${day} ${hour}:00: ${signed(effect)}${each.count > 0 ? `, ${each.count} ${each.count === 1 ? 'post' : 'posts'}` : ', no posts then: from the hours around'}` : undefined}
                  className="relative grid h-5 place-items-center rounded-[2px] bg-sunk"
                >
                  <span className={`absolute inset-0 rounded-[2px] ${effect >= 0 ? 'bg-mint' : 'bg-coral'}`} style={{ opacity: Math.min(1, Math.abs(effect) / strongest) * 0.85, ...(effect < 0 ? { maskImage: 'repeating-linear-gradient(45deg, black 0 2px, transparent 2px 4px)' } : {}) }} />
                  {(each?.count ?? 0) > 0 && <span className="relative size-1 rounded-full bg-ink" />}
                </span>
              );
            })}
          </Fragment>
        ))}
      </div>
      <p className="mt-1 text-xs text-quiet">Green: more. Hatched: less. A dot: posts went out then; other hours are smoothed from those around.</p>
    </ChartFrame>
  );
}
