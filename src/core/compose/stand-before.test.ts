import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
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

function composed(options: { readonly outline?: SubjectOutline | null; readonly headline?: string; readonly adjustment?: Adjustment; readonly focal?: { readonly x: number; readonly y: number }; readonly template?: string } = {}): Composed {
  const { outline, focal = { x: 0.5, y: 0.5 } } = options;
  const picture = testPicture({ focal, facts: { ...testPicture().facts, ...(outline === undefined ? {} : { outline }) } });
  const text = (value: string) => ({ kind: 'text', text: value }) as const;
  return compose(
    { template: getShippedTemplate(options.template ?? 'eclipse'), frame: { id: 'f', slots: { photo: { kind: 'picture', mediaId: picture.id }, headline: text(options.headline ?? 'Look up'), label: text('Saturday'), line: text('On the quay, from ten.') } }, book: gullwickBook, placement: square, pictures: new Map([[picture.id, picture]]), ghosts: false, adjustment: options.adjustment ?? linkedCut },
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
    const [plain, near, far] = [composed({ outline: null }), composed({ outline: diamond(0.5, 0.45) }), composed({ outline: diamond(0.5, 0.98, 0.02) })];
    expect(headlineOf(near).yPx).toBeGreaterThan(headlineOf(plain).yPx);
    expect(far.report.fronts).toEqual([]);
    expect(headlineOf(far).yPx).toBe(headlineOf(plain).yPx);
    const label = near.report.placed.find(({ slot }) => slot === 'label')?.box.yPx ?? 0;
    expect(headlineOf(near).yPx + headlineOf(near).heightPx).toBeLessThan(label);
  });

  it('leaves each letter what it is known by: a subject that would hide one stays behind, and the letters move off it', () => {
    const over = composed({ outline: [ring([0, 0.02], [1, 0.02], [1, 0.3], [0, 0.3])] });
    expect(over.report.fronts).toEqual([]);
    expect(picturesOf(over)).toHaveLength(1);
    expect(headlineOf(over).yPx).toBeGreaterThan(headlineOf(composed({ outline: null })).yPx);
    const everywhere = composed({ outline: [ring([0, 0], [1, 0], [1, 1], [0, 1])] });
    expect([everywhere.report.fronts, headlineOf(everywhere)]).toEqual([[], headlineOf(composed({ outline: null }))]);
  });

  it('moves the picture sideways where that brings the subject under the letters, but never a crop that a person has moved', () => {
    const outline = diamond(0.75, 0.4, 0.05);
    const own = { x: 0.42, y: 0.5, zoom: 1 };
    const [free, kept] = [composed({ outline, focal: { x: 0.75, y: 0.4 } }), composed({ outline, focal: { x: 0.75, y: 0.4 }, adjustment: { ...linkedCut, crops: { photo: own } } })];
    expect(free.report.fronts).toHaveLength(1);
    const window = picturesOf(kept)[0]?.window;
    expect((window?.x ?? 0) + (window?.width ?? 0) / 2).toBeCloseTo(own.x, 5);
  });

  it('does nothing where no template asks for it', () => {
    expect(composed({ outline: diamond(0.5, 0.5), template: 'lull' }).report.fronts).toEqual([]);
  });
});
