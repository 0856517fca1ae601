import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { lanternfallBook } from '../../../demo/brands/lanternfall.ts';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import { shippedSheets } from '../network/shipped-sheets.ts';
import type { Placement } from '../network/network-sheet.ts';
import { linkedCut } from '../piece/adjustment.ts';
import type { Frame, SlotValue } from '../piece/piece.ts';
import { filledSlide, placesOf } from '../piece/slides-of-cut.ts';
import { getShippedTemplate, shippedTemplates } from '../template/shipped-templates.ts';
import { slideTemplate } from '../template/slide-template.ts';
import type { Template } from '../template/template.ts';
import type { Composed } from './compose.ts';
import { RunComposer, type RunMember } from './compose-run.ts';

const engines = { typesetter: testTypesetter(), yoga: await loadYoga() };
const picture = testPicture({ widthPx: 9000, heightPx: 3000 });
const placements = shippedSheets.flatMap((sheet) => sheet.placements.filter((placement) => placement.carousel).map((placement) => ({ where: `${sheet.key} ${placement.key}`, placement })));
const carousels = shippedTemplates.filter((template) => template.kind === 'carousel');

/** A slide with the samples of its template. */
function sampleSlide(template: Template, id: string, slide: string | undefined, own: Record<string, string> = {}): Frame {
  const slots = slideTemplate(template, slide).slots.flatMap((slot): [string, SlotValue][] => {
    if (slot.kind === 'picture') return [[slot.key, { kind: 'picture', mediaId: picture.id }]];
    const text = own[slot.key] ?? slot.sample ?? '';
    return text === '' ? [] : [[slot.key, { kind: 'text', text }]];
  });
  return { id, slots: Object.fromEntries(slots), ...(slide === undefined ? {} : { slide }) };
}

function members(template: Template, frames: readonly Frame[], placement: Placement, book = gullwickBook): readonly RunMember[] {
  const places = placesOf(frames, template);
  const [cover] = frames;
  return frames.flatMap((frame, index) => {
    const place = places[index];
    if (!place || !cover) return [];
    const filled = filledSlide(frame, cover, template, place);
    return [{ template: slideTemplate(template, frame.slide), frame: filled, book, placement, pictures: new Map([[picture.id, picture]]), ghosts: false, adjustment: linkedCut, place, family: frame.slide ?? 'cover', signature: JSON.stringify([placement.exportPx, filled, place]) }];
  });
}

const samples = (template: Template): readonly Frame[] => {
  const [first] = template.slides ?? [];
  const slide = first?.key;
  return [sampleSlide(template, 'c', undefined), sampleSlide(template, 'a', slide), sampleSlide(template, 'b', slide), sampleSlide(template, 'z', 'closing')];
};
const at = (key: string): Placement => {
  const found = placements.find(({ placement }) => placement.key === key);
  if (!found) throw new Error(`no placement ${key}`);
  return found.placement;
};
const sizesOf = (composed: Composed | undefined, slot: string): number | undefined => composed?.report.texts.find((text) => text.slot === slot)?.sizePx;

describe('slides of one cut', () => {
  it.each(carousels.flatMap((template) => ([['gullwick', gullwickBook], ['lanternfall', lanternfallBook]] as const).flatMap(([brand, book]) => placements.map(({ where, placement }) => ({ template, name: template.name, brand, book, where, placement })))))(
    '$name for $brand in $where: every slide fits and says nothing against itself',
    ({ template, book, placement }) => {
      for (const { report } of new RunComposer(engines).compose(members(template, samples(template), placement, book))) {
        expect(report.texts.filter((text) => text.kind !== 'fits')).toEqual([]);
        expect(report.findings).toEqual([]);
      }
    },
  );

  it('set the same role in the same size, as the longest of them needs it', () => {
    const strand = getShippedTemplate('strand');
    const long = sampleSlide(strand, 'b', 'point', { heading: 'A blow that takes the hat, the flag and the washing', text: 'Box kites, two people, and somebody who has done it before on a day like this one.' });
    const composer = new RunComposer(engines);
    const [, short, longer] = composer.compose(members(strand, [sampleSlide(strand, 'c', undefined), sampleSlide(strand, 'a', 'point', { heading: 'A breath', text: '' }), long], at('feed-square')));
    const [alone] = composer.compose(members(strand, [sampleSlide(strand, 'a', 'point', { heading: 'A breath', text: '' })], at('feed-square')));
    expect(sizesOf(short, 'heading')).toBeCloseTo(sizesOf(longer, 'heading') ?? 0, 3);
    expect(sizesOf(alone, 'heading')).toBeGreaterThan(sizesOf(short, 'heading') ?? 0);
  });

  it('are composed again only where something has changed', () => {
    const strand = getShippedTemplate('strand');
    const frames = samples(strand);
    const composer = new RunComposer(engines);
    const before = composer.compose(members(strand, frames, at('feed-square')));
    const changed = frames.map((frame) => (frame.id === 'z' ? sampleSlide(strand, 'z', 'closing', { headline: 'Come on up' }) : frame));
    const after = composer.compose(members(strand, changed, at('feed-square')));
    expect(after.map((composed, index) => composed === before[index])).toEqual([true, true, true, false]);
  });

  it.each(['feed-square', 'feed-portrait', 'card', 'update-wide', 'post-wide'])('show their parts of one picture, cropped and placed once for all: %s', (key) => {
    const shoreline = getShippedTemplate('shoreline');
    const placement = at(key);
    const composed = new RunComposer(engines).compose(members(shoreline, samples(shoreline), placement));
    const nodes = composed.map(({ scene }) => scene.nodes.find((node) => node.kind === 'picture'));
    const [first] = nodes;
    const { width, height } = placement.exportPx;
    const windowWidth = first?.window.width ?? 0;
    nodes.forEach((node, index) => {
      // Wide cuts have a column of words beside it, which hides nothing of it: each slide goes on where the one before ended.
      if (width > 1.2 * height) {
        expect(node?.box).toEqual(first?.box);
        expect(node?.window.width).toBeCloseTo(windowWidth, 9);
        expect(node?.window.x).toBeCloseTo((first?.window.x ?? 0) + index * windowWidth, 9);
      } else {
        expect(node?.window).toEqual(first?.window);
        expect(node?.box).toEqual({ ...first?.box, xPx: index === 0 ? first?.box.xPx : -index * width, widthPx: width * 4 });
      }
    });
  });

  it('meet at the seams of a motif that runs through: what leaves one slide enters the next at the same height', () => {
    const strand = getShippedTemplate('strand');
    const composed = new RunComposer(engines).compose(members(strand, samples(strand), at('feed-square')));
    const width = at('feed-square').exportPx.width;
    const shifted = composed.map(({ scene }, index) => scene.nodes.flatMap((node) => (node.kind === 'fill' && node.path.length > 2_000 ? [firstX(node.path) + index * width] : [])));
    expect(shifted[0]).toHaveLength(3);
    for (const starts of shifted) starts.forEach((start, row) => expect(start).toBeCloseTo(shifted[0]?.[row] ?? 0, 1));
  });
});

function firstX(path: string): number {
  return Number(/^M\s*(-?[\d.]+)/.exec(path)?.[1]);
}
