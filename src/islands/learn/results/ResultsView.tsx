import { useQuery, useQueryClient } from '@tanstack/react-query';
import { lazy, Suspense, useCallback, useEffect, useRef, useState } from 'react';
import { Button as AriaButton, Dialog, DialogTrigger, Popover, Tab, TabList, TabPanel, Tabs } from 'react-aria-components';
import { getFacets } from '../../../contract/results-contracts.ts';
import type { Role } from '../../../core/access/access.ts';
import { wallTimeOf } from '../../../core/time/wall-time.ts';
import { Choice } from '../../plan/PlanBar.tsx';
import { ChannelFilter } from '../../plan/ChannelFilter.tsx';
import { useChanges } from '../../shell/change-events.ts';
import { call } from '../../ui/call.ts';
import { buttonClasses } from '../../ui/Button.tsx';
import { DayField } from '../../ui/DayField.tsx';
import { UntilReady } from '../../ui/UntilReady.tsx';
import { Queries } from '../../ui/Queries.tsx';
import type { ResultsContext } from './results-context.ts';
import { filtersOf, isFiltered, noFilters, periodOf, readResultsQuery, spans, writeResultsQuery, type ResultsQuery } from './results-query.ts';
import { ReportsButton } from './ReportsButton.tsx';
import { SettingsButton } from './SettingsButton.tsx';

const Overview = lazy(() => import('./Overview.tsx'));
const PostsTable = lazy(() => import('./PostsTable.tsx'));
const WhatWorks = lazy(() => import('./WhatWorks.tsx'));
const Experiments = lazy(() => import('./Experiments.tsx'));
const Audience = lazy(() => import('./Audience.tsx'));
const Others = lazy(() => import('./Others.tsx'));

interface ResultsProps {
  readonly brand: { readonly slug: string; readonly name: string; readonly zone: string; readonly role: Role };
  readonly nowMs: number;
}

const parts = [
  ['overview', 'Overview'],
  ['posts', 'Posts'],
  ['works', 'What works'],
  ['experiments', 'Experiments'],
  ['audience', 'Audience'],
  ['others', 'Others'],
] as const;
const formatNames: Readonly<Record<string, string>> = { picture: 'Graphics', carousel: 'Carousels', video: 'Videos', document: 'Documents', text: 'Text' };
/** Figures come in by the minute; what is shown follows at this pace. */
const GATHER_MS = 4_000;

export default function ResultsView(props: ResultsProps) {
  return (
    <Queries>
      <Results {...props} />
    </Queries>
  );
}

function Results({ brand, nowMs }: ResultsProps) {
  const client = useQueryClient();
  const [query, setQuery] = useState<ResultsQuery>({});
  useEffect(() => setQuery(readResultsQuery(location.search)), []);
  useEffect(() => {
    const back = (): void => setQuery(readResultsQuery(location.search));
    addEventListener('popstate', back);
    return () => removeEventListener('popstate', back);
  }, []);
  const change = useCallback((next: Partial<ResultsQuery>): void => {
    setQuery((now) => {
      const changed = { ...now, ...next };
      // Another post or part is a step that one can go back from; a filter is not.
      const isStep = 'post' in next || 'show' in next;
      history[isStep ? 'pushState' : 'replaceState'](null, '', writeResultsQuery(changed));
      return changed;
    });
  }, []);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  useEffect(() => () => void (timer.current && clearTimeout(timer.current)), []);
  useChanges(brand.slug, {
    onChange: (kind) => {
      if (kind !== 'results' && kind !== 'clock') return;
      timer.current ??= setTimeout(() => {
        timer.current = null;
        void client.invalidateQueries({ queryKey: ['results', brand.slug] });
      }, GATHER_MS);
    },
  });
  const facets = useQuery({ queryKey: ['results-facets', brand.slug], staleTime: 60_000, queryFn: () => call(getFacets, { params: { brand: brand.slug } }) });
  const today = wallTimeOf(nowMs, brand.zone).slice(0, 10);
  const context: ResultsContext = { brand, nowMs, today, query, change, filters: filtersOf(query, today), facets: facets.data ?? null };
  const show = parts.find(([key]) => key === query.show)?.[0] ?? 'overview';
  // The parts are fetched when they are shown, which only a browser does.
  const [isThere, setThere] = useState(false);
  useEffect(() => setThere(true), []);
  return (
    <main className="min-h-0 flex-1 overflow-auto px-6 py-4 max-md:px-4">
      <Tabs selectedKey={show} onSelectionChange={(key) => change({ show: key === 'overview' ? undefined : String(key), post: undefined })}>
        <div className="mb-4 flex flex-wrap items-center gap-x-4 gap-y-2">
          <h1 className="text-xl font-semibold">Results</h1>
          <TabList aria-label="Parts of the results" className="flex flex-wrap gap-0.5 rounded-md bg-sunk p-0.5">
            {parts.map(([key, name]) => (
              <Tab key={key} id={key} className="cursor-pointer rounded-[5px] px-2.5 py-1 text-sm text-quiet outline-none data-[focus-visible]:ring-2 data-[focus-visible]:ring-house data-[selected]:bg-panel data-[selected]:font-semibold data-[selected]:text-ink">
                {name}
              </Tab>
            ))}
          </TabList>
          {(show === 'overview' || show === 'posts' || show === 'works') && <UntilReady><Filters context={context} /></UntilReady>}
          <span className="ml-auto flex gap-2">
            <ReportsButton context={context} />
            <SettingsButton brand={brand} />
          </span>
        </div>
        {parts.map(([key]) => (
          <TabPanel key={key} id={key} className="outline-none">
            {isThere && (
              <Suspense fallback={<p className="text-sm text-quiet">Loading…</p>}>
                {key === 'overview' && <Overview context={context} />}
                {key === 'posts' && <PostsTable context={context} />}
                {key === 'works' && <WhatWorks context={context} />}
                {key === 'experiments' && <Experiments context={context} />}
                {key === 'audience' && <Audience context={context} />}
                {key === 'others' && <Others context={context} />}
              </Suspense>
            )}
          </TabPanel>
        ))}
      </Tabs>
    </main>
  );
}

