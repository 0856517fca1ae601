import { Bar, BarChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import type { AnswerOf } from '../../../contract/contract.ts';
import type { getLinks } from '../../../contract/link-contracts.ts';
import { daysFrom } from '../../../core/time/day.ts';
import { dayWords } from '../../plan/lanes/LaneHead.tsx';
import { countOf } from '../figure-words.ts';
import { ChartFrame } from '../Figure.tsx';
import { tooltip } from '../results/GrowthChart.tsx';

const axis = { fontSize: 11, fill: 'var(--c-quiet)' };

/** Clicks of people day by day. */
export default function ClicksChart({ from, until, days }: { readonly from: string; readonly until: string; readonly days: AnswerOf<typeof getLinks>['days'] }) {
  const byDay = new Map(days.map((each) => [each.key, each]));
  const all = daysFrom(from, until).map((day) => ({ day, people: byDay.get(day)?.people ?? 0, bots: byDay.get(day)?.bots ?? 0 }));
  const total = all.reduce((sum, { people }) => sum + people, 0);
  return (
    <ChartFrame title={`${countOf(total)} ${total === 1 ? 'click' : 'clicks'}`} about="of people" head={['Day', 'People', 'Bots']} rows={all.map(({ day, people, bots }) => [dayWords(day, true), countOf(people), countOf(bots)])}>
      <ResponsiveContainer width="100%" height={200}>
        <BarChart accessibilityLayer={false} data={all} margin={{ top: 8, right: 4, bottom: 0, left: 0 }}>
          <XAxis dataKey="day" tickFormatter={(day: string) => dayWords(day, false)} tick={axis} tickLine={false} axisLine={{ stroke: 'var(--c-line)' }} minTickGap={48} />
          <YAxis allowDecimals={false} tick={axis} width={36} tickLine={false} axisLine={false} />
          <Tooltip contentStyle={tooltip} cursor={{ fill: 'var(--c-sunk)' }} labelFormatter={(day) => dayWords(String(day), true)} formatter={(value, name) => [countOf(Number(value)), name]} />
          <Bar dataKey="people" name="People" fill="var(--c-house)" isAnimationActive={false} maxBarSize={18} />
        </BarChart>
      </ResponsiveContainer>
    </ChartFrame>
  );
}
