import { generate } from 'css-tree';
import { describe, expect, it } from 'vitest';
import { parseLenientCss } from './lenient-css.ts';

describe('parseLenientCss', () => {
  it('reads what is around a fault', () => {
    const tree = parseLenientCss('a{color:red;-;;b:1} @media{ c{d:e}');
    expect(tree && generate(tree)).toMatch(/a\{color:red;.*b:1\}.*c\{d:e\}/);
  });

  it('reads up to where faults without end begin, and does not take long for it', () => {
    const started = performance.now();
    const tree = parseLenientCss(`a{color:red}b{${'-;'.repeat(90_000)}}`);
    expect(tree && generate(tree)).toMatch(/^a\{color:red\}/);
    expect(performance.now() - started).toBeLessThan(1_000);
  });
});
