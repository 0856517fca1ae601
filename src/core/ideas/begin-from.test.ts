import { describe, expect, it } from 'vitest';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import type { Piece } from '../piece/piece.ts';
import { askedFor, boilerplateOf, pieceFrom } from './boilerplate.ts';
import { decideFeed, nextPollMs, type FeedItem, type FeedRule } from './feed-rule.ts';
import { fillIn, fillInsOf } from './fill-ins.ts';
import { captionOf, wordsOfName, type DroppedFile } from './many-files.ts';

describe('fill-ins', () => {
  it('are found once each, whatever their case', () => {
    expect(fillInsOf(['Wind: [force], from [direction].', '[Force] again, {site}, [ ] and [1]'])).toEqual(['force', 'direction', '1']);
  });

  it('are filled in; an empty one takes its line along where nothing else stands there', () => {
    expect(fillIn('Wind: [force] from [direction].\n\n[more]\n\nSee you.', { force: '4', Direction: 'west', more: '' })).toBe('Wind: 4 from west.\n\nSee you.');
    expect(fillIn('With [who] today', { who: '' })).toBe('With today');
  });
});

describe('a boilerplate', () => {
  const piece: Piece = { ...plainPiece, frames: [{ id: 'f1', slots: { ...plainPiece.frames[0].slots, headline: { kind: 'text', text: 'Wind report, [day]' } } }], words: { shared: { caption: 'Force [force] on the quay.', altText: '' }, own: {} } };

  it('keeps template, words, channels and theme, and leaves pictures behind', () => {
    const kept = boilerplateOf(piece, 't1', { weekday: 3, time: '08:00' });
    expect(JSON.stringify(kept.piece)).not.toContain('mediaId');
    expect(kept.piece.cuts).toEqual(piece.cuts);
    expect(askedFor(kept)).toEqual(['day', 'force']);
  });

  it('begins a piece with what was asked for', () => {
    const begun = pieceFrom(boilerplateOf(piece, null, null), { day: 'Wednesday', force: '5' });
    expect(begun.frames[0].slots['headline']).toEqual({ kind: 'text', text: 'Wind report, Wednesday' });
    expect(begun.words.shared.caption).toBe('Force 5 on the quay.');
  });
});

const HOUR = 3_600_000;
const item = (number: number, given: Partial<FeedItem> = {}): FeedItem => ({ guid: `g${number}`, title: `Title ${number}`, link: '', summary: '', picture: 'https://x.example/a.jpg', language: 'en', publishedMs: number * HOUR, ...given });
const rule: Pick<FeedRule, 'everyHours' | 'take' | 'backlog'> = { everyHours: 4, take: 'newest', backlog: 3 };
const earlier = Array.from({ length: 10 }, (_, index) => item(index));
const decide = (given: Partial<Parameters<typeof decideFeed>[0]>) => decideFeed({ rule, fresh: [], earlier, isFirst: false, lastMs: null, nowMs: 100 * HOUR, ...given });

describe('a rule for a feed', () => {
  it('takes the newest and passes over the others, or the oldest first', () => {
    expect(decide({ fresh: [item(21), item(22)] })).toMatchObject({ kind: 'make', item: { guid: 'g22' }, passed: [{ guid: 'g21' }] });
    expect(decide({ rule: { ...rule, take: 'backlog' }, fresh: [item(21), item(22)] })).toMatchObject({ kind: 'make', item: { guid: 'g21' }, passed: [] });
    expect(decide({ rule: { ...rule, take: 'backlog' }, isFirst: true, fresh: Array.from({ length: 9 }, (_, index) => item(30 + index)) })).toMatchObject({ item: { guid: 'g36' }, passed: { length: 6 } });
  });

  it('keeps its pace', () => {
    expect(decide({ fresh: [item(21)], lastMs: 98 * HOUR }).kind).toBe('wait');
    expect(decide({ fresh: [item(21)], lastMs: 96 * HOUR }).kind).toBe('make');
    expect(decide({}).kind).toBe('wait');
  });

  it.each([
    ['many at once', { fresh: Array.from({ length: 100 }, (_, index) => item(200 + index)) }, /100 new items at once/],
    ['another language', { fresh: [item(21, { language: 'de', title: 'Der neue Roggen' })] }, /“Der neue Roggen” is in another language/],
    ['no pictures any more', { fresh: [item(21, { picture: '' }), item(22, { picture: '' })] }, /no pictures/],
  ])('stops and asks when the feed turns strange: %s', (_, given, sentence) => {
    const decision = decide(given);
    expect(decision.kind === 'stop' ? decision.sentence : '').toMatch(sentence);
  });

  it('does not find a first reading strange', () => {
    expect(decide({ isFirst: true, earlier: [], fresh: Array.from({ length: 60 }, (_, index) => item(index)) }).kind).toBe('make');
  });

  it('is read more often where news comes often, and seldom where it fails', () => {
    expect(nextPollMs({ hasNew: true, failures: 0, sinceNewMs: 0 })).toBe(HOUR / 2);
    expect(nextPollMs({ hasNew: false, failures: 0, sinceNewMs: 400 * HOUR })).toBe(6 * HOUR);
    expect(nextPollMs({ hasNew: false, failures: 9, sinceNewMs: 0 })).toBe(24 * HOUR);
  });
});

describe('captions of many files', () => {
  const file: DroppedFile = { id: 'm', name: 'red-kite_over dunes.jpg', altText: 'A red kite', takenDay: '2026-08-02', subtitles: '' };

  it('come from a pattern with the file’s name, its day, its number and its alt text', () => {
    expect(captionOf('[number]. [name], [date].\n[alt text]\n[subtitles]\n{site}', file, 2, (day) => `on ${day}`)).toBe('3. Red kite over dunes, on 2026-08-02.\nA red kite\n{site}');
  });

  it('do not name what a camera counts by', () => {
    expect(['IMG_2047.jpg', 'DSC00123.JPG', 'PXL_20260802_101010.jpg', 'lantern.png'].map(wordsOfName)).toEqual(['', '', '', 'Lantern']);
  });
});
