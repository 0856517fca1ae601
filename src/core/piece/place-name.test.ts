import { describe, expect, it } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import { differencesOf } from '../document/differences.ts';
import { shippedSheets } from '../network/shipped-sheets.ts';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import type { Piece } from './piece.ts';
import { placeName, valueInWords, type PlaceContext } from './place-name.ts';

const context: PlaceContext = { piece: plainPiece, template: getShippedTemplate('headland'), channels: [{ id: 'c1', name: 'Petalry @gullwick', network: 'petalry' }], sheets: shippedSheets };
const carousel: PlaceContext = { ...context, piece: { kind: 'carousel', frames: [{ id: 'a', slots: {} }, { id: 'b', slide: 'point', slots: { headline: { kind: 'text', text: 'Buy string' } } }] }, template: getShippedTemplate('strand') };

describe('places of a piece', () => {
  it.each([
    [['title'], 'Name of the piece'],
    [['words', 'shared', 'caption'], 'Caption for all channels'],
    [['words', 'own', 'c1', 'firstComment'], 'First comment for Petalry @gullwick'],
    [['words', 'own', 'gone', 'caption'], 'Caption for a channel that is gone'],
    [['frames', '#f1', 'slots', 'headline', 'text'], 'Headline'],
    [['adjustments', 'c1.story', 'textStep'], 'Look of Petalry @gullwick, Story'],
    [['track', 'subtitles', 2, 'text'], 'Subtitles'],
  ])('%j is %s', (path, name) => {
    expect(placeName(path, context)).toBe(name);
  });

  it('of a carousel name their slide', () => {
    expect(placeName(['frames', '#b', 'altText'], carousel)).toBe('Slide 2: Alt text');
    expect(placeName(['frames', '#b'], carousel)).toBe('Slide 2 (Buy string)');
    expect(placeName(['frames'], carousel)).toBe('Slides');
  });

  it('are found where two states of a piece differ, also where something came or went', () => {
    const after: Piece = { ...plainPiece, title: 'May', frames: [{ id: 'f1', slots: { headline: { kind: 'text', text: 'Bigger Blow' } } }], words: { shared: plainPiece.words.shared, own: {} } };
    const named = differencesOf(plainPiece, after).map(({ path, before, after: now }) => [placeName(path, context), valueInWords(before), valueInWords(now)]);
    expect(named).toEqual([
      ['Name of the piece', '(empty)', 'May'],
      ['Headline', 'Big Blow', 'Bigger Blow'],
      ['Picture', '(a picture)', '(empty)'],
      ['Words for Petalry @gullwick', '(changed)', '(empty)'],
    ]);
  });

  it('differ in nothing when the documents are equal, and in one place when only the order differs', () => {
    expect(differencesOf(plainPiece, structuredClone(plainPiece))).toEqual([]);
    expect(differencesOf({ list: ['a', 'b'] }, { list: ['b', 'a'] })).toEqual([{ path: ['list'], before: ['a', 'b'], after: ['b', 'a'] }]);
  });
});
