import { loadYoga } from 'yoga-layout/load';
import { describe, expect, it } from 'vitest';
import { testPicture } from '../../../tests/fixtures/pictures.ts';
import { testTypesetter } from '../../../tests/fixtures/typesetter.ts';
import { plainBook } from '../../../tests/sheet/test-brands.ts';
import type { Picture } from '../crop/crop-window.ts';
import { takePictureFacts } from '../crop/picture-facts.ts';
import { intersectBoxes, type Box } from '../geometry/box.ts';
import { shippedSheets } from '../network/shipped-sheets.ts';
import { linkedCut } from '../piece/adjustment.ts';
import type { SlotValue } from '../piece/piece.ts';
import { walkParts } from '../template/parts.ts';
import { getShippedTemplate } from '../template/shipped-templates.ts';
import { slideTemplate } from '../template/slide-template.ts';
import type { Arrangement } from '../template/template.ts';
import { compose } from './compose.ts';
import { marksOnSubject, standFree, withMarksMoved } from './mark-off-subject.ts';

const engines = { typesetter: testTypesetter(), yoga: await loadYoga() };
const [widthPx, heightPx] = [1080, 1920];
const SCALE = 12;

/** A photograph in the shape of a story: nothing of it can be cropped away. Red things stand in these boxes of the cut. */
function pictureWith(things: readonly Box[]): Picture {
  const [columns, rows] = [widthPx / SCALE, heightPx / SCALE];
  const rgba = new Uint8ClampedArray(columns * rows * 4);
  for (let index = 0; index < columns * rows; index += 1) {
    const at: Box = { xPx: (index % columns) * SCALE, yPx: Math.floor(index / columns) * SCALE, widthPx: SCALE, heightPx: SCALE };
    rgba.set([...(things.some((thing) => intersectBoxes(thing, at)) ? [230, 40, 50] : [205, 222, 240]), 255], index * 4);
  }
  return testPicture({ widthPx: 1080, heightPx: 1920, facts: takePictureFacts({ widthPx: columns, heightPx: rows, rgba }), focal: { x: 0.5, y: 0.9 } });
}

function storyOf(picture: Picture, template = 'lull') {
  const placement = shippedSheets.flatMap(({ placements }) => placements).find(({ key }) => key === 'story');
  if (!placement) throw new Error('There is no story');
  const text = (value: string) => ({ kind: 'text' as const, text: value });
  const slots = { photo: { kind: 'picture' as const, mediaId: picture.id }, headline: text('Bread that took its time'), line: text('Tuesday to Saturday, from seven.') };
  return compose({ template: getShippedTemplate(template), frame: { id: 'f', slots }, book: plainBook, placement, pictures: new Map([[picture.id, picture]]), ghosts: false, adjustment: linkedCut }, engines).report;
}

const markOf = (report: ReturnType<typeof storyOf>): Box => {
  const [mark] = report.marks;
  if (!mark) throw new Error('The mark is gone');
  return mark;
};
const lineOf = ({ placed }: ReturnType<typeof storyOf>): Box | undefined => placed.find(({ slot }) => slot === 'line')?.box;

describe('a wordmark beside words on a photograph', () => {
  const calm = storyOf(pictureWith([]));
  const lower = markOf(calm);
  // With something large at the foot the words go to the top.
  const upper = markOf(storyOf(pictureWith([{ xPx: 100, yPx: heightPx * 0.6, widthPx: 900, heightPx: heightPx * 0.35 }])));

  it('stands at the end of the line where nothing is behind it', () => {
    expect(lower.xPx).toBeGreaterThan((lineOf(calm)?.xPx ?? 0) + 100);
    expect(lower.yPx).toBeLessThan((lineOf(calm)?.yPx ?? 0) + (lineOf(calm)?.heightPx ?? 0));
  });

  it('goes below the line where it would lie on what draws the eye, and every word stays', () => {
    const right = (mark: Box): Box => ({ ...mark, xPx: mark.xPx + mark.widthPx * 0.3 });
    const report = storyOf(pictureWith([right(lower), right(upper)]));
    const line = lineOf(report);
    expect(markOf(report).yPx).toBeGreaterThanOrEqual((line?.yPx ?? Infinity) + (line?.heightPx ?? 0) - 1);
    expect(markOf(report).xPx).toBeLessThan(widthPx * 0.2);
    expect(report.texts.every(({ kind }) => kind === 'fits')).toBe(true);
    expect(report.texts.map(({ slot }) => slot)).toEqual(['headline', 'line']);
  });

  it('stays where it is when below the line is no better', () => {
    const everywhere = storyOf(pictureWith(Array.from({ length: 40 }, (_, index) => ({ xPx: (index % 5) * 220, yPx: Math.floor(index / 5) * 240, widthPx: 150, heightPx: 170 }))));
    expect(markOf(everywhere).xPx).toBeGreaterThan(widthPx * 0.3);
  });
});

