import { describe, expect, it } from 'vitest';
import headland from './shipped/headland.json' with { type: 'json' };
import { getShippedTemplate, shippedTemplates } from './shipped-templates.ts';
import { walkParts } from './parts.ts';
import { readTemplate } from './template.ts';

const copy = (): typeof headland => structuredClone(headland);

describe('readTemplate', () => {
  it('reads every shipped template, each with arrangements for tall, square and wide shapes', () => {
    for (const template of shippedTemplates) {
      expect(readTemplate(template)).toEqual(template);
      for (const aspect of [9 / 16, 4 / 5, 1, 16 / 9, 1.91]) expect(template.arrangements.some(({ aspect: { from, to } }) => aspect >= from && aspect < to)).toBe(true);
    }
  });

  it('refuses a part that does not exist, wherever it stands', () => {
    const bad = copy() as unknown as { arrangements: { root: { children: unknown[] } }[] };
    bad.arrangements[1]?.root.children.push({ part: 'spinner' });
    expect(() => readTemplate(bad)).toThrow(/no part called 'spinner'/);
  });

  it('refuses an unknown key, so that a typing error is not silently ignored', () => {
    const bad = copy() as unknown as { arrangements: { root: Record<string, unknown> }[] };
    if (bad.arrangements[0]) bad.arrangements[0].root['gapm'] = 1;
    expect(() => readTemplate(bad)).toThrow(/gapm/);
  });

  it('refuses an arrangement whose outermost part is no stack', () => {
    const bad = copy() as unknown as { arrangements: { root: object }[] };
    if (bad.arrangements[0]) bad.arrangements[0].root = { part: 'rule', lengthM: 1, thicknessM: 0.1, ink: 'ink' };
    expect(() => readTemplate(bad)).toThrow('outermost part is a stack');
  });

  it('refuses a part whose slot is not declared', () => {
    const bad = copy();
    bad.slots = bad.slots.filter((slot) => slot.key !== 'line');
    expect(() => readTemplate(bad)).toThrow(/no slot 'line'/);
  });

  it('refuses a template with one arrangement only', () => {
    const bad = copy();
    bad.arrangements = bad.arrangements.slice(0, 1);
    expect(() => readTemplate(bad)).toThrow();
  });

  it('refuses a slide that sums up before the kinds that it sums up', () => {
    const strand = getShippedTemplate('strand');
    expect(() => readTemplate({ ...strand, slides: strand.slides?.toReversed() })).toThrow('the slide that sums up stands last');
  });

  it('walks parents before children', () => {
    const parts = [...walkParts(readTemplate(headland).arrangements[0]?.root ?? { part: 'stack', direction: 'row', children: [] })].map((part) => part.part);
    expect(parts.slice(0, 3)).toEqual(['stack', 'picture', 'stack']);
  });
});
