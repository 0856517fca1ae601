import { describe, expect, it } from 'vitest';
import { shippedSheets } from '../../core/network/shipped-sheets.ts';
import { linkedCut } from '../../core/piece/adjustment.ts';
import type { SlotValue } from '../../core/piece/piece.ts';
import { ALONE } from '../../core/piece/slides-of-cut.ts';
import { getShippedTemplate } from '../../core/template/shipped-templates.ts';
import type { WantedCut } from '../wall-protocol.ts';
import { rehearsal } from './rehearsal.ts';

const [placement] = shippedSheets[0]?.placements ?? [];
function cut(key: string, run: string, slots: Readonly<Record<string, SlotValue>>): WantedCut {
  if (!placement) throw new Error('The sheet has no placements');
  return { key, run, template: getShippedTemplate('headland'), frame: { id: key, slots }, placement, adjustment: linkedCut, place: ALONE, family: 'cover', scale: 0.2 };
}
const text = (words: string): SlotValue => ({ kind: 'text', text: words });
const headlines = (runs: readonly (readonly WantedCut[])[]): readonly (readonly unknown[])[] => runs.map((run) => run.map(({ frame }) => frame.slots['headline']));

describe('a rehearsal', () => {
  it('writes on, letter by letter, with letters that are there', () => {
    const runs = rehearsal([cut('a', 'one', { headline: text('Åre') })]);
    expect(headlines(runs.slice(0, 4))).toEqual([[text('Åre Å')], [text('Åre År')], [text('Åre Åre')], [text('Åre Åre')]]);
  });

  it('goes through all runs with each letter, and writes in one slide of each', () => {
    const runs = rehearsal([cut('a1', 'one', { photo: { kind: 'picture', mediaId: 'p' } }), cut('a2', 'one', { headline: text('Wind') }), cut('a3', 'one', { headline: text('Tide') }), cut('b', 'two', { headline: text('Sun') })]);
    expect(runs.slice(0, 3).map((run) => run.map(({ key }) => key))).toEqual([['a1', 'a2', 'a3'], ['b'], ['a1', 'a2', 'a3']]);
    expect(headlines(runs.slice(0, 3))).toEqual([[undefined, text('Wind W'), text('Tide')], [text('Sun S')], [undefined, text('Wind Wi'), text('Tide')]]);
  });

  it('passes over what has no words, and ends however large a wall is', () => {
    expect(rehearsal([cut('a', 'one', { headline: text('  ') }), cut('b', 'two', {})])).toEqual([]);
    const wall = Array.from({ length: 500 }, (_, index) => cut(`c${index}`, `run ${index}`, { headline: text('Wind') }));
    expect(rehearsal(wall).length).toBeLessThan(300);
  });
});
