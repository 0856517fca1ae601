import { describe, expect, it } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import { emptyVoice, type Voice } from '../brand/brand-book.ts';
import type { NetworkSheet } from '../network/network-sheet.ts';
import { shippedSheets } from '../network/shipped-sheets.ts';
import type { Piece } from '../piece/piece.ts';
import type { Words } from '../words/fields.ts';
import { readThread } from '../words/thread.ts';
import { composeRow, composeWords, countField, leftOver } from './compose.ts';
import { cellOf, fieldsOfRow, whyNot, type Row } from './row.ts';

const sheetOf = (key: string): NetworkSheet => shippedSheets.find((each) => each.key === key) as NetworkSheet;
const facts = [{ key: 'phone', name: 'Phone', text: '01632 960 184' }];

interface Given {
  readonly shared?: Words;
  readonly own?: Words;
  readonly voice?: Partial<Voice>;
  readonly offers?: Readonly<Record<string, readonly string[]>>;
}

function rowOf(network: string, { shared = {}, own, voice = {}, offers }: Given): Row {
  const piece: Piece = { ...plainPiece, frames: [{ id: 'f', slots: { headline: { kind: 'text', text: 'Wind\nis free' } } }], words: { shared: { caption: '', altText: '', ...shared }, own: own ? { c1: own } : {} } };
  return { piece, channel: { id: 'c1', offers }, sheet: sheetOf(network), book: { facts, language: 'en', voice: { ...emptyVoice, ...voice } } };
}

describe('cellOf', () => {
  it('inherits the shared words until the channel has its own, even empty ones', () => {
    const row = rowOf('petalry', { shared: { caption: 'Shared', altText: 'Alt' }, own: { caption: '' } });
    expect(cellOf(row, 'caption')).toEqual({ text: '', from: 'own' });
    expect(cellOf(row, 'altText')).toEqual({ text: 'Alt', from: 'shared' });
  });

  it('takes what leads the picture for a title until one is written, even an empty one', () => {
    expect(cellOf(rowOf('longhall', {}), 'title')).toEqual({ text: 'Wind is free', from: 'piece' });
    expect(cellOf(rowOf('longhall', { shared: { title: '' } }), 'title')).toEqual({ text: '', from: 'shared' });
  });

  it('takes the brand’s default for a network, then what the account offers first where the network needs it', () => {
    const voice = { networks: { petalry: { order: ['caption' as const], hashtagsIn: 'caption' as const, firstComment: 'Ask us here.', link: '' } } };
    expect(cellOf(rowOf('petalry', { voice }), 'firstComment')).toEqual({ text: 'Ask us here.', from: 'brand' });
    expect(cellOf(rowOf('petalry', { voice, shared: { firstComment: 'Said' } }), 'firstComment')).toEqual({ text: 'Said', from: 'shared' });
    const offers = { board: ['Shop', 'Colour'], playlist: ['Loft'] };
    expect(cellOf(rowOf('tackboard', { offers }), 'board')).toEqual({ text: 'Shop', from: 'account' });
    expect(cellOf(rowOf('longhall', { offers }), 'playlist')).toEqual({ text: '', from: 'shared' });
  });
});

describe('fields of a row', () => {
  it('are those of the network, and the ones that go out within them', () => {
    expect(fieldsOfRow(rowOf('kerbside', {})).map(({ key }) => key)).toEqual(['caption', 'link', 'button']);
    expect(fieldsOfRow(rowOf('quipline', {})).map(({ key, within }) => `${key}${within ? ' within' : ''}`)).toEqual(['caption', 'hashtags within', 'altText', 'poll', 'thread']);
    expect(fieldsOfRow(rowOf('openweb', {})).map(({ key, within }) => `${key}${within ? ' within' : ''}`)).toEqual(['title', 'caption', 'hashtags', 'altText', 'slug']);
  });

  it('say why they are missing', () => {
    expect(whyNot(rowOf('kerbside', {}), 'hashtags')).toBe('Hashtags do nothing on Kerbside.');
    expect(whyNot(rowOf('petalry', {}), 'poll')).toBe('Petalry has no poll.');
    expect(whyNot(rowOf('guildrow', {}), 'title')).toBe('Guildrow takes this only in Document, and this piece has no cut there.');
    expect(whyNot(rowOf('quipline', {}), 'link')).toContain('Let it be part of the text');
    expect(whyNot(rowOf('petalry', {}), 'caption')).toBeNull();
  });
});

