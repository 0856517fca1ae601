import { readAddress, writeAddress } from '../ui/address-query.ts';
import { addDays, isDay, mondayOf } from '../../core/time/day.ts';

/** What of the plan is shown. It stands in the address, so that every view can be linked to and kept. */
export interface PlanQuery {
  /** The first day; missing: today. */
  readonly from?: string | undefined;
  /** How many days the lanes show. */
  readonly days?: number | undefined;
  /** Other brands that are shown beside the page's own. */
  readonly brands?: string | undefined;
  readonly channels?: string | undefined;
  readonly state?: string | undefined;
  readonly kind?: string | undefined;
  readonly theme?: string | undefined;
  readonly campaign?: string | undefined;
  readonly label?: string | undefined;
  readonly person?: string | undefined;
  readonly sort?: string | undefined;
  readonly channel?: string | undefined;
}

const filterKeys = ['channels', 'state', 'kind', 'theme', 'campaign', 'label', 'person'] as const satisfies readonly (keyof PlanQuery)[];
const keys = ['from', 'days', 'brands', ...filterKeys, 'sort', 'channel'] as const satisfies readonly (keyof PlanQuery)[];
export const [MIN_DAYS, MAX_DAYS] = [3, 84] as const;

/** The query of an address; values that cannot be are left out. */
export function readPlanQuery(search: string): PlanQuery {
  const given = readAddress(keys, search);
  const days = Number(given['days']);
  return {
    ...given,
    from: given['from'] && isDay(given['from']) ? given['from'] : undefined,
    days: Number.isInteger(days) && days >= MIN_DAYS && days <= MAX_DAYS ? days : undefined,
  };
}

/** The address of a query on this page. */
export const writePlanQuery = (query: PlanQuery): string => writeAddress(keys, query);

export function isFilteredPlan(query: PlanQuery): boolean {
  return filterKeys.some((key) => query[key] !== undefined && query[key] !== '');
}

/** The filters alone, as the server takes them. */
export function filtersOf(query: PlanQuery): Readonly<Partial<Record<(typeof filterKeys)[number], string>>> {
  return Object.fromEntries(filterKeys.flatMap((key) => (query[key] ? [[key, query[key]] as const] : [])));
}

/** The days that a month's calendar shows: whole weeks from Monday. */
export function monthGrid(day: string): { readonly from: string; readonly days: number; readonly month: string } {
  const first = `${day.slice(0, 8)}01`;
  const from = mondayOf(first);
  const next = nextMonth(day);
  let days = 35;
  if (addDays(from, 28) >= next) days = 28;
  else if (addDays(from, 35) < next) days = 42;
  return { from, days, month: day.slice(0, 7) };
}

export function nextMonth(day: string): string {
  return `${addDays(`${day.slice(0, 8)}01`, 32).slice(0, 8)}01`;
}

export function monthBefore(day: string): string {
  return `${addDays(`${day.slice(0, 8)}01`, -1).slice(0, 8)}01`;
}
