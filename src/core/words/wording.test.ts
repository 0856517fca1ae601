import { describe, expect, it } from 'vitest';
import { networkSheetSchema } from '../network/network-sheet.ts';
import petalryJson from '../network/sheets/petalry.json' with { type: 'json' };
import quiplineJson from '../network/sheets/quipline.json' with { type: 'json' };
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import type { Piece } from '../piece/piece.ts';
import { checkWording, countField, wordingCell } from './wording.ts';

const petalry = networkSheetSchema.validateSync(petalryJson);
const quipline = networkSheetSchema.validateSync(quiplineJson);
const withWords = (caption: string, own: Piece['words']['own'] = {}): Piece => ({ ...plainPiece, words: { shared: { caption, altText: 'Alt' }, own } });

describe('wordingCell', () => {
  it('inherits the shared words until the channel has its own, even empty ones', () => {
    const piece = withWords('Shared', { c1: { caption: '' } });
    expect(wordingCell(piece, 'c1', 'caption')).toEqual({ text: '', from: 'own' });
    expect(wordingCell(piece, 'c1', 'altText')).toEqual({ text: 'Alt', from: 'shared' });
    expect(wordingCell(piece, 'c2', 'caption')).toEqual({ text: 'Shared', from: 'shared' });
  });
});

describe('checkWording', () => {
  it('takes what each network takes', () => {
    expect(checkWording(withWords('A kite.'), 'c1', petalry)).toEqual([]);
    expect(checkWording(withWords('A kite.'), 'c1', quipline)).toEqual([]);
  });

  it.each([
    ['3,000 characters on a network that takes 2,200', 'x'.repeat(3_000), petalry, { kind: 'too-long', severity: 'stops', field: 'caption', over: 800, max: 2200 }],
    ['281 characters where 280 are taken', 'x'.repeat(281), quipline, { kind: 'too-long', severity: 'stops', field: 'caption', over: 1, max: 280 }],
    ['141 ideographs where they count two', '凧'.repeat(141), quipline, { kind: 'too-long', severity: 'stops', field: 'caption', over: 2, max: 280 }],
    ['31 hashtags where 30 are taken', '#kite '.repeat(31), petalry, { kind: 'too-many-hashtags', severity: 'stops', count: 31, limit: 30 }],
    ['three hashtags where over two look like noise', '#a1 #b2 #c3', quipline, { kind: 'too-many-hashtags', severity: 'warns', count: 3, limit: 2 }],
    ['a link that cannot be clicked', 'See https://a.example', petalry, { kind: 'dead-link', severity: 'warns' }],
  ])('finds %s', (_, caption, sheet, finding) => {
    expect(checkWording(withWords(caption), 'c1', sheet)).toEqual([finding]);
  });

  it('counts the own words of a channel, not the shared ones', () => {
    expect(checkWording(withWords('x'.repeat(3_000), { c1: { caption: 'Short' } }), 'c1', petalry)).toEqual([]);
  });
});

describe('countField', () => {
  it('counts a link as the network does', () => {
    const [field] = quipline.words.fields;
    expect(field && countField('Go https://gullwickkites.example/book/a-bench-for-saturday', field, quipline)).toEqual({ used: 26, max: 280, over: 0 });
  });
});
