import { describe, expect, it } from 'vitest';
import { getShippedTemplate, shippedTemplates } from '../../template/shipped-templates.ts';
import type { Template } from '../../template/template.ts';
import { draftFrames, headlineRoom, pictureRoom, templatesFor, type Content } from './draft.ts';

const kinds: readonly Template['kind'][] = ['graphic', 'carousel', 'video'];
const point = (heading: string, text = '') => ({ heading, text });
const list: Content = { form: 'list', roles: { headline: 'Five winds' }, points: [point('Early', 'calm'), point('Noon', 'rising'), point('Late', 'gone')] };
const dated: Content = { form: 'date', roles: { headline: 'Kite day', day: '14', label: 'November, from 2 pm', date: '14 November, from 2 pm', line: 'On the quay' }, points: [] };
const quoted: Content = { form: 'quote', roles: { headline: 'It lifted at once.', who: 'Somebody kind', line: 'was here' }, points: [] };
const newIds = (): (() => string) => {
  let last = 0;
  return () => `f${(last += 1)}`;
};
const keysFor = (content: Content, pictures = 0, of = kinds, templates: readonly Template[] = shippedTemplates): readonly string[] => templatesFor(content, templates, of, pictures).map(({ key }) => key);
const textsOf = (slots: Readonly<Record<string, { readonly kind: string; readonly text?: string }>> | undefined): Readonly<Record<string, string>> => Object.fromEntries(Object.entries(slots ?? {}).flatMap(([key, value]) => (value.text === undefined ? [] : [[key, value.text]])));
const draft = (key: string, content: Content, pictures: readonly { readonly id: string; readonly altText: string }[] = []) => draftFrames(getShippedTemplate(key), content, pictures, newIds());

describe('templates for some content', () => {
  it('say most with it first, of the kinds that are asked for', () => {
    expect(keysFor(list)).toEqual(['strand', 'ledger']);
    expect(keysFor(list, 0, ['graphic'])).toEqual(['ledger']);
    expect(keysFor(dated, 1)).toEqual(['bill', 'headland', 'plank']);
  });

  it('are left out where they need more pictures than there are, for every point of a list', () => {
    expect(keysFor(dated)).not.toContain('headland');
    expect(keysFor(list, 2)).not.toContain('sheaf');
    expect(keysFor(list, 4)).toContain('sheaf');
  });

  it('are left out where a slot that they need stays empty', () => {
    expect(keysFor({ ...list, points: [point('Early')] }, 9)).toEqual([]);
    expect(keysFor({ ...list, roles: {} }, 9)).toEqual([]);
    expect(keysFor({ form: 'number', roles: { headline: 'kites this month' }, points: [] })).toEqual(['plank']);
  });

  it('begin with the brand’s own that has the slots of a shipped one', () => {
    const own: Template = { ...getShippedTemplate('bill'), key: 'our-bill' };
    expect(keysFor(dated, 1, kinds, [...shippedTemplates, own])).toEqual(['our-bill', 'bill', 'headland', 'plank']);
  });
});

describe('frames of a draft', () => {
  it('have the number of a day beside the rest of its date, and the whole date where there is no place for it', () => {
    expect(textsOf(draft('bill', dated)[0].slots)).toMatchObject({ day: '14', label: 'November, from 2 pm', headline: 'Kite day' });
    expect(textsOf(draft('headland', dated)[0].slots)).toMatchObject({ label: '14 November, from 2 pm', headline: 'Kite day', line: 'On the quay' });
  });

  it('say below a quote who said it, and nothing else', () => {
    expect(headlineRoom(getShippedTemplate('aside'))).toBeGreaterThanOrEqual(120);
    expect(textsOf(draft('aside', { ...dated, form: 'announce' })[0].slots)).not.toHaveProperty('line');
    expect(textsOf(draft('aside', quoted)[0].slots)).toMatchObject({ headline: 'It lifted at once.', line: 'was here' });
    expect(textsOf(draft('voice', quoted)[0].slots)).toMatchObject({ name: 'Somebody kind', line: 'was here' });
  });

  it('list seven points at most, each with its text where both are short', () => {
    const points = [point('Early', 'calm'), point('Noon', 'the wind comes up from the south and stays there until somebody closes the harbour'), ...Array.from({ length: 8 }, (_, index) => point(`Point ${index}`))];
    const lines = textsOf(draft('ledger', { ...list, points })[0].slots)['points']?.split('\n');
    expect(lines).toHaveLength(7);
    expect(lines?.slice(0, 3)).toEqual(['Early: calm', 'Noon', 'Point 0']);
  });

  it('are a slide a point in a carousel, each with an alt text of its words', () => {
    const frames = draft('strand', list);
    expect(frames.slice(1, 4).map(({ slots }) => textsOf(slots)['heading'])).toEqual(['Early', 'Noon', 'Late']);
    expect(frames.slice(0, 4).map(({ altText }) => altText)).toEqual(['Five winds', 'Early. calm', 'Noon. rising', 'Late. gone']);
    expect(new Set(frames.map(({ id }) => id)).size).toBe(frames.length);
    const many = draft('strand', { ...list, points: Array.from({ length: 14 }, (_, index) => point(`Point ${index}`)) });
    expect(many.filter(({ slide }) => slide === frames[1]?.slide)).toHaveLength(10);
  });

  it('show the pictures in their order, say what is on them, and leave empty what is over', () => {
    const pictures = ['a', 'b', 'c'].map((id) => ({ id, altText: `Photo ${id}` }));
    const frames = draft('sheaf', list, pictures);
    const shown = frames.map(({ slots }) => Object.values(slots).flatMap((value) => (value.kind === 'picture' ? [value.mediaId] : [])));
    expect(shown.slice(0, 4)).toEqual([['a'], ['b'], ['c'], []]);
    expect(frames[1]?.altText).toMatch(/^Early\. .*Photo b$/u);
  });
});

it('the room for pictures is a cover’s, and one for each point of a list in a carousel', () => {
  expect(pictureRoom(getShippedTemplate('turn'), { ...dated, form: 'pair' })).toBe(2);
  expect(pictureRoom(getShippedTemplate('sheaf'), list)).toBe(4);
  expect(pictureRoom(getShippedTemplate('sheaf'), { ...list, points: Array.from({ length: 30 }, () => point('x')) })).toBe(11);
  expect(pictureRoom(getShippedTemplate('gust'), { ...dated, form: 'announce' })).toBe(3);
});
