import { describe, expect, it } from 'vitest';
import { deskAsks } from '../words/desk-asks.ts';
import { checkVersion, writeVersions, type DeskBrief } from './desk.ts';
import { keyPhrases } from './key-phrases.ts';
import { packOf, type LanguagePack } from './language-pack.ts';
import { bridges } from './patterns/bridges.ts';
import { calls } from './patterns/calls.ts';
import { openings } from './patterns/openings.ts';
import { tones } from './patterns/pattern.ts';
import { sharedTrigrams } from './tokens.ts';

const article = `Build your own kite in an afternoon. Every Saturday from 2 pm we open the Old Net Loft for anyone who wants to build a sled kite. You sit at a long bench, you get ripstop, spars and line, and you cut it yourself. Marlow Tregear shows how to tie the bridle, which is the hard part. It costs £24 a bench and children under 8 come free with an adult. We have twelve benches, so book early. The kettle is behind the glue.`;
const facts = [
  { key: 'site', name: 'Site', text: 'gullwickkites.example' },
  { key: 'phone', name: 'Phone', text: '01632 960 184' },
];
const brief: DeskBrief = { language: 'en', voice: { tone: 'Bright, a little salty', words: [], emoji: 'few' }, ask: 'draft', text: '', topic: '', sources: [{ name: 'the article', text: article }], facts, recent: [], words: null, limit: null, versions: 5, hashtags: [], emoji: [], turn: 0 };
const text = 'Come with empty hands, go home with a kite! Our afternoon this Saturday from 2 pm isn’t to be missed. Sails and string are there (and the kettle is on). Bring kids and lots of friends. #BuildAKite';

