import { runwayDays } from '../../../core/plan/forecast.ts';
import type { Lanes } from '../use-plan.ts';

/** Days under which a lane wants attention, and stops. */
const [SOON_DAYS, NOW_DAYS] = [7, 3];

/** How long until nothing goes out in a slot of this channel, with a shape for how urgent that is. */
export function Runway({ lane, nowMs }: { readonly lane: Lanes['lanes'][number]; readonly nowMs: number }) {
  if (lane.slots === 0) {
    return (
      <span className="text-xs text-quiet" title="The rota has no slots for this channel.">
        no slots
      </span>
    );
  }
  const days = runwayDays(lane, nowMs);
  const urgency = days === null || days >= SOON_DAYS ? 'fine' : days >= NOW_DAYS ? 'soon' : 'now';
  const looks = { fine: { d: 'M8 2a6 6 0 1 1 0 12A6 6 0 0 1 8 2Z', fill: 'var(--c-mint)' }, soon: { d: 'M8 1.5L15 14.5H1Z', fill: 'var(--c-marigold)' }, now: { d: 'M8 1L15 8L8 15L1 8Z', fill: 'var(--c-coral)' } } as const;
  const words = days === null ? '12 w +' : days === 0 ? 'today' : `${days} d`;
  const reason = `${lane.waiting} waiting, ${lane.open} of ${lane.slots} slots open in 12 weeks${lane.evergreen > 0 ? `, ${lane.evergreen} evergreen posts` : ''}`;
  return (
    <span className="flex items-center gap-1.5 text-sm font-semibold tabular-nums" title={reason} suppressHydrationWarning>
      <svg viewBox="0 0 16 16" width="10" height="10" aria-hidden>
        <path {...looks[urgency]} />
      </svg>
      {words}
      <span className="sr-only">
        {days === null ? 'lasts 12 weeks and longer' : 'until it runs dry'}. {reason}
      </span>
    </span>
  );
}
