import { describe, expect, it } from 'vitest';
import { intersectBoxes } from '../geometry/box.ts';
import type { LineFade } from '../scene/fade.ts';
import type { FillNode } from '../scene/scene.ts';
import { cutFrame } from './cut-frame.ts';
import { helpShapes, isLargeBlock, openingAround, pointerTo, type BlockOnPhoto } from './words-on-photo.ts';

const frame = cutFrame({ key: 'k', name: 'k', surface: 'k', exportPx: { width: 1000, height: 1000 }, safePercent: { top: 0, right: 0, bottom: 0, left: 0 } });
const block = (own: Partial<BlockOnPhoto> = {}): BlockOnPhoto => ({ place: 'bottom-left', extent: { xPx: 60, yPx: 700, widthPx: 500, heightPx: 240 }, frame, subject: { xPx: 600, yPx: 300 }, ...own });
const gradient = { kind: 'gradient', colour: '#000000', share: 0.5 } as const;
const tint = { kind: 'tint', colour: '#000000', share: 0.5 } as const;
/** The fade of the only fill, which runs along a line. */
function fadeOf(nodes: readonly FillNode[]): LineFade {
  const [node, ...others] = nodes;
  if (others.length > 0 || node?.fade?.kind !== 'line') throw new Error('One fill fades along a line');
  return node.fade;
}
/** Where a fill that comes from the bottom is gone, and where it begins to go. */
const topOf = (nodes: readonly FillNode[]): number => fadeOf(nodes).to.yPx;
function hiddenAt(nodes: readonly FillNode[], yPx: number): number {
  const { from, to, stops } = fadeOf(nodes);
  const at = (yPx - from.yPx) / (to.yPx - from.yPx);
  const next = stops.findIndex((stop) => stop.at >= at);
  return next < 0 ? 0 : (nodes[0]?.alpha ?? 0) * (stops[Math.max(0, next - 1)]?.share ?? 0);
}
function evenTop(nodes: readonly FillNode[]): number {
  const { from, to, stops } = fadeOf(nodes);
  return from.yPx + (to.yPx - from.yPx) * (stops[0]?.at ?? 0);
}

