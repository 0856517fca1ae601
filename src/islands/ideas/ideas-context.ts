import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { getBrand } from '../../contract/brand-contracts.ts';
import { getPlan } from '../../contract/plan-contracts.ts';
import type { AnswerOf } from '../../contract/contract.ts';
import type { Role } from '../../core/access/access.ts';
import type { Theme } from '../../core/plan/plan.ts';
import { call } from '../ui/call.ts';
import type { IdeasQuery } from './ideas-query.ts';

export interface IdeasBrand {
  readonly slug: string;
  readonly name: string;
  readonly zone: string;
  readonly role: Role;
}

export type BrandData = AnswerOf<typeof getBrand>;

/** What the parts of the ideas share. */
export interface IdeasContext {
  readonly brand: IdeasBrand;
  /** On the brand's clock. */
  readonly today: string;
  readonly query: IdeasQuery;
  readonly change: (next: Partial<IdeasQuery>) => void;
  readonly data: BrandData | null;
  readonly channels: BrandData['channels'];
  /** By the key of their network. */
  readonly sheets: ReadonlyMap<string, BrandData['sheets'][number]>;
  readonly themes: ReadonlyMap<string, Theme>;
  readonly people: readonly { readonly id: string; readonly name: string }[];
  /** Whether the rota has slots; null until the plan is loaded. */
  readonly hasRota: boolean | null;
}

const NONE: never[] = [];

/** The brand with its channels, themes and people. */
export function useBrandOfIdeas(brand: string): Pick<IdeasContext, 'data' | 'channels' | 'sheets' | 'themes' | 'people' | 'hasRota'> {
  const data = useQuery({ queryKey: ['brand', brand], queryFn: () => call(getBrand, { params: { brand } }), staleTime: 60_000 }).data ?? null;
  const plan = useQuery({ queryKey: ['plan', brand, 'plan'], queryFn: () => call(getPlan, { params: { brand } }) }).data;
  const sheets = useMemo(() => new Map((data?.sheets ?? []).map((sheet) => [sheet.key, sheet])), [data]);
  const themes = useMemo(() => new Map<string, Theme>((plan?.plan.themes ?? []).map((theme) => [theme.id, theme])), [plan]);
  return { data, channels: data?.channels ?? NONE, sheets, themes, people: plan?.people ?? NONE, hasRota: plan ? plan.plan.rota.rules.length > 0 : null };
}
