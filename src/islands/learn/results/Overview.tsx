import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { lazy, Suspense } from 'react';
import { getOverview } from '../../../contract/results-contracts.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { dayWords } from '../../plan/lanes/LaneHead.tsx';
import { Choice } from '../../plan/PlanBar.tsx';
import { ChannelBadge } from '../../channel/ChannelBadge.tsx';
import { call } from '../../ui/call.ts';
import { GuideLink } from '../../ui/GuideLink.tsx';
import { changeOf, countOf, rateOf, shortCount, signed } from '../figure-words.ts';
import { PostCard } from './PostCard.tsx';
import { channelOf, type ResultsContext } from './results-context.ts';
import { Sparkline } from './Sparkline.tsx';

const GrowthChart = lazy(() => import('./GrowthChart.tsx'));

type Answer = AnswerOf<typeof getOverview>;
type Sums = Answer['now'];

/** What a period came to beside another: in total, by account, day by day, and its best and worst posts. */
export default function Overview({ context }: { readonly context: ResultsContext }) {
  const { brand, filters, query, change } = context;
  const beside = query.beside === 'year' ? 'year' : 'before';
  const overview = useQuery({ queryKey: ['results', brand.slug, 'overview', filters, beside], placeholderData: keepPreviousData, queryFn: () => call(getOverview, { params: { brand: brand.slug }, query: { ...filters, beside } }) });
  const { data } = overview;
  if (overview.isError) return <p className="text-sm text-coral-ink">{overview.error.message}</p>;
  if (!data) return <p className="text-sm text-quiet">Loading…</p>;
  const base = data.rateBase;
  return (
    <div className="grid gap-7">
      <section aria-label="In total">
        <div className="mb-2 flex flex-wrap items-center gap-2 text-sm text-quiet">
          <span suppressHydrationWarning>
            {dayWords(data.from, true)} – {dayWords(data.until, true)}, beside
          </span>
          <Choice label="Beside" all="just before" value={query.beside} options={[['year', 'a year ago']]} onChoose={(next) => change({ beside: next })} />
          <span suppressHydrationWarning>
            {dayWords(data.besideFrom, true)} – {dayWords(data.besideUntil, true)}
          </span>
        </div>
        <dl className="grid grid-cols-6 gap-x-6 gap-y-3 border-y border-line py-3 max-xl:grid-cols-3 max-md:grid-cols-2">
          <Total name="Posts" now={data.now.posts} before={data.beside.posts} show={countOf} />
          <Total name="Reach" now={data.now.reach} before={data.beside.reach} show={shortCount} />
          <Total name="Engagement" now={data.now.engagement} before={data.beside.engagement} show={shortCount} />
          <Total name={`Rate by ${base}`} now={data.now.rate} before={data.beside.rate} show={rateOf} />
          <Total name="Clicks" now={data.now.clicks} before={data.beside.clicks} show={shortCount} />
          <Total name="Followers" now={data.now.followers} before={data.beside.followers} show={countOf} />
        </dl>
      </section>
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)] gap-8 max-xl:grid-cols-1">
        <Suspense fallback={<div className="h-64" />}>
          <GrowthChart days={data.days} />
        </Suspense>
        <Accounts data={data} context={context} />
      </div>
      <section aria-label="Best and weakest posts" className="grid grid-cols-2 gap-8 max-lg:grid-cols-1">
        <Posts title="Did best" posts={data.best} context={context} />
        <Posts title="Did least" posts={data.worst} context={context} />
      </section>
      <p className="max-w-3xl text-xs text-quiet">
        Engagement: reactions, comments, shares and saves, of posts that went out in the period, as measured last. The rate is engagement divided by {base}; a network that gives only {base === 'reach' ? 'impressions' : 'reach'} is rated by that. A dash: the network gives no such figure.
      </p>
    </div>
  );
}

