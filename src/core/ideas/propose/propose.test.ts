import { describe, expect, it } from 'vitest';
import { articles } from '../../../../tests/fixtures/articles.ts';
import { shippedTemplates } from '../../template/shipped-templates.ts';
import { missingHeld } from '../../write/held.ts';
import { packOf, type DeskLanguage } from '../../write/language-pack.ts';
import { articleOf } from './article.ts';
import type { PictureOffer } from './choose-picture.ts';
import { findIn, type Finding } from './findings.ts';
import { plainVariant, proposeAll, proposeFrom, type Proposal, type ProposeBrief } from './propose.ts';
import { proposeSeries } from './series.ts';
import { isDroppedFrom, type Trace } from './trace.ts';

const picture = (id: string, name: string, altText: string): PictureOffer => ({ id, name, altText, kind: 'picture', aspect: 1.5, uses: 0 });
const pictures = [picture('p1', 'lanterns-pier.jpg', 'Lanterns on a pier at night'), picture('p2', 'kiln.jpg', 'A kiln with a brick wall'), picture('p3', 'rolls.jpg', 'Bread rolls on a tray')];
let count = 0;
const newId = (): string => `f${(count += 1)}`;

function briefOf(language: DeskLanguage, text: string, given: Partial<ProposeBrief> = {}): ProposeBrief {
  return { article: articleOf(text, language), sourceName: 'the article', pack: packOf(language), desk: { language, voice: { tone: 'plain', words: [], emoji: 'none' }, recent: [], hashtags: [], emoji: [] }, facts: [], topic: '', link: '', templates: shippedTemplates, kinds: ['graphic', 'carousel'], pictures, themes: [], ...given };
}
function proposalsOf(language: DeskLanguage, text: string, wanted = 5, given: Partial<ProposeBrief> = {}): readonly Proposal[] {
  const brief = briefOf(language, text, given);
  const pack = packOf(language);
  return pack ? proposeAll(findIn(brief.article, pack, brief.topic), brief, wanted, newId) : [];
}

/** A sentence of the source, or one shortened by dropping, with nothing held lost; a heading as it stands; or a frame of the desk's, which is marked as one. */
function isTrue(trace: Trace, source: string, language: DeskLanguage): boolean {
  const pack = packOf(language);
  if (!pack) return false;
  const flat = source.replace(/\s+/gu, ' ');
  if (trace.how === 'frame') return language === 'en' && !/\d/u.test(trace.text);
  if (trace.how === 'heading' || trace.how === 'part') return flat.includes(trace.text);
  if (!flat.includes(trace.original)) return false;
  return isDroppedFrom(trace.text, trace.original) && missingHeld(trace.original, trace.text, pack).length === 0;
}

describe('a proposal', () => {
  const night = 'On 14 January the Tamble rose 2.3 metres in six hours. “We thought it was over,” says Ines Corvell, who has run the bakery since 2009. From Saturday 7 March the shop opens again, at 7 am instead of 8. There will be no croissants until April.';
  const textsOf = ({ frames }: Proposal): readonly string[] => frames.flatMap(({ slots }) => Object.values(slots).flatMap((value) => (value.kind === 'text' ? [value.text] : [])));

  it('names a day whole, or its number and the rest beside each other', () => {
    const dated = proposalsOf('en', night, 6).filter(({ form }) => form === 'date');
    expect(dated.length).toBeGreaterThan(0);
    for (const proposal of dated) {
      const texts = textsOf(proposal);
      const isParted = texts.includes('7') && texts.includes('Saturday March');
      expect(isParted || texts.includes('Saturday 7 March') || texts.includes('14 January') || (texts.includes('14') && texts.includes('January')), texts.join(' | ')).toBe(true);
    }
  });

  it('announces nothing that somebody else says', () => {
    for (const proposal of proposalsOf('en', night, 8).filter(({ form }) => form === 'announce')) expect(textsOf(proposal)[0]).not.toContain('“');
  });
});

describe('proposals from thirty articles in five languages', () => {
  const all = articles.map(({ language, text }) => ({ language, text, proposals: proposalsOf(language, text) }));

  it('are there for each, in several forms', () => {
    for (const { text, proposals } of all) expect(proposals.length, text.slice(0, 40)).toBeGreaterThanOrEqual(3);
    const forms = new Set(all.flatMap(({ proposals }) => proposals.map(({ form }) => form)));
    for (const form of ['list', 'quote', 'announce', 'date', 'price', 'number'] as const) expect([...forms]).toContain(form);
  });

  it('say only what their source says: at least 90% of their texts are of it, whole or shortened without a loss', () => {
    const traces = all.flatMap(({ language, text, proposals }) => proposals.flatMap((proposal) => proposal.traces.map((trace) => ({ trace, isTrue: isTrue(trace, text, language) }))));
    expect(traces.length).toBeGreaterThan(400);
    const wrong = traces.filter((each) => !each.isTrue).map(({ trace }) => `${trace.how}: ${trace.text} <- ${trace.original}`);
    expect(wrong.length / traces.length, wrong.join('\n')).toBeLessThanOrEqual(0.1);
  });

  it('trace every text that stands on them', () => {
    for (const { proposals } of all) {
      for (const { frames, traces } of proposals) {
        const traced = traces.map(({ text }) => text).join('\n');
        const [cover] = frames;
        for (const [slot, value] of Object.entries(cover.slots)) if (value.kind === 'text' && slot !== 'points' && slot !== 'day' && slot !== 'label') expect(traced).toContain(value.text);
      }
    }
  });

  it('begin with different sentences', () => {
    for (const { proposals } of all) {
      const headlines = proposals.map(({ frames }) => JSON.stringify(frames[0].slots['headline'] ?? frames[0].slots['points']));
      expect(new Set(headlines).size).toBe(headlines.length);
    }
  });
});

