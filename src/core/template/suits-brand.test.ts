import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { getShippedTemplate, shippedTemplates } from './shipped-templates.ts';
import { bySuitability, lackFor, wantsOf } from './suits-brand.ts';

const listed = shippedTemplates.map((template) => ({ key: template.key, scheme: template.scheme, wants: wantsOf(template) }));
const all = { photo: 9, 'cut-out': 3, clip: 2 };
const keys = (templates: readonly { readonly key: string }[]): readonly string[] => templates.map(({ key }) => key);

describe('what a template wants', () => {
  it('is what it cannot do without', () => {
    expect(['aside', 'lull', 'counter', 'gust', 'either', 'knot'].map((key) => wantsOf(getShippedTemplate(key)))).toEqual([[], ['photo'], ['cut-out'], ['clip'], [], []]);
  });

  it('is lacking where the brand has nothing that does for it', () => {
    expect([lackFor(['photo'], all), lackFor(['photo'], { ...all, photo: 0 }), lackFor(['cut-out'], { ...all, 'cut-out': 0 }), lackFor(['clip'], { ...all, clip: 0 }), lackFor(['clip'], { photo: 0, 'cut-out': 5, clip: 0 }), lackFor([], { photo: 0, 'cut-out': 0, clip: 0 })]).toEqual([null, 'photo', 'cut-out', null, 'clip', null]);
  });
});

describe('the order of templates', () => {
  it('stays for a brand that has everything, and loses none', () => {
    expect(keys(bySuitability(listed, { ...gullwickBook, schemes: gullwickBook.schemes.map((scheme) => ({ ...scheme, accent: scheme.ink })) }, all))).toEqual(keys(listed));
    expect(keys(bySuitability(listed, gullwickBook, { photo: 0, 'cut-out': 0, clip: 0 })).toSorted()).toEqual(keys(listed).toSorted());
  });

  it('has what a brand without pictures can use first', () => {
    const order = bySuitability(listed, gullwickBook, { photo: 0, 'cut-out': 0, clip: 0 });
    const firstLacking = order.findIndex(({ wants }) => wants.length > 0);
    expect(order.slice(firstLacking).every(({ wants }) => wants.length > 0)).toBe(true);
    expect(firstLacking).toBe(listed.filter(({ wants }) => wants.length === 0).length);
  });

  it('puts templates last whose scheme cannot be read in the book', () => {
    const schemes = gullwickBook.schemes.map((scheme) => (scheme.key === 'bold' ? { ...scheme, ink: scheme.ground } : scheme));
    const order = bySuitability(listed, { ...gullwickBook, schemes }, all);
    const bold = listed.filter(({ scheme }) => scheme === 'bold').length;
    expect(order.slice(-bold).every(({ scheme }) => scheme === 'bold')).toBe(true);
  });
});