function Total({ name, now, before, show }: { readonly name: string; readonly now: number | null; readonly before: number | null; readonly show: (value: number | null) => string }) {
  return (
    <div>
      <dt className="text-sm text-quiet">{name}</dt>
      <dd className="font-heading text-2xl font-semibold tabular-nums">{show(now)}</dd>
      <dd className="text-xs">
        <Change now={now} before={before} /> <span className="text-quiet tabular-nums">from {show(before)}</span>
      </dd>
    </div>
  );
}

/** Up or down, with an arrow beside the colour. */
function Change({ now, before }: { readonly now: number | null; readonly before: number | null }) {
  const change = changeOf(now, before);
  if (change === null) return <span className="text-quiet">—</span>;
  const rounded = Math.round(change * 100);
  if (rounded === 0) return <span className="text-quiet tabular-nums">±0%</span>;
  return (
    <span className={`font-semibold tabular-nums ${rounded > 0 ? 'text-mint-ink' : 'text-coral-ink'}`}>
      <span aria-hidden>{rounded > 0 ? '▲' : '▼'}</span> {signed(change)}
    </span>
  );
}

function Accounts({ data, context: { facets, change } }: { readonly data: Answer; readonly context: ResultsContext }) {
  const head = ['Account', 'Posts', 'Reach', 'Engagement', 'Rate', 'Followers'];
  const shown = data.accounts.filter(({ now, beside, followersByDay }) => now.posts + beside.posts > 0 || followersByDay.length > 0);
  return (
    <section aria-label="By account" className="min-w-0 overflow-x-auto">
      <table className="w-full border-collapse text-sm tabular-nums">
        <caption className="mb-1 text-left text-sm font-semibold">By account</caption>
        <thead>
          <tr className="text-xs text-quiet">
            {head.map((each, index) => (
              <th key={each} scope="col" className={`border-b border-line py-1.5 pr-3 font-medium ${index === 0 ? 'text-left' : 'text-right'}`}>
                {each}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {shown.map(({ channelId, now, beside, followersByDay, problem }) => {
            const channel = channelOf(facets, channelId);
            return (
              <tr key={channelId} className="border-b border-line">
                <th scope="row" className="py-1.5 pr-3 text-left font-normal">
                  <button type="button" onClick={() => change({ channels: channelId, show: 'posts' })} className="flex items-center gap-2 text-left font-medium hover:underline">
                    {channel?.badge && <ChannelBadge badge={channel.badge} size={16} />}
                    <span className="truncate">
                      {channel?.networkName} <span className="font-normal text-quiet">{channel?.handle}</span>
                    </span>
                  </button>
                  {problem !== null && <span className="block text-xs font-normal text-marigold-ink">Not read now: {problem}</span>}
                </th>
                <td className="pr-3 text-right">{countOf(now.posts)}</td>
                <Compared now={now.reach} before={beside.reach} show={shortCount} />
                <Compared now={now.engagement} before={beside.engagement} show={shortCount} />
                <Compared now={now.rate} before={beside.rate} show={rateOf} />
                <td className="py-1 text-right">
                  <span className="flex items-center justify-end gap-2">
                    <Sparkline values={followersByDay} />
                    <span className="w-12">{countOf(now.followers)}</span>
                  </span>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}

function Compared({ now, before, show }: { readonly now: Sums['reach']; readonly before: Sums['reach']; readonly show: (value: number | null) => string }) {
  return (
    <td className="pr-3 text-right leading-tight">
      {show(now)}
      {changeOf(now, before) !== null && (
        <span className="block text-xs">
          <Change now={now} before={before} />
        </span>
      )}
    </td>
  );
}

function Posts({ title, posts, context }: { readonly title: string; readonly posts: Answer['best']; readonly context: ResultsContext }) {
  return (
    <div>
      <h2 className="mb-2 text-sm font-semibold">{title}</h2>
      {posts.length === 0 ? (
        <p className="text-sm text-quiet">No posts with figures in these days. <GuideLink view="results" /></p>
      ) : (
        <div className="grid grid-cols-3 gap-4">
          {posts.map((post) => (
            <PostCard key={post.id} post={post} context={context} />
          ))}
        </div>
      )}
    </div>
  );
}
