import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import type { TextPart } from '../template/parts.ts';
import { cutFrame } from './cut-frame.ts';
import { glyphPlaces } from './glyph-places.ts';
import { setText } from './set-text.ts';

const typesetter = testTypesetter();
const frame = cutFrame({ key: 'k', name: 'k', surface: 'k', exportPx: { width: 1000, height: 1000 }, safePercent: { top: 4, right: 4, bottom: 4, left: 4 } });
const box = { xPx: 200, yPx: 200, widthPx: 600, heightPx: 300 };
const sizePx = 60;

/** Where the first and the last ink of each line stand. */
function edges(words: string, own: Partial<TextPart>): readonly { readonly leftPx: number; readonly rightPx: number }[] {
  const part: TextPart = { part: 'text', slot: 'quote', role: 'text', align: 'start', ink: 'ink', sizeM: { max: 2, min: 0.5 }, ...own };
  const text = setText(part, { text: words, ghost: false }, { book: gullwickBook, frame, textStep: 0, hyphenated: new Set() }, typesetter);
  const places = glyphPlaces({ part, text, sizePx, box }, frame, typesetter);
  return [...new Set(places.map(({ line }) => line))].map((line) => {
    const there = places.filter((place) => place.line === line).map(({ glyph, xPx }) => ({ leftPx: xPx + typesetter.glyphReach(glyph.fontKey, glyph.id).leftEm * sizePx, rightPx: xPx + typesetter.glyphReach(glyph.fontKey, glyph.id).rightEm * sizePx }));
    return { leftPx: Math.min(...there.map(({ leftPx }) => leftPx)), rightPx: Math.max(...there.map(({ rightPx }) => rightPx)) };
  });
}

describe('glyphPlaces', () => {
  it('hangs an opening quotation mark outside the left margin, where the template asks for it', () => {
    expect(edges('“Wind is free.”', { hanging: true })[0]?.leftPx).toBeLessThan(box.xPx - 10);
    expect(edges('“Wind is free.”', {})[0]?.leftPx).toBeGreaterThanOrEqual(box.xPx - 2);
    expect(edges('Wind is free', { hanging: true })).toEqual(edges('Wind is free', {}));
  });

  it('hangs stops, hyphens and closing marks outside the right margin of words that are flush right', () => {
    for (const end of ['.', ',', '”', '-']) {
      const [hung] = edges(`Windward${end}`, { align: 'end', hanging: true });
      const [plain] = edges('Windward', { align: 'end', hanging: true });
      expect(hung?.rightPx, end).toBeGreaterThan(box.xPx + box.widthPx + 2);
      // The letters are flush with each other, whatever stands behind them.
      expect(Math.abs((hung?.leftPx ?? 0) - (plain?.leftPx ?? 0)), end).toBeLessThan(2);
    }
    expect(edges('The wind!', { align: 'end', hanging: true })).toEqual(edges('The wind!', { align: 'end' }));
  });

  it('does so for each line, and for no centred one', () => {
    const lines = edges('Nets, lines, and sixty paper lanterns, all of them, hang here.', { align: 'end', hanging: true });
    expect(lines.length).toBeGreaterThan(1);
    expect(lines.at(-1)?.rightPx).toBeGreaterThan(box.xPx + box.widthPx + 2);
    expect(edges('“Free.”', { align: 'centre', hanging: true })).toEqual(edges('“Free.”', { align: 'centre' }));
  });

  it('never hangs beyond the safe zone', () => {
    const atEdge = { ...box, xPx: frame.safe.leftPx };
    const part: TextPart = { part: 'text', slot: 'quote', role: 'text', align: 'start', ink: 'ink', sizeM: { max: 2, min: 0.5 }, hanging: true };
    const text = setText(part, { text: '“Free.”', ghost: false }, { book: gullwickBook, frame, textStep: 0, hyphenated: new Set() }, typesetter);
    expect(glyphPlaces({ part, text, sizePx, box: atEdge }, frame, typesetter)[0]?.xPx).toBeGreaterThanOrEqual(frame.safe.leftPx - 2);
  });
});
