import { describe, expect, it } from 'vitest';
import { getShippedTemplate, shippedTemplates } from '../template/shipped-templates.ts';
import { sampleFrame, type SamplePictures } from './sample-frame.ts';

const pictures: SamplePictures = { photos: ['m1', 'm2'], clear: [], cutOuts: ['c1'] };

describe('sampleFrame', () => {
  it('has the samples as the brand’s language has them, shortened and drawn out in it', () => {
    const german = (sample: string): string => (sample === 'Made by hand' ? 'Von Hand gemacht und geprüft' : sample);
    const first = (length: 'usual' | 'cruel'): unknown => sampleFrame(getShippedTemplate('counter'), length, pictures, german).slots['first'];
    expect(first('usual')).toEqual({ kind: 'text', text: 'Von Hand gemacht und geprüft' });
    expect(first('cruel')).toMatchObject({ text: expect.stringMatching(/^Von Hand gemacht und geprüft Von Hand/u) as string });
  });

  it.each(shippedTemplates.map((template) => [template.name, template] as const))('gives %s something short, something usual and something cruel', (_, template) => {
    const total = (length: 'short' | 'usual' | 'cruel'): number => Object.values(sampleFrame(template, length, pictures).slots).reduce((sum, value) => sum + (value.kind === 'text' ? value.text.length : 0), 0);
    expect(total('short')).toBeGreaterThan(0);
    expect(total('short')).toBeLessThan(total('usual'));
    expect(total('usual')).toBeLessThan(total('cruel'));
    const required = template.slots.filter((slot) => slot.required).map((slot) => slot.key);
    expect(Object.keys(sampleFrame(template, 'short', pictures).slots)).toEqual(expect.arrayContaining(required));
  });

  it('leaves a place for a fact to the brand’s own', () => {
    expect(Object.keys(sampleFrame(getShippedTemplate('door'), 'usual', pictures).slots)).toEqual(['headline', 'hours', 'day', 'line']);
  });

  it('takes cut-outs where a template shows a picture whole, photographs elsewhere, and what there is where one kind is missing', () => {
    const [counter, turn] = ['counter', 'turn'].map(getShippedTemplate);
    const shown = (template: typeof counter, given: typeof pictures): readonly unknown[] => (template ? Object.values(sampleFrame(template, 'usual', given).slots).flatMap((value) => (value.kind === 'picture' ? [value.mediaId] : [])) : []);
    expect(shown(counter, pictures)).toEqual(['c1']);
    expect(shown(turn, pictures)).toEqual(['m1', 'm2']);
    expect(shown(counter, { photos: ['m1'], clear: [], cutOuts: [] })).toEqual(['m1']);
    expect(shown(turn, { photos: [], clear: [], cutOuts: ['c1'] })).toEqual(['c1', 'c1']);
    // A subject that is to stand before letters stands clear of its ground, where there is one.
    expect(shown(getShippedTemplate('eclipse'), { photos: ['m1'], clear: ['k1'], cutOuts: [] })).toEqual(['k1']);
    expect(shown(getShippedTemplate('eclipse'), { photos: ['m1'], clear: [], cutOuts: [] })).toEqual(['m1']);
    expect(shown(turn, { photos: [], clear: [], cutOuts: [] })).toEqual([]);
  });
});
