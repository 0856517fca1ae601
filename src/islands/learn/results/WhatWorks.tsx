import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { changePlan, getPlan } from '../../../contract/plan-contracts.ts';
import { getWhatWorks } from '../../../contract/results-contracts.ts';
import { roleMay } from '../../../core/access/access.ts';
import { giveSlot } from '../../../core/plan/give-slot.ts';
import type { Plan } from '../../../core/plan/plan.ts';
import type { AnswerOf } from '../../../contract/contract.ts';
import { families, familyKeys } from '../../../core/results/features.ts';
import { MIN_POSTS } from '../../../core/results/what-works.ts';
import { ThemeTile } from '../../plan/ThemeTile.tsx';
import { call } from '../../ui/call.ts';
import { Button, buttonClasses } from '../../ui/Button.tsx';
import { toast } from '../../ui/toast.tsx';
import { signed } from '../figure-words.ts';
import { ageWords } from './StandingBar.tsx';
import { HoursMap } from './HoursMap.tsx';
import type { ResultsContext } from './results-context.ts';

type Answer = AnswerOf<typeof getWhatWorks>;
type Effect = Answer['effects'][number];

/** What posts had that did better or worse: estimates with intervals, the clearest first. */
export default function WhatWorks({ context }: { readonly context: ResultsContext }) {
  const { brand, filters } = context;
  const [family, setFamily] = useState<string>('clear');
  const works = useQuery({ queryKey: ['results', brand.slug, 'works', filters], placeholderData: keepPreviousData, queryFn: () => call(getWhatWorks, { params: { brand: brand.slug }, query: filters }) });
  const { data } = works;
  if (works.isError) return <p className="text-sm text-coral-ink">{works.error.message}</p>;
  if (!data) return <p className="text-sm text-quiet">Loading…</p>;
  if (data.posts < MIN_POSTS)
    return (
      <p className="max-w-xl text-sm text-quiet">
        {data.posts === 0 ? 'No posts' : `Only ${data.posts} ${data.posts === 1 ? 'post' : 'posts'}`} in these days with these filters {data.posts === 1 ? 'has' : 'have'} figures at an age of {ageWords(data.hoursCompared)}. Below {MIN_POSTS} nothing can be said. Choose a longer period.
      </p>
    );
  const there = familyKeys.filter((key) => data.effects.some((each) => each.family === key));
  const isClear = ({ says }: Effect): boolean => says === 'more' || says === 'less';
  const shown = family === 'clear' ? data.effects.filter(isClear) : data.effects.filter((each) => each.family === family);
  return (
    <div className="grid grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)] gap-10 max-xl:grid-cols-1">
      <section aria-label="What posts had">
        <div className="mb-3 flex flex-wrap gap-1">
          {[['clear', 'What can be told'] as const, ...there.map((key) => [key, families[key]] as const)].map(([key, name]) => (
            <button key={key} type="button" aria-pressed={family === key} onClick={() => setFamily(key)} className={`rounded-md border px-2 py-0.5 text-sm ${family === key ? 'border-house bg-house-soft font-semibold' : 'border-line hover:border-edge'}`}>
              {name}
            </button>
          ))}
        </div>
        {shown.length === 0 ? <p className="text-sm text-quiet">Nothing stands out: no difference in these posts is clear enough to name.</p> : <Effects effects={shown} />}
        <p className="mt-3 max-w-2xl text-xs text-quiet">
          From {data.posts} posts at an age of {ageWords(data.hoursCompared)}. Everything is estimated at once, so that an hour does not get the credit of a format; with little data an estimate is drawn towards none. The bar is the 90% interval; the list goes by its lower end. What a brand chose was not chosen by lot: these are differences, not causes.
        </p>
      </section>
      <div className="grid content-start gap-8">
        <HoursMap hours={data.hours} />
        <ThemeMix data={data} context={context} />
      </div>
    </div>
  );
}

