import { describe, expect, it } from 'vitest';
import { usualMarkRoom, type BrandMark } from '../brand/brand-book.ts';
import type { MarkPart } from '../template/parts.ts';
import { settleMarks } from './settle-marks.ts';

const part: MarkPart = { part: 'mark', heightM: 1 };
const mark = (key: string): BrandMark => ({ kind: 'vector', key, for: 'light', ...usualMarkRoom, viewBox: { width: 100, height: 100 }, paths: [] });
const [symbol, wordmark] = [mark('symbol'), mark('wordmark')];

/** Lays out cuts on which grounds ask for other marks than there is room for: by the mark that has room, the one that is asked for and how well it is seen. */
function cuts(byRoom: Readonly<Record<string, readonly [asks: BrandMark, seen: number]>>) {
  const made: string[] = [];
  const layOut = (marks: ReadonlyMap<MarkPart, BrandMark>) => {
    const room = marks.get(part) ?? symbol;
    made.push(room.key);
    const [asks, seen] = byRoom[room.key] ?? [room, 1];
    return { room, emitted: { marks: new Map([[part, asks]]), leastOfMarks: seen } };
  };
  const settled = settleMarks(layOut, ({ room, emitted }) => emitted.marks.get(part) === room);
  return { room: settled.room.key, made };
}

describe('the layout for the marks of a cut', () => {
  it('is the first one where that has room for what its ground asks for', () => {
    expect(cuts({ symbol: [symbol, 4] })).toEqual({ room: 'symbol', made: ['symbol'] });
  });

  it('is made again for a mark of another shape', () => {
    expect(cuts({ symbol: [wordmark, 4], wordmark: [wordmark, 4] })).toEqual({ room: 'wordmark', made: ['symbol', 'wordmark'] });
  });

  it('is that one in which the mark is seen best, where each layout asks for the mark of the other', () => {
    expect(cuts({ symbol: [wordmark, 3], wordmark: [symbol, 1.2] })).toEqual({ room: 'symbol', made: ['symbol', 'wordmark', 'symbol'] });
    expect(cuts({ symbol: [wordmark, 1.2], wordmark: [symbol, 3] })).toEqual({ room: 'wordmark', made: ['symbol', 'wordmark', 'symbol'] });
  });
});
