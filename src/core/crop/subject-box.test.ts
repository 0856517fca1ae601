import { describe, expect, it } from 'vitest';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { centredCropWindow, cropWindow } from './crop-window.ts';
import type { PictureFacts } from './picture-facts.ts';
import { subjectBox } from './subject-box.ts';
import { OUTLINE_UNITS, type SubjectOutline } from './subject-outline.ts';

const ring = (...points: readonly (readonly [x: number, y: number])[]): readonly number[] => points.flat().map((share) => share * OUTLINE_UNITS);
const factsWith = (outline: SubjectOutline | null): PictureFacts => ({ ...testPicture().facts, outline });
const kite = ring([0.5, 0.125], [0.75, 0.25], [0.5, 0.5], [0.25, 0.25]);
const dunes = ring([0, 0.75], [1, 0.75], [1, 1], [0, 1]);

describe('subjectBox', () => {
  it('is around the ring that the focal point lies in', () => {
    expect(subjectBox(factsWith([kite, dunes]), { x: 0.5, y: 0.3 })).toEqual({ x: 0.25, y: 0.125, width: 0.5, height: 0.375 });
  });

  it('is the tightest of rings that lie in one another', () => {
    const window = ring([0.45, 0.2], [0.55, 0.2], [0.55, 0.3], [0.45, 0.3]);
    expect(subjectBox(factsWith([kite, window]), { x: 0.5, y: 0.25 })?.width).toBeCloseTo(0.1, 9);
  });

  it('is unknown beside all rings, in a ground that goes across the picture, and without an outline', () => {
    expect(subjectBox(factsWith([kite, dunes]), { x: 0.1, y: 0.1 })).toBeNull();
    expect(subjectBox(factsWith([kite, dunes]), { x: 0.5, y: 0.9 })).toBeNull();
    expect(subjectBox(factsWith(null), { x: 0.5, y: 0.3 })).toBeNull();
  });

  it('is found for each focal point of the same picture', () => {
    const facts = factsWith([kite]);
    expect(subjectBox(facts, { x: 0.1, y: 0.9 })).toBeNull();
    expect(subjectBox(facts, { x: 0.5, y: 0.3 })).not.toBeNull();
  });
});

describe('cropWindow with a known subject', () => {
  const square = { xPx: 0, yPx: 0, widthPx: 600, heightPx: 600 };

  it('keeps all of it, although the focal point lies at its end', () => {
    const long = ring([0.2, 0.4], [0.75, 0.4], [0.75, 0.5], [0.2, 0.5]);
    const [known, unknown] = [[long], null].map((outline) => cropWindow(testPicture({ widthPx: 1500, heightPx: 1000, focal: { x: 0.72, y: 0.45 }, facts: factsWith(outline) }), square, square));
    expect(known?.x).toBeLessThan(0.2);
    expect((known?.x ?? 0) + (known?.width ?? 0)).toBeGreaterThan(0.75);
    expect(unknown?.x).toBeGreaterThan(0.2);
  });

  it('shows as much of it as goes in where it is too wide', () => {
    const wide = ring([0.1, 0.4], [0.95, 0.4], [0.95, 0.5], [0.1, 0.5]);
    const { x, width } = cropWindow(testPicture({ widthPx: 1500, heightPx: 1000, focal: { x: 0.5, y: 0.45 }, facts: factsWith([wide]) }), square, square);
    expect(x).toBeGreaterThanOrEqual(0.1 - width * 0.05);
    expect(x + width).toBeLessThanOrEqual(0.95 + width * 0.05);
  });
});

describe('centredCropWindow', () => {
  const round = { xPx: 0, yPx: 0, widthPx: 500, heightPx: 500 };
  const aside = ring([0.7, 0.4], [0.8, 0.4], [0.8, 0.55], [0.7, 0.55]);
  const pictureOf = (outline: SubjectOutline | null, focal = { x: 0.75, y: 0.45 }) => testPicture({ widthPx: 1500, heightPx: 1000, focal, facts: factsWith(outline) });

  it('brings a thing at the side into the middle, closer only as far as that needs', () => {
    const window = centredCropWindow(pictureOf([aside]), round);
    expect((window?.x ?? 0) + (window?.width ?? 0) / 2).toBeCloseTo(0.75, 6);
    expect(window?.width).toBeCloseTo(0.5, 6);
    expect(centredCropWindow(pictureOf([kite], { x: 0.5, y: 0.3 }), round)?.height).toBeGreaterThan(0.6);
  });

  it('goes no closer than the pixels last, and no further than that the thing is whole in the circle', () => {
    const few = centredCropWindow(pictureOf([aside]), { ...round, widthPx: 950, heightPx: 950 });
    expect((few?.width ?? 0) * 1500).toBeCloseTo(950, 3);
    const large = ring([0.42, 0.2], [0.98, 0.2], [0.98, 0.75], [0.42, 0.75]);
    expect(centredCropWindow(pictureOf([large], { x: 0.7, y: 0.5 }), round)).toBeNull();
  });

  it('goes only a little closer where no outline is known, and leaves what a person chose to the usual crop', () => {
    const guessed = centredCropWindow(pictureOf(null), round);
    expect(guessed?.height).toBeCloseTo(1 / 1.2, 6);
    expect((guessed?.x ?? 0) + (guessed?.width ?? 0)).toBeCloseTo(1, 6);
    expect(centredCropWindow({ ...pictureOf([aside]), focalBy: 'person' }, round)).toBeNull();
  });
});
