import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { getWhatIf } from '../../../contract/plan-contracts.ts';
import type { BodyOf } from '../../../contract/contract.ts';
import type { Plan } from '../../../core/plan/plan.ts';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { call } from '../../ui/call.ts';
import { Runway } from '../lanes/Runway.tsx';
import type { PlanContext } from '../use-plan.ts';

const DAYS = 84;
const WAIT_MS = 400;

/** How long each lane lasts with the rota as it is, and as it would be. */
export function WhatIf({ context: { brand, channels, sheets, nowMs }, plan, isChanged }: { readonly context: PlanContext; readonly plan: Plan; readonly isChanged: boolean }) {
  const [asked, setAsked] = useState(plan);
  useEffect(() => {
    const timer = setTimeout(() => setAsked(plan), WAIT_MS);
    return () => clearTimeout(timer);
  }, [plan]);
  const forecast = useQuery({
    queryKey: ['plan', brand.slug, 'what-if', asked],
    queryFn: ({ signal }) => call(getWhatIf, { params: { brand: brand.slug }, body: { plan: asked, days: DAYS } as BodyOf<typeof getWhatIf>, signal }),
    placeholderData: (before) => before,
  });
  const hour = Math.floor(nowMs / 3_600_000) * 3_600_000;
  return (
    <section aria-labelledby="what-if">
      <h2 id="what-if" className="text-base font-semibold">
        How long it lasts
      </h2>
      <p className="mb-2 text-xs text-quiet">{isChanged ? 'Now, and with this rota. Nothing changes until you keep it.' : 'From what waits and what is evergreen. Change the rota to see what would be.'}</p>
      {forecast.isError && <p className="text-sm text-coral-ink">{forecast.error.message}</p>}
      <table className="w-full text-sm">
        <thead className="text-left text-xs text-quiet">
          <tr>
            <th className="pb-1 font-medium">Channel</th>
            <th className="pb-1 font-medium">Now</th>
            {isChanged && <th className="pb-1 font-medium">Then</th>}
          </tr>
        </thead>
        <tbody>
          {channels.map((channel) => {
            const [now, then] = [forecast.data?.now.find(({ channelId }) => channelId === channel.id), forecast.data?.then.find(({ channelId }) => channelId === channel.id)];
            const sheet = sheets.get(channel.network);
            return (
              <tr key={channel.id} className="border-t border-line">
                <td className="py-1">
                  <span className="flex items-center gap-1.5">
                    {sheet && <ChannelBadge badge={sheet.badge} size={15} />}
                    <span className="truncate">{sheet?.name}</span>
                  </span>
                </td>
                <td className="py-1">{now && <Runway lane={now} nowMs={hour} />}</td>
                {isChanged && <td className="py-1">{then && <Runway lane={then} nowMs={hour} />}</td>}
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