function Effects({ effects }: { readonly effects: readonly Effect[] }) {
  const widest = Math.max(0.3, ...effects.flatMap(({ low, high }) => [Math.abs(low), Math.abs(high)]));
  const at = (value: number): number => 50 + (value / widest) * 48;
  return (
    <table className="w-full border-collapse text-sm">
      <caption className="sr-only">Engagement of posts against the average post</caption>
      <thead>
        <tr className="text-xs text-quiet">
          <th scope="col" className="border-b border-line py-1 text-left font-medium">
            Posts …
          </th>
          <th scope="col" className="border-b border-line py-1 text-right font-medium">
            Engagement
          </th>
          <th scope="col" className="border-b border-line px-3 py-1 text-center font-medium">
            less <span aria-hidden>←</span> average <span aria-hidden>→</span> more
          </th>
          <th scope="col" className="border-b border-line py-1 text-right font-medium">
            n
          </th>
        </tr>
      </thead>
      <tbody>
        {effects.map(({ family, level, name, effect, low, high, count, says }) => (
          <tr key={`${family}${level}`} className="border-b border-line">
            <th scope="row" className="py-2 pr-2 text-left font-medium">
              {name}
              {says === 'not-enough' && <span className="block text-xs font-normal text-quiet">not enough to say</span>}
              {says === 'no-difference' && <span className="block text-xs font-normal text-quiet">no difference one could see</span>}
            </th>
            <td className="text-right whitespace-nowrap tabular-nums">
              <span className={`font-semibold ${says === 'more' ? 'text-mint-ink' : says === 'less' ? 'text-coral-ink' : 'text-quiet'}`}>{signed(effect)}</span>
              <span className="block text-xs text-quiet">
                {signed(low)} to {signed(high)}
              </span>
            </td>
            <td className="w-[38%] px-3">
              <span aria-hidden className="relative block h-5">
                <span className="absolute inset-y-0 left-1/2 w-px bg-edge" />
                <span className={`absolute top-2 h-1 rounded-full ${says === 'more' ? 'bg-mint' : says === 'less' ? 'bg-coral' : 'bg-edge'}`} style={{ left: `${at(low)}%`, width: `${Math.max(1, at(high) - at(low))}%` }} />
                <span className={`absolute top-1 size-3 -translate-x-1/2 rounded-full border-2 border-panel ${says === 'more' ? 'bg-mint' : says === 'less' ? 'bg-coral' : 'bg-edge'}`} style={{ left: `${at(effect)}%` }} />
              </span>
            </td>
            <td className="text-right text-quiet tabular-nums">{count}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const weekdayNames = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;

/** How much of the plan goes to each theme, beside what posts about it had. */
function ThemeMix({ data, context: { facets, brand } }: { readonly data: Answer; readonly context: ResultsContext }) {
  const themes = data.themes.flatMap(({ themeId, share, planned }) => {
    const theme = facets?.themes.find(({ id }) => id === themeId);
    return theme ? [{ theme, share, planned, effect: data.effects.find(({ family, level }) => family === 'theme' && level === themeId) ?? null }] : [];
  });
  const client = useQueryClient();
  const mayChange = roleMay(brand.role, 'send');
  const stored = useQuery({ queryKey: ['plan', brand.slug, 'plan'], queryFn: () => call(getPlan, { params: { brand: brand.slug } }), enabled: mayChange });
  const give = useMutation({
    mutationFn: (plan: Plan) => call(changePlan, { params: { brand: brand.slug }, body: { revision: stored.data?.revision ?? 0, plan } }),
    onSuccess: async ({ revision }) => {
      const before = stored.data?.plan;
      const refresh = (): Promise<unknown> => Promise.all([client.invalidateQueries({ queryKey: ['plan', brand.slug] }), client.invalidateQueries({ queryKey: ['results', brand.slug, 'works'] })]);
      await refresh();
      toast('done', 'The rota has changed', before && { label: 'Undo', run: () => void call(changePlan, { params: { brand: brand.slug }, body: { revision, plan: before } }).then(refresh, (error: Error) => toast('problem', error.message)) });
    },
    onError: (error) => toast('problem', error.message),
  });
  if (themes.length === 0) return null;
  const [best, most] = [themes.filter(({ effect }) => effect?.says === 'more').toSorted((a, b) => (b.effect?.low ?? 0) - (a.effect?.low ?? 0))[0], themes.toSorted((a, b) => b.share - a.share)[0]];
  const given = stored.data && best && most && best.theme.id !== most.theme.id ? giveSlot(stored.data.plan, most.theme.id, best.theme.id) : null;
  return (
    <section aria-label="Themes in the rota">
      <h2 className="mb-1 text-sm font-semibold">
        Themes in the rota <span className="font-normal text-quiet">and what posts about them had</span>
      </h2>
      <ul>
        {themes
          .toSorted((a, b) => b.share - a.share)
          .map(({ theme, share, planned, effect }) => (
            <li key={theme.id} className="flex items-center gap-2.5 border-b border-line py-1.5 text-sm">
              <ThemeTile theme={theme} />
              <span className="min-w-0 flex-1 truncate">{theme.name}</span>
              <span className="text-quiet tabular-nums">
                {planned} a week, {Math.round(share * 100)}%
              </span>
              <span className={`w-20 text-right tabular-nums ${effect?.says === 'more' ? 'font-semibold text-mint-ink' : effect?.says === 'less' ? 'font-semibold text-coral-ink' : 'text-quiet'}`}>{effect ? signed(effect.effect) : '—'}</span>
            </li>
          ))}
      </ul>
      {best && most && best.theme.id !== most.theme.id && (
        <p className="mt-2 text-sm">
          You plan {Math.round(most.share * 100)}% {most.theme.name}; posts about {best.theme.name} had {signed(best.effect?.effect ?? 0)}.
        </p>
      )}
      <p className="mt-2 flex flex-wrap gap-2">
        {given && best && (
          <Button size="small" look="primary" disabled={give.isPending} onClick={() => give.mutate(given.plan)}>
            Give {weekdayNames[given.rule.weekday - 1]} {given.rule.time} to {best.theme.name}
          </Button>
        )}
        <a href={`/b/${brand.slug}/plan/rota`} className={buttonClasses('plain', 'small')}>
          Open the rota
        </a>
      </p>
    </section>
  );
}
