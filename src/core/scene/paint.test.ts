import { describe, expect, it } from 'vitest';
import type { Box } from '../geometry/box.ts';
import type { PaintGradient } from './fade.ts';
import { paint, type PaintContext } from './paint.ts';
import { pictureRaster, type PictureNode, type Scene } from './scene.ts';
import { withShadow } from './shadow.ts';

type Call = readonly [string, ...unknown[]];

/** A canvas that writes down what is done to it. */
class RecordingContext implements PaintContext<string, string> {
  readonly calls: Call[] = [];
  fillStyle: unknown = '';
  globalAlpha = 1;
  strokeStyle: unknown = '';
  lineWidth = 1;
  lineJoin: 'round' | 'bevel' | 'miter' = 'miter';
  shadowColor = 'transparent';
  shadowBlur = 0;
  shadowOffsetY = 0;
  #transform: readonly number[] = [];
  save(): void {
    this.calls.push(['save']);
  }
  restore(): void {
    this.calls.push(['restore']);
  }
  setTransform(...transform: readonly [number, number, number, number, number, number]): void {
    this.#transform = transform;
  }
  beginPath(): void {
    this.calls.push(['beginPath']);
  }
  rect(...box: readonly [number, number, number, number]): void {
    this.calls.push(['rect', ...box, ...this.#transform]);
  }
  clip(): void {
    this.calls.push(['clip']);
  }
  stroke(path: string): void {
    this.calls.push(['stroke', path, this.strokeStyle, this.lineWidth, this.lineJoin]);
  }
  fill(path: string): void {
    this.calls.push(['fill', path, this.fillStyle, this.globalAlpha, ...this.#transform]);
  }
  fillRect(...box: readonly [number, number, number, number]): void {
    this.calls.push(['fillRect', this.fillStyle, ...box, ...this.#transform]);
  }
  createLinearGradient(...line: readonly [number, number, number, number]): PaintGradient {
    return this.#gradient('line', line);
  }
  createRadialGradient(...circles: readonly [number, number, number, number, number, number]): PaintGradient {
    return this.#gradient('round', circles);
  }
  #gradient(kind: string, places: readonly number[]): PaintGradient {
    const stops: unknown[] = [];
    return { addColorStop: (at, colour) => stops.push([at, colour]), ...{ kind, places, stops } };
  }
  drawImage(bitmap: string, x: number, y: number): void {
    this.calls.push(['drawImage', bitmap, x, y, this.globalAlpha, ...this.#transform, ...(this.shadowBlur > 0 ? [this.shadowColor, this.shadowBlur, this.shadowOffsetY] : [])]);
  }
}

const picture: PictureNode = { kind: 'picture', pictureId: 'p', box: { xPx: 0, yPx: 100, widthPx: 333, heightPx: 101 }, window: { x: 0, y: 0, width: 1, height: 1 } };
const scene: Scene = {
  size: { widthPx: 400, heightPx: 400 },
  nodes: [
    { kind: 'fill', path: 'M0 0Z', colour: '#123456', alpha: 0.5 },
    picture,
    { kind: 'glyphs', sizePx: 50, colour: '#ffffff', alpha: 1, glyphs: [{ fontKey: 'f', id: 7, xPx: 10, yPx: 90 }] },
    { kind: 'artwork', xPx: 20, yPx: 30, scale: 2, paths: [{ d: 'M1 1Z', fill: '#abcdef' }] },
  ],
};
const paintAt = (scale: number, bitmap: string | null, part?: Box): readonly Call[] => {
  const context = new RecordingContext();
  paint<string, string>(context, scene, scale, { path: (data) => data, glyph: (fontKey, id) => ({ path: `${fontKey}/${id}`, unitsPerEm: 1000 }), picture: () => bitmap }, part);
  return context.calls;
};

describe('paint', () => {
  it('paints every node in order, glyphs upright from their baseline and pictures one to one', () => {
    expect(paintAt(0.5, 'bitmap')).toEqual([
      ['save'],
      ['fill', 'M0 0Z', '#123456', 0.5, 0.5, 0, 0, 0.5, 0, 0],
      ['drawImage', 'bitmap', 0, 50, 1, 1, 0, 0, 1, 0, 0],
      ['fill', 'f/7', '#ffffff', 1, 0.025, 0, 0, -0.025, 5, 45],
      ['fill', 'M1 1Z', '#abcdef', 1, 1, 0, 0, 1, 10, 15],
      ['restore'],
    ]);
  });

  it('paints pictures of a part in that part alone, and outlines whole, as a canvas smooths those that it cuts off a little differently', () => {
    const whole = paintAt(0.5, 'bitmap');
    const inPart = paintAt(0.5, 'bitmap', { xPx: 3, yPx: 60, widthPx: 40, heightPx: 20 });
    const at = inPart.findIndex(([call]) => call === 'drawImage');
    expect(inPart.slice(at - 4, at + 2)).toEqual([['save'], ['beginPath'], ['rect', 3, 60, 40, 20, 1, 0, 0, 1, 0, 0], ['clip'], ['drawImage', 'bitmap', 0, 50, 1, 1, 0, 0, 1, 0, 0], ['restore']]);
    expect(inPart.filter(([call]) => call === 'fill')).toEqual(whole.filter(([call]) => call === 'fill'));
    expect(inPart.filter(([call]) => call === 'clip')).toHaveLength(1);
  });

  it('fills the place of a picture that is still on its way', () => {
    expect(paintAt(1, null)[2]).toEqual(['fillRect', '#8a8c90', 0, 100, 333, 101, 1, 0, 0, 1, 0, 0]);
  });
});

describe('pictureRaster', () => {
  it('gives neighbours one common edge at any scale', () => {
    for (const scale of [0.1, 0.175, 0.33, 1, 1.5]) {
      const above = pictureRaster(picture, scale);
      const below = pictureRaster({ ...picture, box: { ...picture.box, yPx: 201 } }, scale);
      expect(above.yPx + above.heightPx).toBe(below.yPx);
    }
  });
});

describe('letters', () => {
  const two = { kind: 'glyphs', sizePx: 50, colour: '#ffffff', alpha: 1, glyphs: [{ fontKey: 'f', id: 7, xPx: 10, yPx: 90 }, { fontKey: 'f', id: 8, xPx: 40, yPx: 90 }] } as const;
  const callsOf = (node: Scene['nodes'][number]): readonly Call[] => {
    const context = new RecordingContext();
    paint<string, string>(context, { size: scene.size, nodes: [node] }, 2, { path: (data) => data, glyph: (fontKey, id) => ({ path: `${fontKey}/${id}`, unitsPerEm: 1000 }), picture: () => null });
    return context.calls;
  };

  it('get all their edges before the first of them is filled, in units of the typeface', () => {
    const calls = callsOf({ ...two, edge: { colour: '#000000', widthPx: 5 } });
    expect(calls.map(([name, path]) => `${name} ${String(path ?? '')}`.trim())).toEqual(['save', 'stroke f/7', 'stroke f/8', 'fill f/7', 'fill f/8', 'restore']);
    expect(calls[1]).toEqual(['stroke', 'f/7', '#000000', 100, 'round']);
  });

  it('lie beside a subject that throws a shadow, which is scaled with the cut and ends with it', () => {
    const context = new RecordingContext();
    const shadow = { colour: '#102030', alpha: 0.5, blurPx: 10, downPx: 4 };
    paint<string, string>(context, { size: scene.size, nodes: [{ ...picture, shadow }, picture] }, 2, { path: (data) => data, glyph: () => ({ path: '', unitsPerEm: 1 }), picture: () => 'b' });
    const drawn = context.calls.filter(([name]) => name === 'drawImage');
    expect(drawn.map((call) => call.slice(-3))).toEqual([['#10203080', 20, 8], [1, 0, 0]]);
    expect(withShadow(picture.box, shadow)).toEqual({ xPx: -19, yPx: 81, widthPx: 371, heightPx: 139 });
  });

  it('are cut off by the box they are seen in, and what comes after them is not', () => {
    const calls = callsOf({ ...two, within: { xPx: 10, yPx: 20, widthPx: 30, heightPx: 40 } });
    expect(calls.map(([name]) => name)).toEqual(['save', 'save', 'beginPath', 'rect', 'clip', 'fill', 'fill', 'restore', 'restore']);
    expect(calls[3]).toEqual(['rect', 10, 20, 30, 40, 2, 0, 0, 2, 0, 0]);
  });
});
