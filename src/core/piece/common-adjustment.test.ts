import { describe, expect, it } from 'vitest';
import { linkedCut } from './adjustment.ts';
import { commonAdjustment, differsFrom } from './common-adjustment.ts';

describe('commonAdjustment', () => {
  it('is what more than half of the cuts have, field by field', () => {
    expect(commonAdjustment([{ scheme: 'light' }, { scheme: 'light', align: 'centre' }, { scheme: 'dark', align: 'centre' }])).toEqual({ scheme: 'light', align: 'centre' });
  });

  it('is nothing where the cuts are divided, where most are as the template is drawn, and without cuts', () => {
    expect(commonAdjustment([{ scheme: 'light' }, { scheme: 'dark' }])).toEqual({});
    expect(commonAdjustment([{ isPlain: true }, linkedCut, linkedCut])).toEqual({});
    expect(commonAdjustment([])).toEqual({});
  });

  it('holds only what is chosen for a piece: sizes, crops and hidden parts are a cut’s own, however many have them', () => {
    const own = { textStep: -1, hidden: ['line'], crops: { photo: { x: 0.5, y: 0.5, zoom: 2 } }, arrangement: 'cliff' };
    expect(commonAdjustment([own, own, own])).toEqual({});
    expect(differsFrom(own, {})).toBe(true);
  });
});

describe('differsFrom', () => {
  const common = { scheme: 'light', isPlain: true } as const;

  it('finds no difference in what all share', () => {
    expect(differsFrom({ ...common }, common)).toBe(false);
    expect(differsFrom(linkedCut, {})).toBe(false);
  });

  it('finds one where a cut has something else, or has it not', () => {
    expect(differsFrom({ ...common, scheme: 'dark' }, common)).toBe(true);
    expect(differsFrom({ scheme: 'light' }, common)).toBe(true);
    expect(differsFrom({ ...common, textStep: 1 }, common)).toBe(true);
    expect(differsFrom({ ...common, textStep: 0 }, common)).toBe(false);
  });
});
