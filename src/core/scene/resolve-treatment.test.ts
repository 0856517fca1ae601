import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { relativeLuminance } from '../colour/contrast.ts';
import { brandBookSchema } from '../brand/brand-book.ts';
import { resolveTreatment } from './resolve-treatment.ts';

const hexes = gullwickBook.colours.map(({ hex }) => hex);
const [first] = gullwickBook.colours;

describe('what a brand does to its photographs', () => {
  it('is nothing where the book does not say', () => {
    expect(resolveTreatment(gullwickBook)).toBeUndefined();
    expect(brandBookSchema.isValidSync(gullwickBook, { strict: true })).toBe(true);
  });

  it('takes the darkest and the lightest colour of the book, or those that were chosen', () => {
    const duotone = resolveTreatment({ ...gullwickBook, treatment: { kind: 'duotone', strength: 1 } });
    if (duotone?.kind !== 'duotone') throw new Error('There is no duotone');
    for (const hex of hexes) {
      expect(relativeLuminance(duotone.dark)).toBeLessThanOrEqual(relativeLuminance(hex));
      expect(relativeLuminance(duotone.light)).toBeGreaterThanOrEqual(relativeLuminance(hex));
    }
    expect(resolveTreatment({ ...gullwickBook, treatment: { kind: 'halftone', strength: 0.5, dark: first?.key } })).toMatchObject({ dark: first?.hex, light: duotone.light });
    expect(resolveTreatment({ ...gullwickBook, treatment: { kind: 'tint', strength: 0.5, colour: first?.key } })).toEqual({ kind: 'tint', strength: 0.5, colour: first?.hex });
  });

  it('still holds when a chosen colour has left the book', () => {
    expect(resolveTreatment({ ...gullwickBook, treatment: { kind: 'tint', strength: 0.5, colour: 'gone' } })).toEqual(resolveTreatment({ ...gullwickBook, treatment: { kind: 'tint', strength: 0.5 } }));
  });

  it('is checked like the rest of the book', () => {
    const valid = (treatment: unknown): boolean => brandBookSchema.isValidSync({ ...gullwickBook, treatment }, { strict: true });
    expect([valid({ kind: 'mono', strength: 1 }), valid({ kind: 'sepia', strength: 1 }), valid({ kind: 'mono', strength: 0 }), valid({ kind: 'mono' }), valid({ kind: 'tint', strength: 1, colour: '#ff0000' })]).toEqual([true, false, false, false, false]);
  });
});
