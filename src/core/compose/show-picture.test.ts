import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { resolveScheme } from '../brand/brand-book.ts';
import type { PicturePart } from '../template/parts.ts';
import type { CutFrame } from './cut-frame.ts';
import { emptyPlace, showPicture, type PlaceOfPicture } from './show-picture.ts';

const frame: CutFrame = { size: { widthPx: 1080, heightPx: 1080 }, marginPx: 65, safe: { topPx: 0, rightPx: 0, bottomPx: 0, leftPx: 0 } };
const place: PlaceOfPicture = { frame, slide: { index: 1, count: 3, ordinal: 2 }, scheme: resolveScheme(gullwickBook, gullwickBook.schemes[0]?.key ?? ''), covers: [], own: undefined, treatment: undefined };
const part = (more: Partial<PicturePart> = {}): PicturePart => ({ part: 'picture', slot: 'photo', ...more }) as PicturePart;
const box = { xPx: 100, yPx: 200, widthPx: 800, heightPx: 600 };
const photo = testPicture();
const cutOut = testPicture({ widthPx: 400, heightPx: 800, facts: { ...photo.facts, clearShare: 0.5 } });
/** Width to height of what is shown, in the picture's own pixels. */
const ratio = ({ window }: { readonly window: { readonly width: number; readonly height: number } }): number => (window.width * photo.widthPx) / (window.height * photo.heightPx);

describe('showPicture', () => {
  it('fills its place with a part of the same shape, around the subject', () => {
    const shown = showPicture(part(), photo, box, place);
    expect(shown).toMatchObject({ box, mask: undefined, tone: undefined, isCutOut: false });
    expect(ratio(shown)).toBeCloseTo(800 / 600, 1);
    expect(shown.window.x + shown.window.width).toBeGreaterThan(photo.focal.x);
    expect(shown.enlargedBy).toBeCloseTo(800 / (shown.window.width * photo.widthPx), 5);
  });

  it('reaches under its neighbours’ edges, and never out of the cut', () => {
    expect(showPicture(part({ underM: { left: 1 } }), photo, box, place).box).toEqual({ xPx: 35, yPx: 200, widthPx: 865, heightPx: 600 });
    expect(showPicture(part({ underM: { left: 9 } }), photo, box, place).box.xPx).toBe(0);
  });

  it('gets what the brand does to its photographs, unless the template shows it in two inks', () => {
    const treated = { ...place, treatment: { kind: 'faded', strength: 0.5 } as const };
    expect(showPicture(part(), photo, box, treated)).toMatchObject({ treatment: treated.treatment, tone: undefined });
    expect(showPicture(part({ duotone: true }), photo, box, treated).treatment).toBeUndefined();
    expect(showPicture(part({ whole: true }), cutOut, box, treated).treatment).toEqual(treated.treatment);
  });

  it('is seen through an edge of torn paper, alike in every size and never out of its place', () => {
    for (const [window, edge] of [['torn-bottom', 800], ['torn-top', 200]] as const) {
      const { mask = '' } = showPicture(part({ window }), photo, box, place);
      const points = [...mask.matchAll(/L([\d.]+) ([\d.]+)/g)].map(([, x, y]) => ({ x: Number(x), y: Number(y) }));
      expect(points.length).toBeGreaterThan(40);
      expect(points.every(({ x, y }) => x >= 100 && x <= 900 && Math.abs(y - edge) <= 0.5 * 65 && (window === 'torn-top' ? y >= edge : y <= edge))).toBe(true);
      expect(new Set(points.map(({ y }) => y)).size).toBeGreaterThan(20);
      expect(showPicture(part({ window }), photo, box, place).mask).toBe(mask);
    }
  });

  it('is seen through an outline of the brand’s own, whole in the middle of its place, before any other window', () => {
    const outline = { viewBox: { width: 10, height: 20 }, d: 'M0 0H10V20H0Z' };
    expect(showPicture(part({ outline, window: 'arch' }), photo, box, place).mask).toBe('M350 200H650V800H350Z');
    expect(emptyPlace(part({ outline }), box, place.frame)?.path).toBe('M350 200H650V800H350Z');
  });

  it('throws a soft shadow as a cut-out, where the template asks for one', () => {
    const shown = showPicture(part({ whole: true, shadow: true }), cutOut, box, place);
    expect(shown.shadow?.blurPx).toBeCloseTo(0.7 * 65);
    expect(showPicture(part({ whole: true }), cutOut, box, place).shadow).toBeUndefined();
    expect(showPicture(part({ whole: true, shadow: true }), photo, box, place).shadow).toBeUndefined();
  });

  it('takes the crop that a person has moved', () => {
    const moved = showPicture(part(), photo, box, { ...place, own: { x: 0.1, y: 0.1, zoom: 2 } });
    expect(moved.window.width).toBeLessThan(showPicture(part(), photo, box, place).window.width);
  });

  it('runs over all slides, each of which shows its own part', () => {
    const [first, second] = [0, 1].map((index) => showPicture(part({ through: true }), photo, { xPx: 0, yPx: 0, widthPx: 1080, heightPx: 1080 }, { ...place, slide: { index, count: 3, ordinal: index + 1 } }));
    expect([first?.box, second?.box]).toEqual([{ xPx: 0, yPx: 0, widthPx: 3240, heightPx: 1080 }, { xPx: -1080, yPx: 0, widthPx: 3240, heightPx: 1080 }]);
    expect(first?.window).toEqual(second?.window);
  });

  it('goes on behind the column of words that stands between two slides, and hides nothing there', () => {
    const beside = { xPx: 480, yPx: 0, widthPx: 600, heightPx: 1080 };
    const slides = [0, 1].map((index) => showPicture(part({ through: true }), photo, beside, { ...place, slide: { index, count: 3, ordinal: index + 1 } }));
    expect(slides.map(({ seen }) => seen?.box)).toEqual([beside, beside]);
    const [first, second] = slides.map(({ seen }) => seen?.window);
    expect((first?.x ?? 0) + (first?.width ?? 0)).toBeCloseTo(second?.x ?? 0, 9);
    expect((first?.width ?? 0) * 3).toBeCloseTo(slides[0]?.window.width ?? 0, 9);
  });

  it('stands whole where it is cut out, and looks through a disc where it is a photograph', () => {
    expect(showPicture(part({ whole: true }), cutOut, box, place)).toMatchObject({ isCutOut: true, box: { xPx: 350, yPx: 200, widthPx: 300, heightPx: 600 }, window: { x: 0, y: 0, width: 1, height: 1 }, enlargedBy: 0.75 });
    const disc = showPicture(part({ whole: true }), photo, box, place);
    expect([disc.isCutOut, disc.box.widthPx, disc.box.heightPx, disc.mask === undefined]).toEqual([false, 564, 564, false]);
    expect(ratio(disc)).toBeCloseTo(1, 1);
  });
});

describe('emptyPlace', () => {
  it('has the outline that the picture would have; a cut-out leaves none', () => {
    expect(emptyPlace(part(), box, place.frame)?.box).toEqual(box);
    expect(emptyPlace(part({ window: 'circle' }), box, place.frame)?.path).not.toBe(emptyPlace(part(), box, place.frame)?.path);
    expect(emptyPlace(part({ through: true }), box, place.frame)?.box).toEqual(box);
    expect(emptyPlace(part({ whole: true }), box, place.frame)).toBeNull();
  });
});