describe('one proposal', () => {
  const kiln = articles[0]?.text ?? '';

  it('is made by its form: steps become a carousel or a list, somebody’s words a quote with their name', () => {
    const steps = proposalsOf('en', articles[2]?.text ?? '', 1)[0];
    expect([steps?.form, steps?.kind]).toEqual(['list', 'carousel']);
    expect(steps?.frames).toHaveLength(7);
    const quote = proposalsOf('en', articles[4]?.text ?? '', 6).find(({ form }) => form === 'quote');
    expect(quote?.traces.find(({ place }) => place === 'quote')?.text).toBe('My daughter stole it within an hour');
    expect(quote?.traces.find(({ place }) => place === 'name')?.text).toContain('Petra H');
  });

  it('takes the picture whose alt text speaks of it, and says so', () => {
    const shown = proposalsOf('en', articles[1]?.text ?? '', 6).find(({ frames }) => Object.values(frames[0].slots).some((value) => value.kind === 'picture'));
    expect(Object.values(shown?.frames[0].slots ?? {})).toContainEqual({ kind: 'picture', mediaId: 'p1' });
    expect(shown?.why.join(' ')).toContain('lanterns-pier.jpg');
  });

  it('changes as it is asked: shorter, as a list, another template, another picture', () => {
    const brief = briefOf('en', `${kiln}\n\nThe new kiln, which stands behind the old one, honestly bakes bread as well as bowls.`);
    const make = (from: Finding, change: object): Proposal | null => proposeFrom(from, brief, { ...plainVariant, ...change }, new Set(), newId);
    // A sentence that is all facts gets no shorter, and is not proposed so.
    const finding = findIn(brief.article, packOf('en') ?? (null as never), '').find((each) => each.form === 'announce' && each.about.text.startsWith('The new kiln') && make(each, { shorter: 2 }) !== null);
    const of = (change: object): Proposal | null => (finding ? make(finding, change) : null);
    const plain = of({});
    const lengthOf = (proposal: Proposal | null): number => (proposal ? proposal.words.caption.length + JSON.stringify(proposal.frames[0].slots).length : Infinity);
    expect(lengthOf(of({ shorter: 2 }))).toBeLessThan(lengthOf(plain));
    expect(of({ asList: true })?.form).toBe('list');
    expect(of({ template: 1 })?.template).not.toBe(plain?.template);
    const pictureOf = (proposal: Proposal | null): string => JSON.stringify(Object.values(proposal?.frames[0].slots ?? {}).filter(({ kind }) => kind === 'picture'));
    expect(pictureOf(of({ picture: 1 }))).not.toBe(pictureOf(plain));
  });

  it('keeps the price that holds, never the one it replaces', () => {
    const price = proposalsOf('de', articles[10]?.text ?? '', 8).find(({ form }) => form === 'price');
    if (price) expect(price.traces.find(({ place }) => place === 'price')?.text).toBe('5,20€');
  });

  it('quotes in a language that the desk does not know, and says so', () => {
    const text = 'Nytt brød på torsdag\n\nVi baker rundstykker klokken fem. De første kundene kommer alltid før seks. Ingen går hjem uten noe.';
    const brief = briefOf('en', text, { pack: null, desk: { language: 'it', voice: { tone: '', words: [], emoji: 'none' }, recent: [], hashtags: [], emoji: [] } });
    const [first] = proposeAll(findIn(brief.article, null, ''), brief, 2, newId);
    expect(first?.why.join(' ')).toContain('does not know this language');
    for (const { text: said, original, how } of first?.traces ?? []) if (how !== 'heading') expect(text).toContain(original || said);
  });
});

describe('an article over several days', () => {
  const brief = briefOf('en', articles[0]?.text ?? '');
  const parts = proposeSeries(brief.article, findIn(brief.article, packOf('en'), ''), brief, 4, newId);

  it('announces, tells section by section, and sums up', () => {
    expect(parts.map(({ does }) => does)).toEqual(['announces', 'tells', 'tells', 'sums-up']);
    expect(parts[0]?.proposal.frames[0].slots['headline']).toEqual({ kind: 'text', text: 'Why our tea bowls are late' });
    expect(parts.at(-1)?.proposal.form).toBe('list');
  });

  it('shows no picture twice', () => {
    const shown = parts.flatMap(({ proposal }) => proposal.frames.flatMap(({ slots }) => Object.values(slots).flatMap((value) => (value.kind === 'picture' ? [value.mediaId] : []))));
    expect(new Set(shown).size).toBe(shown.length);
  });
});
