import { describe, expect, it } from 'vitest';
import { networkSheetSchema, type NetworkSheet } from '../network/network-sheet.ts';
import petalryJson from '../network/sheets/petalry.json' with { type: 'json' };
import quiplineJson from '../network/sheets/quipline.json' with { type: 'json' };
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import type { Piece } from '../piece/piece.ts';
import { checkWording as check } from './check.ts';
import { emptyVoice, type Voice } from '../brand/brand-book.ts';
import { shippedSheets } from '../network/shipped-sheets.ts';

const petalry = networkSheetSchema.validateSync(petalryJson);
const quipline = networkSheetSchema.validateSync(quiplineJson);
const book = { facts: [{ key: 'phone', name: 'Phone', text: '01632 960 184' }, { key: 'site', name: 'Site', text: '' }], voice: { ...emptyVoice, words: [{ avoid: 'unleash', prefer: '' }] } };
const checkWording = (piece: Piece, channelId: string, sheet: NetworkSheet, voice: Partial<Voice> = {}) => check({ piece, channel: { id: channelId }, sheet, book: { ...book, language: 'en', voice: { ...book.voice, ...voice } } });
const shipped = (key: string): NetworkSheet => shippedSheets.find((sheet) => sheet.key === key) ?? petalry;
const tackboard = shipped('tackboard');
const kerbside = shipped('kerbside');
const hearthside = shipped('hearthside');
const withWords = (caption: string, own: Piece['words']['own'] = {}): Piece => ({ ...plainPiece, words: { shared: { caption, altText: 'Alt' }, own } });

