import { useQueries, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { getBrand } from '../../contract/brand-contracts.ts';
import type { AnswerOf, QueryOf } from '../../contract/contract.ts';
import { getLanes, getPlan } from '../../contract/plan-contracts.ts';
import type { Role } from '../../core/access/access.ts';
import { itemsOf } from '../../core/plan/plan-items.ts';
import type { Theme } from '../../core/plan/plan.ts';
import { wallTimeOf } from '../../core/time/wall-time.ts';
import { useChanges } from '../shell/change-events.ts';
import { call } from '../ui/call.ts';
import { useNow } from '../ui/use-now.ts';
import { filtersOf, readPlanQuery, writePlanQuery, type PlanQuery } from './plan-query.ts';

export interface PlanBrand {
  readonly slug: string;
  readonly name: string;
  readonly zone: string;
  readonly role: Role;
}

export interface PlanProps {
  readonly brand: PlanBrand;
  readonly nowMs: number;
}

/** A view that shows several brands at once when asked. */
export interface PlanViewProps extends PlanProps {
  /** All brands of the person. */
  readonly brands: readonly PlanBrand[];
}

type BrandAnswer = AnswerOf<typeof getBrand>;
export type PlanChannel = BrandAnswer['channels'][number];
export type PlanSheet = BrandAnswer['sheets'][number];
export type Lanes = AnswerOf<typeof getLanes>;
export type PlanAnswer = AnswerOf<typeof getPlan>;
export type Campaign = PlanAnswer['campaigns'][number];

/** The query of the address, kept there; going back in the browser goes back here. */
export function usePlanQuery(): readonly [PlanQuery, (change: Partial<PlanQuery>) => void] {
  const [query, setQuery] = useState<PlanQuery>({});
  useEffect(() => {
    const read = (): void => setQuery(readPlanQuery(location.search));
    read();
    addEventListener('popstate', read);
    return () => removeEventListener('popstate', read);
  }, []);
  const change = useCallback((part: Partial<PlanQuery>) => {
    setQuery((now) => {
      const next = { ...now, ...part };
      history.replaceState(history.state, '', writePlanQuery(next));
      return next;
    });
  }, []);
  return [query, change];
}

const brandQuery = (brand: string) => ({ queryKey: ['brand', brand], queryFn: () => call(getBrand, { params: { brand } }), staleTime: 60_000, select: ofBrand });
const planQuery = (brand: string) => ({ queryKey: ['plan', brand, 'plan'], queryFn: () => call(getPlan, { params: { brand } }), select: ofPlan });

/** Picks what the plan needs of an answer. These functions keep their identity, so their results are cached. */
function ofBrand({ channels, sheets }: BrandAnswer) {
  return { channels, sheets: new Map(sheets.map((sheet) => [sheet.key, sheet])) };
}

function ofPlan(plan: PlanAnswer) {
  return { plan, themes: new Map<string, Theme>(plan.plan.themes.map((theme) => [theme.id, theme])), campaigns: new Map<string, Campaign>(plan.campaigns.map((campaign) => [campaign.id, campaign])) };
}

interface Asked<Data> {
  readonly data: Data | undefined;
  readonly error: Error | null;
}

function contextFrom(brand: PlanBrand, nowMs: number, channels: Asked<ReturnType<typeof ofBrand>>, plan: Asked<ReturnType<typeof ofPlan>>) {
  return { brand, nowMs, today: wallTimeOf(nowMs, brand.zone).slice(0, 10), ...(channels.data ?? NO_CHANNELS), ...(plan.data ?? NO_PLAN), problem: channels.error?.message ?? plan.error?.message ?? null };
}

export type PlanContext = ReturnType<typeof contextFrom>;

/** What the plan's views share: the brand's channels with their networks, the plan, its themes and campaigns, and the time. */
export function usePlanContext({ brand, nowMs }: PlanProps): PlanContext {
  return contextFrom(brand, useNow(nowMs), useQuery(brandQuery(brand.slug)), useQuery(planQuery(brand.slug)));
}

/** The plans of several brands in one view. */
export interface PlanContexts {
  /** The brand whose page this is, then those chosen beside it. */
  readonly all: readonly [PlanContext, ...PlanContext[]];
  /** The brands of `all`. The list keeps its identity until the choice changes. */
  readonly brands: readonly PlanBrand[];
  /** The plan that a channel belongs to. */
  readonly of: (channelId: string) => PlanContext;
}

/** As `usePlanContext`, for a view that shows other brands of the person beside its own. */
export function usePlanContexts({ brand, brands: mine, nowMs: serverNowMs }: PlanViewProps, chosen: string | undefined): PlanContexts {
  const nowMs = useNow(serverNowMs);
  const brands = useMemo(() => [brand, ...besides(mine, brand, chosen)], [mine, brand, chosen]);
  const channels = useQueries({ queries: brands.map(({ slug }) => brandQuery(slug)), combine: answersOf<ReturnType<typeof ofBrand>> });
  const plans = useQueries({ queries: brands.map(({ slug }) => planQuery(slug)), combine: answersOf<ReturnType<typeof ofPlan>> });
  return useMemo(() => {
    const [own, ...others] = brands.map((each, index) => contextFrom(each, nowMs, channels[index] ?? NOT_ASKED, plans[index] ?? NOT_ASKED)) as [PlanContext, ...PlanContext[]];
    return { all: [own, ...others], brands, of: (channelId: string) => others.find((context) => context.channels.some(({ id }) => id === channelId)) ?? own };
  }, [brands, nowMs, channels, plans]);
}

const answersOf = <Data>(answers: readonly Asked<Data>[]): readonly Asked<Data>[] => answers.map(({ data, error }) => ({ data, error }));

/** The brands that a view's address names beside its own. */
function besides(mine: readonly PlanBrand[], own: PlanBrand, chosen: string | undefined): readonly PlanBrand[] {
  const slugs = new Set(chosen?.split(','));
  return mine.filter(({ slug }) => slug !== own.slug && slugs.has(slug));
}

const NOT_ASKED = { data: undefined, error: null } as const;
const NO_CHANNELS: ReturnType<typeof ofBrand> = { channels: [], sheets: new Map() };
const NO_PLAN: { readonly plan: PlanAnswer | null; readonly themes: ReadonlyMap<string, Theme>; readonly campaigns: ReadonlyMap<string, Campaign> } = { plan: null, themes: new Map(), campaigns: new Map() };
/** The page hears of changes in its own brand only. It asks for other brands this often. */
const OTHERS_MS = 20_000;
/** Changes that arrive within this time lead to one new look. */
const GATHER_MS = 250;
const watched: ReadonlySet<string> = new Set(['plan', 'entry', 'queue', 'post', 'delivery', 'clock']);

/** Some days of the plan of one or several brands, looked at anew when something in it changes. */
export function useLanes(brands: readonly PlanBrand[], from: string, days: number, query: PlanQuery) {
  const client = useQueryClient();
  const filters = filtersOf(query);
  const own = brands[0]?.slug ?? '';
  const lanes = useQueries({
    queries: brands.map(({ slug }, index) => ({
      queryKey: ['plan', slug, 'lanes', from, days, filters],
      queryFn: ({ signal }: { readonly signal: AbortSignal }) => call(getLanes, { params: { brand: slug }, query: { from, days, ...(filters as Omit<QueryOf<typeof getLanes>, 'from' | 'days'>) }, signal }),
      placeholderData: (before: Lanes | undefined) => before,
      refetchInterval: index === 0 ? (false as const) : OTHERS_MS,
    })),
    combine: inOne,
  });
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  useEffect(() => () => void (timer.current && clearTimeout(timer.current)), []);
  const refresh = useCallback((): void => {
    timer.current ??= setTimeout(() => {
      timer.current = null;
      void client.invalidateQueries({ queryKey: ['plan', own] });
    }, GATHER_MS);
  }, [client, own]);
  useChanges(own, { onChange: (kind) => watched.has(kind) && refresh() });
  return lanes;
}

interface AskedLanes extends Asked<Lanes> {
  readonly isPending: boolean;
}

/** Joins several brands' answers in the order of time. Named days are those of the first brand. */
function inOne(answers: readonly AskedLanes[]) {
  const known = answers.flatMap(({ data }) => data ?? []);
  return {
    isPending: answers[0]?.isPending ?? true,
    problem: answers.find(({ error }) => error !== null)?.error?.message ?? null,
    isCut: known.some(({ isCut }) => isCut),
    lanes: known.flatMap(({ lanes }) => lanes),
    days: known[0]?.days ?? [],
    items: known.length === 1 ? itemsOf(known[0] as Lanes) : known.flatMap(itemsOf).toSorted((a, b) => a.atMs - b.atMs || (a.key < b.key ? -1 : 1)),
  };
}
