import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { copyTable, fillDown, pastedTable, pasteInto, readTable, writeTable } from './clipboard.ts';
import { clamped, isWithin, moved, rangeOf, single, whole } from './selection.ts';

const size = { rows: 4, columns: 3 };
const plain = { shift: false, jump: false };
const at = (row: number, column: number) => single({ row, column });

describe('moving in the sheet', () => {
  it.each([
    ['ArrowDown', plain, at(1, 1), at(2, 1)],
    ['ArrowDown', plain, at(3, 1), at(3, 1)],
    ['ArrowLeft', plain, at(0, 0), at(0, 0)],
    ['ArrowRight', { shift: true, jump: false }, at(1, 0), { anchor: { row: 1, column: 0 }, cursor: { row: 1, column: 1 } }],
    ['ArrowDown', { shift: true, jump: true }, at(1, 0), { anchor: { row: 1, column: 0 }, cursor: { row: 3, column: 0 } }],
    ['Home', plain, at(2, 2), at(2, 0)],
    ['End', { shift: false, jump: true }, at(0, 0), at(3, 2)],
    ['Tab', plain, at(0, 2), at(1, 0)],
    ['Tab', { shift: true, jump: false }, at(1, 0), at(0, 2)],
    ['Tab', plain, at(3, 2), null],
    ['Tab', { shift: true, jump: false }, at(0, 0), null],
    ['PageDown', plain, at(0, 1), at(3, 1)],
    ['a', plain, at(0, 0), null],
  ] as const)('%s', (key, held, from, to) => {
    expect(moved(from, key, held, size)).toEqual(to);
  });

  it('knows what is chosen, and stays within a sheet that became smaller', () => {
    const chosen = { anchor: { row: 3, column: 2 }, cursor: { row: 1, column: 0 } };
    expect(rangeOf(chosen)).toEqual({ top: 1, bottom: 3, left: 0, right: 2 });
    expect(isWithin(rangeOf(chosen), { row: 2, column: 1 })).toBe(true);
    expect(isWithin(rangeOf(chosen), { row: 0, column: 1 })).toBe(false);
    expect(clamped(chosen, { rows: 2, columns: 1 })).toEqual({ anchor: { row: 1, column: 0 }, cursor: { row: 1, column: 0 } });
    expect(rangeOf(whole(size))).toEqual({ top: 0, bottom: 3, left: 0, right: 2 });
  });
});

describe('tables of the clipboard', () => {
  const table = [
    ['Come “now”', 'two\nlines', 'a\ttab'],
    ['', '"quoted"', '🪁'],
  ];

  it('come back as they were', () => {
    expect(readTable(writeTable(table))).toEqual(table);
  });

  it('keep line ends within quoted cells, and read what other programs write', () => {
    expect(readTable('a\t"b\r\nc"\r\nd\te\r\n')).toEqual([
      ['a', 'b\nc'],
      ['d', 'e'],
    ]);
    expect(readTable('One text\nwith two lines')).toEqual([['One text\nwith two lines']]);
  });

  it.each([
    ['a quotation', '"Best bread in town" – The Town Paper'],
    ['nothing but a quotation', '"Best bread in town"'],
    ['a quotation on a line of its own', 'She said:\n"Come"'],
    ['an open quotation', 'First line\n"and on it goes'],
  ])('are none where somebody wrote %s', (_, text) => {
    expect(readTable(text)).toEqual([[text]]);
  });

  it('keep quotation marks beside tabs', () => {
    expect(readTable('"Come"\tSaturday\n"Stay" a while\tSunday')).toEqual([['"Come"', 'Saturday'], ['"Stay" a while', 'Sunday']]);
    expect(readTable('"He said ""come"""\tSaturday')).toEqual([['He said "come"', 'Saturday']]);
  });

  it('come back in their shape, whatever is in them', () => {
    const kept = new Map<string, string>();
    const clipboard = { setData: (format: string, data: string) => void kept.set(format, data), getData: (format: string) => kept.get(format) ?? '' };
    const cell = fc.oneof(fc.string(), fc.array(fc.constantFrom('"', '\t', '\n', '\r', ' ', 'a', ',', '🪁')).map((signs) => signs.join('')));
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 4 }).chain((columns) => fc.array(fc.array(cell, { minLength: columns, maxLength: columns }), { minLength: 1, maxLength: 4 })), (cells) => {
        copyTable(clipboard, cells);
        expect(pastedTable(clipboard)).toEqual(cells);
      }),
    );
  });

  it('are read from plain text where what a sheet should have copied is something else', () => {
    for (const own of ['{}', '[]', '[[1]]', 'nonsense']) expect(pastedTable({ setData: () => undefined, getData: (format) => (format === 'text/plain' ? 'a\tb' : format.startsWith('application') ? own : '') })).toEqual([['a', 'b']]);
  });

  it('reach no further than the sheet', () => {
    const wide = [['1', '2', '3', '4'], ['5', '6', '7', '8']];
    const { cells, left } = pasteInto(wide, { top: 3, bottom: 3, left: 1, right: 1 }, size);
    expect(cells).toEqual([{ row: 3, column: 1, text: '1' }, { row: 3, column: 2, text: '2' }]);
    expect(left).toBe(6);
  });

  it('one cell fills all that is chosen', () => {
    expect(pasteInto([['x']], { top: 1, bottom: 2, left: 0, right: 1 }, size).cells).toHaveLength(4);
  });

  it('fill down from the first row of a range', () => {
    expect(fillDown({ top: 0, bottom: 2, left: 1, right: 1 })).toEqual([
      { from: { row: 0, column: 1 }, to: { row: 1, column: 1 } },
      { from: { row: 0, column: 1 }, to: { row: 2, column: 1 } },
    ]);
  });
});
