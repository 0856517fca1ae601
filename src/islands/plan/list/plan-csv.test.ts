import { describe, expect, it } from 'vitest';
import { groupItems, type PlanItem } from '../../../core/plan/plan-items.ts';
import { mapColumns } from '../../../core/ideas/table/map-columns.ts';
import { tableFromText } from '../../../core/ideas/table/read-table.ts';
import { planCsv, type NamedGroup } from './plan-csv.ts';

const item = (channelId: string, given: Partial<PlanItem> = {}): PlanItem => ({ key: `e.${channelId}`, state: 'draft', channelId, atMs: 1, day: '2026-12-08', time: '09:00', name: 'Six "kites", one week', pieceId: 'p', pieceKind: 'graphic', themeId: 't', campaignId: null, postId: null, deliveryId: null, entryId: 'e', slotKey: null, revision: 1, hasChanged: false, isRotation: false, problem: null, why: null, ...given });
const channelName = (id: string): string => (id === 'a' ? 'Petalry' : 'Quipline');
const named = (items: readonly PlanItem[]): readonly NamedGroup[] => groupItems(items).map((group) => ({ ...group, brand: 'Tern & Gale', theme: 'New kites', campaign: '' }));

describe('the plan as CSV', () => {
  it('is a row a post with all its channels, and quotes what has to be quoted', () => {
    const csv = planCsv(named([item('a'), item('b')]), channelName, false);
    expect(csv.split('\r\n')[1]).toBe('2026-12-08,09:00,Draft,"Petalry, Quipline","Six ""kites"", one week",New kites,');
  });

  it('says whose each post is where there are several brands', () => {
    const [head, first] = planCsv(named([item('a')]), channelName, true).split('\r\n');
    expect([head?.slice(1, 11), first?.slice(0, 22)]).toEqual(['Brand,Date', 'Tern & Gale,2026-12-08']);
  });

  it('writes nothing that a spreadsheet would run', () => {
    expect(planCsv(named([item('a', { name: '=HYPERLINK("x")' })]), channelName, false)).toContain(`"'=HYPERLINK(""x"")"`);
  });

  it('is read by the table of posts, column by column', () => {
    const table = tableFromText(planCsv(named([item('a')]), channelName, false));
    if (table.kind === 'none') throw new Error(table.sentence);
    expect(mapColumns(table.table, ['Petalry'])).toMatchObject({ date: 0, time: 1, channels: 3, theme: 5 });
  });
});
