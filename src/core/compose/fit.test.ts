import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import type { Placement } from '../network/network-sheet.ts';
import { linkedCut } from '../piece/adjustment.ts';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import { walkParts } from '../template/parts.ts';
import { compose, type Composed } from './compose.ts';
import { cutFrame, leastTypePx } from './cut-frame.ts';

const engines = { typesetter: testTypesetter(), yoga: await loadYoga() };
const wide: Placement = { key: 'wide', name: 'Wide', surface: 'feed', exportPx: { width: 1200, height: 900 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 } };

function cutOf(template: string, texts: Readonly<Record<string, string>>, placement = wide): Composed {
  const slots = Object.fromEntries(Object.entries(texts).map(([slot, text]) => [slot, { kind: 'text', text } as const]));
  return compose({ template: getShippedTemplate(template), frame: { id: 'f', slots }, book: gullwickBook, placement, pictures: new Map(), ghosts: false, adjustment: linkedCut }, engines);
}

const tally = (headline: string): Composed => cutOf('tally', { number: '31', headline, line: 'Since March, all by hand.' });
const LONG = 'Drachenbaukurs für Einsteigerinnen und Einsteiger am Samstagnachmittag im alten Netzlager';

const placed = ({ report }: Composed, slot: string) => report.placed.find((each) => each.slot === slot);

describe('fitting', () => {
  const fits = tally('Kites that came back');
  const tooLong = tally('Donaudampfschifffahrtsgesellschaftskapitänsversammlung der Überseehafenbetriebsgenossenschaft');

  it('sets words below the least sizes of their template before it calls them too long, and never below what one can read', () => {
    const { report } = tally(LONG);
    const template = getShippedTemplate('tally').arrangements.find(({ key }) => key === report.arrangement);
    const least = template && [...walkParts(template.root)].flatMap((part) => (part.part === 'text' && part.slot === 'headline' ? [part.sizeM.min] : []))[0];
    const frame = cutFrame(wide);
    const [headline] = report.texts.filter(({ slot }) => slot === 'headline');
    expect(headline?.kind).toBe('fits');
    expect(headline?.sizePx).toBeLessThan((least ?? 0) * frame.marginPx);
    expect(headline?.sizePx).toBeGreaterThanOrEqual(leastTypePx(frame, 'display'));
  });

  it('lets nothing that follows a headline come near its size', () => {
    const { report } = cutOf('season', { headline: LONG, line: 'Samstagnachmittag ab 14 Uhr, altes Netzlager am Hafen; Segel, Spieren und Schnur sind dabei.' }, { ...wide, exportPx: { width: 1080, height: 1080 } });
    const sizeOf = (slot: string): number => report.texts.find((text) => text.slot === slot)?.sizePx ?? 0;
    expect(sizeOf('line')).toBeLessThanOrEqual(Math.max((sizeOf('headline') * 5) / 6, 32));
    expect(sizeOf('headline')).toBeGreaterThan(sizeOf('line'));
  });

  it('names the text that is too long, and by how much', () => {
    expect(tooLong.report.texts.filter(({ kind }) => kind === 'overflows').map(({ slot }) => slot)).toEqual(['headline']);
    expect(fits.report.texts.every(({ kind }) => kind === 'fits')).toBe(true);
  });

  it('leaves the texts beside it their size where they have room of their own', () => {
    const [before, after] = [placed(fits, 'number')?.sizePx ?? 0, placed(tooLong, 'number')?.sizePx ?? 0];
    expect(after).toBeGreaterThan(before * 0.85);
    expect(placed(tooLong, 'headline')?.sizePx ?? 0).toBeLessThan((placed(fits, 'headline')?.sizePx ?? 0) / 2);
  });

  it('breaks a headline beside one that is too long as it does everywhere', () => {
    const tall: Placement = { ...wide, exportPx: { width: 1080, height: 1920 }, safePercent: { top: 14, right: 12, bottom: 22, left: 6 } };
    const cut = cutOf('cutting', { headline: 'Come and ask', line: 'Donaudampfschifffahrtsgesellschaftskapitänsversammlungsprotokollführerinnen' }, tall);
    expect(cut.report.texts.filter(({ kind }) => kind === 'overflows').map(({ slot }) => slot)).toEqual(['line']);
    expect(placed(cut, 'headline')?.lineTexts).toEqual(['Come', 'and ask']);
  });

  it('lets no text run off the cut or over another, however long one is', () => {
    for (const cut of [fits, tooLong]) {
      const boxes = cut.report.placed.map(({ box }) => box);
      for (const box of boxes) {
        expect(box.xPx + box.widthPx).toBeLessThanOrEqual(1201);
        expect(box.yPx + box.heightPx).toBeLessThanOrEqual(901);
      }
      const headline = placed(cut, 'headline')?.box;
      const number = placed(cut, 'number')?.box;
      expect((number?.xPx ?? 0) + (number?.widthPx ?? 0)).toBeLessThanOrEqual(headline?.xPx ?? 0);
    }
  });
});
