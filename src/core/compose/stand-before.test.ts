import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import { pathBox } from '../artwork/path-box.ts';
import { OUTLINE_UNITS, type SubjectOutline } from '../crop/subject-outline.ts';
import type { Placement } from '../network/network-sheet.ts';
import { linkedCut, type Adjustment } from '../piece/adjustment.ts';
import type { PictureNode } from '../scene/scene.ts';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import { compose, type Composed } from './compose.ts';

const engines = { typesetter: testTypesetter(), yoga: await loadYoga() };
const ring = (...points: readonly (readonly [x: number, y: number])[]): readonly number[] => points.flat().map((share) => Math.round(share * OUTLINE_UNITS));
const diamond = (x: number, y: number, reach = 0.08): SubjectOutline => [ring([x, y - reach * 1.5], [x + reach, y], [x, y + reach * 1.5], [x - reach, y])];
const square: Placement = { key: 'square', name: 'Square', surface: 'feed', exportPx: { width: 1080, height: 1080 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 } };

function composed(options: { readonly outline?: SubjectOutline | null; readonly headline?: string; readonly adjustment?: Adjustment; readonly focal?: { readonly x: number; readonly y: number }; readonly template?: string; readonly placement?: Placement } = {}): Composed {
  const { outline, focal = { x: 0.5, y: 0.5 } } = options;
  const picture = testPicture({ focal, facts: { ...testPicture().facts, ...(outline === undefined ? {} : { outline }) } });
  const text = (value: string) => ({ kind: 'text', text: value }) as const;
  return compose(
    { template: getShippedTemplate(options.template ?? 'eclipse'), frame: { id: 'f', slots: { photo: { kind: 'picture', mediaId: picture.id }, headline: text(options.headline ?? 'Look up'), label: text('Saturday'), line: text('On the quay, from ten.') } }, book: gullwickBook, placement: options.placement ?? square, pictures: new Map([[picture.id, picture]]), ghosts: false, adjustment: options.adjustment ?? linkedCut },
    engines,
  );
}

const headlineOf = ({ report }: Composed) => report.placed.find(({ slot }) => slot === 'headline')?.box ?? { xPx: 0, yPx: 0, widthPx: 0, heightPx: 0 };
const picturesOf = ({ scene }: Composed): readonly PictureNode[] => scene.nodes.filter((node): node is PictureNode => node.kind === 'picture');

