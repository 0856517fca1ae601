import { describe, expect, it } from 'vitest';
import { contrastRatio } from '../colour/contrast.ts';
import { usualMarkRoom, type VectorMark } from './brand-book.ts';
import { outerColours, withMainColour } from './mark-parts.ts';

const mark = (...paths: readonly (readonly [d: string, fill: string])[]): VectorMark => ({ kind: 'vector', key: 'm', for: 'light', ...usualMarkRoom, viewBox: { width: 200, height: 200 }, paths: paths.map(([d, fill]) => ({ d, fill })) });
const DISC = 'M100 0A100 100 0 1 1 100 200A100 100 0 1 1 100 0Z';
const LOAF = 'M40 110H160V130H40Z';
const RING = 'M0 0H200V200H0ZM20 20V180H180V20Z';

describe('the colours of a mark that meet its ground', () => {
  it('leave out what lies on a solid part of the mark', () => {
    expect(outerColours(mark([DISC, '#6b2d1a'], [LOAF, '#f4e6c8']))).toEqual(['#6b2d1a']);
  });

  it('keep what stands beside it, what reaches over it, and what is seen through a hole', () => {
    expect(outerColours(mark([DISC, '#111111'], ['M150 150H260V190H150Z', '#222222']))).toHaveLength(2);
    expect(outerColours(mark([RING, '#111111'], [LOAF, '#222222']))).toHaveLength(2);
    expect(outerColours(mark([LOAF, '#111111'], [DISC, '#222222']))).toHaveLength(2);
  });
});

describe('a form of a mark in another main colour', () => {
  it('turns a light drawing on a dark disc around instead of swallowing it', () => {
    const bread = mark([DISC, '#6b2d1a'], [LOAF, '#f4e6c8'], ['M80 112H90V128H80Z', '#6b2d1a']);
    const light = withMainColour(bread, '#fbf3e6');
    const [disc, loaf, slash] = light.paths.map(({ fill }) => fill);
    expect([disc, loaf, slash]).toEqual(['#fbf3e6', '#6b2d1a', '#fbf3e6']);
    expect(contrastRatio(disc ?? '', loaf ?? '')).toBeGreaterThan(3);
  });

  it('leaves parts alone that stand out from the new colour as well', () => {
    expect(withMainColour(mark([DISC, '#12355b'], [LOAF, '#d7263d']), '#ffffff').paths.map(({ fill }) => fill)).toEqual(['#ffffff', '#d7263d']);
  });
});
