import { describe, expect, it } from 'vitest';
import { packOf, type LanguagePack } from './language-pack.ts';
import { chooseSentences, rankSentences, type Ranked, type Sentence } from './rank.ts';

const english = packOf('en') as LanguagePack;
const none = (): number => 0;
const article = (...texts: readonly string[]): readonly Sentence[] => texts.map((text, index) => ({ text, source: 'article', place: index + 1 }));
const ranked = (sentences: readonly Sentence[], topic = '', held: (text: string) => number = none): readonly Ranked[] => rankSentences(sentences, english, topic, held);
const bestOf = (all: readonly Ranked[]): string | undefined => all.find(({ score }) => score === 1)?.text;

/** Three of them speak of the workshop; the last has nothing to do with any. */
const workshop = article('The harbour was grey.', 'We build kites in the workshop on Saturday.', 'The workshop has kites for children.', 'On Saturday the workshop opens for kites and children.', 'Somebody sold a boat.');

describe('sentences by how much they say', () => {
  it('lead with what the others speak of as well, and end with what stands alone', () => {
    const all = ranked(workshop);
    expect(bestOf(all)).toMatch(/workshop/u);
    const scoreOf = (part: string): number => all.find(({ text }) => text.includes(part))?.score ?? 0;
    expect(scoreOf('opens for kites')).toBeGreaterThan(scoreOf('boat'));
    expect(scoreOf('opens for kites')).toBeGreaterThan(scoreOf('grey'));
    expect(all.map(({ index }) => index)).toEqual([0, 1, 2, 3, 4]);
  });

  it('have scores up to 1, the same for the same text', () => {
    const all = ranked(workshop);
    for (const { score } of all) expect(score > 0 && score <= 1).toBe(true);
    expect(ranked(workshop)).toEqual(all);
  });

  it('rise by a topic, by an early place and by what they hold', () => {
    const apart = article('Rope is on the shelf.', 'Paint dries in a day.', 'Lamps burn all night.');
    const [first = 0, second = 0, third = 0] = ranked(apart).map(({ score }) => score);
    expect([first, first > second, second > third]).toEqual([1, true, true]);
    expect(bestOf(ranked(apart, 'lamps at night'))).toBe('Lamps burn all night.');
    expect(bestOf(ranked(apart, '', (text) => (text.startsWith('Paint') ? 3 : 0)))).toBe('Paint dries in a day.');
  });

  it('are nothing of nothing, and the first 300 of many', () => {
    expect(ranked([])).toEqual([]);
    expect(ranked(article(...Array.from({ length: 320 }, (_, index) => `Sentence ${index} is here.`)))).toHaveLength(300);
  });
});

describe('sentences for a length', () => {
  const atMost = (count: number) => (chosen: readonly Ranked[]): boolean => chosen.length <= count;

  it('stand in the order of their source, however they rank', () => {
    const chosen = chooseSentences(ranked(workshop), atMost(3));
    expect(chosen).toHaveLength(3);
    expect(chosen.map(({ index }) => index)).toEqual(chosen.map(({ index }) => index).toSorted((a, b) => a - b));
  });

  it('take what is new before what has been said', () => {
    const said = (index: number, score: number, ...stems: readonly string[]): Ranked => ({ text: `${index}`, source: 'article', place: index + 1, index, score, stems: new Map(stems.map((stem) => [stem, 1])) });
    const twice = [said(0, 1, 'kite', 'fly'), said(1, 0.9, 'kite', 'fly'), said(2, 0.75, 'coat', 'friend')];
    expect(chooseSentences(twice, atMost(2)).map(({ index }) => index)).toEqual([0, 2]);
    // What is much less worth does not come first for being new.
    expect(chooseSentences([...twice.slice(0, 2), said(2, 0.3, 'coat')], atMost(2)).map(({ index }) => index)).toEqual([0, 1]);
  });

  it('pass over one that does not fit, and take a shorter one after it', () => {
    const long = article('Kites and kites and more kites fly over the whole long harbour wall all Saturday long.', 'Kites fly.', 'Boats wait.');
    const fits = (chosen: readonly Ranked[]): boolean => chosen.reduce((sum, { text }) => sum + text.length, 0) <= 25;
    expect(chooseSentences(ranked(long), fits).map(({ text }) => text)).toEqual(['Kites fly.', 'Boats wait.']);
    expect(chooseSentences(ranked(long), () => false)).toEqual([]);
  });
});
