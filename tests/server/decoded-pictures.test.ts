import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DecodedPictures } from '../../src/server/render/decoded-pictures.ts';
import { tagJpegAsSrgb, tagPngAsSrgb } from '../../src/server/render/srgb-tag.ts';

let folder: string;
let file: { readonly filePath: string; readonly widthPx: number; readonly heightPx: number };
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'confetti-decoded-'));
  file = { filePath: join(folder, 'photo.jpg'), widthPx: 3000, heightPx: 2000 };
  await sharp('demo/media/beach-hut-shop.jpg').resize(3000, 2000).jpeg({ quality: 92 }).toFile(file.filePath);
});
afterAll(() => rmSync(folder, { recursive: true }));

const meanDifference = (a: Buffer, b: Buffer): number => a.reduce((sum, value, index) => sum + Math.abs(value - (b[index] ?? 0)), 0) / a.length;

describe('pictures that many cuts show', () => {
  it.each([
    [1, 3000],
    [3, 3000],
    [4, 1000],
    [8, 500],
    [40, 250],
  ])('shrunk %d times are read from a copy of %d pixels', async (shrink, widthPx) => {
    const pictures = new DecodedPictures();
    await pictures.open(file, shrink);
    const open = await pictures.open(file, shrink);
    expect([open.widthPx, open.heightPx]).toEqual([widthPx, Math.floor((widthPx * 2) / 3)]);
    expect(open.widthPx / (3000 / shrink)).toBeGreaterThanOrEqual(1);
  });

  it('look as they do when they are scaled from the whole', async () => {
    const pictures = new DecodedPictures();
    const { image } = await pictures.open(file, 5);
    const small = await image.resize(600, 400, { fit: 'fill', kernel: 'lanczos3' }).removeAlpha().raw().toBuffer();
    const plain = await sharp(await sharp(file.filePath).raw().toBuffer(), { raw: { width: 3000, height: 2000, channels: 3 } }).resize(600, 400, { fit: 'fill', kernel: 'lanczos3' }).raw().toBuffer();
    expect(meanDifference(small, plain)).toBeLessThan(2);
  });

  it('are not decoded twice, and not at all where they are too large to keep', async () => {
    const pictures = new DecodedPictures();
    const [first, second] = await Promise.all([pictures.open(file, 4), pictures.open(file, 4)]);
    expect([first.widthPx, second.widthPx]).toEqual([1000, 1000]);
    const huge = await pictures.open({ ...file, widthPx: 9000, heightPx: 6000 }, 8);
    expect(huge.widthPx).toBe(9000);
  });
});

describe('saying that pixels are sRGB', () => {
  it('leaves the pixels of a PNG as they are, and the file whole', async () => {
    const png = await sharp(file.filePath).resize(60, 40).png().toBuffer();
    const tagged = tagPngAsSrgb(png);
    expect(tagged.length).toBe(png.length + 13);
    expect(await sharp(tagged).raw().toBuffer()).toEqual(await sharp(png).raw().toBuffer());
  });

  it('leaves the pixels of a JPEG as they are', async () => {
    const image = () => sharp(file.filePath).resize(60, 40);
    const [tagged, plain] = [await tagJpegAsSrgb(image()).jpeg().toBuffer(), await image().jpeg().toBuffer()];
    expect(await sharp(tagged).raw().toBuffer()).toEqual(await sharp(plain).raw().toBuffer());
    expect((await sharp(tagged).metadata()).exif).toBeDefined();
  });
});
