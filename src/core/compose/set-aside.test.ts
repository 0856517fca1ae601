import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { patchRaster, testPicture } from '../../../tests/fixtures/pictures.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import type { Picture } from '../crop/crop-window.ts';
import { takePictureFacts } from '../crop/picture-facts.ts';
import { shownShare } from '../crop/seen-share.ts';
import { boxContains, growBox, intersectBoxes } from '../geometry/box.ts';
import type { Placement } from '../network/network-sheet.ts';
import { linkedCut, type Adjustment } from '../piece/adjustment.ts';
import type { SlotValue } from '../piece/piece.ts';
import { walkParts, type StackPart } from '../template/parts.ts';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import type { Arrangement } from '../template/template.ts';
import { arrange } from './arrange.ts';
import { besideSentence } from './block-sentence.ts';
import { compose, type Composed } from './compose.ts';
import { cutFrame } from './cut-frame.ts';
import { photoBelowWords, setAside } from './set-aside.ts';

const engines = { typesetter: testTypesetter(), yoga: await loadYoga() };
const placementOf = (width: number, height: number, safe = { top: 4, right: 4, bottom: 4, left: 4 }): Placement => ({ key: 'k', name: 'k', surface: 'k', exportPx: { width, height }, safePercent: safe });
const shapes = { story: placementOf(1080, 1920, { top: 12, right: 6, bottom: 20, left: 6 }), square: placementOf(1080, 1080), wide: placementOf(1600, 900) };

/** A photograph that is taller than wide, with a red thing of a share of its width. */
function photoOf(size: number, at = { x: 0.5, y: 0.5 }): Picture {
  const facts = takePictureFacts(patchRaster({ widthPx: 90, heightPx: 120, ground: [90, 140, 210], patch: [215, 50, 40], at, size }));
  return testPicture({ widthPx: 1800, heightPx: 2400, facts, focal: at });
}

function cutOf(key: string, placement: Placement, picture: Picture, adjustment: Adjustment = linkedCut): Composed {
  const template = getShippedTemplate(key);
  if (!template) throw new Error(`There is no template ${key}`);
  const slots = Object.fromEntries(template.slots.flatMap((slot): [string, SlotValue][] => (slot.kind === 'picture' ? [[slot.key, { kind: 'picture', mediaId: picture.id }]] : slot.sample ? [[slot.key, { kind: 'text', text: slot.sample }]] : [])));
  return compose({ template, frame: { id: 'f', slots }, book: gullwickBook, placement, pictures: new Map([[picture.id, picture]]), ghosts: false, adjustment }, engines);
}

const arrangementOf = (key: string, { exportPx: { width, height } }: Placement): Arrangement => {
  const template = getShippedTemplate(key);
  if (!template) throw new Error(`There is no template ${key}`);
  return arrange(template, { widthPx: width, heightPx: height });
};
const asidesOf = (key: string, placement: Placement, picture = photoOf(0.8)): readonly StackPart[] => setAside(arrangementOf(key, placement), picture, 'bottom-left', cutFrame(placement)).map(({ root }) => root);

describe('words beside a photograph', () => {
  it.each(['lull', 'gust', 'corner', 'plaque', 'shade'])('of %s leave a subject whole that has no room beside words on it', (key) => {
    const picture = photoOf(0.8);
    let many = 0;
    for (const [name, placement] of Object.entries(shapes)) {
      const { report } = cutOf(key, placement, picture);
      const [photo] = report.pictures;
      if (!photo) throw new Error('The photograph is gone');
      expect(shownShare(picture, photo.window) * (1 - (report.blocks[0]?.hiddenShare ?? 0)), name).toBeGreaterThan(0.75);
      expect(report.findings.filter(({ kind }) => kind !== 'low-resolution'), name).toEqual([]);
      if (!report.beside) continue;
      many += 1;
      expect(report.beside.picture).toBe(photo.slot);
      expect(report.beside.seenShare, name).toBeGreaterThan(report.beside.seenOnPhoto);
      expect(report.blocks).toEqual([]);
      for (const { box, slot } of report.placed) expect(intersectBoxes(photo.box, box), `${name}: ${slot}`).toBeNull();
    }
    expect(many).toBeGreaterThanOrEqual(2);
  });

  it('stay on it where the subject leaves them room, and where a person has moved the crop', () => {
    for (const placement of Object.values(shapes)) {
      expect(cutOf('lull', placement, photoOf(0.2, { x: 0.75, y: 0.3 })).report).toMatchObject({ blocks: [{ picture: 'photo' }] });
      const moved = cutOf('lull', placement, photoOf(0.8), { ...linkedCut, crops: { photo: { x: 0.5, y: 0.5, zoom: 1 } } });
      expect(moved.report.beside).toBeUndefined();
      expect(moved.report.blocks).toHaveLength(1);
    }
  });

  it('say how much of the subject that shows', () => {
    const { report } = cutOf('lull', shapes.square, photoOf(0.8));
    expect(report.beside && besideSentence(report.beside)).toMatch(/^Words beside the photograph: \d+% of its subject can be seen, with words on it \d+%\.$/);
  });

  it('keep their sizes and stay in the safe zone', () => {
    const { report } = cutOf('gust', shapes.story, photoOf(0.8));
    const safe = growBox({ xPx: 1080 * 0.06, yPx: 1920 * 0.12, widthPx: 1080 * 0.88, heightPx: 1920 * 0.68 }, 0.01);
    for (const { box } of report.placed) expect(boxContains(safe, box)).toBe(true);
  });
});

