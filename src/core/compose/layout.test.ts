import { loadYoga } from 'yoga-layout/load';
import { afterEach, describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import type { BrandMark } from '../brand/brand-book.ts';
import type { Box } from '../geometry/box.ts';
import { ALONE } from '../piece/slides-of-cut.ts';
import type { Part, StackPart, TextPart } from '../template/parts.ts';
import { cutFrame } from './cut-frame.ts';
import { fit } from './fit.ts';
import { LayoutSolver, type LaidOut } from './layout.ts';
import { setText, sizeInWidth, type SetText } from './set-text.ts';

const yoga = await loadYoga();
const typesetter = testTypesetter();
const frame = cutFrame({ key: 'tall', name: 'Tall', surface: 's', exportPx: { width: 1000, height: 1000 }, safePercent: { top: 10, right: 5, bottom: 20, left: 5 } });
const solvers: LayoutSolver[] = [];
afterEach(() => {
  for (const solver of solvers.splice(0)) solver.free();
});

const mark = { ...gullwickBook.marks[0], viewBox: { width: 50, height: 100 } } as BrandMark;
const headline: TextPart = { part: 'text', slot: 'headline', role: 'display', align: 'start', ink: 'ink', sizeM: { max: 2, min: 0.8 } };
const stack = (more: Partial<StackPart>, ...children: readonly Part[]): StackPart => ({ part: 'stack', direction: 'column', ...more, children });

function solverOf(root: StackPart, words: Readonly<Record<string, string>> = {}): LayoutSolver {
  const texts = new Map<TextPart, SetText>();
  const visit = (part: Part): void => {
    if (part.part === 'stack') part.children.forEach(visit);
    const text = part.part === 'text' ? words[part.slot] : undefined;
    if (part.part === 'text' && text !== undefined) texts.set(part, setText(part, { text, ghost: false }, { book: gullwickBook, frame, textStep: 0, hyphenated: new Set() }, typesetter));
  };
  visit(root);
  const solver = new LayoutSolver({ root, frame, texts, isHidden: (slot: string) => slot === 'missing', markOf: () => mark, place: ALONE }, yoga);
  solvers.push(solver);
  return solver;
}
const boxes = (laidOut: LaidOut): readonly Box[] => [laidOut.box, ...laidOut.children.flatMap(boxes)];
const solve = (root: StackPart, words: Readonly<Record<string, string>> = {}): readonly Box[] => {
  const solver = solverOf(root, words);
  solver.solve(new Map());
  return boxes(solver.laidOut());
};

describe('LayoutSolver', () => {
  it('keeps a stack’s content inside the safe zone on the edges that it names, and inside its padding on the others', () => {
    const root = stack({ padM: { top: 1, right: 1, bottom: 1, left: 1 }, safe: ['bottom', 'left'] }, { part: 'picture', slot: 'photo', grow: 1 });
    const [, picture] = solve(root);
    expect(picture).toEqual({ xPx: 60, yPx: 60, widthPx: 880, heightPx: 740 });
  });

  it('shares room by growth, and keeps the least that a part asks for', () => {
    const [, first, second] = solve(stack({ direction: 'row' }, { part: 'picture', slot: 'a', grow: 1, share: 0 }, { part: 'picture', slot: 'b', grow: 3, share: 0 }));
    expect([first?.widthPx, second?.widthPx]).toEqual([250, 750]);
    const [, small, large] = solve(stack({}, { part: 'picture', slot: 'a', grow: 1, share: 0, leastShare: 0.6 }, { part: 'picture', slot: 'b', grow: 3, share: 0 }));
    expect(small?.heightPx).toBeGreaterThanOrEqual(600);
    expect((small?.heightPx ?? 0) + (large?.heightPx ?? 0)).toBeCloseTo(1000, 3);
  });

  it('lays a mark over its parent, inside the safe zone', () => {
    const [, mark] = solve(stack({}, { part: 'mark', heightM: 2, over: { top: 0.5, left: 2 } }));
    expect(mark).toEqual({ xPx: 120, yPx: 100, widthPx: 60, heightPx: 120 });
  });

  it('leaves out texts without words, pictures that are hidden, and stacks around nothing', () => {
    const chip = stack({ field: { ink: 'surface' }, padM: { top: 1 } }, headline);
    expect(solve(stack({}, chip, { part: 'picture', slot: 'missing' }))).toHaveLength(1);
    expect(solve(stack({}, chip), { headline: 'Here' })).toHaveLength(3);
  });

  it('tells a word that is too wide from too much of everything', () => {
    const root = stack({ padM: { left: 1, right: 1 }, align: 'stretch' }, headline);
    const overflowOf = (words: string) => {
      const solver = solverOf(root, { headline: words });
      solver.solve(new Map([[headline, 80]]));
      return solver.findOverflow();
    };
    expect(overflowOf('Big Blow')).toBeNull();
    expect(overflowOf('Donaudampfschifffahrtsgesellschaft')).toMatchObject({ reason: 'word-too-wide', parts: [headline] });
    expect(overflowOf('wind and weather '.repeat(30))).toEqual({ reason: 'too-tall' });
  });
});

describe('fit', () => {
  const root = stack({ padM: { top: 1, right: 1, bottom: 1, left: 1 }, align: 'stretch' }, headline);

  it('takes the largest size where that fits, and never less than the smallest', () => {
    expect(fit(solverOf(root, { headline: 'Big' })).sizes.get(headline)).toBeCloseTo(120, 6);
    const full = fit(solverOf(root, { headline: 'wind and weather '.repeat(24) }));
    expect(full.sizes.get(headline)).toBeGreaterThanOrEqual(48);
    expect(full.overflow).toBeNull();
  });

  it('shows what is too long at its smallest smaller still, and says so', () => {
    const crowded = fit(solverOf(root, { headline: 'wind and weather '.repeat(60) }));
    expect(crowded.overflow).toEqual({ reason: 'too-tall' });
    expect(crowded.sizes.get(headline)).toBeLessThan(48);
    const [text] = crowded.laidOut.children;
    expect((text?.box.yPx ?? 0) + (text?.box.heightPx ?? Infinity)).toBeLessThanOrEqual(crowded.laidOut.box.heightPx);
  });

  it('grows smaller with more words, step by step', () => {
    const sizes = [1, 6, 12, 18].map((count) => fit(solverOf(root, { headline: 'wind and weather '.repeat(count).trim() })).sizes.get(headline) ?? 0);
    expect(sizes).toEqual([...sizes].sort((a, b) => b - a));
    expect(new Set(sizes).size).toBeGreaterThan(2);
  });

  it('sets a filling text as wide as its room', () => {
    const filling: TextPart = { ...headline, fill: true, sizeM: { max: 10, min: 1 } };
    const solver = solverOf(stack({ padM: { left: 1, right: 1 }, align: 'stretch' }, filling), { headline: '312' });
    const found = fit(solver);
    const text = solver.input.texts.get(filling);
    const sizePx = text ? sizeInWidth(text, found.sizes.get(filling) ?? 0, 880) : 0;
    expect(((text?.shaped.offsetsEm.at(-1) ?? 0) - (text?.role.trackingEm ?? 0)) * sizePx).toBeCloseTo(880, 3);
  });
});
