import Papa from 'papaparse';
import type { PlanGroup } from '../../../core/plan/plan-items.ts';
import { planStateWord } from '../state-sign.tsx';

/** A post of the plan with the names that stand for its ids. */
export interface NamedGroup extends PlanGroup {
  readonly brand: string;
  readonly theme: string;
  readonly campaign: string;
}

/**
 * The plan as a CSV that a spreadsheet opens: a row a post, in the order given, days and times in its brand's zone. Its columns are named as those
 * that a table of posts is read by.
 * @param hasBrands whether a column says whose each post is
 */
export function planCsv(groups: readonly NamedGroup[], channelName: (channelId: string) => string, hasBrands: boolean): string {
  const fields = [...(hasBrands ? ['Brand'] : []), 'Date', 'Time', 'Status', 'Channels', 'Name', 'Theme', 'Campaign'];
  const data = groups.map(({ first, items, brand, theme, campaign }) => [...(hasBrands ? [brand] : []), first.day, first.time, planStateWord(first.state), [...new Set(items.map(({ channelId }) => channelName(channelId)))].join(', '), first.name, theme, campaign]);
  return `\uFEFF${Papa.unparse({ fields, data }, { escapeFormulae: true })}\r\n`;
}
