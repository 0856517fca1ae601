import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { changedAreas } from './changed-areas.ts';
import type { Raster } from './picture-facts.ts';

const WIDTH = 240;
const HEIGHT = 160;
type Patch = readonly [x: number, y: number, width: number, height: number];
/** A soft gradient with patches on it. */
const picture = (...patches: readonly Patch[]): Raster => {
  const rgba = new Uint8ClampedArray(WIDTH * HEIGHT * 4);
  for (let y = 0; y < HEIGHT; y += 1) {
    for (let x = 0; x < WIDTH; x += 1) {
      const isPatch = patches.some(([px, py, width, height]) => x >= px && x < px + width && y >= py && y < py + height);
      rgba.set(isPatch ? [230, 40, 10, 255] : [x, y, 120, 255], (y * WIDTH + x) * 4);
    }
  }
  return { widthPx: WIDTH, heightPx: HEIGHT, rgba };
};
const saved = async ({ rgba }: Raster, quality: number): Promise<Raster> => {
  const webp = await sharp(rgba, { raw: { width: WIDTH, height: HEIGHT, channels: 4 } }).webp({ quality }).toBuffer();
  const { data } = await sharp(webp).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { widthPx: WIDTH, heightPx: HEIGHT, rgba: data };
};
const covers = (area: { x: number; y: number; width: number; height: number } | undefined, [x, y, width, height]: Patch): boolean =>
  area !== undefined && area.x * WIDTH <= x && area.y * HEIGHT <= y && (area.x + area.width) * WIDTH >= x + width && (area.y + area.height) * HEIGHT >= y + height;

describe('changedAreas', () => {
  it('finds nothing where only the quality differs', async () => {
    const original = picture([40, 40, 60, 30]);
    expect(changedAreas(original, await saved(original, 60))).toEqual([]);
  });

  it('frames what came, and what went, each by itself and not much more', () => {
    const areas = changedAreas(picture([20, 10, 40, 20]), picture([150, 100, 60, 40]));
    expect(areas.length).toBe(2);
    expect([covers(areas[0], [20, 10, 40, 20]), covers(areas[1], [150, 100, 60, 40])]).toEqual([true, true]);
    expect(areas.every(({ width, height }) => width * height < 0.2)).toBe(true);
  });

  it('frames the whole where everything is scattered about, and joins what would overlap', () => {
    const scattered = picture(...Array.from({ length: 12 }, (_, index): Patch => [(index % 4) * 60, Math.floor(index / 4) * 55, 18, 18]));
    expect(changedAreas(picture(), scattered)).toEqual([{ x: 0, y: 0, width: 1, height: 1 }]);
    expect(changedAreas(picture(), picture([10, 10, 100, 8], [10, 10, 8, 90], [50, 50, 12, 12])).length).toBe(1);
  });

  it('refuses pictures of different sizes', () => {
    expect(() => changedAreas(picture(), { ...picture(), widthPx: 10 })).toThrow(RangeError);
  });
});
