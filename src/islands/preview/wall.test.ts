import { afterEach, beforeEach, describe, expect, it, vi, type Mock } from 'vitest';
import type { CutReport } from '../../core/compose/report.ts';
import { shippedSheets } from '../../core/network/shipped-sheets.ts';
import { linkedCut } from '../../core/piece/adjustment.ts';
import { ALONE } from '../../core/piece/slides-of-cut.ts';
import { getShippedTemplate } from '../../core/template/shipped-templates.ts';
import type { PainterMessage, WallContent, WallMessage, WantedCut } from '../../workers/wall-protocol.ts';
import { Wall, type WallState } from './wall.ts';

/** A painter that is told what to do and answers when a test says so. */
class PainterInHand {
  static readonly all: PainterInHand[] = [];
  readonly told: PainterMessage[] = [];
  onmessage: ((event: { readonly data: WallMessage }) => void) | null = null;

  constructor() {
    PainterInHand.all.push(this);
  }

  postMessage(message: PainterMessage): void {
    this.told.push(message);
  }

  terminate(): void {
    PainterInHand.all.splice(0);
  }

  /** The keys of the newest request, and which of them it has to send in any case. */
  get asked(): { readonly id: number; readonly keys: readonly string[]; readonly again: 'all' | readonly string[] } {
    const request = this.told.findLast((message) => message.kind === 'paint');
    if (!request) throw new Error('Nothing was asked for');
    return { id: request.id, keys: request.cuts.map(({ key }) => key), again: request.again };
  }

  answer(id: number, key: string, arrangement: string): void {
    this.onmessage?.({ data: { kind: 'painted', id, cuts: [{ key, pixels: null, report: { arrangement } as CutReport, settled: true }] } });
  }

  finish(id: number): void {
    this.onmessage?.({ data: { kind: 'done', id, tookMs: 1 } });
  }
}

const template = getShippedTemplate('headland');
const content = {} as WallContent;
const [square, portrait, tall] = ['feed-square', 'feed-portrait', 'story'].map((placement) => shippedSheets[0]?.placements.find(({ key }) => key === placement));

function cut(key: string, placement: typeof square): WantedCut {
  if (!placement) throw new Error('The sheet has no such placement');
  return { key, template, frame: { id: 'f', slots: {} }, placement, adjustment: linkedCut, run: key, place: ALONE, family: 'cover', scale: 0.2 };
}

let state: WallState | null = null;
let wall: Wall;

beforeEach(() => {
  vi.stubGlobal('Worker', PainterInHand);
  vi.stubGlobal('requestAnimationFrame', (then: () => void) => setTimeout(then));
  vi.stubGlobal('cancelAnimationFrame', clearTimeout);
  vi.stubGlobal('navigator', { hardwareConcurrency: 3 });
  vi.useFakeTimers();
  wall = new Wall((next) => (state = next));
});

