import { Area, ComposedChart, Line, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import type { AnswerOf } from '../../../contract/contract.ts';
import type { getResult } from '../../../contract/results-contracts.ts';
import { countOf, shortCount } from '../figure-words.ts';
import { ChartFrame } from '../Figure.tsx';
import { tooltip } from './GrowthChart.tsx';

const SHOWN_HOURS = 168;
const axis = { fontSize: 11, fill: 'var(--c-quiet)' };

/** How a post grew over a week, before the band of earlier posts of its channel and format. */
export default function CurveChart({ data }: { readonly data: AnswerOf<typeof getResult> }) {
  const { curve, band, bandCount } = data;
  const name = curve.metric === 'engagement' ? 'Engagement' : 'Impressions';
  const own = curve.stretches.flatMap((stretch, index) => [...(index === 0 ? [] : [{ hours: stretch[0]?.[0] ?? 0, own: null as number | null }]), ...stretch.map(([hours, value]) => ({ hours, own: value as number | null }))]).filter(({ hours }) => hours <= SHOWN_HOURS);
  const bands = band.length === 0 ? [] : [{ hours: 0, band: [0, 0] }, ...band.map(({ hours, low, high }) => ({ hours, band: [low, high] }))];
  if (own.length === 0) return <p className="text-sm text-quiet">Nothing has been measured yet. The first figures come within the hour.</p>;
  return (
    <ChartFrame
      title={`${name} over a week`}
      about={band.length > 0 ? `beside ${bandCount} earlier posts, 10th to 90th percentile` : 'too few earlier posts to say what is usual'}
      head={['Hours', name, 'Usual from', 'Usual to']}
      rows={[...own.filter(({ own: value }) => value !== null).map(({ hours, own: value }) => [hours.toFixed(1), countOf(value), '', '']), ...band.map(({ hours, low, high }) => [String(hours), '', countOf(low), countOf(high)])]}
    >
      <ResponsiveContainer width="100%" height={170}>
        <ComposedChart accessibilityLayer={false} margin={{ top: 6, right: 8, bottom: 0, left: 0 }}>
          <XAxis type="number" dataKey="hours" domain={[0, SHOWN_HOURS]} ticks={[0, 24, 72, 120, 168]} tickFormatter={(hours: number) => (hours === 0 ? 'sent' : `${hours / 24} d`)} tick={axis} tickLine={false} axisLine={{ stroke: 'var(--c-line)' }} allowDataOverflow />
          <YAxis tick={axis} width={40} tickLine={false} axisLine={false} tickFormatter={(value: number) => shortCount(value)} />
          <Tooltip contentStyle={tooltip} labelFormatter={(hours) => `${Number(hours).toFixed(0)} hours after sending`} formatter={(value, label) => [Array.isArray(value) ? value.map((each) => countOf(Number(each))).join(' – ') : countOf(Number(value)), label]} />
          <Area data={bands} dataKey="band" name="Usual" stroke="none" fill="var(--c-line)" isAnimationActive={false} />
          <Line data={own} dataKey="own" name="This post" stroke="var(--c-house)" strokeWidth={2} dot={false} connectNulls={false} isAnimationActive={false} />
        </ComposedChart>
      </ResponsiveContainer>
    </ChartFrame>
  );
}