function Filters({ context }: { readonly context: ResultsContext }) {
  const { query, change, facets, today } = context;
  const period = periodOf(query, today);
  const channels = facets?.channels ?? [];
  const sheets = new Map(channels.flatMap(({ network, networkName, badge }) => (badge ? [[network, { name: networkName, badge }] as const] : [])));
  return (
    <div role="search" aria-label="Results" className="flex flex-wrap items-center gap-1.5">
      <Choice label="Period" all="Last 4 weeks" value={query.span === '28' ? undefined : query.span} options={spans.filter(([key]) => key !== '28')} onChoose={(span) => change({ span, ...(span === 'own' ? period : { from: undefined, until: undefined }) })} />
      {query.span === 'own' && (
        <>
          <DayField isBare label="First day" day={period.from} onChange={(from) => change({ from })} />
          <DayField isBare label="Last day" day={period.until} onChange={(until) => change({ until })} />
        </>
      )}
      <ChannelFilter context={{ channels, sheets }} chosen={query.channels} onChoose={(chosen) => change({ channels: chosen })} />
      <Choice label="Theme" all="All themes" value={query.theme} options={(facets?.themes ?? []).map(({ id, name }) => [id, name] as const)} onChoose={(theme) => change({ theme })} />
      <Choice label="Format" all="All formats" value={query.format} options={(facets?.formats ?? []).map((key) => [key, formatNames[key] ?? key] as const)} onChoose={(format) => change({ format })} />
      <MoreFilters context={context} />
      {isFiltered(query) && (
        <button type="button" onClick={() => change(noFilters)} className="rounded-md px-1.5 py-0.5 text-xs font-medium text-house hover:bg-sunk">
          Clear filters
        </button>
      )}
    </div>
  );
}

function MoreFilters({ context: { query, change, facets } }: { readonly context: ResultsContext }) {
  const count = [query.campaign, query.label, query.template, query.person, query.outside].filter(Boolean).length;
  return (
    <DialogTrigger>
      <AriaButton className={`${buttonClasses('plain')} ${count > 0 ? 'border-house font-semibold' : ''}`}>{count > 0 ? `More filters: ${count}` : 'More filters'}</AriaButton>
      <Popover className="shadow-float rounded-md border border-line bg-panel p-3">
        <Dialog aria-label="More filters" className="grid w-60 gap-2 outline-none [&_select]:w-full [&_select]:max-w-none">
          <Choice label="Campaign" all="All campaigns" value={query.campaign} options={(facets?.campaigns ?? []).map(({ id, name }) => [id, name] as const)} onChoose={(campaign) => change({ campaign })} />
          <Choice label="Label" all="All labels" value={query.label} options={(facets?.labels ?? []).map((label) => [label, label] as const)} onChoose={(label) => change({ label })} />
          <Choice label="Template" all="All templates" value={query.template} options={(facets?.templates ?? []).map(({ key, name }) => [key, name] as const)} onChoose={(template) => change({ template })} />
          <Choice label="Made by" all="Made by anyone" value={query.person} options={(facets?.people ?? []).map(({ id, name }) => [id, name] as const)} onChoose={(person) => change({ person })} />
          <label className="flex items-center gap-2 text-sm">
            <input type="checkbox" checked={query.outside === 'yes'} onChange={(event) => change({ outside: event.target.checked ? 'yes' : undefined })} className="size-4 accent-house" />
            Only posts made without Confetti
          </label>
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}