describe('writeVersions', () => {
  it('drafts several versions that say nothing that the sources do not', () => {
    const { versions } = writeVersions(brief);
    expect(versions.length).toBeGreaterThanOrEqual(4);
    expect(new Set(versions.map((version) => version.text)).size).toBe(versions.length);
    for (const version of versions) {
      expect(checkVersion(version.text, brief)).toEqual([]);
      expect(version.used.some((used) => used.includes('the article'))).toBe(true);
      // Every sentence is a source's or a pattern's.
      expect(version.text.length).toBeLessThan(600);
    }
  });

  it('keeps to the words asked for and to the limit of the network', () => {
    const limited = writeVersions({ ...brief, words: 20, limit: { max: 200, counting: { kind: 'weighted', linkAs: 23 } } }).versions;
    expect(limited.length).toBeGreaterThan(0);
    for (const version of limited) expect(version.text.length).toBeLessThanOrEqual(200);
  });

  it('never says a word that the brand avoids', () => {
    const words = [{ avoid: 'kettle', prefer: '' }, { avoid: 'bench', prefer: 'table' }];
    const { versions } = writeVersions({ ...brief, voice: { ...brief.voice, words } });
    for (const version of versions) expect(version.text).not.toMatch(/kettle|\bbench\b/iu);
    expect(versions.some((version) => version.text.includes('table'))).toBe(true);
  });

  it('does not sound like the last posts', () => {
    const recent = [...openings, ...calls].filter(({ tone }) => tone === 'bright').map((pattern) => pattern.text.replace('{thing}', 'sled kites').replace('{the thing}', 'sled kites').replace('{Thing}', 'Sled kites'));
    for (const version of writeVersions({ ...brief, recent }).versions) {
      const framing = version.text.split(/(?<=[.!?])\s+/u).filter((sentence) => !article.includes(sentence.replace(/[.!?]+$/u, '')));
      for (const sentence of framing) for (const post of recent) expect(sharedTrigrams(sentence, post), `${sentence} | ${post}`).toBeLessThanOrEqual(1 / 3);
    }
  });

  it('says a topic in the form that a sentence needs', () => {
    const openingsFor = (topic: string, source: string): readonly string[] =>
      [0, 1, 2, 3].flatMap((turn) => writeVersions({ ...brief, voice: { ...brief.voice, tone: 'warm' }, ask: 'opening', turn, topic, text: source, sources: [] }).versions.map((version) => version.text.slice(0, version.text.indexOf(source.split('. ')[1] ?? ''))));
    const all = openingsFor('repair café', 'Come in on Thursday. We mend lamps on Thursday. We open at six in May.');
    expect(all.some((opening) => opening.includes('the repair café'))).toBe(true);
    for (const opening of all) expect(opening).not.toMatch(/(?:about|like|likes|for|to|on|with) repair café/u);
    for (const [topic, said] of [['honey', 'honey'], ['lime trees', 'lime trees'], ['our harbour fair', 'our harbour fair'], ['kite flying', 'kite flying'], ['Big Blow', 'Big Blow']] as const) {
      for (const opening of openingsFor(topic, 'Come in on Thursday. We mend lamps on Thursday. We open at six in May.')) expect(opening.toLowerCase()).not.toContain(`the ${said.toLowerCase()}`);
    }
  });

  it('is about what a text speaks of most, also where that stands in front', () => {
    const bees = 'Bees do not like the wind. In March we moved the hives behind the hedge, and by May there were twice as many bees. A jar costs £8.50 at the gate. There are only 90 jars.';
    const said = writeVersions({ ...brief, voice: { ...brief.voice, tone: 'warm' }, sources: [{ name: 'the text', text: bees }] }).versions.map((version) => version.text).join('\n');
    expect(said).toMatch(/(?:about|like|likes|for|to|on|with|:) bees/u);
    expect(said).not.toMatch(/(?:about|like|likes|for|to|on|with|:) jars/u);
  });

  it('“another” gives other versions', () => {
    const texts = (turn: number): readonly string[] => writeVersions({ ...brief, turn }).versions.map((version) => version.text);
    expect(texts(1).filter((each) => texts(0).includes(each)).length).toBeLessThan(3);
  });

  it.each(deskAsks.filter((ask) => ask !== 'draft'))('“%s” keeps every fact of the text', (ask) => {
    for (const { text: version } of writeVersions({ ...brief, ask, text }).versions) {
      for (const span of ['Saturday', '2 pm', '#BuildAKite']) expect(version).toContain(span);
      expect(version).toMatch(/isn’t|is not/u);
    }
  });

  it('changes what is asked for and no more', () => {
    const one = (ask: DeskBrief['ask'], given = text): string => writeVersions({ ...brief, ask, text: given }).versions[0]?.text ?? '';
    expect(one('calmer')).not.toContain('!');
    expect(one('formal')).toContain('is not to be missed');
    expect(one('formal')).toContain('children and many friends');
    expect(one('list').split('\n').filter((line) => line.startsWith('–'))).toHaveLength(3);
    expect(one('plainer', 'We commence prior to noon in order to assist; bring string.')).toBe('We begin before noon to help. Bring string.');
    expect(one('brighter', 'It is a good day. Come along.')).toBe('It is a lovely day. Come along!');
    expect(one('question')).toMatch(/\?/u);
    expect(writeVersions({ ...brief, ask: 'calmer', text: 'Quiet already.' })).toMatchObject({ versions: [], note: 'This text has nothing to change that way.' });
  });

  it('puts hashtags and an emoji behind a version where they are wanted', () => {
    const [first] = writeVersions({ ...brief, hashtags: ['#BuildAKite'], emoji: ['🪁'] }).versions;
    expect(first?.text).toMatch(/🪁\n\n#BuildAKite$/u);
    expect(writeVersions({ ...brief, emoji: ['🪁'], voice: { ...brief.voice, emoji: 'none' } }).versions[0]?.text).not.toContain('🪁');
  });

  it('selects in other languages, quotes in those it does not know, and says so', () => {
    const german = 'Am Samstag backen wir ab 5 Uhr Brot. Der Ofen ist seit 1987 nicht kalt geworden. Petra Krumm zeigt euch, wie es geht.';
    const selected = writeVersions({ ...brief, language: 'de', sources: [{ name: 'the article', text: german }] });
    expect(selected.note).toContain('selects sentences');
    for (const version of selected.versions) for (const sentence of version.text.split(/(?<=\.)\s|\n/u)) expect(german).toContain(sentence.replace(/^– |\.$/gu, ''));
    const quoted = writeVersions({ ...brief, language: 'pl', sources: [{ name: 'the article', text: 'Latawce są w loftcie. Wiatr jest dobry.' }] });
    expect(quoted.note).toContain('does not know this language');
    expect(quoted.versions[0]?.text).toBe('Latawce są w loftcie. Wiatr jest dobry.');
  });

  it('says when there is nothing to write from', () => {
    expect(writeVersions({ ...brief, sources: [] })).toMatchObject({ versions: [], note: 'There is nothing to draft from yet. Fill in the piece, give a topic, or add an article.' });
  });
});

describe('patterns', () => {
  it('are at least 150, of every tone, and claim nothing by themselves', () => {
    const all = [...openings, ...bridges, ...calls];
    expect(all.length).toBeGreaterThanOrEqual(150);
    expect(new Set(all.map((pattern) => pattern.text)).size).toBe(all.length);
    for (const list of [openings, bridges, calls]) expect(new Set(list.map(({ tone }) => tone))).toEqual(new Set(tones));
    for (const pattern of all) expect(pattern.text.replace(/\{[a-z]+\}/giu, '')).not.toMatch(/\d|[£€$]|monday|saturday|best price/iu);
  });
});

describe('keyPhrases', () => {
  it('finds what a text is about', () => {
    const phrases = keyPhrases(article, packOf('en') as LanguagePack).map((phrase) => phrase.text.toLowerCase());
    expect(phrases.slice(0, 8).join(' ')).toMatch(/kite/u);
    expect(phrases).toContain('old net loft');
    expect(phrases.every((phrase) => !/^(?:the|we|you|and)\b/u.test(phrase))).toBe(true);
    expect(keyPhrases('', packOf('en') as LanguagePack)).toEqual([]);
  });
});
