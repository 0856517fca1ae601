import { describe, expect, it } from 'vitest';
import { drawMotif } from './motif.ts';
import { motifFor, ownMotifs, USUAL_MOTIF } from './own-motif.ts';

const box = { xPx: 40, yPx: 20, widthPx: 1080, heightPx: 1350 };

describe('the motif of a brand', () => {
  it('is drawn where a template asks for the brand’s, and nowhere else', () => {
    expect(motifFor('brand', 'tail').generator).toBe('tail');
    expect(motifFor('waves', 'tail')).toEqual({ generator: 'waves' });
    expect(motifFor('brand', undefined).generator).toBe(USUAL_MOTIF);
  });

  it.each(ownMotifs.filter((each) => each !== 'scraps'))('comes from the upper right as %s', (own) => {
    const { generator, mirror } = motifFor('brand', own);
    const shapes = drawMotif(generator, box, 60, 7, mirror);
    const boxes = shapes.flatMap((shape) => shape.boxes);
    const [middleX, middleY] = [boxes.reduce((sum, each) => sum + each.xPx + each.widthPx / 2, 0) / boxes.length, boxes.reduce((sum, each) => sum + each.yPx + each.heightPx / 2, 0) / boxes.length];
    expect(middleX).toBeGreaterThan(box.xPx + box.widthPx / 2);
    expect(middleY).toBeLessThan(box.yPx + box.heightPx / 2);
  });

  it('keeps the boxes with the outlines that they hold when it is turned', () => {
    for (const { path, boxes } of drawMotif('fan', box, 60, 7, { isAcross: true, isUpDown: true })) {
      const numbers = (path.match(/-?\d+(?:\.\d+)?/gu) ?? []).map(Number);
      const [xs, ys] = [numbers.filter((_, index) => index % 2 === 0), numbers.filter((_, index) => index % 2 === 1)];
      const [left, right, top, bottom] = [Math.min(...boxes.map(({ xPx }) => xPx)), Math.max(...boxes.map(({ xPx, widthPx }) => xPx + widthPx)), Math.min(...boxes.map(({ yPx }) => yPx)), Math.max(...boxes.map(({ yPx, heightPx }) => yPx + heightPx))];
      const room = 120;
      expect(Math.min(...xs)).toBeGreaterThan(left - room);
      expect(Math.max(...xs)).toBeLessThan(right + room);
      expect(Math.min(...ys)).toBeGreaterThan(top - room);
      expect(Math.max(...ys)).toBeLessThan(bottom + room);
    }
  });
});
