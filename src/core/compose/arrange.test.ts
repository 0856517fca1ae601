import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import type { Picture } from '../crop/crop-window.ts';
import { shownShare } from '../crop/seen-share.ts';
import type { BoxInPicture } from '../crop/subject-box.ts';
import type { Placement } from '../network/network-sheet.ts';
import { linkedCut, type Adjustment } from '../piece/adjustment.ts';
import type { SlotValue } from '../piece/piece.ts';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import type { Template } from '../template/template.ts';
import { arrange, nearArrangements } from './arrange.ts';
import { insteadSentence } from './block-sentence.ts';
import { compose } from './compose.ts';
import type { CutReport } from './report.ts';

const engines = { typesetter: testTypesetter(), yoga: await loadYoga() };
const square: Placement = { key: 'square', name: 'Square', surface: 'Feed', exportPx: { width: 1080, height: 1080 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 } };

function shipped(key: string): Template {
  const template = getShippedTemplate(key);
  if (!template) throw new Error(`There is no template ${key}`);
  return template;
}

/** A square photograph with a thing that no outline is known of. */
function photoWith(thing: BoxInPicture): Picture {
  const { facts } = testPicture();
  return testPicture({ widthPx: 2000, heightPx: 2000, facts: { ...facts, outline: null, things: [thing], saliency: facts.saliency.map(() => 0) }, focal: { x: thing.x + thing.width / 2, y: thing.y + thing.height / 2 } });
}

function reportOf(key: string, picture: Picture, adjustment: Adjustment = linkedCut): CutReport {
  const template = shipped(key);
  const slots = Object.fromEntries(template.slots.flatMap((slot): [string, SlotValue][] => (slot.kind === 'picture' ? [[slot.key, { kind: 'picture', mediaId: picture.id }]] : slot.sample ? [[slot.key, { kind: 'text', text: slot.sample }]] : [])));
  return compose({ template, frame: { id: 'f', slots }, book: gullwickBook, placement: square, pictures: new Map([[picture.id, picture]]), ghosts: false, adjustment }, engines).report;
}

describe('nearArrangements', () => {
  it('are those for shapes close to the cut, the nearest first', () => {
    const season = shipped('season');
    const size = { widthPx: 1080, heightPx: 1080 };
    expect(nearArrangements(season, size, arrange(season, size)).map(({ key }) => key)).toEqual(['lancet', 'oriel']);
    const story = { widthPx: 1080, heightPx: 1920 };
    expect(nearArrangements(season, story, arrange(season, story)).map(({ key }) => key)).toEqual(['lancet']);
    const banner = { widthPx: 1600, heightPx: 400 };
    expect(nearArrangements(season, banner, arrange(season, banner))).toEqual([]);
  });
});

describe('a photograph whose subject the usual window cuts off', () => {
  const lying = photoWith({ x: 0.1, y: 0.4, width: 0.8, height: 0.25 });
  const upright = photoWith({ x: 0.35, y: 0.1, width: 0.25, height: 0.8 });

  it('takes the arrangement of a near shape that shows far more of it, and says so', () => {
    const report = reportOf('season', lying);
    expect(report).toMatchObject({ arrangement: 'lancet', insteadOf: { arrangement: 'bay' } });
    expect(shownShare(lying, report.pictures[0]?.window ?? { x: 0, y: 0, width: 0, height: 0 })).toBeCloseTo(report.insteadOf?.seenShare ?? 0);
    expect(report.insteadOf && insteadSentence(report.insteadOf)).toMatch(/^Arranged as for another shape: \d+% of a subject can be seen, as usual \d+%\.$/);
    expect(reportOf('crew', upright)).toMatchObject({ arrangement: 'watch', insteadOf: { arrangement: 'shift' } });
  });

  it('keeps the usual one where that shows the subject', () => {
    for (const [key, picture, arrangement] of [['season', upright, 'bay'], ['crew', photoWith({ x: 0.4, y: 0.4, width: 0.2, height: 0.1 }), 'shift']] as const) {
      const report = reportOf(key, picture);
      expect(report.arrangement).toBe(arrangement);
      expect(report.insteadOf).toBeUndefined();
    }
  });

  it('keeps what a person has chosen: the arrangement, or the crop', () => {
    expect(reportOf('season', lying, { ...linkedCut, arrangement: 'bay' }).arrangement).toBe('bay');
    expect(reportOf('season', lying, { ...linkedCut, crops: { photo: { x: 0.5, y: 0.5, zoom: 1 } } }).arrangement).toBe('bay');
  });
});
