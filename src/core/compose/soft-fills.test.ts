import { describe, expect, it } from 'vitest';
import type { FillNode } from '../scene/scene.ts';
import { fadeAround, fadeFromEdge, sharesAround, sharesOfFade, wayTo } from './soft-fills.ts';

const cut = { xPx: 0, yPx: 0, widthPx: 1000, heightPx: 800 };

/** What a node hides at a place of its fade. */
function hiddenAt({ alpha, fade }: FillNode, at: number): number {
  const stops = fade?.stops ?? [];
  const behind = stops.findIndex((stop) => stop.at > at);
  const [before, after] = [stops.at(behind - 1), stops[behind]];
  if (behind === 0) return alpha * (stops[0]?.share ?? 0);
  if (!before || !after) return alpha * (stops.at(-1)?.share ?? 0);
  return alpha * (before.share + ((at - before.at) / (after.at - before.at)) * (after.share - before.share));
}

/** The places of the fade's stops in a cut. */
function places({ fade }: FillNode): readonly (readonly [number, number])[] {
  if (fade?.kind !== 'line') throw new Error('It does not fade along a line');
  return fade.stops.map(({ at }) => [fade.from.xPx + (fade.to.xPx - fade.from.xPx) * at, fade.from.yPx + (fade.to.yPx - fade.from.yPx) * at]);
}

describe('sharesOfFade', () => {
  const reach = { solidPx: 300, fadePx: 200 };
  const region = (yPx: number, heightPx: number) => ({ xPx: 100, yPx, widthPx: 200, heightPx });

  it('is the whole share in the even part, none beyond the fade, and what the fill hides at both ends between them', () => {
    const shares = sharesOfFade(cut, 'bottom', reach, 0.6);
    expect(shares(region(520, 250))).toEqual([0.6, 0.6]);
    expect(shares(region(100, 150))).toEqual([0, 0]);
    const [least, most] = shares(region(350, 100));
    const node = fadeFromEdge(cut, 'bottom', reach, '#000000', 0.6);
    expect(most).toBeCloseTo(hiddenAt(node, 350 / 500), 2);
    expect(least).toBeCloseTo(hiddenAt(node, 450 / 500), 2);
  });

  it.each([['top', 0, 700], ['left', 0, 900], ['right', 900, 0]] as const)('is thick at the %s and thin far from it', (edge, near, far) => {
    const at = (place: number) => sharesOfFade(cut, edge, reach, 0.6)(edge === 'top' ? { xPx: 0, yPx: place, widthPx: 100, heightPx: 100 } : { xPx: place, yPx: 0, widthPx: 100, heightPx: 100 });
    expect(at(near)).toEqual([0.6, 0.6]);
    expect(at(far)).toEqual([0, 0]);
  });
});

describe('fadeFromEdge', () => {
  it('hides its share as far as it is even, and nothing beyond its fade', () => {
    const node = fadeFromEdge(cut, 'bottom', { solidPx: 300, fadePx: 200 }, '#000000', 0.6);
    expect(hiddenAt(node, 0)).toBeCloseTo(0.6, 6);
    expect(hiddenAt(node, 0.6)).toBeCloseTo(0.6, 6);
    expect(hiddenAt(node, 1)).toBeCloseTo(0, 6);
    expect(places(node)[0]?.[1]).toBeCloseTo(500, 6);
    expect(places(node).at(-1)?.[1]).toBeCloseTo(300, 6);
  });

  it.each([
    ['top', [0, 300], [0, 500]],
    ['left', [300, 0], [500, 0]],
    ['right', [700, 0], [500, 0]],
  ] as const)('comes in from the %s', (edge, first, last) => {
    const at = places(fadeFromEdge(cut, edge, { solidPx: 300, fadePx: 200 }, '#000000', 0.6));
    expect(at[0]?.map(Math.round)).toEqual(first);
    expect(at.at(-1)?.map(Math.round)).toEqual(last);
  });

  it('falls all the way, gently at both ends', () => {
    const node = fadeFromEdge(cut, 'left', { solidPx: 300, fadePx: 200 }, '#000000', 0.8);
    const hidden = Array.from({ length: 201 }, (_, index) => hiddenAt(node, 0.6 + (0.4 * index) / 200));
    const steps = hidden.slice(1).map((each, index) => (hidden[index] ?? 0) - each);
    expect(steps.every((step) => step >= 0)).toBe(true);
    expect(Math.max(...steps)).toBeLessThan(0.02);
    expect(steps[0]).toBeLessThan(Math.max(...steps) / 3);
    expect(steps.at(-1)).toBeLessThan(Math.max(...steps) / 3);
  });
});

describe('wayTo', () => {
  it('is where a fade hides no more than asked', () => {
    for (const share of [0.3, 0.55, 0.8]) {
      const node = fadeFromEdge(cut, 'left', { solidPx: 0, fadePx: 400 }, '#000000', share);
      expect(hiddenAt(node, wayTo(0.22, share))).toBeCloseTo(0.22, 2);
    }
    expect(wayTo(0.22, 0.2)).toBe(0);
  });
});

describe('fadeAround', () => {
  it('hides nothing in its clear part, and its share from its end on', () => {
    const node = fadeAround(cut, { xPx: 500, yPx: 400, clearPx: 100, endPx: 300 }, '#000000', 0.7);
    expect(node.fade).toMatchObject({ kind: 'round', middle: { xPx: 500, yPx: 400 }, radiusPx: 300 });
    expect(hiddenAt(node, 0)).toBeCloseTo(0, 6);
    expect(hiddenAt(node, 0.33)).toBeCloseTo(0, 6);
    expect(hiddenAt(node, 1)).toBeCloseTo(0.7, 6);
    expect(hiddenAt(node, 0.66)).toBeGreaterThan(0.2);
  });
});

describe('sharesAround', () => {
  const box = { xPx: 0, yPx: 0, widthPx: 1000, heightPx: 800 };
  const sharesIn = sharesAround(box, { xPx: 400, yPx: 300, clearPx: 100, endPx: 200 }, 0.6);
  const at = (xPx: number, yPx: number, sidePx = 1) => sharesIn({ xPx, yPx, widthPx: sidePx, heightPx: sidePx });

  it('hides nothing in its middle and all beyond its end, also in the corners of the box around it', () => {
    expect(at(400, 300)).toEqual([0, 0]);
    expect(at(600, 300)[0]).toBeCloseTo(0.6);
    const [corner] = at(255, 155);
    expect(corner).toBeCloseTo(0.6);
    const [half] = at(549, 300);
    expect(half).toBeGreaterThan(0.2);
    expect(half).toBeLessThan(0.5);
  });

  it('gives the least and the most of a region, and nothing at least where that leaves the box', () => {
    expect(at(350, 250, 300)).toEqual([0, 0.6]);
    expect(at(800, 600, 150)).toEqual([0.6, 0.6]);
    expect(at(900, 700, 150)).toEqual([0, 0.6]);
  });
});
