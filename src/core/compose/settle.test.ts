import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import type { TextPart } from '../template/parts.ts';
import { lineText, linesCost } from '../text/break-lines.ts';
import { cutFrame } from './cut-frame.ts';
import { linesIn, setText, type SetText } from './set-text.ts';
import { settle, type FittedText } from './settle.ts';

const typesetter = testTypesetter();
const frame = cutFrame({ key: 'k', name: 'k', surface: 'k', exportPx: { width: 1000, height: 1000 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 } });

function headline(words: string, own: Partial<TextPart> = {}): SetText {
  const part: TextPart = { part: 'text', slot: 'headline', role: 'display', align: 'start', ink: 'ink', sizeM: { max: 4, min: 0.6 }, ...own };
  return setText(part, { text: words, ghost: false }, { book: gullwickBook, frame, textStep: 0, hyphenated: new Set() }, typesetter);
}

const fitted = (text: SetText, sizePx: number, roomPx = 800): FittedText => ({ text, sizePx, roomPx });
const linesAt = ({ text, roomPx }: FittedText, sizePx: number): readonly string[] => linesIn(text, sizePx, roomPx).map((line) => lineText(text.shaped.text, line));
const costAt = ({ text, roomPx, sizePx: largest }: FittedText, sizePx: number): number => linesCost(text.shaped, linesIn(text, sizePx, roomPx), largest / sizePx);

const word = fc.constantFrom('Sixty', 'lanterns,', 'one', 'tide', 'table', 'a', 'kite', 'Sicherheitsleine', '12', 'Wind.');
const words = fc.array(word, { minLength: 1, maxLength: 9 }).map((list) => list.join(' '));
const size = fc.integer({ min: 50, max: 240 });

describe('settle', () => {
  it('gives up some of the size for lines that read better', () => {
    const text = fitted(headline('Sixty lanterns, one tide table'), 150);
    const settled = settle([text]).get(text.text.part) ?? text.sizePx;
    expect(linesAt(text, text.sizePx)).not.toEqual(['Sixty lanterns,', 'one tide table']);
    expect(linesAt(text, settled)).toEqual(['Sixty lanterns,', 'one tide table']);
  });

  it('leaves a text as large as it is where no smaller size reads better', () => {
    const text = fitted(headline('Up'), 150);
    expect(settle([text]).size).toBe(0);
  });

  it('takes a size from three fifths of the largest to the largest, never below the least of the part, and one that costs no more', () => {
    fc.assert(
      fc.property(words, size, (written, sizePx) => {
        const each = fitted(headline(written), Math.max(sizePx, headline(written).minPx));
        const settled = settle([each]).get(each.text.part) ?? each.sizePx;
        expect(settled).toBeLessThanOrEqual(each.sizePx + 1e-9);
        expect(settled).toBeGreaterThanOrEqual(Math.max(each.text.minPx, each.sizePx * 0.6) - 1e-6);
        expect(costAt(each, settled)).toBeLessThanOrEqual(costAt(each, each.sizePx) + 1e-6);
      }),
      { numRuns: 80 },
    );
  });

  it('settles texts of one role by the same share of their sizes', () => {
    const [one, other] = [fitted(headline('Sixty lanterns, one tide table', { slot: 'a' }), 150), fitted(headline('Sixty lanterns, one tide table', { slot: 'b' }), 140)];
    const settled = settle([one, other]);
    const shares = [one, other].map((each) => (settled.get(each.text.part) ?? each.sizePx) / each.sizePx);
    expect(shares[0]).toBeCloseTo(shares[1] ?? 0, 9);
    expect(shares[0]).toBeLessThan(1);
  });

  it('leaves texts alone that fill their line, have no room, or take their size from other slides', () => {
    const loose = 'Sixty lanterns, one tide table';
    expect(settle([fitted(headline(loose, { fill: true }), 150)]).size).toBe(0);
    expect(settle([fitted(headline(loose), 150, 0)]).size).toBe(0);
    expect(settle([fitted({ ...headline(loose), isCapped: true }, 150)]).size).toBe(0);
  });
});