describe('standBefore', () => {
  it('paints the subject again, inside its outline, after the letters that it stands before', () => {
    const cut = composed({ outline: diamond(0.5, 0.5) });
    const [whole, front] = picturesOf(cut);
    expect(front).toMatchObject({ pictureId: whole?.pictureId, box: whole?.box, window: whole?.window });
    expect(whole?.mask).toBeUndefined();
    expect(front?.mask).toMatch(/^M[\d. -]+L[^M]+Z$/);
    const letters = cut.scene.nodes.findIndex((node) => node.kind === 'glyphs' && node.slot === 'headline');
    expect(cut.scene.nodes.indexOf(front as PictureNode)).toBe(letters + 1);
    expect(cut.report.fronts).toMatchObject([{ picture: 'photo' }]);
    expect(cut.report.fronts[0]?.hiddenShare).toBeGreaterThan(0.05);
    expect(cut.report.fronts[0]?.hiddenShare).toBeLessThan(0.25);
  });

  it('moves the letters down to the subject, and no further than the next words', () => {
    const [near, lower, far] = [composed({ outline: diamond(0.5, 0.6) }), composed({ outline: diamond(0.5, 0.72) }), composed({ outline: diamond(0.5, 0.98, 0.01) })];
    expect([near.report.fronts, lower.report.fronts, far.report.fronts].map(({ length }) => length)).toEqual([1, 1, 0]);
    expect(headlineOf(lower).yPx).toBeGreaterThan(headlineOf(near).yPx + 100);
    const labelOf = ({ report }: Composed): number => report.placed.find(({ slot }) => slot === 'label')?.box.yPx ?? 0;
    expect(labelOf(lower)).toBe(labelOf(near));
    expect(headlineOf(lower).yPx + headlineOf(lower).heightPx).toBeLessThan(labelOf(lower));
  });

  it('leaves each letter what it is known by: where a subject would hide one, the words stand in their calmest place', () => {
    const plain = composed({ outline: null });
    for (const outline of [[ring([0, 0], [1, 0], [1, 1], [0, 1])], diamond(0.5, 0.1, 0.02)]) {
      const over = composed({ outline });
      expect(over.report.fronts).toEqual([]);
      expect(picturesOf(over)).toHaveLength(1);
      expect(headlineOf(over)).toEqual(headlineOf(plain));
    }
  });

  it('keeps out from behind other words: a tail that runs through them would be read as a part of them', () => {
    const kite = diamond(0.5, 0.5);
    const tail = ring([0.05, 0.7], [0.35, 0.7], [0.35, 1], [0.05, 1]);
    const adjustment = { ...linkedCut, crops: { photo: { x: 0.5, y: 0.5, zoom: 1 } } };
    expect(composed({ outline: kite, adjustment }).report.fronts).toHaveLength(1);
    expect(composed({ outline: [...kite, tail], adjustment }).report.fronts).toEqual([]);
  });

  it('moves the picture sideways where that brings the subject under the letters, but never a crop that a person has moved', () => {
    const outline = diamond(0.75, 0.4, 0.05);
    const own = { x: 0.42, y: 0.5, zoom: 1 };
    const [free, kept] = [composed({ outline, focal: { x: 0.75, y: 0.4 } }), composed({ outline, focal: { x: 0.75, y: 0.4 }, adjustment: { ...linkedCut, crops: { photo: own } } })];
    expect(free.report.fronts).toHaveLength(1);
    const window = picturesOf(kept)[0]?.window;
    expect((window?.x ?? 0) + (window?.width ?? 0) / 2).toBeCloseTo(own.x, 5);
  });

  it('lies where the picture shows it, also in pictures that are shown closer and move sideways', () => {
    let closer = 0;
    for (const [width, height] of [[1200, 628], [1640, 924], [1080, 1080]] as const) {
      for (const x of [0.55, 0.6, 0.65, 0.7, 0.75, 0.8]) {
        for (const y of [0.3, 0.4, 0.5]) {
          const [photo, front] = picturesOf(composed({ outline: diamond(x, y), focal: { x, y }, placement: { ...square, exportPx: { width, height } }, headline: 'build your own kite in an afternoon' }));
          if (!photo || !front) continue;
          const { box, window } = photo;
          const mask = pathBox(front.mask ?? '');
          expect(((mask?.xPx ?? 0) + (mask?.widthPx ?? 0) / 2 - box.xPx) / box.widthPx, `${width}, ${x}, ${y}`).toBeCloseTo((x - window.x) / window.width, 3);
          expect(((mask?.yPx ?? 0) + (mask?.heightPx ?? 0) / 2 - box.yPx) / box.heightPx, `${width}, ${x}, ${y}`).toBeCloseTo((y - window.y) / window.height, 3);
          if (window.width < 1 && window.height < 1) closer += 1;
        }
      }
    }
    expect(closer).toBeGreaterThan(0);
  });

  it('sets the letters a little smaller where only then a subject can stand before them', () => {
    const wide = (x: number): Composed => composed({ outline: diamond(x, 0.3), focal: { x, y: 0.3 }, placement: { ...square, exportPx: { width: 1200, height: 900 } } });
    const sizeOf = ({ report }: Composed): number => report.placed.find(({ slot }) => slot === 'headline')?.sizePx ?? 0;
    const [usual, met] = [wide(0.6), wide(0.75)];
    expect(met.report.fronts).toHaveLength(1);
    expect(usual.report.fronts).toHaveLength(1);
    expect(sizeOf(met)).toBeLessThan(sizeOf(usual));
  });

  it('paints what helps words to be read before all words: none of it lies on letters', () => {
    const nodes = composed({ outline: diamond(0.5, 0.5) }).scene.nodes;
    const firstWords = nodes.findIndex((node) => node.kind === 'glyphs');
    const fades = nodes.flatMap((node, index) => (node.kind === 'fill' && node.fade ? [index] : []));
    expect(fades).not.toEqual([]);
    expect(Math.max(...fades)).toBeLessThan(firstWords);
  });

  it('does nothing where no template asks for it', () => {
    expect(composed({ outline: diamond(0.5, 0.5), template: 'lull' }).report.fronts).toEqual([]);
  });
});
