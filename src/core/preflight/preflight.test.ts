import { describe, expect, it } from 'vitest';
import type { CutReport } from '../compose/report.ts';
import { getPlacement, networkSheetSchema } from '../network/network-sheet.ts';
import petalryJson from '../network/sheets/petalry.json' with { type: 'json' };
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import { preflight, type CutToCheck } from './preflight.ts';

const sheet = networkSheetSchema.validateSync(petalryJson);
const clean: CutReport = { arrangement: 'cliff', texts: [], placed: [], pictures: [], findings: [] };
const cut = (placement: string, report: Partial<CutReport> = {}): CutToCheck => ({
  ref: { channelId: 'c2', placement },
  channelName: 'Petalry @kites',
  sheet,
  placement: getPlacement(sheet, placement),
  report: { ...clean, ...report },
});
const piece = { ...plainPiece, words: { shared: { caption: 'Hello', altText: 'A kite' }, own: {} } };
const template = getShippedTemplate('headland');

describe('preflight', () => {
  it('finds nothing in a piece that is in order', () => {
    expect(preflight(piece, template, [cut('feed-square'), cut('story')])).toEqual([]);
  });

  it('says an empty slot once, by the name the designer sees', () => {
    const empty = { findings: [{ kind: 'empty-slot' as const, slot: 'headline' }] };
    const findings = preflight(piece, template, [cut('feed-square', empty), cut('story', empty)]);
    expect(findings).toEqual([{ severity: 'stops', sentence: 'Headline is empty. Headland cannot go out without it.', cut: null, sheet: 'look' }]);
  });

  it('says which text is too long for which cut, and by how much', () => {
    const report = { texts: [{ kind: 'overflows' as const, slot: 'headline', sizePx: 40, lines: 9, overBy: 1, reason: 'too-tall' as const }] };
    expect(preflight(piece, template, [cut('story', report)])).toEqual([{ severity: 'stops', sentence: 'Headline is too long for Petalry Story by 1 character.', cut: 'c2.story', sheet: 'look' }]);
  });

  it('checks the words of a channel once, however many cuts it has', () => {
    const long = { ...piece, words: { shared: { caption: 'x'.repeat(2_201), altText: '' }, own: {} } };
    const findings = preflight(long, template, [cut('feed-square'), cut('story')]);
    expect(findings.map((finding) => finding.severity)).toEqual(['stops', 'warns']);
    expect(findings[0]?.sentence).toBe('Caption for Petalry @kites is 1 character over the 2200 that Petalry takes.');
  });

  it('warns of soft pictures, weak contrast and letters that cannot be written', () => {
    const findings = preflight(piece, template, [
      cut('story', {
        findings: [
          { kind: 'low-resolution', slot: 'photo', pictureId: 'm1', enlargedBy: 2.04 },
          { kind: 'low-contrast', slot: 'line', ratio: 2.31, needed: 4.5 },
          { kind: 'missing-glyphs', slot: 'headline', characters: ['凧'] },
        ],
      }),
    ]);
    expect(findings.map((finding) => finding.severity)).toEqual(['warns', 'warns', 'stops']);
    expect(findings.map((finding) => finding.sentence).join(' ')).toMatch(/2\.0 times.*contrast of 2\.3.*凧/);
  });
});
