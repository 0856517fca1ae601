import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { getBrand } from '../../contract/brand-contracts.ts';
import type { AnswerOf, QueryOf } from '../../contract/contract.ts';
import { getLanes, getPlan } from '../../contract/plan-contracts.ts';
import type { Role } from '../../core/access/access.ts';
import { itemsOf, type PlanItem } from '../../core/plan/plan-items.ts';
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

/** What the plan's views share: the brand's channels with their networks, the plan, its themes and campaigns, and the time. */
export function usePlanContext({ brand, nowMs: serverNowMs }: PlanProps) {
  const nowMs = useNow(serverNowMs);
  const brandQuery = useQuery({ queryKey: ['brand', brand.slug], queryFn: () => call(getBrand, { params: { brand: brand.slug } }), staleTime: 60_000 });
  const planQuery = useQuery({ queryKey: ['plan', brand.slug, 'plan'], queryFn: () => call(getPlan, { params: { brand: brand.slug } }) });
  const channels = brandQuery.data?.channels ?? NO_CHANNELS;
  const sheets = useMemo(() => new Map((brandQuery.data?.sheets ?? []).map((sheet) => [sheet.key, sheet])), [brandQuery.data]);
  const themes = useMemo(() => new Map<string, Theme>((planQuery.data?.plan.themes ?? []).map((theme) => [theme.id, theme])), [planQuery.data]);
  const campaigns = useMemo(() => new Map<string, Campaign>((planQuery.data?.campaigns ?? []).map((campaign) => [campaign.id, campaign])), [planQuery.data]);
  return { brand, nowMs, today: wallTimeOf(nowMs, brand.zone).slice(0, 10), channels, sheets, themes, campaigns, plan: planQuery.data ?? null, problem: brandQuery.error?.message ?? planQuery.error?.message ?? null };
}

export type PlanContext = ReturnType<typeof usePlanContext>;

const NO_CHANNELS: readonly PlanChannel[] = [];
const NO_ITEMS: readonly PlanItem[] = [];
/** Changes that arrive within this time lead to one new look. */
const GATHER_MS = 250;
const watched: ReadonlySet<string> = new Set(['plan', 'entry', 'queue', 'post', 'delivery', 'clock']);

/** Some days of the plan, looked at anew when something in it changes. */
export function useLanes(brand: string, from: string, days: number, query: PlanQuery) {
  const client = useQueryClient();
  const filters = filtersOf(query);
  const lanes = useQuery({
    queryKey: ['plan', brand, 'lanes', from, days, filters],
    queryFn: ({ signal }) => call(getLanes, { params: { brand }, query: { from, days, ...(filters as Omit<QueryOf<typeof getLanes>, 'from' | 'days'>) }, signal }),
    placeholderData: (before) => before,
  });
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  useEffect(() => () => void (timer.current && clearTimeout(timer.current)), []);
  const refresh = useCallback((): void => {
    timer.current ??= setTimeout(() => {
      timer.current = null;
      void client.invalidateQueries({ queryKey: ['plan', brand] });
    }, GATHER_MS);
  }, [client, brand]);
  useChanges(brand, { onChange: (kind) => watched.has(kind) && refresh() });
  const items = useMemo(() => (lanes.data ? itemsOf(lanes.data) : NO_ITEMS), [lanes.data]);
  return { ...lanes, items };
}
