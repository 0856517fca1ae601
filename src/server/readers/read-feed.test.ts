import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hostileTexts } from '../../../tests/fixtures/hostile.ts';
import { ProblemError } from '../errors.ts';
import { readFeed } from './read-feed.ts';

const rss = '<?xml version="1.0"?><rss version="2.0"><channel><title>Kornblick</title><link>https://kornblick.example/</link><item><title>Roggen &amp; Salz</title><link>/brot/roggen</link><guid>r1</guid><pubDate>Tue, 24 Nov 2026 08:00:00 GMT</pubDate><description>&lt;p&gt;Schon um vier &lt;b&gt;brennt&lt;/b&gt; Licht.&lt;/p&gt;</description></item></channel></rss>';
const atom = '<feed xmlns="http://www.w3.org/2005/Atom"><title>Kornblick</title><id>urn:k</id><updated>2026-11-24T08:00:00Z</updated><entry><id>urn:k:1</id><title>Roggen</title><link href="https://kornblick.example/1"/><updated>2026-11-24T08:00:00Z</updated><summary>Brot</summary></entry></feed>';
const json = JSON.stringify({ version: 'https://jsonfeed.org/version/1.1', title: 'Kornblick', items: [{ id: '1', url: 'https://kornblick.example/1', title: 'Roggen', content_html: '<p>Brot</p>', date_published: '2026-11-24T08:00:00Z' }] });
const NOW = Date.parse('2026-11-28T08:00:00Z');

describe('feeds from outside', () => {
  it.each([['RSS', rss, 'Roggen & Salz'], ['Atom', atom, 'Roggen'], ['JSON Feed', json, 'Roggen']])('are read as %s', (_, text, title) => {
    expect(readFeed(text, 'https://kornblick.example/feed', NOW)).toMatchObject({ title: 'Kornblick', items: [{ title, publishedMs: Date.parse('2026-11-24T08:00:00Z') }] });
  });

  it('are refused when they declare entities', () => {
    expect(() => readFeed(`<!DOCTYPE a [<!ENTITY b "c">]>${rss}`, 'https://kornblick.example/feed', NOW)).toThrow(/entities/u);
  });

  it.each([['RSS', rss], ['Atom', atom], ['JSON Feed', json]])('as damaged %s are items within their bounds, or are refused with a sentence', (_, seed) => {
    fc.assert(
      fc.property(hostileTexts(seed), (text) => {
        try {
          const { items } = readFeed(text, 'https://kornblick.example/feed', NOW);
          expect(items.length).toBeLessThanOrEqual(200);
          for (const item of items) {
            expect(item.title.length).toBeLessThanOrEqual(200);
            expect(item.summary).not.toMatch(/<(?:script|p|b)\b/u);
            expect(item.link === '' || /^https?:\/\//u.test(item.link)).toBe(true);
            expect(Number.isFinite(item.publishedMs)).toBe(true);
          }
        } catch (error) {
          if (!(error instanceof ProblemError)) throw error;
        }
      }),
      { numRuns: 80, seed: 20261128 },
    );
  });
});
