import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import { boxContains } from '../geometry/box.ts';
import type { Placement } from '../network/network-sheet.ts';
import { linkedCut } from '../piece/adjustment.ts';
import { sampleFrame } from '../piece/sample-frame.ts';
import { partName } from '../template/part-name.ts';
import { partAt, walkPaths } from '../template/edit-template.ts';
import { getShippedTemplate, shippedTemplates } from '../template/shipped-templates.ts';
import { arrange } from './arrange.ts';
import { compose } from './compose.ts';
import { troublesOf } from './judge-cut.ts';
import { partUnder } from './part-boxes.ts';

const engines = { typesetter: testTypesetter(), yoga: await loadYoga() };
const picture = testPicture();
const square: Placement = { key: 'square', name: '', surface: 's', exportPx: { width: 1080, height: 1080 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 } };
const composed = (key: string, wantsParts?: true) => {
  const template = getShippedTemplate(key);
  return compose({ template, frame: sampleFrame(template, 'usual', { photos: [picture.id], clear: [], cutOuts: [picture.id] }), book: gullwickBook, placement: square, pictures: new Map([[picture.id, picture]]), ghosts: false, adjustment: linkedCut, wantsParts }, engines).report;
};

describe('the parts of a cut', () => {
  it('are told where that is asked for, by the paths of the template', () => {
    expect(composed('headland').parts).toBeUndefined();
    for (const { key, kind } of shippedTemplates.filter((each) => each.kind === 'graphic')) {
      const report = composed(key, true);
      const { root } = arrange(getShippedTemplate(key), { widthPx: 1080, heightPx: 1080 });
      const boxes = report.parts ?? {};
      expect([key, kind, boxes['']]).toEqual([key, kind, { xPx: 0, yPx: 0, widthPx: 1080, heightPx: 1080 }]);
      for (const { part, path } of walkPaths(root)) {
        const box = boxes[path.join('.')];
        const placed = part.part === 'text' ? report.placed.find(({ slot }) => slot === part.slot) : undefined;
        // Words that are on the cut stand in the box of their part, or of another part of the same slot.
        if (placed && box && [...walkPaths(root)].filter(({ part: other }) => other.part === 'text' && other.slot === placed.slot).length === 1) expect([key, placed.slot, boxContains(box, { ...placed.box, xPx: Math.max(box.xPx, placed.box.xPx), widthPx: 1 }, 3)]).toEqual([key, placed.slot, true]);
      }
    }
  });

  it('are found under a point, the smallest first', () => {
    const boxes = { '': { xPx: 0, yPx: 0, widthPx: 100, heightPx: 100 }, '0': { xPx: 0, yPx: 0, widthPx: 100, heightPx: 50 }, '0.1': { xPx: 10, yPx: 10, widthPx: 20, heightPx: 20 } };
    expect([[15, 15], [60, 15], [60, 80], [160, 80]].map(([xPx = 0, yPx = 0]) => partUnder(boxes, { xPx, yPx }))).toEqual(['0.1', '0', '', null]);
  });

  it('are called by their slots, stacks by what stands in them', () => {
    const template = getShippedTemplate('headland');
    const { root } = arrange(template, { widthPx: 1080, heightPx: 1080 });
    const names = [...walkPaths(root)].map(({ path }) => partName(partAt(root, path) ?? root, template));
    expect(names[0]).toMatch(/^(Row|Column): .+ and \d+ more$/);
    expect(names).toContain('Headline');
    expect(names).toContain('Mark');
  });
});

describe('what a template does badly', () => {
  it('is told worst first, and what only the content could mend is left out', () => {
    const troubles = troublesOf(
      {
        texts: [{ kind: 'overflows', slot: 'headline', sizePx: 40, lines: 4, overBy: 12, reason: 'too-tall' }, { kind: 'fits', slot: 'line', sizePx: 30, lines: 1 }],
        findings: [{ kind: 'dropped', slot: 'line' }, { kind: 'low-contrast', slot: 'label', ratio: 2.14, needed: 4.5 }, { kind: 'low-resolution', slot: 'photo', pictureId: 'p', enlargedBy: 2 }, { kind: 'cut-off-mark' }],
      },
      (slot) => slot.toUpperCase(),
    );
    expect(troubles.map(({ sentence }) => sentence)).toEqual(['HEADLINE is too long by 12', 'The mark runs over the edge', 'LABEL is hard to read: 2.1 of 4.5', 'LINE is left out']);
  });
});
