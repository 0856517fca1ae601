import fc from 'fast-check';
import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import { compose, type Composed } from '../compose/compose.ts';
import { cutFrame } from '../compose/cut-frame.ts';
import { boxContains, intersectBoxes } from '../geometry/box.ts';
import type { Placement } from '../network/network-sheet.ts';
import { linkedCut } from '../piece/adjustment.ts';
import { sampleFrame, type SampleLength } from '../piece/sample-frame.ts';
import { MAX_REGIONS, regionKinds, templateFromSketch, type Region, type RegionKind } from './from-sketch.ts';

const engines = { typesetter: testTypesetter(), yoga: await loadYoga() };
const shapes: readonly Placement[] = ([['9:16', 1080, 1920, 12, 20], ['4:5', 1080, 1350, 4, 4], ['1:1', 1080, 1080, 4, 4], ['16:9', 1600, 900, 4, 4], ['1.91:1', 1200, 628, 4, 4]] as const).map(
  ([key, width, height, top, bottom]) => ({ key, name: key, surface: key, exportPx: { width, height }, safePercent: { top, right: 4, bottom, left: 4 } }),
);
const shapeOf = (key: string): Placement => shapes.find((each) => each.key === key) ?? (() => { throw new Error(`no shape ${key}`); })();

const region = (kind: RegionKind, x: number, y: number, width: number, height: number, id = `${kind}-${x}-${y}`): Region => ({ id, kind, x, y, width, height });
const pictureAbove = [region('picture', 0, 0, 1, 0.6), region('label', 0.07, 0.64, 0.5, 0.05), region('headline', 0.07, 0.7, 0.86, 0.16), region('line', 0.07, 0.88, 0.6, 0.08), region('mark', 0.8, 0.86, 0.13, 0.1)];
const pictureBeside = [region('picture', 0, 0, 0.5, 1), region('headline', 0.55, 0.3, 0.4, 0.3), region('line', 0.55, 0.65, 0.4, 0.1)];
const wordsOnPicture = [region('picture', 0, 0, 1, 1), region('headline', 0.07, 0.65, 0.86, 0.2), region('line', 0.07, 0.87, 0.6, 0.08)];

function drawn(regions: readonly Region[], placement: Placement, length: SampleLength = 'usual'): Composed {
  const template = templateFromSketch('Sketched', regions);
  const pictures = template.slots.filter(({ kind }) => kind === 'picture').map(({ key }) => testPicture({ id: key }));
  const frame = sampleFrame(template, length, { photos: pictures.map(({ id }) => id), clear: [], cutOuts: [] });
  return compose({ template, frame, book: gullwickBook, placement, pictures: new Map(pictures.map((each) => [each.id, each])), ghosts: false, adjustment: linkedCut }, engines);
}

const boxOf = ({ report }: Composed, slot: string) => report.placed.find((each) => each.slot === slot)?.box ?? report.pictures.find((each) => each.slot === slot)?.box ?? { xPx: 0, yPx: 0, widthPx: 0, heightPx: 0 };

function expectSound({ report }: Composed, placement: Placement, what: string): void {
  const { safe, size } = cutFrame(placement);
  const inside = { xPx: safe.leftPx, yPx: safe.topPx, widthPx: size.widthPx - safe.leftPx - safe.rightPx, heightPx: size.heightPx - safe.topPx - safe.bottomPx };
  for (const { slot, box } of report.placed) {
    expect(boxContains(inside, box, 1.5), `${what}: ${slot} in the safe zone`).toBe(true);
    for (const other of report.placed) if (other.slot !== slot) expect(intersectBoxes(box, other.box), `${what}: ${slot} over ${other.slot}`).toBeNull();
  }
}