describe('checkWording', () => {
  it('takes what each network takes', () => {
    expect(checkWording(withWords('A kite.'), 'c1', petalry)).toEqual([]);
    expect(checkWording(withWords('A kite.'), 'c1', quipline)).toEqual([]);
  });

  it.each([
    ['3,000 characters on a network that takes 2,200', 'x'.repeat(3_000), petalry, { kind: 'too-long', severity: 'stops', field: 'caption', over: 800, max: 2200 }],
    ['281 characters where 280 are taken', 'x'.repeat(281), quipline, { kind: 'too-long', severity: 'stops', field: 'caption', over: 1, max: 280 }],
    ['141 ideographs where they count two', '凧'.repeat(141), quipline, { kind: 'too-long', severity: 'stops', field: 'caption', over: 2, max: 280 }],
    ['31 hashtags where 30 are taken', Array.from({ length: 31 }, (_, index) => `#kite${index}`).join(' '), petalry, { kind: 'too-many-hashtags', severity: 'stops', count: 31, limit: 30, by: 'network' }],
    ['three hashtags where over two look like noise', '#a1 #b2 #c3', quipline, { kind: 'too-many-hashtags', severity: 'warns', count: 3, limit: 2, by: 'network' }],
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
      { kind: 'missing', severity: 'stops', field: 'board' },
    ]);
    const linked = { ...piece, words: { ...piece.words, shared: { ...piece.words.shared, title: 'Kites', link: 'kites.example', board: 'Shop' } } };
    expect(checkWording(linked, 'c1', tackboard)).toEqual([{ kind: 'not-valid', severity: 'stops', field: 'link', problem: 'is an incomplete web address: start it with https://' }]);
    expect(checkWording({ ...linked, words: { ...linked.words, own: { c1: { link: 'https://kites.example' } } } }, 'c1', tackboard)).toEqual([]);
  });

  it('warns of a handle that several channels get as it was written for one', () => {
    const cuts = [{ channelId: 'c1', placement: 'a' }, { channelId: 'c2', placement: 'b' }];
    const people = [{ key: 'una', name: 'Una Vasey', handles: { petalry: '@una.vasey' } }];
    const shared = { ...withWords('Up with @una.vasey and @odo.fell.'), cuts };
    expect(checkWording(shared, 'c1', petalry, { people })).toEqual([{ kind: 'shared-handle', severity: 'warns', handle: '@odo.fell' }]);
    expect(checkWording({ ...shared, cuts: [{ channelId: 'c1', placement: 'a' }] }, 'c1', petalry, { people })).toEqual([]);
    expect(checkWording({ ...withWords('Hello', { c1: { caption: 'Up with @odo.fell.' } }), cuts }, 'c1', petalry, { people })).toEqual([]);
  });

  it('counts the own words of a channel, not the shared ones', () => {
    expect(checkWording(withWords('x'.repeat(3_000), { c1: { caption: 'Short' } }), 'c1', petalry)).toEqual([]);
  });

  const own = (sheet: NetworkSheet, words: Piece['words']['own'][string], voice: Partial<Voice> = {}) => checkWording(withWords('A kite.', { c1: words }), 'c1', sheet, voice);

  it.each([
    ['a poll with one answer', quipline, { poll: 'Which?\n- Sled' }, 'poll', 'needs 2 answers or more'],
    ['a poll with five answers', quipline, { poll: 'Which?\n- 1\n- 2\n- 3\n- 4\n- 5' }, 'poll', 'has 5 answers; 4 are taken'],
    ['a poll with an answer that is too long', quipline, { poll: `Which?\n- ${'x'.repeat(26)}\n- b` }, 'poll', `has an answer of over 25 characters: “${'x'.repeat(26)}”`],
    ['a poll with one answer twice', quipline, { poll: 'Which?\n- Sled\n- sled' }, 'poll', 'has the same answer twice'],
    ['a poll that is open too long', quipline, { poll: 'Which?\n- a\n- b\n30 days' }, 'poll', 'is open for 30 days; 7 are the most'],
    ['a button that there is none of', kerbside, { button: 'explode', link: 'https://a.example' }, 'button', 'is none of Learn more, Book, Order, Call, Sign up, Get the offer'],
    ['an audience that cannot be read', hearthside, { audience: 'everybody' }, 'audience', 'cannot be read: write “countries: GB, IE; age: 18+; languages: en”'],
    ['comments that are neither on nor off', petalry, { comments: 'maybe' }, 'comments', 'is either on or off'],
    ['a slug with capitals', shipped('openweb'), { slug: 'Big Blow' }, 'slug', 'has small letters, digits and single hyphens alone'],
  ])('stops %s', (_, sheet, words, field, problem) => {
    expect(own(sheet, words)).toEqual([{ kind: 'not-valid', severity: 'stops', field, problem }]);
  });

  it('takes each of them when it is right', () => {
    expect(own(quipline, { poll: 'Which?\n- Sled\n- Delta\n5 days' })).toEqual([]);
    expect(own(kerbside, { button: 'book', link: 'https://a.example' })).toEqual([]);
    expect(own(kerbside, { button: 'call' })).toEqual([]);
    expect(own(hearthside, { audience: 'countries: GB, ie; age: 18+; languages: en' })).toEqual([]);
    expect(own(shipped('openweb'), { slug: 'big-blow-2026' })).toEqual([]);
  });

  it('stops a button that leads nowhere, and a board that the account has not', () => {
    expect(own(kerbside, { button: 'book' })).toEqual([{ kind: 'button-alone', severity: 'stops' }]);
    const row = { piece: withWords('A kite.', { c1: { title: 'T', link: 'https://a.example', board: 'Cakes' } }), sheet: tackboard, book: { ...book, language: 'en' as const } };
    expect(check({ ...row, channel: { id: 'c1', offers: { board: ['Shop', 'Colour'] } } })).toEqual([{ kind: 'not-valid', severity: 'stops', field: 'board', problem: 'is none of the account’s: Shop, Colour' }]);
  });

  it('lets a text be too long for one post where it goes out as a thread', () => {
    const long = Array.from({ length: 40 }, (_, index) => `Sentence number ${index} says a little about kites.`).join(' ');
    expect(own(quipline, { caption: long }).map(({ kind }) => kind)).toEqual(['too-long']);
    expect(own(quipline, { caption: long, thread: 'numbered' })).toEqual([]);
    expect(own(quipline, { caption: long.repeat(5), thread: 'numbered' })).toEqual([{ kind: 'no-thread', severity: 'stops', maxParts: 25 }]);
  });

  it.each([
    ['a tag that the brand avoids', { caption: 'So #kite', }, { hashtagsAvoided: ['#Kite'] }, [{ kind: 'avoided-hashtag', severity: 'warns', tag: '#kite' }]],
    ['one tag twice', { caption: '#Kite and #kite' }, {}, [{ kind: 'double-hashtag', severity: 'warns', tag: '#kite' }]],
    ['one tag twice, in two fields', { caption: '#Wind', hashtags: '#wind' }, {}, [{ kind: 'double-hashtag', severity: 'warns', tag: '#wind' }]],
    ['digits alone', { caption: 'So #2026' }, {}, [{ kind: 'broken-hashtag', severity: 'warns', tag: '#2026', why: 'digits-only', mended: null }]],
    ['a tag that punctuation cuts short', { caption: 'So #build-a-kite' }, {}, [{ kind: 'broken-hashtag', severity: 'warns', tag: '#build-a-kite', why: 'punctuation', mended: '#BuildAKite' }]],
    ['a tag whose words run together', { caption: 'Build a kite with us. #buildakite' }, {}, [{ kind: 'hashtag-capitals', severity: 'warns', tag: '#buildakite', proposed: '#BuildAKite' }]],
    ['more tags than the brand wants', { caption: '#Aa #Bb #Cc' }, { maxHashtags: 2 }, [{ kind: 'too-many-hashtags', severity: 'warns', count: 3, limit: 2, by: 'brand' }]],
  ])('points out %s', (_, words, voice, findings) => {
    expect(own(petalry, words, voice)).toEqual(findings);
  });

  it('points out a tag of 300 characters once, and a blank that nobody filled in', () => {
    expect(own(petalry, { caption: `#${'x'.repeat(300)}` })).toEqual([{ kind: 'broken-hashtag', severity: 'warns', tag: `#${'x'.repeat(300)}`, why: 'too-long', mended: null }]);
    const snippets = [{ key: 'wind', name: 'Wind', text: 'Wind: [force]' }];
    expect(own(petalry, { caption: 'Wind: [force], and [sic]' }, { snippets })).toEqual([{ kind: 'blank-left', severity: 'stops', field: 'caption', blank: 'force' }]);
  });

  it('names people whom a network does not know', () => {
    const people = [{ key: 'marlow', name: 'Marlow Tregear', handles: { petalry: '@marlow.flies' } }];
    expect(own(petalry, { caption: 'With @marlow' }, { people })).toEqual([]);
    expect(own(quipline, { caption: 'With @marlow' }, { people })).toEqual([{ kind: 'plain-mention', severity: 'warns', name: 'Marlow Tregear' }]);
  });
});
