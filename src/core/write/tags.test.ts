import { describe, expect, it } from 'vitest';
import { packOf, type LanguagePack } from './language-pack.ts';
import { npmi, proposeTags, tagsOfText, type TagCandidate, type TagStatistics } from './tags.ts';

const pack = packOf('en') as LanguagePack;
const none: TagStatistics = { posts: 0, counts: new Map(), together: new Map() };
const candidate = (tag: string, more: Partial<TagCandidate> = {}): TagCandidate => ({ tag, origin: 'network', reach: null, posts: 0, isOfTheme: false, ...more });
const text = 'Come and build a kite in our weekend workshop by the sea.';
const propose = (candidates: readonly TagCandidate[], more: Partial<Parameters<typeof proposeTags>[1]> = {}) => proposeTags(candidates, { text, present: [], statistics: none, avoided: new Set(), sort: 'fit', pack, ...more });

describe('proposeTags', () => {
  it('compares the words of a tag with those of the text, not its letters', () => {
    expect(propose([candidate('#SourdoughRye'), candidate('#WeekendWorkshops'), candidate('#weekendworkshop'), candidate('#Kitesurfing')]).tags.map(({ tag }) => tag).slice(0, 2).toSorted()).toEqual(['#WeekendWorkshops', '#weekendworkshop']);
  });

  it('prefers tags that stand beside those present in the brand’s posts, and those of the theme', () => {
    const statistics: TagStatistics = { posts: 100, counts: new Map([['buildakite', 20], ['madebyhand', 20], ['bigblow', 20]]), together: new Map([['buildakite madebyhand', 18], ['buildakite bigblow', 2]]) };
    const { tags } = propose([candidate('#BigBlow'), candidate('#MadeByHand')], { present: ['#BuildAKite'], statistics });
    expect(tags.map(({ tag }) => tag)).toEqual(['#MadeByHand', '#BigBlow']);
    expect(npmi('madebyhand', 'buildakite', statistics)).toBeGreaterThan(0.7);
    expect(npmi('bigblow', 'buildakite', statistics)).toBe(0);
    expect(propose([candidate('#Aa1'), candidate('#Bb1', { isOfTheme: true })]).tags[0]).toMatchObject({ tag: '#Bb1', fit: 0.2 });
  });

  it('lets tags lose that are so large that a post drowns, and those that nobody reads', () => {
    const alike = [candidate('#KiteA', { reach: 5_000_000 }), candidate('#KiteB', { reach: 30_000 }), candidate('#KiteC', { reach: 3 })];
    expect(propose(alike, { sort: 'both' }).tags[0]?.tag).toBe('#KiteB');
    expect(propose(alike, { sort: 'reach' }).tags.map(({ tag }) => tag)).toEqual(['#KiteA', '#KiteB', '#KiteC']);
  });

  it('proposes none that are there, that break, or that the brand avoids', () => {
    const { tags, leftOut } = propose([candidate('#kite'), candidate('#Workshop'), candidate('#workshop'), candidate('#a-b'), candidate('#2026')], { present: ['#Workshop'], avoided: new Set(['#kite']) });
    expect(tags).toEqual([]);
    expect(leftOut).toEqual(['#kite']);
  });

  it('finds tags in the text itself', () => {
    expect(tagsOfText(text, pack)).toContain('#WeekendWorkshop');
    expect(tagsOfText('#WeekendWorkshop by the sea', pack)).not.toContain('#WeekendWorkshop');
  });
});
