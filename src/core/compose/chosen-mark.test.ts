import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it } from 'vitest';
import { gullwickBook } from '../../../demo/brands/gullwick.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import { networkSheetSchema, getPlacement } from '../network/network-sheet.ts';
import petalry from '../network/sheets/petalry.json' with { type: 'json' };
import { linkedCut } from '../piece/adjustment.ts';
import { readPiece, type Frame, type SlotValue } from '../piece/piece.ts';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import { compose, type Composed } from './compose.ts';

const engines = { typesetter: testTypesetter(), yoga: await loadYoga() };
const words: Frame['slots'] = { headline: { kind: 'text', text: 'Come and see' }, call: { kind: 'text', text: 'Book a place' } };

function signpost(sign: SlotValue | null, scheme: string): Composed {
  const placement = getPlacement(networkSheetSchema.validateSync(petalry), 'feed-square');
  const slots = sign ? { ...words, sign } : words;
  return compose({ template: getShippedTemplate('signpost'), frame: { id: 'f', slots }, book: gullwickBook, placement, pictures: new Map(), ghosts: false, adjustment: { ...linkedCut, scheme } }, engines);
}

const [first, second] = gullwickBook.marks;
const fillsOf = ({ scene }: Composed): readonly string[] => scene.nodes.flatMap((node) => (node.kind === 'artwork' ? node.paths.map((path) => path.fill) : []));
const fillsOfMark = (mark: typeof first): readonly string[] => (mark?.kind === 'vector' ? mark.paths.map((path) => path.fill) : []);

describe('a mark slot', () => {
  it('left empty, takes the mark that shows best on its ground', () => {
    const fills = ['light', 'dark'].map((scheme) => fillsOf(signpost(null, scheme)));
    expect(fills).toContainEqual(fillsOfMark(first));
    expect(fills).toContainEqual(fillsOfMark(second));
  });

  it('shows the mark that a person has chosen on every ground, and says where it is faint', () => {
    for (const mark of gullwickBook.marks) {
      const cuts = ['light', 'dark'].map((scheme) => signpost({ kind: 'mark', mark: mark.key }, scheme));
      for (const cut of cuts) expect(fillsOf(cut)).toEqual(fillsOfMark(mark));
    }
    const vanished = signpost({ kind: 'mark', mark: 'flat' }, 'light');
    expect(vanished.report.findings).toContainEqual({ kind: 'lost-mark', slot: 'sign' });
  });

  it('says when the chosen mark is close to the colour behind it', () => {
    const faint = { ...gullwickBook, marks: gullwickBook.marks.map((mark) => (mark.kind === 'vector' ? { ...mark, paths: mark.paths.map((path) => ({ ...path, fill: '#14365C' })) } : mark)) };
    const placement = getPlacement(networkSheetSchema.validateSync(petalry), 'feed-square');
    const slots = { ...words, sign: { kind: 'mark' as const, mark: faint.marks[0]?.key ?? '' } };
    const { report } = compose({ template: getShippedTemplate('signpost'), frame: { id: 'f', slots }, book: faint, placement, pictures: new Map(), ghosts: false, adjustment: { scheme: 'dark' } }, engines);
    expect(report.findings.map(({ kind }) => kind)).toContain('faint-mark');
  });

  it('is kept in a piece by the key of the mark', () => {
    const piece = { version: 1, kind: 'graphic', title: '', template: { key: 'signpost' }, frames: [{ id: 'a', slots: { sign: { kind: 'mark', mark: 'on-dark' } } }], cuts: [], adjustments: {}, words: { shared: { caption: '', altText: '' }, own: {} } };
    expect(readPiece(piece).frames[0].slots['sign']).toEqual({ kind: 'mark', mark: 'on-dark' });
    expect(() => readPiece({ ...piece, frames: [{ id: 'a', slots: { sign: { kind: 'mark', mark: 'No such key!' } } }] })).toThrow();
  });
});
