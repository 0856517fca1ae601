import { generate } from 'css-tree';
import { describe, expect, it } from 'vitest';
import { parseLenientCss } from './lenient-css.ts';

describe('parseLenientCss', () => {
  it('reads what is around a fault', () => {
    const tree = parseLenientCss('a{color:red;-;;b:1} @media{ c{d:e}');
    expect(tree && generate(tree)).toMatch(/a\{color:red;.*b:1\}.*c\{d:e\}/);
  });

  it('reads up to where faults without end begin, and does not take long for it', () => {
    const timeOf = (faults: number): number => {
      const started = performance.now();
      const tree = parseLenientCss(`a{color:red}b{${'-;'.repeat(faults)}}`);
      expect(tree && generate(tree)).toMatch(/^a\{color:red\}/);
      return performance.now() - started;
    };
    timeOf(9_000);
    const few = Math.min(timeOf(9_000), timeOf(9_000), timeOf(9_000));
    // Ten times the faults took a hundred times as long.
    expect(timeOf(90_000) / few).toBeLessThan(45);
  });
});
