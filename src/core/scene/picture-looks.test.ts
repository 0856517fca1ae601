import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyTone, maskPicture, toneShare, type MaskContext } from './picture-looks.ts';
import type { PictureNode } from './scene.ts';

const tone = { dark: '#12355b', light: '#f4f7f5' };
const node: PictureNode = { kind: 'picture', pictureId: 'p', box: { xPx: 100, yPx: 40, widthPx: 200, heightPx: 100 }, window: { x: 0, y: 0, width: 1, height: 1 } };

describe('applyTone', () => {
  it('sends black to the dark colour, white to the light one, and keeps alpha', () => {
    const pixels = new Uint8ClampedArray([0, 0, 0, 255, 255, 255, 255, 9]);
    applyTone(pixels, tone);
    expect([...pixels]).toEqual([0x12, 0x35, 0x5b, 255, 0xf4, 0xf7, 0xf5, 9]);
  });

  it('keeps what is lighter lighter, and stays between its two colours', () => {
    const grey = fc.integer({ min: 0, max: 255 });
    fc.assert(
      fc.property(grey, grey, (a, b) => {
        const pixels = new Uint8ClampedArray([a, a, a, 255, b, b, b, 255]);
        applyTone(pixels, tone);
        const [first, second] = [pixels[0] ?? 0, pixels[4] ?? 0];
        if (a <= b) expect(first).toBeLessThanOrEqual(second);
        expect(first).toBeGreaterThanOrEqual(0x12);
        expect(first).toBeLessThanOrEqual(0xf4);
      }),
    );
  });

  it('shares luminance out by how light it looks', () => {
    expect([toneShare(0), toneShare(1), toneShare(-1), toneShare(2)]).toEqual([0, 1, 0, 1]);
    expect(toneShare(0.18)).toBeGreaterThan(0.4);
  });
});

describe('maskPicture', () => {
  const record = (masked: PictureNode, scale: number): unknown[] => {
    const calls: unknown[] = [];
    const context: MaskContext<string> = {
      globalCompositeOperation: 'source-over',
      fillStyle: '',
      setTransform: (...transform) => calls.push(['transform', ...transform]),
      fill(path) {
        calls.push(['fill', path, this.globalCompositeOperation]);
      },
    };
    maskPicture(context, masked, scale, (data) => data);
    calls.push(['after', context.globalCompositeOperation]);
    return calls;
  };

  it('keeps what lies inside the outline, in the picture’s own pixels, and leaves the canvas as it was', () => {
    expect(record({ ...node, mask: 'M0 0Z' }, 0.5)).toEqual([
      ['transform', 0.5, 0, 0, 0.5, -50, -20],
      ['fill', 'M0 0Z', 'destination-in'],
      ['transform', 1, 0, 0, 1, 0, 0],
      ['after', 'source-over'],
    ]);
  });

  it('does nothing to a picture without a mask', () => {
    expect(record(node, 1)).toEqual([['after', 'source-over']]);
  });
});
