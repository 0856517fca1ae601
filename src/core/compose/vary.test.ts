import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import { boxContains } from '../geometry/box.ts';
import type { Placement } from '../network/network-sheet.ts';
import type { Adjustment } from '../piece/adjustment.ts';
import type { SlotValue } from '../piece/piece.ts';
import { shippedTemplates } from '../template/shipped-templates.ts';
import { walkParts, type Part } from '../template/parts.ts';
import type { Arrangement, Template } from '../template/template.ts';
import { compose, type Composed } from './compose.ts';
import { cutFrame } from './cut-frame.ts';
import { turnable, vary } from './vary.ts';

const engines = { typesetter: testTypesetter(), yoga: await loadYoga() };
const picture = testPicture();
const place = (width: number, height: number): Placement => ({ key: `${width}`, name: '', surface: 's', exportPx: { width, height }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 } });
const shapes = [place(1080, 1920), place(1080, 1080), place(1600, 900)];

function composed(template: Template, placement: Placement, adjustment: Adjustment): Composed {
  const slots: Record<string, SlotValue> = {};
  for (const { key, kind, sample } of template.slots) {
    if (kind === 'picture') slots[key] = { kind: 'picture', mediaId: picture.id };
    else if (kind !== 'mark' && sample) slots[key] = { kind: 'text', text: sample };
  }
  return compose({ template, frame: { id: 'f', slots }, book: gullwickBook, placement, pictures: new Map([[picture.id, picture]]), ghosts: false, adjustment }, engines);
}

const row = (...children: readonly Part[]): Arrangement => ({ key: 'wide', name: 'Wide', aspect: { from: 0, to: 10 }, root: { part: 'stack', direction: 'row', children } });
const words: Part = { part: 'stack', direction: 'column', grow: 1, padM: { top: 1, right: 0.5, bottom: 1, left: 2 }, safe: ['left'], children: [{ part: 'text', slot: 'headline', role: 'display', align: 'start', ink: 'ink', sizeM: { max: 2, min: 1 } }] };
const photo: Part = { part: 'picture', slot: 'photo', share: 0.5, window: 'slant-left', underM: { left: 1 } };
const wish: Adjustment = { swapsSides: true };

describe('a template that is turned', () => {
  it('has its picture at the other side, with its edges, and its words as they were', () => {
    const { root } = vary(row(words, photo), wish);
    expect(root.children.map(({ part }) => part)).toEqual(['picture', 'stack']);
    expect(root.children[0]).toMatchObject({ window: 'slant-right', underM: { right: 1 } });
    expect(root.children[1]).toMatchObject({ padM: { left: 0.5, right: 2 }, safe: ['right'], children: [{ align: 'start' }] });
    expect(vary(row(words), wish).root.children).toEqual(row(words).root.children);
  });

  it('is the same arrangement for the same wish, and the very one where nothing is wished', () => {
    const arrangement = row(words, photo);
    expect(vary(arrangement, {})).toBe(arrangement);
    expect(vary(arrangement, wish)).toBe(vary(arrangement, { ...wish }));
  });

  it('without its ornament keeps the place of what held one', () => {
    const motif: Part = { part: 'motif', generator: 'scraps', seed: 1, grow: 2 };
    const { root } = vary(row(words, motif, { ...motif, over: { top: 0 } }), { isPlain: true });
    expect(root.children.map((part) => [part.part, part.grow])).toEqual([['stack', 1], ['stack', 2]]);
  });

  it('offers what makes a difference, and no more', () => {
    expect(turnable([row(words, photo)])).toEqual({ align: true, sides: true, ornament: false });
    expect(turnable([row(photo)])).toEqual({ align: false, sides: false, ornament: false });
  });

  it('keeps every text, and inside the safe zone, in all templates', () => {
    const wishes: readonly Adjustment[] = [{ align: 'centre' }, { align: 'start' }, { swapsSides: true }, { isPlain: true }, { align: 'centre', swapsSides: true, isPlain: true }];
    for (const template of shippedTemplates.filter(({ kind }) => kind === 'graphic')) {
      for (const placement of shapes) {
        const drawn = composed(template, placement, {}).report;
        const { safe, size } = cutFrame(placement);
        const inside = { xPx: safe.leftPx, yPx: safe.topPx, widthPx: size.widthPx - safe.leftPx - safe.rightPx, heightPx: size.heightPx - safe.topPx - safe.bottomPx };
        for (const adjustment of wishes) {
          const { report } = composed(template, placement, adjustment);
          const name = `${template.key} ${placement.key} ${JSON.stringify(adjustment)}`;
          expect([name, report.texts.filter(({ kind }) => kind === 'overflows').length <= drawn.texts.filter(({ kind }) => kind === 'overflows').length]).toEqual([name, true]);
          expect([name, [...new Set(report.placed.map(({ slot }) => slot))].sort()]).toEqual([name, [...new Set(drawn.placed.map(({ slot }) => slot))].sort()]);
          for (const { slot, box } of report.placed) expect([name, slot, boxContains(inside, box, 4)]).toEqual([name, slot, true]);
        }
      }
    }
  });

  it('centres its words in a cut that had them flush', () => {
    const template = shippedTemplates.find(({ key }) => key === 'headland');
    if (!template) throw new Error('There is Headland');
    const [flush, centred] = [{}, { align: 'centre' as const }].map((adjustment) => composed(template, shapes[1] ?? place(1, 1), adjustment).report.placed.find(({ slot }) => slot === 'headline')?.box);
    expect((centred?.xPx ?? 0) + (centred?.widthPx ?? 0) / 2).toBeGreaterThan((flush?.xPx ?? 0) + (flush?.widthPx ?? 0) / 2);
    expect([...walkParts(vary(template.arrangements[0] ?? row(), { align: 'centre' }).root)].filter((part) => part.part === 'text' && part.align === 'start')).toEqual([]);
  });
});
