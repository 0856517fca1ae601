import { describe, expect, it } from 'vitest';
import { plainPreflight } from '../../../tests/fixtures/preflight.ts';
import { plainPiece } from '../../../tests/fixtures/piece.ts';
import { shippedSheets } from '../network/shipped-sheets.ts';
import { getPlacement, type NetworkSheet } from '../network/network-sheet.ts';
import type { Piece } from '../piece/piece.ts';
import type { CutToCheck } from '../preflight/finding.ts';
import { careFindings, type CareInput } from './care-findings.ts';
import { dateProblems } from './date-words.ts';
import { readingEase } from './reading-ease.ts';

const NOW = Date.UTC(2026, 10, 23, 9);
const { book } = plainPreflight;
const zone = 'Europe/London';
const pieceWith = (caption: string, altText = 'A kite', headline = 'Big Blow'): Piece => ({ ...plainPiece, frames: [{ id: 'f', slots: { headline: { kind: 'text', text: headline } } }], words: { shared: { caption, altText }, own: {} } });
const sentences = (piece: Piece, more: Partial<CareInput> = {}): readonly string[] => careFindings({ piece, book: { ...book, language: 'en' }, cuts: [], zone, nowMs: NOW, plannedMs: null, mistakes: [], deadLinks: [], ...more }).map(({ sentence }) => sentence);

describe('careFindings', () => {
  it('has nothing to say of careful words', () => {
    expect(sentences(pieceWith('Come by on Saturday! The kettle is on.'))).toEqual([]);
  });

  it.each([
    ['shouting', 'COME ALL AND FLY with us', /“COME ALL AND FLY” shouts/u],
    ['too many exclamation marks', 'Come! Fly! Now!', /3 exclamation marks/u],
    ['doubled exclamation marks', 'Come!!', /2 exclamation marks/u],
    ['links that say nothing', 'Click here: https://a.example', /“Click here” says nothing/u],
    ['addresses that are none', 'See https:/a.example', /“https:\/a.example” is no web address/u],
  ])('points out %s', (_, caption, sentence) => {
    const found = sentences(pieceWith(caption));
    expect(found).toHaveLength(1);
    expect(found[0]).toMatch(sentence);
  });

  it('points out alt texts that repeat the caption, or what a screen reader says', () => {
    const caption = 'A red diamond kite flies above the dunes.';
    expect(sentences(pieceWith(caption, caption))).toEqual(['The alt text repeats the caption: say what is to be seen instead.']);
    expect(sentences(pieceWith('Hello.', 'Picture of a kite'))[0]).toContain('begins with “picture of”');
  });

  it('points out a price that disagrees with the picture or with a fact', () => {
    expect(sentences(pieceWith('Only £25.', 'A', '£24'))).toEqual(['The words say £25; the picture says £24.']);
    expect(sentences(pieceWith('Only £24.00.', 'A', '£ 24'))).toEqual([]);
    const facts = [{ key: 'bench', name: 'Bench price', text: '£24 an afternoon' }];
    expect(sentences(pieceWith('A bench is £30.'), { book: { ...book, language: 'en', facts } })).toEqual(['The words say £30; the fact Bench price says £24.']);
  });

  it('puts mistakes of one kind into one line, with the first mended', () => {
    const mistakes = [{ word: 'wiht', proposals: ['with'] }, { word: 'emptty', proposals: ['empty'] }];
    const [finding] = careFindings({ piece: pieceWith('Come wiht emptty hands'), book, cuts: [], zone, nowMs: NOW, plannedMs: null, mistakes, deadLinks: [] });
    expect(finding).toMatchObject({ sentence: 'The dictionary does not know “wiht”, “emptty”.', fix: { label: 'Write “with”', change: { text: 'Come with emptty hands' } } });
  });

  it('points out one text on two accounts of one network', () => {
    const sheet = shippedSheets.find(({ key }) => key === 'petalry') as NetworkSheet;
    const cut = (channelId: string): CutToCheck => ({ ref: { channelId, placement: 'feed-square' }, channelName: `Petalry ${channelId}`, sheet, placement: getPlacement(sheet, 'feed-square'), slides: [], left: [] });
    const piece = { ...pieceWith('The same.'), cuts: [cut('c1').ref, cut('c2').ref] };
    expect(sentences(piece, { cuts: [cut('c1'), cut('c2')] })).toEqual(['Petalry c2 says the same as Petalry c1 on Petalry.']);
    expect(sentences({ ...piece, words: { ...piece.words, own: { c2: { caption: 'Other.' } } } }, { cuts: [cut('c1'), cut('c2')] })).toEqual([]);
  });

  it('says that a link does not open, and that a text reads harder than the brand aims at', () => {
    expect(sentences(pieceWith('Hello.'), { deadLinks: [{ address: 'https://a.example', problem: 'a.example answered 404.' }] })).toEqual(['https://a.example does not open: a.example answered 404.']);
    const hard = 'Notwithstanding considerable meteorological uncertainty, participating organisations collaboratively orchestrated extraordinarily sophisticated aeronautical demonstrations, simultaneously accommodating unprecedented multigenerational participation, institutional representation, administrative responsibilities, environmental considerations, infrastructural limitations, and international communication, without any identifiable terminological simplification whatsoever.';
    expect(sentences(pieceWith(hard)).at(-1)).toMatch(/of 100; this brand aims at 60/u);
    expect(readingEase('The cat sat on the mat and the dog ran to the sea. It was a good day for all of us. We had tea and cake. Then we went home to bed and slept.', 'en')).toBeGreaterThan(90);
  });
});

describe('dateProblems', () => {
  const planned = (day: number): number => Date.UTC(2026, 11, day, 9);
  const problems = (text: string, plannedMs: number | null): readonly string[] => dateProblems(text, 'en', zone, NOW, plannedMs).map(({ text: word, problem }) => `${word} ${problem}`);

  it('finds words that mean another day by the time the post goes out', () => {
    expect(problems('Come this Saturday', Date.UTC(2026, 10, 25, 9))).toEqual([]);
    expect(problems('Come this Saturday', planned(2))).toEqual(['this Saturday means Sat 28 Nov today, and Sat 5 Dec when the post goes out on Wed 2 Dec']);
    expect(problems('See you tomorrow', planned(2))[0]).toMatch(/^tomorrow means Tue 24 Nov today, and Thu 3 Dec/u);
    expect(problems('See you tomorrow', null)).toEqual([]);
  });

  it('finds dates that are over by then, and weekdays that a date has not', () => {
    expect(problems('On 28 November we fly', planned(2))).toEqual(['28 November is over when the post goes out on Wed 2 Dec']);
    expect(problems('On 5 December we fly', planned(2))).toEqual([]);
    expect(problems('Free tails until 28 November', planned(2))).toEqual(['28 November has passed when the post goes out on Wed 2 Dec: what holds until then has ended']);
    expect(problems('Free tails until 2 December', planned(2))).toEqual([]);
    expect(dateProblems('Nur bis zum 28. November', 'de', zone, NOW, planned(2)).map(({ kind }) => kind)).toEqual(['ended']);
    expect(problems('On Sunday, 5 December 2026', planned(2))[0]).toContain('is a Saturday in 2026');
    expect(problems('On Saturday, 5 December 2026', planned(2))).toEqual([]);
  });
});
