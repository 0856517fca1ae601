import { describe, expect, it } from 'vitest';
import type { RowsPart, StackPart } from '../template/template.ts';
import { expandRows, isNumeral, numeralSlot, rowSlot, slotOfRow } from './expand.ts';
import { fieldPath, windowPath } from './part-outlines.ts';

const rows = (numerals: boolean): RowsPart => ({ part: 'rows', slot: 'points', ink: 'ink', numeralInk: 'accent', numerals, sizeM: { max: 1, min: 0.5 }, gapM: 0.4, grow: 1 });
const rootWith = (part: RowsPart): StackPart => ({ part: 'stack', direction: 'column', children: [{ part: 'stack', direction: 'row', children: [part] }] });
const listIn = (root: StackPart): StackPart | undefined => {
  const [inner] = root.children;
  const [list] = inner?.part === 'stack' ? inner.children : [];
  return list?.part === 'stack' ? list : undefined;
};

describe('expandRows', () => {
  it('makes one row an item, wherever the list stands, and keeps how the list is placed', () => {
    const list = listIn(expandRows(rootWith(rows(true)), () => 3));
    expect(list).toMatchObject({ part: 'stack', grow: 1 });
    expect(list?.children).toHaveLength(3);
    const texts = JSON.stringify(list).match(/"slot":"[^"]+"/g);
    expect(texts).toEqual([0, 1, 2].flatMap((index) => [`"slot":"${numeralSlot('points', index)}"`, `"slot":"${rowSlot('points', index)}"`]));
  });

  it('leaves numerals out where the template does, and makes no rows of an empty list', () => {
    expect(JSON.stringify(expandRows(rootWith(rows(false)), () => 2))).not.toContain('numeral"');
    expect(listIn(expandRows(rootWith(rows(true)), () => 0))?.children).toEqual([]);
  });

  it('names rows so that their slot can be found again', () => {
    expect([slotOfRow(rowSlot('points', 4)), slotOfRow(numeralSlot('points', 4)), slotOfRow('headline')]).toEqual(['points', 'points', 'headline']);
    expect([isNumeral(numeralSlot('points', 0)), isNumeral(rowSlot('points', 0))]).toEqual([true, false]);
  });
});

describe('outlines of fields and windows', () => {
  const box = { xPx: 10, yPx: 20, widthPx: 200, heightPx: 100 };

  it.each(['box', 'disc', 'seal', 'tab'] as const)('a %s is one closed outline around its box', (shape) => {
    const path = fieldPath(shape, box, 60);
    expect(path).toMatch(/^M[^M]*Z$/);
    expect(path).not.toMatch(/NaN|undefined/);
  });

  it.each(['arch', 'circle', 'sail', 'notch'] as const)('a window of the shape %s is one closed outline', (shape) => {
    for (const height of [40, 100, 400]) expect(windowPath(shape, { ...box, heightPx: height }, 60)).toMatch(/^M[^M]*Z$/);
  });
});