describe('templateFromSketch', () => {
  it('puts what is drawn above above, reaching the edges that it reaches', () => {
    const cut = drawn(pictureAbove, shapeOf('4:5'));
    const [picture, headline, line] = ['photo', 'headline', 'line'].map((slot) => boxOf(cut, slot));
    expect(picture).toMatchObject({ xPx: 0, yPx: 0, widthPx: 1080 });
    expect(picture?.heightPx).toBeGreaterThan(1350 * 0.4);
    expect(headline?.yPx).toBeGreaterThan((picture?.yPx ?? 0) + (picture?.heightPx ?? 0));
    expect(line?.yPx).toBeGreaterThan((headline?.yPx ?? 0) + (headline?.heightPx ?? 0));
    // The mark stands beside the line, at the end of its row.
    expect(cut.report.marks[0]?.xPx).toBeGreaterThan((line?.xPx ?? 0) + (line?.widthPx ?? 0));
  });

  it('lays out what stands above each other side by side in wide cuts, and the other way round in tall ones', () => {
    const wide = drawn(pictureAbove, shapeOf('1.91:1'));
    expect(boxOf(wide, 'headline').xPx).toBeGreaterThan(boxOf(wide, 'photo').xPx + boxOf(wide, 'photo').widthPx);
    expect(boxOf(wide, 'photo').heightPx).toBe(628);
    const tall = drawn(pictureBeside, shapeOf('9:16'));
    expect(boxOf(tall, 'headline').yPx).toBeGreaterThan(boxOf(tall, 'photo').yPx + boxOf(tall, 'photo').heightPx);
    const usual = drawn(pictureBeside, shapeOf('1:1'));
    expect(boxOf(usual, 'headline').xPx).toBeGreaterThan(boxOf(usual, 'photo').xPx + boxOf(usual, 'photo').widthPx);
  });

  it('sets words that are drawn on a picture on it, in its calmest place where it fills the cut', () => {
    const cut = drawn(wordsOnPicture, shapeOf('4:5'));
    expect(boxOf(cut, 'photo')).toMatchObject({ widthPx: 1080, heightPx: 1350 });
    expect(cut.report.blocks).toHaveLength(1);
    expect(cut.report.findings).toEqual([]);
  });

  it('numbers what comes twice, and needs a slot for everything but the mark', () => {
    const { slots } = templateFromSketch('Two', [region('headline', 0, 0, 1, 0.3), region('headline', 0, 0.4, 1, 0.3), region('mark', 0, 0.8, 0.2, 0.1)]);
    expect(slots.map(({ key, label, required }) => [key, label, required])).toEqual([['headline', 'Headline', true], ['headline-2', 'Headline 2', false]]);
  });

  it('refuses an empty sketch and an endless one', () => {
    expect(() => templateFromSketch('None', [])).toThrow(/needs a picture or words/);
    expect(() => templateFromSketch('Mark', [region('mark', 0, 0, 0.2, 0.2)])).toThrow(/needs a picture or words/);
    expect(() => templateFromSketch('Many', Array.from({ length: MAX_REGIONS + 1 }, (_, index) => region('line', 0, index / 20, 1, 0.04, String(index))))).toThrow(/at most 12 regions/);
  });

  it('makes of any sketch, however it overlaps, a template that can be read and keeps words apart and inside', () => {
    const share = fc.integer({ min: 0, max: 12 }).map((value) => value / 12);
    const any = fc.record({ kind: fc.constantFrom(...regionKinds), x: share, y: share, width: fc.integer({ min: 1, max: 12 }), height: fc.integer({ min: 1, max: 12 }) });
    const sketches = fc.array(any, { minLength: 1, maxLength: 6 }).filter((all) => all.some(({ kind }) => kind !== 'mark')).map((all) =>
      all.map(({ kind, x, y, width, height }, index): Region => ({ id: String(index), kind, x: Math.min(x, 11 / 12), y: Math.min(y, 11 / 12), width: Math.min(width / 12, 1 - Math.min(x, 11 / 12)), height: Math.min(height / 12, 1 - Math.min(y, 11 / 12)) })),
    );
    fc.assert(
      fc.property(sketches, fc.constantFrom(...shapes), (regions, placement) => {
        const cut = drawn(regions, placement, 'short');
        if (cut.report.texts.every(({ kind }) => kind === 'fits')) expectSound(cut, placement, JSON.stringify(regions));
      }),
      { numRuns: 150 },
    );
  });

  it.each(shapes.map((shape) => [shape.key, shape] as const))('fits the usual sketches in %s', (_, shape) => {
    for (const regions of [pictureAbove, pictureBeside, wordsOnPicture]) {
      const cut = drawn(regions, shape);
      expect(cut.report.texts.filter(({ kind }) => kind !== 'fits')).toEqual([]);
      expectSound(cut, shape, shape.key);
    }
  });
});
