import { Bar, ComposedChart, Line, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import type { AnswerOf } from '../../../contract/contract.ts';
import type { getOverview } from '../../../contract/results-contracts.ts';
import { dayWords } from '../../plan/lanes/LaneHead.tsx';
import { countOf, shortCount } from '../figure-words.ts';
import { ChartFrame } from '../Figure.tsx';

type Day = AnswerOf<typeof getOverview>['days'][number];

const axis = { fontSize: 11, fill: 'var(--c-quiet)' };
export const tooltip = { background: 'var(--c-panel)', border: '1px solid var(--c-line)', borderRadius: 6, fontSize: 12, color: 'var(--c-ink)' };

/** Counts that lie closer together than this would be alike when they are shortened. */
const SHORT_FROM = 1_000;

/** Followers day by day, with the posts of each day under the line. Days that were not told are a gap. */
export default function GrowthChart({ days }: { readonly days: readonly Day[] }) {
  const known = days.flatMap(({ followers }) => followers ?? []);
  const [low, high] = [Math.min(...known), Math.max(...known)];
  const room = Math.max(10, (high - low) * 0.15);
  return (
    <ChartFrame title="Followers" about="of all accounts, and how many posts went out each day" head={['Day', 'Followers', 'Reach', 'Posts']} rows={days.map(({ day, followers, reach, posts }) => [dayWords(day, true), countOf(followers), countOf(reach), countOf(posts)])}>
      {known.length === 0 ? (
        <p className="grid h-60 place-items-center rounded-md border border-line text-sm text-quiet">The networks have told no followers for these days yet.</p>
      ) : (
        <ResponsiveContainer width="100%" height={250}>
          <ComposedChart accessibilityLayer={false} data={[...days]} margin={{ top: 8, right: 4, bottom: 0, left: 0 }}>
            <XAxis dataKey="day" tickFormatter={(day: string) => dayWords(day, false)} tick={axis} tickLine={false} axisLine={{ stroke: 'var(--c-line)' }} minTickGap={48} />
            <YAxis yAxisId="followers" domain={[Math.floor(low - room), Math.ceil(high + room)]} tickFormatter={(value: number) => (high - low < SHORT_FROM ? countOf(value) : shortCount(value))} allowDecimals={false} tick={axis} width={58} tickLine={false} axisLine={false} />
            <YAxis yAxisId="posts" orientation="right" hide domain={[0, (most: number) => Math.max(8, most * 4)]} />
            <Tooltip contentStyle={tooltip} labelFormatter={(day) => dayWords(String(day), true)} formatter={(value, name) => [countOf(Number(value)), name]} cursor={{ stroke: 'var(--c-line)' }} />
            <Bar yAxisId="posts" dataKey="posts" name="Posts" fill="var(--c-line)" isAnimationActive={false} maxBarSize={14} />
            <Line yAxisId="followers" dataKey="followers" name="Followers" stroke="var(--c-house)" strokeWidth={2} dot={false} connectNulls={false} isAnimationActive={false} />
          </ComposedChart>
        </ResponsiveContainer>
      )}
    </ChartFrame>
  );
}
