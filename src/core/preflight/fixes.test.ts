import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainPreflight } from '../../../tests/fixtures/preflight.ts';
import type { NetworkSheet } from '../network/network-sheet.ts';
import { shippedSheets } from '../network/shipped-sheets.ts';
import type { Piece } from '../piece/piece.ts';
import type { Words } from '../words/fields.ts';
import type { CutToCheck, Finding } from './finding.ts';
import { fixed } from './fix.ts';
import { preflight } from './preflight.ts';

const CHANNEL = 'c2';
/** Each run checks a piece as often as it has findings. */
const RUNS = 30;
/** What people write, with all that a machine can mend in it. */
const tokens = ['Kites', 'on the quay', '#wind', '#Wind', '#kitesonthequay', '#2026', '#big-blow', 'Unleash', 'elevate', 'Come at two.', '\n', 'https://gullwickkites.example/a', '@kites', '[place]', '#follow4follow', 'and a friend', '🪁'] as const;
const someText = (maxLength: number): fc.Arbitrary<string> => fc.array(fc.constantFrom(...tokens), { maxLength }).map((parts) => parts.join(' '));
const someWords: fc.Arbitrary<Words> = fc.record({ caption: fc.oneof(someText(14), someText(14).map((text) => `${text} `.repeat(25))), hashtags: someText(4), firstComment: someText(3), title: someText(4) }, { requiredKeys: ['caption'] });
const someSheet = fc.constantFrom(...shippedSheets);

function wordFindings(piece: Piece, sheet: NetworkSheet): readonly Finding[] {
  const [placement] = sheet.placements;
  if (!placement) throw new Error(`${sheet.name} has no place`);
  const cut: CutToCheck = { ref: { channelId: CHANNEL, placement: placement.key }, channelName: `${sheet.name} @kites`, sheet, placement, slides: [], left: [] };
  return preflight({ ...plainPreflight, piece, cuts: [cut] }).filter(({ view }) => view === 'words');
}

const pieceWith = (shared: Words, own: Words | null): Piece => ({ ...plainPreflight.piece, cuts: [], words: { shared: { caption: '', altText: 'A kite', ...shared }, own: own ? { [CHANNEL]: own } : {} } });

describe('what a fix of words does', () => {
  it('takes its finding away, and changes nothing more a second time', { tags: 'long' }, () => {
    fc.assert(
      fc.property(someSheet, someWords, fc.option(someWords), (sheet, shared, own) => {
        const piece = pieceWith(shared, own);
        for (const { fix, sentence } of wordFindings(piece, sheet)) {
          if (!fix) continue;
          const mended = fixed(piece, fix.change);
          expect(fixed(mended, fix.change), fix.label).toEqual(mended);
          // A word or hashtag that stands in two fields is mended in one after the other.
          const again = wordFindings(mended, sheet).find((finding) => finding.sentence === sentence)?.fix;
          const twice = again ? fixed(mended, again.change) : mended;
          expect(wordFindings(twice, sheet).map((finding) => finding.sentence), `${sheet.key}: ${fix.label}`).not.toContain(sentence);
        }
      }),
      { numRuns: RUNS },
    );
  });

  it('touches only its own channel or the words that all share, never another channel', () => {
    fc.assert(
      fc.property(someSheet, someWords, someWords, (sheet, shared, own) => {
        const piece: Piece = { ...pieceWith(shared, own), words: { shared: { caption: '', altText: 'A kite', ...shared }, own: { [CHANNEL]: own, c9: { caption: 'Left alone' } } } };
        for (const { fix } of wordFindings(piece, sheet)) if (fix) expect(fixed(piece, fix.change).words.own['c9']).toEqual({ caption: 'Left alone' });
      }),
      { numRuns: RUNS },
    );
  });
});
