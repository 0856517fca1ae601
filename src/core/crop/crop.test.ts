import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { patchRaster, testPicture } from '../../../tests/fixtures/pictures.ts';
import { cropWindow, luminanceBehind } from './crop-window.ts';
import { takePictureFacts } from './picture-facts.ts';

describe('takePictureFacts', () => {
  it.each([
    [0.2, 0.3],
    [0.8, 0.25],
    [0.5, 0.7],
  ])('proposes a patch at %f, %f as the focal point', (x, y) => {
    const { focal } = takePictureFacts(patchRaster({ widthPx: 150, heightPx: 100, ground: [120, 160, 220], patch: [230, 40, 40], at: { x, y }, size: 0.18 }));
    expect(focal.x).toBeCloseTo(x, 1);
    expect(focal.y).toBeCloseTo(y, 1);
  });

  it('keeps the extremes of luminance of every cell', () => {
    const facts = takePictureFacts(patchRaster({ widthPx: 64, heightPx: 64, ground: [0, 0, 0], patch: [255, 255, 255], at: { x: 0.25, y: 0.25 }, size: 0.2 }));
    expect(Math.max(...facts.mostLuminance)).toBe(255);
    expect(Math.min(...facts.leastLuminance)).toBe(0);
    expect(facts.saliency).toHaveLength(facts.columns * facts.rows);
  });
});

const box = { xPx: 0, yPx: 0, widthPx: 400, heightPx: 400 };

describe('cropWindow', () => {
  it('covers the box without distortion and stays inside the picture, with the focal point in what is seen', () => {
    const share = fc.double({ min: 0.02, max: 0.98, noNaN: true });
    fc.assert(
      fc.property(fc.integer({ min: 50, max: 2000 }), fc.integer({ min: 50, max: 2000 }), share, share, (widthPx, heightPx, x, y) => {
        const picture = testPicture({ focal: { x, y }, focalBy: 'person' });
        const target = { ...box, widthPx, heightPx };
        const crop = cropWindow(picture, target, target);
        expect((crop.width * picture.widthPx) / (crop.height * picture.heightPx)).toBeCloseTo(widthPx / heightPx, 4);
        expect(Math.max(crop.width, crop.height)).toBeCloseTo(1, 9);
        for (const [start, size, point] of [[crop.x, crop.width, x], [crop.y, crop.height, y]] as const) {
          expect(start).toBeGreaterThanOrEqual(0);
          expect(start + size).toBeLessThanOrEqual(1 + 1e-9);
          // A step of the search may leave the point on the edge, never outside by more than a step.
          expect(point).toBeGreaterThanOrEqual(start - 1 / 48);
          expect(point).toBeLessThanOrEqual(start + size + 1 / 48);
        }
      }),
    );
  });

  it('keeps a thing whole of which no outline is known, though its focal point lies near its end', () => {
    const { facts } = testPicture();
    const thing = { x: 0.3, y: 0.2, width: 0.3, height: 0.45 };
    const picture = testPicture({ facts: { ...facts, outline: null, things: [thing], saliency: facts.saliency.map(() => 0) }, focal: { x: 0.45, y: 0.6 } });
    const wide = { xPx: 0, yPx: 0, widthPx: 1600, heightPx: 620 };
    const { y, height } = cropWindow(picture, wide, wide);
    expect(height).toBeLessThan(0.7);
    expect(y).toBeLessThanOrEqual(thing.y);
    expect(y + height).toBeGreaterThanOrEqual(thing.y + thing.height);
  });

  it('keeps what a person has pointed at from being cut off at a side, also where it cannot be had in what is seen', () => {
    // What is seen is the foot of the box, and the picture has no height to spare.
    const [box, foot] = [{ xPx: 0, yPx: 0, widthPx: 900, heightPx: 900 }, { xPx: 0, yPx: 700, widthPx: 900, heightPx: 200 }];
    for (const x of [0.1, 0.3, 0.5, 0.9]) {
      const facts = takePictureFacts(patchRaster({ widthPx: 96, heightPx: 64, ground: [10, 10, 10], patch: [250, 250, 250], at: { x: x < 0.5 ? 0.95 : 0.05, y: 0.9 }, size: 0.1 }));
      const window = cropWindow(testPicture({ facts, focal: { x, y: 0.2 }, focalBy: 'person' }), box, foot);
      expect((x - window.x) / window.width).toBeGreaterThan(0.1);
      expect((x - window.x) / window.width).toBeLessThan(0.9);
    }
  });

  it('puts the focal point into the part that nothing covers', () => {
    const picture = testPicture({ widthPx: 1600, heightPx: 2400, focal: { x: 0.5, y: 0.5 }, focalBy: 'person' });
    const tall = { ...box, heightPx: 500 };
    const visible = { ...box, heightPx: 250 };
    const crop = cropWindow(picture, tall, visible);
    const seenAt = (0.5 - crop.y) / crop.height;
    expect(seenAt).toBeGreaterThan(0.05);
    expect(seenAt).toBeLessThan(0.5);
  });
});

describe('luminanceBehind', () => {
  it('tells a bright patch from its dark ground', () => {
    const facts = takePictureFacts(patchRaster({ widthPx: 96, heightPx: 96, ground: [10, 10, 10], patch: [250, 250, 250], at: { x: 0.25, y: 0.25 }, size: 0.3 }));
    const whole = { x: 0, y: 0, width: 1, height: 1 };
    const bright = luminanceBehind(facts, whole, box, { xPx: 80, yPx: 80, widthPx: 30, heightPx: 30 });
    const dark = luminanceBehind(facts, whole, box, { xPx: 280, yPx: 280, widthPx: 80, heightPx: 80 });
    expect(bright.mean).toBeGreaterThan(0.8);
    expect(dark.most).toBeLessThan(0.05);
  });
});
