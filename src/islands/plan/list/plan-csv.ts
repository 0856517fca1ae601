import Papa from 'papaparse';
import type { PlanGroup } from '../../../core/plan/plan-items.ts';
import { planStateWord } from '../state-sign.tsx';

/** What names stand for ids in a table of the plan. */
export interface PlanNames {
  readonly channel: (channelId: string) => string;
  readonly theme: (themeId: string) => string;
  readonly campaign: (campaignId: string) => string;
}

/**
 * The plan as a CSV that a spreadsheet opens: a row a post, in the order given, days and times in the brand's zone. Its columns are named as those
 * that a table of posts is read by.
 */
export function planCsv(groups: readonly PlanGroup[], names: PlanNames): string {
  const fields = ['Date', 'Time', 'Status', 'Channels', 'Name', 'Theme', 'Campaign'];
  const data = groups.map(({ first, items }) => [first.day, first.time, planStateWord(first.state), [...new Set(items.map(({ channelId }) => names.channel(channelId)))].join(', '), first.name, first.themeId === null ? '' : names.theme(first.themeId), first.campaignId === null ? '' : names.campaign(first.campaignId)]);
  return `\uFEFF${Papa.unparse({ fields, data }, { escapeFormulae: true })}\r\n`;
}
