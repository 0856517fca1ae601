import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import type { Box } from '../geometry/box.ts';
import { clearWindow } from './clear-window.ts';
import { cropWindow, type CropWindow, type Picture } from './crop-window.ts';
import { subjectBox } from './subject-box.ts';
import { OUTLINE_UNITS } from './subject-outline.ts';

const box = (xPx: number, yPx: number, widthPx: number, heightPx: number): Box => ({ xPx, yPx, widthPx, heightPx });
const cut = box(0, 0, 1600, 900);

/** A picture of 3 to 2 with a subject in a box of it. */
function withSubject(x: number, y: number, width: number, height: number, widthPx = 6000): Picture {
  const ring = [x, y, x + width, y, x + width, y + height, x, y + height].map((share) => share * OUTLINE_UNITS);
  return testPicture({ widthPx, heightPx: (widthPx * 2) / 3, focal: { x: x + width / 2, y: y + height / 2 }, facts: { ...testPicture().facts, outline: [ring] } });
}

/** Where the subject lies in the box that the picture is painted in. */
function subjectIn(picture: Picture, window: CropWindow, painted: Box): Box {
  const subject = subjectBox(picture.facts, picture.focal) ?? { x: 0, y: 0, width: 0, height: 0 };
  return { xPx: ((subject.x - window.x) / window.width) * painted.widthPx, yPx: ((subject.y - window.y) / window.height) * painted.heightPx, widthPx: (subject.width / window.width) * painted.widthPx, heightPx: (subject.height / window.height) * painted.heightPx };
}

const above = box(0, 0, 1600, 400);
const beside = box(1000, 0, 600, 900);

describe('clearWindow', () => {
  it('is the usual window where nothing lies over the picture, or its subject is seen whole all the same', () => {
    const middle = withSubject(0.4, 0.4, 0.2, 0.2);
    expect(clearWindow(middle, cut, [cut])).toEqual(cropWindow(middle, cut, cut));
    const high = withSubject(0.6, 0.1, 0.2, 0.2);
    expect(clearWindow(high, cut, [above, beside])).toEqual(cropWindow(high, cut, above));
  });

  it('takes a tall subject beside what covers the foot of the picture, not above it', () => {
    const tall = withSubject(0.7, 0.15, 0.15, 0.7);
    const seen = subjectIn(tall, clearWindow(tall, cut, [above, beside]), cut);
    expect(seen.xPx).toBeGreaterThanOrEqual(1000);
    expect(seen.xPx + seen.widthPx).toBeLessThanOrEqual(1600);
    expect(seen.heightPx).toBeGreaterThan(400);
  });

  it('comes a little closer where only that gets the subject out from under what covers it', () => {
    const under = withSubject(0.5, 0.3, 0.14, 0.5);
    const window = clearWindow(under, cut, [above, beside]);
    expect(window.width).toBeLessThan(1);
    expect(window.width).toBeGreaterThan(0.75);
    expect(subjectIn(under, window, cut).xPx).toBeGreaterThan(subjectIn(under, cropWindow(under, cut, above), cut).xPx);
  });

  it('does not come closer than the pixels of the picture allow, nor for a picture of which no subject is known', () => {
    const small = withSubject(0.5, 0.3, 0.14, 0.5, 1600);
    expect(clearWindow(small, cut, [above, beside]).width).toBeCloseTo(1, 9);
    const unknown = testPicture({ widthPx: 6000, heightPx: 4000 });
    expect(clearWindow(unknown, cut, [above, beside])).toEqual(cropWindow(unknown, cut, above));
  });

  it('brings what a person has pointed at out from under what covers it, without a known outline, and no guess at plain ground', () => {
    const covered = box(0, 300, 800, 600);
    const corner = box(800, 0, 800, 900);
    const at = (picture: Picture, window: CropWindow): number => ((picture.focal.x - window.x) / window.width) * cut.widthPx;
    for (const x of [0.3, 0.4, 0.5]) {
      const pointed = testPicture({ widthPx: 9000, heightPx: 3000, focal: { x, y: 0.6 }, focalBy: 'person' });
      expect(subjectBox(pointed.facts, pointed.focal)).toBeNull();
      expect(at(pointed, clearWindow(pointed, cut, [box(0, 0, 1600, 300), corner]))).toBeGreaterThan(covered.xPx + covered.widthPx);
      const guessed: Picture = { ...pointed, focalBy: 'proposal' };
      expect(clearWindow(guessed, cut, [box(0, 0, 1600, 300), corner])).toEqual(cropWindow(guessed, cut, box(0, 0, 1600, 300)));
    }
  });

  it('takes a guess at what stands out where it has room with air around it, not to a strip that just holds it', () => {
    const facts = { ...testPicture().facts, columns: 40, rows: 60 };
    const standsOut = Array.from({ length: facts.columns * facts.rows }, (_, cell) => (Math.abs((cell % facts.columns) / facts.columns - 0.65) < 0.16 && Math.abs(Math.floor(cell / facts.columns) / facts.rows - 0.5) < 0.024 ? 220 : 12));
    const guessed = testPicture({ widthPx: 4000, heightPx: 6000, focal: { x: 0.65, y: 0.5 }, facts: { ...facts, saliency: standsOut, outline: null } });
    const [strip, right] = [box(0, 720, 1600, 180), box(700, 0, 900, 900)];
    const window = clearWindow(guessed, cut, [strip, right]);
    expect(((guessed.focal.x - window.x) / window.width) * cut.widthPx).toBeGreaterThan(right.xPx);
    expect(((guessed.focal.y - window.y) / window.height) * cut.heightPx).toBeLessThan(strip.yPx);
  });

  it('keeps its shape and stays inside the picture, wherever the subject lies', () => {
    const share = fc.double({ min: 0.02, max: 0.6, noNaN: true });
    fc.assert(
      fc.property(share, share, fc.double({ min: 0.05, max: 0.38, noNaN: true }), fc.double({ min: 0.05, max: 0.38, noNaN: true }), (x, y, width, height) => {
        const picture = withSubject(x, y, width, height);
        const window = clearWindow(picture, cut, [above, beside]);
        expect((window.width * picture.widthPx) / (window.height * picture.heightPx)).toBeCloseTo(cut.widthPx / cut.heightPx, 6);
        expect(Math.min(window.x, window.y)).toBeGreaterThanOrEqual(0);
        expect(window.x + window.width).toBeLessThanOrEqual(1 + 1e-9);
        expect(window.y + window.height).toBeLessThanOrEqual(1 + 1e-9);
      }),
    );
  });
});
