import { describe, expect, it } from 'vitest';
import type { FillNode } from '../scene/scene.ts';
import { fadeAround, fadeFromEdge } from './soft-fills.ts';

const cut = { xPx: 0, yPx: 0, widthPx: 1000, heightPx: 1000 };
const hidden = (nodes: readonly FillNode[]): number => 1 - nodes.reduce((left, { alpha }) => left * (1 - alpha), 1);
/** The vertical extent of a rectangle's path. */
const extent = ({ path }: FillNode): readonly [number, number] => {
  const [, top = '0', bottom = '0'] = /^M\S+ (\S+)H\S+V([^H]+)H/u.exec(path) ?? [];
  return [Number(top), Number(bottom)];
};

describe('fadeFromEdge', () => {
  it('hides its share where it is even, all of it together, and nothing beyond its fade', () => {
    const nodes = fadeFromEdge(cut, 'bottom', { solidPx: 300, fadePx: 200 }, '#000000', 0.6);
    expect(hidden(nodes)).toBeCloseTo(0.6, 6);
    const tops = nodes.map((node) => extent(node)[0]);
    expect(Math.max(...tops)).toBeLessThanOrEqual(700);
    expect(Math.min(...tops)).toBeGreaterThanOrEqual(500);
    expect(nodes.every((node) => extent(node)[1] === 1000)).toBe(true);
  });

  it('has steps that nobody sees by themselves', () => {
    expect(Math.max(...fadeFromEdge(cut, 'left', { solidPx: 300, fadePx: 200 }, '#000000', 0.8).map(({ alpha }) => alpha))).toBeLessThan(0.06);
  });

  it('never leaves the box', () => {
    for (const edge of ['top', 'bottom'] as const) {
      for (const node of fadeFromEdge(cut, edge, { solidPx: 900, fadePx: 500 }, '#000000', 0.5)) {
        expect(extent(node)[0]).toBeGreaterThanOrEqual(0);
        expect(extent(node)[1]).toBeLessThanOrEqual(1000);
      }
    }
  });
});

describe('fadeAround', () => {
  it('opens a hole in every step, the first one as far as the clear part and the last one to its end', () => {
    const nodes = fadeAround(cut, { xPx: 500, yPx: 400, clearPx: 100, endPx: 300 }, '#000000', 0.7);
    const radii = nodes.map(({ path }) => Number(/A(\S+) /u.exec(path)?.[1]));
    expect(Math.min(...radii)).toBeGreaterThanOrEqual(100);
    expect(Math.max(...radii)).toBeLessThanOrEqual(300);
    expect(hidden(nodes)).toBeCloseTo(0.7, 6);
  });
});
