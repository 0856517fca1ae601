import { describe, expect, it } from 'vitest';
import type { Box } from '../geometry/box.ts';
import type { MarkPart, StackPart, TextPart } from '../template/parts.ts';
import { blockExtents, markBoxes } from './ink-boxes.ts';
import type { LaidOut } from './layout.ts';

const box = (xPx: number, yPx: number, widthPx: number, heightPx: number): Box => ({ xPx, yPx, widthPx, heightPx });
const text = (slot: string): TextPart => ({ part: 'text', slot, role: 'text', align: 'start', ink: 'ink', sizeM: { max: 1, min: 0.5 } });
const mark: MarkPart = { part: 'mark', heightM: 2 };
const stack = (children: StackPart['children'], own: Partial<StackPart> = {}): StackPart => ({ part: 'stack', direction: 'column', children, ...own });
const laid = (part: LaidOut['part'], at: Box, children: readonly LaidOut[] = []): LaidOut => ({ part, box: at, children });

const [headline, line] = [text('headline'), text('line')];
const block = stack([headline, line, mark]);
const afloat = stack([block], { afloat: { picture: 'photo', places: ['bottom'], width: 1, height: 0.4 } });
const laidBlock = laid(block, box(0, 0, 500, 500), [laid(headline, box(40, 200, 400, 100)), laid(line, box(40, 320, 400, 40)), laid(mark, box(380, 360, 80, 40))]);
const layout = laid(stack([afloat, mark]), box(0, 0, 1000, 1000), [laid(afloat, box(0, 0, 500, 500), [laidBlock]), laid(mark, box(900, 20, 60, 60))]);

describe('the extent of a block on a photograph', () => {
  it('goes around the ink of its words and its marks, not around the room they have', () => {
    const ink = new Map([[headline, box(40, 210, 300, 80)], [line, box(40, 325, 200, 30)]]);
    expect(blockExtents(layout, ink)).toEqual([box(40, 210, 420, 190)]);
  });

  it('leaves out words that are not set, and a block of which nothing is', () => {
    expect(blockExtents(layout, new Map([[line, box(40, 325, 200, 30)]]))).toEqual([box(40, 325, 420, 75)]);
    const wordsAlone = stack([stack([headline])], { afloat: { picture: 'photo', places: ['top'], width: 1, height: 0.4 } });
    expect(blockExtents(laid(wordsAlone, box(0, 0, 1, 1), [laid(stack([headline]), box(0, 0, 1, 1), [laid(headline, box(0, 0, 1, 1))])]), new Map())).toEqual([]);
  });

  it('is none of what stands beside the photograph', () => {
    expect(blockExtents(laid(block, box(0, 0, 500, 500), laidBlock.children), new Map([[headline, box(40, 210, 300, 80)]]))).toEqual([]);
    expect(markBoxes(layout)).toEqual([box(380, 360, 80, 40), box(900, 20, 60, 60)]);
  });
});
