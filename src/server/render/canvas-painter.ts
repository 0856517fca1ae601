import { createCanvas, Path2D, type Canvas } from '@napi-rs/canvas';
import sharp from 'sharp';
import type { PictureNode, Scene } from '../../core/scene/scene.ts';
import { pictureRaster } from '../../core/scene/scene.ts';
import { applyTone, maskPicture } from '../../core/scene/picture-looks.ts';
import { paint } from '../../core/scene/paint.ts';
import type { Typesetter } from '../../core/text/typesetter.ts';

/** Where the bytes of a picture lie. */
export interface PictureSource {
  readonly filePath: string;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** Pixels of a painted cut: 4 bytes a pixel, opaque. */
export interface PaintedCut {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly rgba: Buffer;
}

/**
 * Paints a scene at full size. Pictures are cropped and scaled by sharp to the very pixels they fill, then drawn one to one.
 * @throws RangeError when the scene shows a picture that has no source
 */
export async function paintScene(scene: Scene, typesetter: Typesetter, sources: ReadonlyMap<string, PictureSource>): Promise<PaintedCut> {
  const bitmaps = new Map<PictureNode, Canvas>();
  for (const node of scene.nodes) {
    if (node.kind !== 'picture') continue;
    const source = sources.get(node.pictureId);
    if (!source) throw new RangeError(`No file is at hand for picture '${node.pictureId}'`);
    bitmaps.set(node, await rasterise(node, source));
  }
  const canvas = createCanvas(scene.size.widthPx, scene.size.heightPx);
  paint<Path2D, Canvas>(canvas.getContext('2d') as never, scene, 1, {
    path: (data) => new Path2D(data),
    glyph: glyphPaths(typesetter),
    picture: (node) => bitmaps.get(node) ?? null,
  });
  return { widthPx: canvas.width, heightPx: canvas.height, rgba: canvas.data() };
}

const pathCaches = new WeakMap<Typesetter, Map<string, Path2D>>();

function glyphPaths(typesetter: Typesetter): (fontKey: string, glyphId: number) => { path: Path2D; unitsPerEm: number } {
  const cache = pathCaches.get(typesetter) ?? new Map<string, Path2D>();
  pathCaches.set(typesetter, cache);
  return (fontKey, glyphId) => {
    const key = `${fontKey}/${glyphId}`;
    let path = cache.get(key);
    if (!path) {
      path = new Path2D(typesetter.outline(fontKey, glyphId));
      cache.set(key, path);
    }
    return { path, unitsPerEm: typesetter.unitsPerEm(fontKey) };
  };
}

async function rasterise(node: PictureNode, source: PictureSource): Promise<Canvas> {
  const target = pictureRaster(node, 1);
  const left = Math.min(source.widthPx - 1, Math.round(node.window.x * source.widthPx));
  const top = Math.min(source.heightPx - 1, Math.round(node.window.y * source.heightPx));
  const { data, info } = await sharp(source.filePath)
    .extract({
      left,
      top,
      width: Math.max(1, Math.min(source.widthPx - left, Math.round(node.window.width * source.widthPx))),
      height: Math.max(1, Math.min(source.heightPx - top, Math.round(node.window.height * source.heightPx))),
    })
    .resize(target.widthPx, target.heightPx, { fit: 'fill', kernel: 'lanczos3' })
    .toColourspace('srgb')
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const canvas = createCanvas(info.width, info.height);
  const context = canvas.getContext('2d');
  const image = context.createImageData(info.width, info.height);
  image.data.set(data);
  if (node.tone) applyTone(image.data, node.tone);
  context.putImageData(image, 0, 0);
  maskPicture<Path2D>(context as never, node, 1, (path) => new Path2D(path));
  return canvas;
}

/** Encodes a painted cut. PNG is lossless and takes no quality. Encoding is sharp's: the canvas's own encoder is four times slower. */
export async function encodeCut(cut: PaintedCut, as: 'png' | 'jpeg' | 'webp' | 'avif', quality = 92): Promise<Buffer> {
  const image = sharp(cut.rgba, { raw: { width: cut.widthPx, height: cut.heightPx, channels: 4 } }).removeAlpha();
  switch (as) {
    case 'png':
      return image.png({ compressionLevel: 6 }).toBuffer();
    case 'jpeg':
      return image.jpeg({ quality, chromaSubsampling: quality >= 90 ? '4:4:4' : '4:2:0' }).toBuffer();
    case 'webp':
      return image.webp({ quality }).toBuffer();
    case 'avif':
      return image.avif({ quality: Math.round(quality * 0.75), effort: 3 }).toBuffer();
  }
}