describe('setAside', () => {
  it('goes above or below in tall cuts, beside in wide ones, and where more is seen in squares', () => {
    expect(asidesOf('lull', shapes.story).map(({ direction }) => direction)).toEqual(['column']);
    expect(asidesOf('lull', shapes.wide).map(({ direction }) => direction)).toEqual(['row']);
    const flat = photoOf(0.6);
    const upright: Picture = { ...flat, facts: { ...flat.facts, things: [{ x: 0.4, y: 0.1, width: 0.2, height: 0.78 }] } };
    const lying: Picture = { ...flat, facts: { ...flat.facts, things: [{ x: 0.08, y: 0.4, width: 0.8, height: 0.2 }], saliency: flat.facts.saliency.map(() => 0) } };
    expect(asidesOf('lull', shapes.square, upright).map(({ direction }) => direction)).toEqual(['row', 'column']);
    expect(asidesOf('lull', shapes.square, lying).map(({ direction }) => direction)).toEqual(['column', 'row']);
  });

  it('puts the words where less has to stay free', () => {
    const [story] = asidesOf('lull', shapes.story);
    expect(story?.children.map(({ part }) => part)).toEqual(['stack', 'picture']);
    const [even] = setAside(arrangementOf('lull', shapes.square), photoOf(0.8), 'bottom', cutFrame(shapes.square)).filter(({ root }) => root.direction === 'column');
    expect(even?.root.children.map(({ part }) => part)).toEqual(['picture', 'stack']);
  });

  it('turns the slant of a field to the photograph, and takes a mark along that lay over it', () => {
    const [gust] = asidesOf('gust', shapes.wide);
    expect(gust?.children[0]).toMatchObject({ field: { ink: 'ground', slant: { edge: 'right' } } });
    const [plaque] = asidesOf('plaque', shapes.wide);
    expect(plaque?.children.map(({ part }) => part)).toEqual(['stack', 'picture']);
    expect(plaque && [...walkParts(plaque)].filter(({ part }) => part === 'mark')).toMatchObject([{ over: undefined }]);
    expect(plaque?.children[0]).toMatchObject({ field: { ink: 'accent' } });
  });

  it('has marks below its words where they stand beside the photograph, and answers the same parts again', () => {
    const arrangement = arrangementOf('shade', shapes.square);
    const asides = () => setAside(arrangement, photoOf(0.8), 'top', cutFrame(shapes.square));
    const rowOf = (all: readonly Arrangement[]) => all.find(({ root }) => root.direction === 'row');
    const words = [...walkParts(rowOf(asides())?.root as StackPart)].find((part): part is StackPart => part.part === 'stack' && part.children.at(-1)?.part === 'mark');
    expect(words?.direction).toBe('column');
    expect(rowOf(asides())).toBe(rowOf(asides()));
  });

  it('says what lies over the photograph besides words', () => {
    expect(['lull', 'gust', 'shade'].map((key) => photoBelowWords(arrangementOf(key, shapes.square))?.cover)).toEqual(['words', 'field', 'veil']);
  });

  it('of shade leave no subject half in its light and half in the dark', () => {
    // Four fifths of it are in the light, which would be enough for a subject that no dark lies on.
    const inBoth = cutOf('shade', placementOf(1080, 1350), photoOf(0.5, { x: 0.5, y: 0.55 })).report;
    expect(inBoth.beside?.seenOnPhoto).toBeGreaterThan(0.75);
    expect(inBoth.beside?.seenShare).toBeGreaterThan(0.9);
    const inLight = cutOf('shade', placementOf(1080, 1350), photoOf(0.3, { x: 0.5, y: 0.6 })).report;
    expect(inLight.beside).toBeUndefined();
    expect(inLight.blocks[0]?.hiddenShare).toBeLessThan(0.1);
  });

  it('leaves arrangements alone whose words stand on no photograph', () => {
    expect(photoBelowWords(arrangementOf('season', shapes.square))).toBeNull();
    expect(asidesOf('season', shapes.square)).toEqual([]);
  });
});
