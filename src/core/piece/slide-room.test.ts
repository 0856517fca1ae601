import type { Draft } from 'immer';
import { produce } from 'immer';
import { describe, expect, it } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import { leaveSlideOut, takeSlideIn, type SlideRoom } from './adjust.ts';
import { changeSlide, changeTemplateOfPiece } from './change-template.ts';
import type { Frame, Piece } from './piece.ts';

const text = (value: string) => ({ kind: 'text' as const, text: value });
const edit = (piece: Piece, change: (draft: Draft<Piece>) => void): Piece => produce(piece, (draft: Draft<Piece>) => void change(draft));
const without = (piece: Piece): readonly string[] | undefined => piece.adjustments['c1.feed']?.withoutSlides;
const room = (shown: string, left: string, most: number): SlideRoom => ({ shown: shown.split(''), left: left.split(''), most });

describe('slides of one cut', () => {
  it('are left out one by one; what the limit left behind becomes a choice, too', () => {
    const once = edit(plainPiece, (draft) => leaveSlideOut(draft, 'c1.feed', 'b', ['e', 'f']));
    expect(without(once)).toEqual(['e', 'f', 'b']);
    expect(without(edit(once, (draft) => leaveSlideOut(draft, 'c1.feed', 'b', ['e', 'f', 'b'])))).toEqual(['e', 'f', 'b']);
  });

  it.each([
    ['where there is room, nothing else moves', room('acz', 'b', 4), 'b', undefined],
    ['where there is none, the last before the closing slide makes some', room('abcz', 'def', 4), 'e', ['d', 'f', 'c']],
    ['of two, the second makes room', room('ab', 'c', 2), 'c', ['b']],
    ['where one picture goes, the other takes its place', room('a', 'bc', 1), 'b', ['c', 'a']],
  ])('are taken in: %s', (_, given, id, result) => {
    expect(without(edit(plainPiece, (draft) => takeSlideIn(draft, 'c1.feed', id, given)))).toEqual(result);
  });
});

describe('slides in another template', () => {
  const [strand, sheaf] = [getShippedTemplate('strand'), getShippedTemplate('sheaf')];
  const frames: readonly [Frame, ...Frame[]] = [
    { id: 'c', slots: { headline: text('Winds'), line: text('All of them') } },
    { id: 'p', slide: 'point', altText: 'A breath', slots: { heading: text('A breath'), text: text('Sleds') } },
    { id: 'z', slide: 'closing', slots: { headline: text('Come'), call: text('Book') } },
  ];
  const piece: Piece = { ...plainPiece, kind: 'carousel', template: { key: 'strand' }, frames };

  it('keep their use, their alt text and all words, those without a place too', () => {
    const changed = changeTemplateOfPiece(piece, strand, sheaf);
    expect(changed.template).toEqual({ key: 'sheaf' });
    expect(changed.frames.map(({ slide }) => slide)).toEqual([undefined, 'picture', 'closing']);
    expect(changed.frames[1]).toMatchObject({ altText: 'A breath', slots: { heading: text('A breath'), text: text('Sleds') } });
    expect(changed.frames[0].slots['line']).toEqual(text('All of them'));
    const back = changeTemplateOfPiece({ ...piece, ...changed }, sheaf, strand);
    expect(back.frames).toEqual(frames);
  });

  it('become another kind with the words that lead them', () => {
    const card = changeSlide(frames[1] ?? frames[0], strand, strand, 'closing');
    expect(card).toMatchObject({ id: 'p', slide: 'closing', slots: { headline: text('A breath') } });
    expect('slide' in changeSlide(card, strand, strand, undefined)).toBe(false);
  });
});