describe('a wordmark in the corner of a photograph', () => {
  const corner = (report: ReturnType<typeof storyOf>): 'left' | 'right' => (markOf(report).xPx < widthPx / 3 ? 'left' : 'right');

  it('goes across where it would lie on what draws the eye, and stays where across is no better', () => {
    const [left, right] = [{ xPx: 60, yPx: 0, widthPx: 380, heightPx }, { xPx: 640, yPx: 0, widthPx: 380, heightPx }];
    expect(corner(storyOf(pictureWith([]), 'headland'))).toBe('left');
    expect(corner(storyOf(pictureWith([left]), 'headland'))).toBe('right');
    expect(corner(storyOf(pictureWith([left, right]), 'headland'))).toBe('left');
  });

  it('stays in its corner in videos, from shot to shot', () => {
    const video = getShippedTemplate('tide');
    const placement = shippedSheets.flatMap(({ placements }) => placements).find(({ key }) => key === 'feed-portrait');
    const state = slideTemplate(video, 'state');
    const corners = [[], [{ xPx: 640, yPx: 0, widthPx: 380, heightPx: 700 }]].map((things) => {
      const picture = pictureWith(things);
      const slots = Object.fromEntries(state.slots.flatMap((slot): [string, SlotValue][] => (slot.kind === 'picture' ? [[slot.key, { kind: 'picture', mediaId: picture.id }]] : [])));
      return placement && compose({ template: state, frame: { id: 'f', slots }, book: plainBook, placement, pictures: new Map([[picture.id, picture]]), ghosts: false, adjustment: linkedCut }, engines).report.marks;
    });
    expect(corners[0]).toHaveLength(1);
    expect(corners[1]).toEqual(corners[0]);
  });
});

describe('marksOnSubject', () => {
  const box: Box = { xPx: 0, yPx: 0, widthPx, heightPx };
  const picture = pictureWith([{ xPx: 600, yPx: 400, widthPx: 240, heightPx: 240 }]);
  const placed = [{ slot: 'photo', pictureId: picture.id, box, window: { x: 0, y: 0, width: 1, height: 1 }, subject: null }];
  const at = (xPx: number, yPx: number): Box => ({ xPx, yPx, widthPx: 200, heightPx: 60 });

  it('tells a mark on a thing from one beside it', () => {
    expect(marksOnSubject([at(620, 480)], placed, { photo: picture })).toBe(true);
    expect(marksOnSubject([at(620, 1200)], placed, { photo: picture })).toBe(false);
    expect(marksOnSubject([at(620, 1200), at(700, 500)], placed, { photo: picture })).toBe(true);
  });

  it('goes by what the cut shows of the picture, and knows nothing of one that is not there', () => {
    // The lower half of the picture fills the cut: what stands at 480 of it is at 1440 of the picture.
    const lowerHalf = [{ ...placed[0], slot: 'photo', pictureId: picture.id, box, subject: null, window: { x: 0, y: 0.5, width: 1, height: 0.5 } }];
    expect(marksOnSubject([at(620, 480)], lowerHalf, { photo: picture })).toBe(false);
    expect(marksOnSubject([at(620, 480)], placed, {})).toBe(false);
  });

  it('goes by a known outline where nothing stands out', () => {
    const even = pictureWith([]);
    const ring = [0.5, 0.2, 0.9, 0.2, 0.9, 0.4, 0.5, 0.4].map((share) => share * 4096);
    const outlined: Picture = { ...even, facts: { ...even.facts, outline: [ring] }, focal: { x: 0.7, y: 0.3 } };
    expect(marksOnSubject([at(620, 480)], placed, { photo: outlined })).toBe(true);
    expect(marksOnSubject([at(620, 480)], placed, { photo: { ...outlined, focal: { x: 0.1, y: 0.9 } } })).toBe(false);
  });
});

describe('standFree', () => {
  const box: Box = { xPx: 0, yPx: 0, widthPx, heightPx: 1000 };
  const at = (yPx: number): Box => ({ xPx: 100, yPx, widthPx: 200, heightPx: 60 });

  it('wants a mark on a photograph, off words and off panels', () => {
    const cut = { pictures: [{ box }], placed: [{ box: at(300) }], panels: [at(600)] };
    expect(standFree([at(100)], cut)).toBe(true);
    expect(standFree([at(100), at(340)], cut)).toBe(false);
    expect(standFree([at(560)], cut)).toBe(false);
    expect(standFree([at(970)], cut)).toBe(false);
  });
});

describe('withMarksMoved', () => {
  const [shaft, , bay] = getShippedTemplate('lull').arrangements;

  it('changes rows of words and a mark on photographs, once for each arrangement', () => {
    if (!shaft) throw new Error('Lull has no arrangement for tall cuts');
    const { below } = withMarksMoved(shaft);
    expect(withMarksMoved(shaft).below).toBe(below);
    const columns = [...walkParts(below?.root ?? shaft.root)].filter((part) => part.part === 'stack' && part.direction === 'column' && part.children.at(-1)?.part === 'mark');
    expect(columns).toHaveLength(1);
  });

  it('has nothing below where the mark stands below already, or no photograph is behind', () => {
    expect(bay && withMarksMoved(bay).below).toBeNull();
    for (const arrangement of getShippedTemplate('headland').arrangements) expect(withMarksMoved(arrangement).below).toBeNull();
  });

  it('takes a mark in a corner to the three others, and leaves one that stands among words', () => {
    const [shore, cliff] = getShippedTemplate('headland').arrangements;
    const corners = withMarksMoved(shore as Arrangement).corners.map(({ arrangement }) => [...walkParts(arrangement.root)].flatMap((part) => (part.part === 'mark' ? [part.over] : [])));
    expect(corners).toEqual([[{ top: 1.2, right: 1.2 }], [{ bottom: 1.2, left: 1.2 }], [{ bottom: 1.2, right: 1.2 }]]);
    expect(withMarksMoved(cliff as Arrangement).corners).toEqual([]);
    const mark: Box = { xPx: 60, yPx: 80, widthPx: 300, heightPx: 50 };
    expect(withMarksMoved(shore as Arrangement).corners.map(({ take }) => take(mark, { widthPx, heightPx })).map(({ xPx, yPx }) => [xPx, yPx])).toEqual([[720, 80], [60, 1790], [720, 1790]]);
  });
});
