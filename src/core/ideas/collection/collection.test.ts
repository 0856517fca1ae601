import { describe, expect, it } from 'vitest';
import { getShippedTemplate } from '../../template/shipped-templates.ts';
import { entriesFor } from './collection.ts';
import { seasonOf } from './entry.ts';
import { prompts } from './prompts.ts';
import { sayings } from './sayings.ts';

describe('the collection', () => {
  it('has at least 120 prompts and 150 sayings, each once', () => {
    expect(prompts.length).toBeGreaterThanOrEqual(120);
    expect(sayings.length).toBeGreaterThanOrEqual(150);
    const all = [...prompts, ...sayings];
    expect(new Set(all.map(({ text }) => text.toLowerCase())).size).toBe(all.length);
    expect(new Set(all.map(({ id }) => id)).size).toBe(all.length);
  });

  it('has sayings that fit on a quote piece', () => {
    const room = getShippedTemplate('aside').slots.find(({ key }) => key === 'headline')?.softLimit ?? 0;
    for (const { text } of sayings) expect([...text].length).toBeLessThanOrEqual(room);
  });

  it('offers what fits the season and what the brand’s facts can fill', () => {
    const winter = entriesFor([], 'winter');
    expect(winter.every(({ season }) => season === undefined || season === 'winter')).toBe(true);
    expect(winter.some(({ filled }) => filled.includes('{'))).toBe(false);
    const more = entriesFor([{ key: 'workshop', name: 'Workshop', text: 'the Old Net Loft' }], 'winter');
    expect(more.length).toBeGreaterThan(winter.length);
    expect(more.map(({ filled }) => filled)).toContain('Show the sky above the Old Net Loft.');
  });

  it('knows the seasons of both halves of the world', () => {
    expect([seasonOf('2026-01-10', false), seasonOf('2026-04-01', false), seasonOf('2026-12-01', false), seasonOf('2026-01-10', true), seasonOf('2026-07-01', true)]).toEqual(['winter', 'spring', 'winter', 'summer', 'winter']);
  });
});
