import { describe, expect, it } from 'vitest';
import { shippedTemplates } from '../template/shipped-templates.ts';
import { sampleFrame } from './sample-frame.ts';

describe('sampleFrame', () => {
  it.each(shippedTemplates.map((template) => [template.name, template] as const))('gives %s something short, something usual and something cruel', (_, template) => {
    const total = (length: 'short' | 'usual' | 'cruel'): number => Object.values(sampleFrame(template, length, ['m1']).slots).reduce((sum, value) => sum + (value.kind === 'text' ? value.text.length : 0), 0);
    expect(total('short')).toBeGreaterThan(0);
    expect(total('short')).toBeLessThan(total('usual'));
    expect(total('usual')).toBeLessThan(total('cruel'));
    const required = template.slots.filter((slot) => slot.required).map((slot) => slot.key);
    expect(Object.keys(sampleFrame(template, 'short', ['m1']).slots)).toEqual(expect.arrayContaining(required));
  });
});
