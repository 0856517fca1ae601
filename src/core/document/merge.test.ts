import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import type { Frame, Piece } from '../piece/piece.ts';
import { mergeDocuments } from './merge.ts';

const slide = (id: string, headline: string): Frame => ({ id, slots: { headline: { kind: 'text', text: headline } } });
const carousel: Piece = { ...plainPiece, kind: 'carousel', frames: [slide('a', 'A'), slide('b', 'B'), slide('c', 'C')] };
const wordsOf = ({ frames }: Piece): string => frames.map(({ id, slots }) => `${id}:${(slots['headline'] as { text: string }).text}`).join(' ');
const withFrames = (...frames: Frame[]): Piece => ({ ...carousel, frames: frames as unknown as Piece['frames'] });

describe('two people who change one document', () => {
  it('both keep their words, where they wrote in different fields', () => {
    const mine = { ...plainPiece, words: { ...plainPiece.words, shared: { ...plainPiece.words.shared, caption: 'Mine' } } };
    const theirs = { ...plainPiece, title: 'Theirs', words: { ...plainPiece.words, shared: { ...plainPiece.words.shared, altText: 'Theirs' } } };
    const { document, conflicts } = mergeDocuments<Piece>(plainPiece, mine, theirs);
    expect(conflicts).toEqual([]);
    expect([document.title, document.words.shared]).toEqual(['Theirs', { caption: 'Mine', altText: 'Theirs' }]);
  });

  it('are asked about a field that both wrote in, and about nothing else', () => {
    const write = (text: string, title: string): Piece => ({ ...plainPiece, title, words: { ...plainPiece.words, own: { c1: { caption: text } } } });
    const { document, conflicts } = mergeDocuments(plainPiece, write('Mine', ''), write('Theirs', 'New title'));
    expect(conflicts).toEqual([{ path: ['words', 'own', 'c1', 'caption'], base: 'Own', mine: 'Mine', theirs: 'Theirs' }]);
    expect([document.title, document.words.own['c1']?.caption]).toEqual(['New title', 'Theirs']);
    expect(mergeDocuments(plainPiece, write('Mine', ''), write('Theirs', ''), () => 'mine').document.words.own['c1']?.caption).toBe('Mine');
  });

  it.each<[string, Piece, Piece, string]>([
    ['a slide added and words changed', withFrames(slide('a', 'A'), slide('x', 'X'), slide('b', 'B'), slide('c', 'C')), withFrames(slide('a', 'A'), slide('b', 'B2'), slide('c', 'C')), 'a:A x:X b:B2 c:C'],
    ['a slide added by each', withFrames(slide('a', 'A'), slide('b', 'B'), slide('c', 'C'), slide('x', 'X')), withFrames(slide('y', 'Y'), slide('a', 'A'), slide('b', 'B'), slide('c', 'C')), 'y:Y a:A b:B c:C x:X'],
    ['slides moved and words changed', withFrames(slide('c', 'C'), slide('a', 'A'), slide('b', 'B')), withFrames(slide('a', 'A2'), slide('b', 'B'), slide('c', 'C')), 'c:C a:A2 b:B'],
    ['a slide removed and another changed', withFrames(slide('a', 'A'), slide('c', 'C')), withFrames(slide('a', 'A'), slide('b', 'B'), slide('c', 'C2')), 'a:A c:C2'],
    ['a slide removed that the other changed', withFrames(slide('a', 'A'), slide('c', 'C')), withFrames(slide('a', 'A'), slide('b', 'B2'), slide('c', 'C')), 'a:A b:B2 c:C'],
  ])('%s', (_, mine, theirs, expected) => {
    const { document, conflicts } = mergeDocuments(carousel, mine, theirs);
    expect([wordsOf(document), conflicts]).toEqual([expected, []]);
  });

  it('never get a mixture of a picture and a text', () => {
    const put = (value: unknown): Piece => ({ ...plainPiece, frames: [{ id: 'f1', slots: { extra: value } } as unknown as Frame] });
    const { document, conflicts } = mergeDocuments(put({ kind: 'text', text: '' }), put({ kind: 'picture', mediaId: 'm' }), put({ kind: 'text', text: 'Words' }));
    expect(document.frames[0].slots['extra']).toEqual({ kind: 'text', text: 'Words' });
    expect(conflicts).toHaveLength(1);
  });

  it('may both change subtitles, line by line, as long as there are as many', () => {
    const cues = (...texts: string[]) => ({ subtitles: texts.map((text, index) => ({ fromMs: index * 1000, toMs: index * 1000 + 900, text })) });
    expect(mergeDocuments(cues('a', 'b'), cues('a1', 'b'), cues('a', 'b2')).document).toEqual(cues('a1', 'b2'));
    expect(mergeDocuments(cues('a', 'b'), cues('a1', 'b'), cues('a', 'b', 'c')).conflicts).toHaveLength(1);
  });
});

describe('merging', () => {
  const texts = fc.dictionary(fc.constantFrom('a', 'b', 'c', 'd'), fc.string({ maxLength: 3 }), { maxKeys: 4, noNullPrototype: true });

  it('of one side’s change alone is that side, from both sides', () => {
    fc.assert(
      fc.property(texts, texts, (base, changed) => {
        expect(mergeDocuments(base, changed, base).document).toEqual(changed);
        expect(mergeDocuments(base, base, changed).document).toEqual(changed);
      }),
    );
  });

  it('takes from each side what the other has left alone', () => {
    fc.assert(
      fc.property(texts, texts, texts, (base, mine, theirs) => {
        const { document, conflicts } = mergeDocuments<Record<string, string>>(base, mine, theirs);
        for (const key of ['a', 'b', 'c', 'd']) {
          if (conflicts.some(({ path }) => path[0] === key)) continue;
          expect([mine[key], theirs[key]]).toContain(document[key]);
          if (mine[key] !== base[key] && theirs[key] === base[key]) expect(document[key]).toBe(mine[key]);
          if (theirs[key] !== base[key] && mine[key] === base[key]) expect(document[key]).toBe(theirs[key]);
        }
      }),
    );
  });
});