describe('composeWords', () => {
  it('fills facts in and leaves out what a network does not take and what nobody has written', () => {
    const shared = { caption: 'Call {phone}', altText: 'Alt', title: 'T', link: 'https://a.example', firstComment: 'F' };
    expect(composeWords(rowOf('quipline', { shared }), { placement: 'post-wide' })).toEqual({ caption: 'Call 01632 960 184', altText: 'Alt' });
    expect(composeWords(rowOf('petalry', { shared }), { placement: 'feed-square' })).toEqual({ caption: 'Call 01632 960 184', altText: 'Alt', firstComment: 'F' });
  });

  it('puts caption, link and hashtags together in the brand’s order for the network', () => {
    const networks = { quipline: { order: ['hashtags' as const, 'caption' as const, 'link' as const], hashtagsIn: 'caption' as const, firstComment: '', link: '' } };
    const shared = { caption: 'Up we go', link: 'https://a.example', hashtags: '#Kite wind' };
    expect(composeWords(rowOf('quipline', { shared, voice: { networks } }), { placement: 'post-wide' })).toEqual({ caption: '#Kite #wind\n\nUp we go\n\nhttps://a.example' });
    // A link or a tag that the text has already is not repeated.
    expect(composeWords(rowOf('quipline', { shared: { ...shared, caption: 'See https://a.example #kite' }, voice: { networks } }), { placement: 'post-wide' })).toEqual({ caption: '#wind\n\nSee https://a.example #kite' });
    expect(composeWords(rowOf('quipline', { shared }), { placement: 'post-wide' })).toEqual({ caption: 'Up we go\n\n#Kite #wind' });
  });

  it('puts hashtags into the first comment where the brand says so and the network has one', () => {
    const inComment = { order: ['caption' as const, 'hashtags' as const], hashtagsIn: 'firstComment' as const, firstComment: 'Ask us.', link: '' };
    const row = (network: string): Row => rowOf(network, { shared: { caption: 'Up', hashtags: '#Kite' }, voice: { networks: { petalry: inComment, quipline: inComment } } });
    expect(composeWords(row('petalry'), { placement: 'feed-square' })).toEqual({ caption: 'Up', firstComment: 'Ask us.\n\n#Kite' });
    expect(composeWords(row('quipline'), { placement: 'post-wide' })).toEqual({ caption: 'Up\n\n#Kite' });
    expect(composeRow(row('petalry')).hashtags).toEqual(['#Kite']);
  });

  it('sends hashtags as a field of their own where a network has one, and none where they do nothing', () => {
    expect(composeWords(rowOf('openweb', { shared: { caption: 'Up', hashtags: '#Kite' } }), { placement: 'article' })).toMatchObject({ caption: 'Up', hashtags: '#Kite' });
    expect(composeWords(rowOf('kerbside', { shared: { caption: 'Up', hashtags: '#Kite' } }), { placement: 'update' })).toEqual({ caption: 'Up' });
  });

  it('fills snippets, with the facts in them', () => {
    const snippets = [{ key: 'ring', name: 'Ring', text: 'Ring {phone}.' }];
    expect(composeWords(rowOf('petalry', { shared: { caption: 'Free. {ring}' }, voice: { snippets } }), { placement: 'story' }).caption).toBe('Free. Ring 01632 960 184.');
  });

  it('writes a mention as the handle that somebody has on each network, and as a name where they have none', () => {
    const people = [{ key: 'marlow', name: 'Marlow Tregear', handles: { petalry: '@marlow.flies' } }];
    const text = (network: string, caption: string): string | undefined => composeRow(rowOf(network, { shared: { caption }, voice: { people } })).words.caption;
    expect(text('petalry', 'With @marlow.')).toBe('With @marlow.flies.');
    expect(text('quipline', 'With @Marlow, @somebody')).toBe('With Marlow Tregear, @somebody');
    expect(text('quipline', 'With @marlow.flies!')).toBe('With Marlow Tregear!');
    expect(text('petalry', 'mail@marlow')).toBe('mail@marlow');
  });

  it('splits a text that is too long into the parts of a thread, and leaves one that fits alone', () => {
    const long = Array.from({ length: 12 }, (_, index) => `Sentence number ${index} says a little about kites.`).join(' ');
    const words = composeWords(rowOf('quipline', { shared: { caption: long, thread: 'numbered' } }), { placement: 'post-wide' });
    const { parts } = readThread(words.thread ?? '{}');
    expect(words.caption).toBe(long);
    expect(parts.length).toBeGreaterThan(1);
    for (const [index, part] of parts.entries()) expect(part.endsWith(`${index + 1}/${parts.length}`)).toBe(true);
    expect(composeWords(rowOf('quipline', { shared: { caption: 'Short.', thread: 'numbered' } }), { placement: 'post-wide' })).toEqual({ caption: 'Short.' });
    expect(composeWords(rowOf('petalry', { shared: { caption: long, thread: 'numbered' } }), { placement: 'story' })).toEqual({ caption: long });
  });
});

describe('counting a row', () => {
  it('counts a link as the network does, and keywords in total', () => {
    const [caption] = sheetOf('quipline').words.fields;
    expect(caption && countField('Go https://gullwickkites.example/book/a-bench-for-saturday', caption, sheetOf('quipline'))).toEqual({ used: 26, max: 280, over: 0 });
    const tags = sheetOf('longhall').words.fields.find(({ key }) => key === 'tags');
    expect(tags && countField('sled kite, wind', tags, sheetOf('longhall'))).toEqual({ used: 13, max: 500, over: 0 });
  });

  it('says what is left', () => {
    const row = rowOf('petalry', { shared: { caption: 'Up 🪁 @a', hashtags: '#Kite #Wind' } });
    expect(leftOver(composeRow(row), row.sheet)).toEqual({ characters: 2200 - 20, hashtags: 28, mentions: 19, parts: 1 });
    const site = rowOf('openweb', { shared: { caption: 'Up' } });
    expect(leftOver(composeRow(site), site.sheet)).toEqual({ characters: null, hashtags: null, mentions: null, parts: 1 });
  });
});
