import { describe, expect, it } from 'vitest';
import { groupItems, type PlanItem } from '../../../core/plan/plan-items.ts';
import { mapColumns } from '../../../core/ideas/table/map-columns.ts';
import { tableFromText } from '../../../core/ideas/table/read-table.ts';
import { planCsv } from './plan-csv.ts';

const item = (channelId: string, given: Partial<PlanItem> = {}): PlanItem => ({ key: `e.${channelId}`, state: 'draft', channelId, atMs: 1, day: '2026-12-08', time: '09:00', name: 'Six "kites", one week', pieceId: 'p', pieceKind: 'graphic', themeId: 't', campaignId: null, postId: null, deliveryId: null, entryId: 'e', slotKey: null, revision: 1, hasChanged: false, isRotation: false, problem: null, why: null, ...given });
const names = { channel: (id: string) => (id === 'a' ? 'Petalry' : 'Quipline'), theme: () => 'New kites', campaign: () => '' };

describe('the plan as CSV', () => {
  it('is a row a post with all its channels, and quotes what has to be quoted', () => {
    const csv = planCsv(groupItems([item('a'), item('b')]), names);
    expect(csv.split('\r\n')[1]).toBe('2026-12-08,09:00,Draft,"Petalry, Quipline","Six ""kites"", one week",New kites,');
  });

  it('writes nothing that a spreadsheet would run', () => {
    expect(planCsv(groupItems([item('a', { name: '=HYPERLINK("x")' })]), names)).toContain(`"'=HYPERLINK(""x"")"`);
  });

  it('is read by the table of posts, column by column', () => {
    const table = tableFromText(planCsv(groupItems([item('a')]), names));
    if (table.kind === 'none') throw new Error(table.sentence);
    expect(mapColumns(table.table, ['Petalry'])).toMatchObject({ date: 0, time: 1, channels: 3, theme: 5 });
  });
});