describe('helpShapes', () => {
  it('is nothing where nothing is needed', () => {
    expect(helpShapes({ kind: 'none' }, block()).nodes).toEqual([]);
  });

  it('covers the words evenly, and is thin at the subject', () => {
    const { nodes, veil } = helpShapes(gradient, block());
    expect(hiddenAt(nodes, 300)).toBeLessThan(0.23);
    expect(topOf(nodes)).toBeLessThan(700 - 15);
    const wordsBox = block().extent;
    expect(veil?.sharesIn(wordsBox)).toEqual([0.5, 0.5]);
    expect(veil?.sharesIn({ ...wordsBox, yPx: 0, heightPx: 40 })).toEqual([0, 0]);
    expect(evenTop(nodes)).toBeLessThanOrEqual(700 - 15);
  });

  it('is thin at a subject that is near', () => {
    for (const yPx of [420, 500, 560]) {
      const near = block({ subject: { xPx: 600, yPx } });
      expect(hiddenAt(helpShapes({ ...gradient, share: 0.8 }, near).nodes, yPx)).toBeLessThan(0.32);
    }
  });

  it('fades as far as it likes where no subject is seen, or the subject lies below the words', () => {
    expect(topOf(helpShapes(gradient, block({ subject: null })).nodes)).toBeLessThan(600);
    expect(topOf(helpShapes(gradient, block({ subject: { xPx: 300, yPx: 800 } })).nodes)).toBeLessThan(600);
  });

  it('comes from the side where words stand at the side', () => {
    const { nodes } = helpShapes(gradient, block({ place: 'right', extent: { xPx: 500, yPx: 300, widthPx: 440, heightPx: 300 }, subject: { xPx: 150, yPx: 500 } }));
    expect(fadeOf(nodes).from.xPx).toBe(1000);
    expect(fadeOf(nodes).to.xPx).toBeLessThan(500);
  });

  it('leaves a tint open around the subject, unless words stand on it', () => {
    const open = helpShapes(tint, block());
    expect(open.nodes).toMatchObject([{ fade: { kind: 'round', middle: { xPx: 600, yPx: 300 } } }]);
    const corner = { xPx: 20, yPx: 900, widthPx: 50, heightPx: 50 };
    const atSubject = { xPx: 590, yPx: 290, widthPx: 20, heightPx: 20 };
    expect([corner, atSubject].map((region) => open.veil?.sharesIn(region))).toEqual([[0.5, 0.5], [0, 0.5]]);
    const closed = helpShapes(tint, block({ subject: { xPx: 300, yPx: 800 } }));
    expect(closed.nodes).toEqual([expect.not.objectContaining({ fade: expect.anything() as unknown })]);
    expect(closed.veil?.sharesIn(atSubject)).toEqual([0.5, 0.5]);
  });

  it('keeps a panel inside the cut', () => {
    const { panel } = helpShapes({ kind: 'panel', colour: '#000000' }, block({ extent: { xPx: 10, yPx: 900, widthPx: 980, heightPx: 90 } }));
    expect(panel).toMatchObject({ xPx: 0, widthPx: 1000 });
    expect((panel?.yPx ?? 0) + (panel?.heightPx ?? 0)).toBe(1000);
  });

  it('hides as much of all words as it says, wherever the subject stands beside them', () => {
    const { extent } = block();
    const subjects = [{ xPx: 600, yPx: 300 }, { xPx: 300, yPx: 560 }, { xPx: 750, yPx: 820 }, { xPx: 590, yPx: 690 }, { xPx: 620, yPx: 480 }];
    for (const subject of subjects) expect(helpShapes(tint, block({ subject })).veil?.sharesIn(extent), `${subject.xPx} ${subject.yPx}`).toEqual([0.5, 0.5]);
    // A subject far from the words is clear, one beside them is not.
    const hidden = (subject: { xPx: number; yPx: number }) => helpShapes(tint, block({ subject })).veil?.sharesIn({ ...subject, widthPx: 1, heightPx: 1 })[0];
    expect(hidden({ xPx: 600, yPx: 300 })).toBe(0);
    expect(hidden({ xPx: 590, yPx: 690 })).toBe(0.5);
  });

  it('opens a shade beside a subject that is near to words, away from them, and as far as the words elsewhere', () => {
    const cut = frame.size;
    const { extent } = block();
    const far = openingAround({ xPx: 600, yPx: 300 }, cut, [extent]);
    expect(far.opening).toMatchObject({ xPx: 600, yPx: 300, endPx: 400 });
    for (const subject of [{ xPx: 590, yPx: 690 }, { xPx: 300, yPx: 660 }, { xPx: 580, yPx: 820 }]) {
      const { opening, box } = openingAround(subject, cut, [extent]);
      expect(intersectBoxes(box, extent)?.widthPx ?? 0, `${subject.xPx} ${subject.yPx}`).toBeLessThan(1e-6);
      expect(Math.hypot(opening.xPx - subject.xPx, opening.yPx - subject.yPx)).toBeLessThan(opening.endPx);
    }
    expect(openingAround({ xPx: 600, yPx: 300 }, cut, []).opening.endPx).toBe(440);
  });
});

it('knows a block that takes most of the cut', () => {
  expect(isLargeBlock(block())).toBe(false);
  expect(isLargeBlock(block({ extent: { xPx: 60, yPx: 200, widthPx: 500, heightPx: 700 } }))).toBe(true);
});

describe('pointerTo', () => {
  it('leads from the nearest point of the words towards the subject, in the colour that stands out there', () => {
    const asked: number[] = [];
    const nodes = pointerTo(block(), ({ heightPx }) => {
      asked.push(heightPx);
      return '#ffffff';
    });
    expect(nodes).toHaveLength(2);
    expect(nodes.every(({ colour }) => colour === '#ffffff')).toBe(true);
    expect(asked[0]).toBeGreaterThan(200);
  });

  it('is not drawn where the subject is not seen, or stands beside the words', () => {
    expect(pointerTo(block({ subject: null }), () => '#ffffff')).toEqual([]);
    expect(pointerTo(block({ subject: { xPx: 560, yPx: 690 } }), () => '#ffffff')).toEqual([]);
  });
});
