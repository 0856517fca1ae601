import { describe, expect, it } from 'vitest';
import type { Box } from '../geometry/box.ts';
import { shotsUnder, subtitleRisePx } from './place-subtitle.ts';
import { timelineOf } from './timeline.ts';

const box = (yPx: number, heightPx: number, xPx = 100, widthPx = 800): Box => ({ xPx, yPx, widthPx, heightPx });
const words = (...boxes: readonly Box[]) => ({ placed: boxes.map((each) => ({ slot: 'x', box: each, roomPx: each.widthPx, lines: 1, lineTexts: [''], sizePx: 40 })), marks: [], pictures: [], panels: [] });
const frame = { size: { widthPx: 1080, heightPx: 1920 }, marginPx: 60, safe: { topPx: 200, rightPx: 60, bottomPx: 400, leftPx: 60 } };
const line = words(box(1_400, 90));

describe('a line of subtitles', () => {
  it('stays at the foot where nothing is in its way', () => {
    expect(subtitleRisePx(line, [words(box(300, 200))], frame)).toBe(0);
  });

  it('rises above the call of a closing card, to the lowest place that is free', () => {
    const card = words(box(700, 200), box(1_380, 120));
    const rise = subtitleRisePx(line, [card], frame);
    expect(rise % 2).toBe(0);
    expect(1_400 + 90 - rise).toBeLessThan(1_380 - 30);
    expect(1_400 - rise).toBeGreaterThan(900);
  });

  it('rises for every shot that it lies over, and over marks as well', () => {
    const rise = subtitleRisePx(line, [words(box(1_380, 120)), { ...words(), marks: [box(1_150, 120, 400, 200)] }], frame);
    expect(1_400 + 90 - rise).toBeLessThan(1_150 - 30);
  });

  it('rises above a subject where a little is enough, and not where it would have to leave the foot', () => {
    const photo = (yPx: number) => ({ ...words(), pictures: [{ slot: 'photo', pictureId: 'p', box: box(0, 1_920, 0, 1080), window: { x: 0, y: 0, width: 1, height: 1 }, subject: { xPx: 540, yPx } }] });
    const rise = subtitleRisePx(line, [photo(1_450)], frame);
    expect(1_400 + 90 - rise).toBeLessThan(1_450 - 100);
    expect(subtitleRisePx(line, [photo(600)], frame)).toBe(0);
    expect(subtitleRisePx(line, [photo(1_450), words(box(900, 420))], frame)).toBe(0);
  });

  it('keeps off the panel that words stand on, unless that leaves no room at the foot', () => {
    expect(1_490 - subtitleRisePx(line, [{ ...words(box(1_200, 60)), panels: [box(1_100, 330)] }], frame)).toBeLessThan(1_100 - 30);
    expect(subtitleRisePx(line, [{ ...words(box(700, 60)), panels: [box(600, 850)] }], frame)).toBe(0);
  });

  it('stays where no place is free', () => {
    expect(subtitleRisePx(line, [words(box(210, 1_300))], frame)).toBe(0);
  });

  it('knows the shots that it lies over', () => {
    const timeline = timelineOf([1, 2, 3].map((id) => ({ id: String(id), slots: {}, shot: { lengthMs: 2_000 } })), new Map());
    expect(shotsUnder({ fromMs: 500, toMs: 1_500 }, timeline)).toEqual([0]);
    expect(shotsUnder({ fromMs: 1_500, toMs: 4_500 }, timeline)).toEqual([0, 1, 2]);
    expect(shotsUnder({ fromMs: 2_000, toMs: 4_000 }, timeline)).toEqual([1]);
  });
});
