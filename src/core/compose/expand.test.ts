import { describe, expect, it } from 'vitest';
import type { EchoPart, RowsPart, StackPart } from '../template/parts.ts';
import { expandRows, isNumeral, numeralSlot, rowSlot, slotOfRow, valueSlot, type ListShape } from './expand.ts';
import { windowShapes } from '../template/parts.ts';
import { fieldPath, windowPath } from './part-outlines.ts';

const rows = (numerals: boolean): RowsPart => ({ part: 'rows', slot: 'points', ink: 'ink', numeralInk: 'accent', numerals, sizeM: { max: 1, min: 0.5 }, gapM: 0.4, grow: 1 });
const rootWith = (part: RowsPart): StackPart => ({ part: 'stack', direction: 'column', children: [{ part: 'stack', direction: 'row', children: [part] }] });
const list = (count: number, more: Partial<ListShape> = {}): ListShape => ({ count, columns: false, marked: null, ...more });
const listIn = (root: StackPart): StackPart | undefined => {
  const [inner] = root.children;
  const [list] = inner?.part === 'stack' ? inner.children : [];
  return list?.part === 'stack' ? list : undefined;
};

describe('expandRows', () => {
  it('makes one row an item, wherever the list stands, and keeps how the list is placed', () => {
    const expanded = listIn(expandRows(rootWith(rows(true)), () => list(3)));
    expect(expanded).toMatchObject({ part: 'stack', grow: 1 });
    expect(expanded?.children).toHaveLength(3);
    const texts = JSON.stringify(expanded).match(/"slot":"[^"]+"/g);
    expect(texts).toEqual([0, 1, 2].flatMap((index) => [`"slot":"${numeralSlot('points', index)}"`, `"slot":"${rowSlot('points', index)}"`]));
  });

  it('leaves numerals out where the template does, and makes no rows of an empty list', () => {
    expect(JSON.stringify(expandRows(rootWith(rows(false)), () => list(2)))).not.toContain('numeral"');
    expect(listIn(expandRows(rootWith(rows(true)), () => list(0)))?.children).toEqual([]);
  });

  it('names rows so that their slot can be found again', () => {
    expect([slotOfRow(rowSlot('points', 4)), slotOfRow(numeralSlot('points', 4)), slotOfRow('headline')]).toEqual(['points', 'points', 'headline']);
    expect([isNumeral(numeralSlot('points', 0)), isNumeral(rowSlot('points', 0))]).toEqual([true, false]);
  });
});

describe('lists with two columns, and echoes', () => {
  it('give every row its value at the other end, and the marked one a field of its own without hairlines at its edges', () => {
    const expanded = listIn(expandRows(rootWith(rows(false)), () => list(3, { columns: true, marked: 1 })));
    const [first, marked, last] = expanded?.children.map((child) => JSON.stringify(child)) ?? [];
    expect(first).toContain(`"slot":"${valueSlot('points', 0)}"`);
    expect([first, marked, last].map((row) => row?.includes('"part":"rule"'))).toEqual([true, false, false]);
    expect(marked).toContain('"field":{"ink":"accent"}');
    expect(first).not.toContain('"field"');
  });

  it('repeat one line, of which one is read and the others are pattern', () => {
    const echo: EchoPart = { part: 'echo', slot: 'word', lines: 4, inked: 2, ink: 'accent', quietInk: 'surface', sizeM: { max: 4, min: 1 } };
    const root: StackPart = { part: 'stack', direction: 'column', children: [echo] };
    const [lines] = expandRows(root, () => list(0)).children;
    const texts = lines?.part === 'stack' ? lines.children : [];
    expect(texts).toHaveLength(4);
    expect(texts.map((text) => text.part === 'text' && [text.ink, text.ornament ?? false])).toEqual([['surface', true], ['surface', true], ['accent', false], ['surface', true]]);
  });
});

describe('outlines of fields and windows', () => {
  const box = { xPx: 10, yPx: 20, widthPx: 200, heightPx: 100 };

  it.each(['box', 'disc', 'seal', 'tab'] as const)('a %s is one closed outline around its box', (shape) => {
    const path = fieldPath(shape, box, 60);
    expect(path).toMatch(/^M[^M]*Z$/);
    expect(path).not.toMatch(/NaN|undefined/);
  });

  it.each(windowShapes)('a window of the shape %s is one closed outline', (shape) => {
    for (const height of [40, 100, 400]) expect(windowPath(shape, { ...box, heightPx: height }, 60)).toMatch(/^M[^M]*Z$/);
  });
});
