import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import { variableTypeface } from '../../../tests/fixtures/variable-typeface.ts';
import type { BrandBook } from '../brand/brand-book.ts';
import type { TextPart } from '../template/parts.ts';
import type { CutFrame } from './cut-frame.ts';
import { setText } from './set-text.ts';

const frame: CutFrame = { size: { widthPx: 1080, heightPx: 1080 }, marginPx: 65, safe: { topPx: 0, rightPx: 0, bottomPx: 0, leftPx: 0 } };
const typesetter = testTypesetter();
typesetter.add('own', await variableTypeface());
const asOwn = (role: BrandBook['type']['display']): BrandBook['type']['display'] => ({ ...role, font: 'own' });
const book: BrandBook = { ...gullwickBook, type: { display: asOwn(gullwickBook.type.display), heading: asOwn(gullwickBook.type.heading), text: asOwn(gullwickBook.type.text), label: asOwn(gullwickBook.type.label) } };

function set(role: TextPart['role'], book: BrandBook, leastShare?: number) {
  const part: TextPart = { part: 'text', slot: 'headline', role, align: 'start', ink: 'ink', sizeM: { max: 2, min: 0.9 } };
  return setText(part, { text: 'Kite', ghost: false }, { book, frame, textStep: 0, leastShare, hyphenated: new Set() }, typesetter);
}

describe('a text that is set', () => {
  it('has the letters of its typeface that are drawn for its role, where the typeface has several', () => {
    expect((['display', 'heading', 'text', 'label'] as const).map((role) => set(role, book).shaped.runs[0]?.fontKey)).toEqual(['own@36', 'own@20', 'own@12', 'own@12']);
    expect(set('display', gullwickBook).shaped.runs[0]?.fontKey).toBe(gullwickBook.type.display.font);
  });

  it('shrinks to its template’s least size, to a share of it where that is asked, and never below what one can read', () => {
    const [usual, last, none] = [1, 0.72, 0.01].map((share) => set('text', gullwickBook, share).minPx);
    expect(usual).toBeCloseTo(0.9 * 65 * Math.min(1, gullwickBook.type.text.scale), 6);
    expect(last).toBeCloseTo((usual ?? 0) * 0.72, 6);
    expect(none).toBe(32);
  });
});
