import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { intersectBoxes, type Box } from '../geometry/box.ts';
import { drawMotif, motifNames, type MotifName } from '../motif/motif.ts';
import { placeMotif } from './place-motif.ts';

const cut: Box = { xPx: 0, yPx: 0, widthPx: 1080, heightPx: 1350 };
const marginPx = 60;
const place = (generator: MotifName, kept: readonly Box[], box: Box = cut) => placeMotif({ generator, seed: 3 }, box, { cutHeightPx: cut.heightPx, marginPx, kept });
const drawn = (generator: MotifName) => drawMotif(generator, cut, marginPx, 3);

describe('placeMotif', () => {
  it('is the whole drawing where nothing is in its way', () => {
    expect(place('waves', [])).toEqual(drawn('waves'));
    expect(place('scraps', [])).toEqual(drawn('scraps'));
  });

  it('keeps rows from the edge up to the first that words are in the way of: none beyond them', () => {
    const rows = drawn('waves');
    const third = rows[2]?.boxes[0] ?? cut;
    expect(place('waves', [{ xPx: 100, yPx: third.yPx, widthPx: 300, heightPx: 10 }])).toEqual(rows.slice(0, 2));
    expect(place('waves', [{ xPx: 100, yPx: cut.heightPx - 60, widthPx: 300, heightPx: 30 }])).toEqual([]);
  });

  it('leaves room between rows and words', () => {
    const second = drawn('waves')[1]?.boxes[0] ?? cut;
    const above = (gapPx: number): Box => ({ xPx: 100, yPx: second.yPx - gapPx - 40, widthPx: 300, heightPx: 40 });
    expect(place('waves', [above(20)])).toHaveLength(1);
    expect(place('waves', [above(50)])).toHaveLength(2);
  });

  it('draws no outer ring without the inner ones, and no single one', () => {
    const rings = drawn('contours');
    const markInTheCorner: Box = { xPx: 940, yPx: 1210, widthPx: 100, heightPx: 100 };
    expect(rings.filter((ring) => !ring.boxes.some((each) => intersectBoxes(each, markInTheCorner))).length).toBeGreaterThan(0);
    expect(place('contours', [markInTheCorner])).toEqual([]);
    const arcs = drawn('arcs');
    const inThirdRing = arcs[2]?.boxes[1] ?? cut;
    expect(place('arcs', [inThirdRing])).toEqual([]);
    expect(place('arcs', [arcs[4]?.boxes[1] ?? cut]).length).toBeGreaterThanOrEqual(3);
  });

  it('scatters scraps clear of words, further beside them, where one would be read as a dash, and never only a few', () => {
    const words: Box = { xPx: 300, yPx: 600, widthPx: 480, heightPx: 120 };
    const scraps = place('scraps', [words]);
    expect(scraps.length).toBeLessThan(drawn('scraps').length);
    expect(scraps.length).toBeGreaterThanOrEqual(5);
    for (const { boxes } of scraps) for (const each of boxes) expect(intersectBoxes(each, words)).toBeNull();
    const beside = drawn('scraps')[0]?.boxes[0] ?? cut;
    expect(beside.widthPx).toBeGreaterThan(beside.heightPx + 2 * marginPx);
    expect(place('scraps', [{ xPx: 0, yPx: 60, widthPx: 1080, heightPx: 1230 }])).toEqual([]);
  });

  it.each(motifNames)('draws nothing of %s over words, wherever they stand, and only shapes of its own', (generator) => {
    const words = fc.tuple(fc.integer({ min: 0, max: 900 }), fc.integer({ min: 0, max: 1200 }), fc.integer({ min: 40, max: 900 }), fc.integer({ min: 20, max: 400 })).map(([xPx, yPx, widthPx, heightPx]): Box => ({ xPx, yPx, widthPx, heightPx }));
    fc.assert(
      fc.property(fc.array(words, { maxLength: 5 }), (kept) => {
        const placed = place(generator, kept);
        for (const { boxes } of placed) for (const each of boxes) for (const other of kept) expect(intersectBoxes(each, other)).toBeNull();
        const own = new Set(drawn(generator).map(({ path }) => path));
        // A rope moves as a whole to where it is free.
        if (generator !== 'rope') expect(placed.every(({ path }) => own.has(path))).toBe(true);
      }),
      { numRuns: 40 },
    );
  });

  it('leaves a rope most of a margin above a mark, and less where there is no more room', () => {
    const box: Box = { xPx: 0, yPx: 600, widthPx: 1080, heightPx: 300 };
    const mark: Box = { xPx: 100, yPx: 1000, widthPx: 300, heightPx: 80 };
    const foot = (shapes: ReturnType<typeof place>): number => Math.max(...shapes.flatMap(({ boxes }) => boxes.map((each) => each.yPx + each.heightPx)));
    const top = (shapes: ReturnType<typeof place>): number => Math.min(...shapes.flatMap(({ boxes }) => boxes.map(({ yPx }) => yPx)));
    const free = place('rope', [mark], box);
    expect(mark.yPx - foot(free)).toBeGreaterThanOrEqual(0.9 * marginPx);
    const heightPx = foot(free) - top(free);
    // Words above leave the rope its height and half a margin at both ends.
    const words: Box = { xPx: 100, yPx: 0, widthPx: 300, heightPx: mark.yPx - heightPx - 1.3 * marginPx };
    const tight = place('rope', [mark, words], box);
    expect(tight.length).toBeGreaterThan(0);
    expect(mark.yPx - foot(tight)).toBeGreaterThanOrEqual(0.4 * marginPx);
    expect(mark.yPx - foot(tight)).toBeLessThan(0.9 * marginPx);
  });

  it('moves what floats to the nearest free place, and leaves it out as a whole where there is none', () => {
    const sea: Box = { xPx: 0, yPx: 500, widthPx: 1080, heightPx: 400 };
    const words: Box = { xPx: 80, yPx: 780, widthPx: 600, heightPx: 60 };
    const moved = place('waves', [words], sea);
    expect(moved).toHaveLength(drawMotif('waves', sea, marginPx, 3).length);
    for (const { boxes } of moved) for (const each of boxes) expect(intersectBoxes(each, words)).toBeNull();
    expect(place('waves', [{ ...cut, widthPx: 700 }], sea)).toEqual([]);
    expect(place('tail', [drawn('tail')[0]?.boxes[3] ?? cut])).toEqual([]);
  });
});
