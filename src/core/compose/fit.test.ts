import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import type { Placement } from '../network/network-sheet.ts';
import { linkedCut } from '../piece/adjustment.ts';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import { compose, type Composed } from './compose.ts';

const engines = { typesetter: testTypesetter(), yoga: await loadYoga() };
const wide: Placement = { key: 'wide', name: 'Wide', surface: 'feed', exportPx: { width: 1200, height: 900 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 } };

function tally(headline: string): Composed {
  const text = (value: string) => ({ kind: 'text', text: value }) as const;
  return compose({ template: getShippedTemplate('tally'), frame: { id: 'f', slots: { number: text('31'), headline: text(headline), line: text('Since March, all by hand.') } }, book: gullwickBook, placement: wide, pictures: new Map(), ghosts: false, adjustment: linkedCut }, engines);
}

const placed = ({ report }: Composed, slot: string) => report.placed.find((each) => each.slot === slot);

describe('fitting', () => {
  const fits = tally('Kites that came back');
  const tooLong = tally('Donaudampfschifffahrtsgesellschaftskapitänsversammlung der Überseehafenbetriebsgenossenschaft');

  it('names the text that is too long, and by how much', () => {
    expect(tooLong.report.texts.filter(({ kind }) => kind === 'overflows').map(({ slot }) => slot)).toEqual(['headline']);
    expect(fits.report.texts.every(({ kind }) => kind === 'fits')).toBe(true);
  });

  it('leaves the texts beside it their size where they have room of their own', () => {
    const [before, after] = [placed(fits, 'number')?.sizePx ?? 0, placed(tooLong, 'number')?.sizePx ?? 0];
    expect(after).toBeGreaterThan(before * 0.85);
    expect(placed(tooLong, 'headline')?.sizePx ?? 0).toBeLessThan((placed(fits, 'headline')?.sizePx ?? 0) / 2);
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