afterEach(() => {
  wall.close();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** Painters that hold two cuts, of which the second goes to the first painter once a third stands between them. */
function withMovedCut(): readonly [PainterInHand, PainterInHand, number, number] {
  wall.paint({ content, ghosts: false, cuts: [cut('a', square), cut('b', portrait)] });
  const [first, second] = PainterInHand.all;
  if (!first || !second) throw new Error('There are two painters');
  const before = second.asked;
  expect(before.keys).toEqual(['b']);
  wall.paint({ content, ghosts: false, cuts: [cut('a', square), cut('c', tall), cut('b', portrait)] });
  expect(first.asked.keys).toEqual(['a', 'b']);
  return [first, second, before.id, first.asked.id];
}

const arrangementOf = (key: string): string | undefined => {
  vi.runAllTimers();
  return state?.reports.get(key)?.arrangement;
};

describe('a wall', () => {
  it.each([
    [1, 1],
    [2, 1],
    [3, 2],
    [16, 2],
  ])('on %i cores has %i painters, as one core is the page’s', (cores, painters) => {
    vi.stubGlobal('navigator', { hardwareConcurrency: cores });
    wall.paint({ content, ghosts: false, cuts: [cut('a', square), cut('b', portrait), cut('c', tall)] });
    expect(wall.painterCount).toBe(painters);
    expect(PainterInHand.all.flatMap(({ asked }) => asked.keys).toSorted()).toEqual(['a', 'b', 'c']);
  });
});

describe('a request', () => {
  it('that was asked for last is not asked for again, unless a canvas has come', () => {
    const request = { content, ghosts: false, cuts: [cut('a', square)] };
    wall.paint(request);
    wall.paint(request);
    const [painter] = PainterInHand.all;
    const asked = (): number => painter?.told.filter(({ kind }) => kind === 'paint').length ?? 0;
    expect(asked()).toBe(1);
    wall.place('a', { dataset: {} } as HTMLCanvasElement);
    vi.runAllTimers();
    expect(asked()).toBe(2);
    wall.paint({ ...request });
    expect(asked()).toBe(3);
  });
});

describe('the canvas of a cut', () => {
  const report = {} as CutReport;
  const image = (width: number, height: number): ImageData => ({ width, height }) as ImageData;
  const pixels = (width: number, height: number, xPx = 0, yPx = 0) => ({ image: image(width, height), xPx, yPx, whole: { widthPx: 200, heightPx: 100 } });

  function placed(): { readonly put: Mock; readonly canvas: HTMLCanvasElement; readonly show: (painted: ReturnType<typeof pixels>) => void } {
    const put = vi.fn();
    const canvas = { width: 300, height: 150, dataset: {}, getContext: () => ({ putImageData: put }) } as unknown as HTMLCanvasElement;
    wall.place('a', canvas);
    wall.paint({ content, ghosts: false, cuts: [cut('a', square)] });
    const [painter] = PainterInHand.all;
    return { put, canvas, show: (painted) => painter?.onmessage?.({ data: { kind: 'painted', id: painter.asked.id, cuts: [{ key: 'a', pixels: painted, report, settled: true }] } }) };
  }

  it('takes the size of the whole cut, and then what has changed of it where it belongs', () => {
    const { put, canvas, show } = placed();
    show(pixels(200, 100));
    show(pixels(20, 10, 40, 50));
    expect([canvas.width, canvas.height]).toEqual([200, 100]);
    expect(put.mock.calls).toEqual([[image(200, 100), 0, 0], [image(20, 10), 40, 50]]);
  });

  it('that came after the whole cut was painted waits for it instead of showing a part', () => {
    const { put, canvas, show } = placed();
    show(pixels(20, 10, 40, 50));
    expect(put).not.toHaveBeenCalled();
    expect(canvas.dataset['painted']).toBeUndefined();
    vi.runAllTimers();
    expect(PainterInHand.all[0]?.asked.again).toBe('all');
  });
});

describe('a wall with two painters', () => {
  it('keeps the newer state of a cut that changed hands, however late its painter before is', () => {
    const [first, second, oldId, newId] = withMovedCut();
    first.answer(newId, 'b', 'new');
    second.answer(oldId, 'b', 'old');
    expect(arrangementOf('b')).toBe('new');
  });

  it('has a cut that changed hands painted anew, and no other', () => {
    const [first, second] = withMovedCut();
    expect(first.asked.again).toEqual(['b']);
    expect(second.asked.again).toEqual(['c']);
  });

  it('shows what each painter has painted of its own cuts, and is settled when both are', () => {
    const [first, second, , newId] = withMovedCut();
    first.answer(newId, 'a', 'of the first');
    second.answer(newId, 'c', 'of the second');
    expect([arrangementOf('a'), arrangementOf('c')]).toEqual(['of the first', 'of the second']);
    first.finish(newId);
    expect(wall.isBusy).toBe(true);
    second.finish(newId);
    expect(wall.isBusy).toBe(false);
  });
});
