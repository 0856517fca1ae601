import { describe, expect, it } from 'vitest';
import { networkSheetSchema, type NetworkSheet } from '../network/network-sheet.ts';
import petalryJson from '../network/sheets/petalry.json' with { type: 'json' };
import quiplineJson from '../network/sheets/quipline.json' with { type: 'json' };
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import type { Piece } from '../piece/piece.ts';
import { checkWording as check, composeWords, countField, wordingCell } from './wording.ts';
import { emptyVoice } from '../brand/brand-book.ts';
import { shippedSheets } from '../network/shipped-sheets.ts';

const petalry = networkSheetSchema.validateSync(petalryJson);
const quipline = networkSheetSchema.validateSync(quiplineJson);
const book = { facts: [{ key: 'phone', name: 'Phone', text: '01632 960 184' }, { key: 'site', name: 'Site', text: '' }], voice: { ...emptyVoice, words: [{ avoid: 'unleash', prefer: '' }] } };
const checkWording = (piece: Piece, channelId: string, sheet: NetworkSheet) => check(piece, channelId, sheet, book);
const shipped = (key: string): NetworkSheet => shippedSheets.find((sheet) => sheet.key === key) ?? petalry;
const tackboard = shipped('tackboard');
const withWords = (caption: string, own: Piece['words']['own'] = {}): Piece => ({ ...plainPiece, words: { shared: { caption, altText: 'Alt' }, own } });

describe('wordingCell', () => {
  it('inherits the shared words until the channel has its own, even empty ones', () => {
    const piece = withWords('Shared', { c1: { caption: '' } });
    expect(wordingCell(piece, 'c1', 'caption')).toEqual({ text: '', from: 'own' });
    expect(wordingCell(piece, 'c1', 'altText')).toEqual({ text: 'Alt', from: 'shared' });
    expect(wordingCell(piece, 'c2', 'caption')).toEqual({ text: 'Shared', from: 'shared' });
  });
});

describe('composeWords', () => {
  it('fills facts in, and takes what leads the picture for a title until one is written', () => {
    const piece: Piece = { ...withWords('Call {phone}'), frames: [{ id: 'f', slots: { headline: { kind: 'text', text: 'Wind\nis free' } } }] };
    const sheet = (key: string): NetworkSheet => shippedSheets.find((each) => each.key === key) as NetworkSheet;
    const texts = { caption: 'Call 01632 960 184', altText: 'Alt' };
    expect(composeWords(piece, { channelId: 'c1', placement: 'film' }, sheet('longhall'), book.facts)).toMatchObject({ caption: texts.caption, title: 'Wind is free' });
    // What a network does not take is not among its words; what nobody has written is not either.
    expect(composeWords(piece, { channelId: 'c1', placement: 'feed-square' }, petalry, book.facts)).toEqual(texts);
    expect(composeWords({ ...piece, words: { ...piece.words, shared: { ...piece.words.shared, title: 'T', link: 'https://a.example', firstComment: 'F' } } }, { channelId: 'c1', placement: 'post-wide' }, quipline, book.facts)).toEqual(texts);
    expect(wordingCell(piece, 'c1', 'title').from).toBe('piece');
    expect(wordingCell({ ...piece, words: { ...piece.words, shared: { ...piece.words.shared, title: '' } } }, 'c1', 'title')).toEqual({ text: '', from: 'shared' });
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
    ['a fact without a text', 'See {site}', petalry, { kind: 'missing-fact', severity: 'stops', fact: 'site', reason: 'empty' }],
    ['a fact that is none', 'See {sight}', petalry, { kind: 'missing-fact', severity: 'stops', fact: 'sight', reason: 'unknown' }],
    ['a word that the brand avoids', 'We unleash kites', petalry, { kind: 'avoided-word', severity: 'warns', field: 'caption', word: 'unleash', prefer: '' }],
    ['a link that cannot be clicked', 'See https://a.example', petalry, { kind: 'dead-link', severity: 'warns' }],
  ])('finds %s', (_, caption, sheet, finding) => {
    expect(checkWording(withWords(caption), 'c1', sheet)).toEqual([finding]);
  });

  it('asks for a document’s title only where a document goes', () => {
    const piece: Piece = { ...withWords('A kite.'), kind: 'carousel', frames: [{ id: 'f', slots: {} }] };
    const going = (placement: string) => checkWording({ ...piece, cuts: [{ channelId: 'c1', placement }] }, 'c1', shipped('guildrow'));
    expect(going('update-square')).toEqual([]);
    expect(going('document')).toEqual([{ kind: 'missing', severity: 'stops', field: 'title' }]);
  });

  it('asks for what a network cannot do without, and checks that a link is one', () => {
    const piece: Piece = { ...withWords('A kite.'), frames: [{ id: 'f', slots: {} }] };
    expect(checkWording(piece, 'c1', tackboard)).toEqual([
      { kind: 'missing', severity: 'stops', field: 'title' },
      { kind: 'missing', severity: 'stops', field: 'link' },
    ]);
    const linked = { ...piece, words: { ...piece.words, shared: { ...piece.words.shared, title: 'Kites', link: 'kites.example' } } };
    expect(checkWording(linked, 'c1', tackboard)).toEqual([{ kind: 'no-address', severity: 'stops', field: 'link' }]);
    expect(checkWording({ ...linked, words: { ...linked.words, own: { c1: { link: 'https://kites.example' } } } }, 'c1', tackboard)).toEqual([]);
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
