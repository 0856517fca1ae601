import { readAddress, writeAddress } from '../../ui/address-query.ts';
import { addDays, isDay } from '../../../core/time/day.ts';

/** What of the results is looked at. It stands in the address, so that every view can be linked to. */
export interface ResultsQuery {
  readonly show?: string | undefined;
  /** A span of days until today; missing: four weeks, unless days are chosen. */
  readonly span?: string | undefined;
  readonly from?: string | undefined;
  readonly until?: string | undefined;
  readonly beside?: string | undefined;
  readonly channels?: string | undefined;
  readonly theme?: string | undefined;
  readonly campaign?: string | undefined;
  readonly label?: string | undefined;
  readonly format?: string | undefined;
  readonly template?: string | undefined;
  readonly person?: string | undefined;
  readonly outside?: string | undefined;
  readonly sort?: string | undefined;
  readonly order?: string | undefined;
  readonly post?: string | undefined;
}

const filterKeys = ['channels', 'theme', 'campaign', 'label', 'format', 'template', 'person', 'outside'] as const satisfies readonly (keyof ResultsQuery)[];
const keys = ['show', 'span', 'from', 'until', 'beside', ...filterKeys, 'sort', 'order', 'post'] as const satisfies readonly (keyof ResultsQuery)[];

export const spans = [
  ['7', 'Last 7 days'],
  ['28', 'Last 4 weeks'],
  ['91', 'Last 13 weeks'],
  ['365', 'Last year'],
  ['own', 'Other days'],
] as const;
const USUAL_SPAN = 28;

export function readResultsQuery(search: string): ResultsQuery {
  const given = readAddress(keys, search);
  for (const key of ['from', 'until'] as const) if (given[key] !== undefined && !isDay(given[key])) delete given[key];
  return given;
}

export const writeResultsQuery = (query: ResultsQuery): string => writeAddress(keys, query);

/** First and last day of what is looked at. */
export function periodOf({ span, from, until }: ResultsQuery, today: string): { readonly from: string; readonly until: string } {
  if (span === 'own' && from !== undefined && until !== undefined && from <= until) return { from, until };
  const days = Number(span);
  return { from: addDays(today, 1 - (Number.isInteger(days) && days > 0 ? days : USUAL_SPAN)), until: today };
}

/** What the server takes. */
export function filtersOf(query: ResultsQuery, today: string) {
  const { outside, ...others } = Object.fromEntries(filterKeys.flatMap((key) => (query[key] ? [[key, query[key]]] : [])));
  return { ...periodOf(query, today), ...others, ...(outside === 'yes' ? { outside: 'yes' as const } : {}) };
}

export function isFiltered(query: ResultsQuery): boolean {
  return filterKeys.some((key) => query[key] !== undefined);
}

export const noFilters: Readonly<Record<(typeof filterKeys)[number], undefined>> = { channels: undefined, theme: undefined, campaign: undefined, label: undefined, format: undefined, template: undefined, person: undefined, outside: undefined };
