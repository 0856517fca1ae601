import { createCanvas, ImageData, Path2D, type Canvas } from '@napi-rs/canvas';
import { LRUCache } from 'lru-cache';
import sharp from 'sharp';
import type { PictureNode, Scene } from '../../core/scene/scene.ts';
import { pictureRaster } from '../../core/scene/scene.ts';
import { applyTone, maskPicture } from '../../core/scene/picture-looks.ts';
import { applyTreatment } from '../../core/scene/treatment.ts';
import { paint } from '../../core/scene/paint.ts';
import { DecodedPictures } from './decoded-pictures.ts';
import { tagJpegAsSrgb, tagPngAsSrgb } from './srgb-tag.ts';
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
 * Paints a scene. Pictures are cropped and scaled by sharp to the very pixels they fill, then drawn one to one.
 * @param scale pixels of the canvas a pixel of the scene
 * @throws RangeError when the scene shows a picture that has no source
 */
export async function paintScene(scene: Scene, typesetter: Typesetter, sources: ReadonlyMap<string, PictureSource>, scale = 1): Promise<PaintedCut> {
  return paintOnCanvas(scene, typesetter, sources, scale, (canvas) => ({ widthPx: canvas.width, heightPx: canvas.height, rgba: canvas.data() }));
}

/** The same for some of a scene's nodes: where there is no ink it is clear. Colours are not multiplied by their opacity. */
export async function paintLayer(scene: Scene, typesetter: Typesetter, sources: ReadonlyMap<string, PictureSource>): Promise<PaintedCut> {
  return paintOnCanvas(scene, typesetter, sources, 1, (canvas) => {
    const { data } = canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height);
    return { widthPx: canvas.width, heightPx: canvas.height, rgba: Buffer.from(data.buffer, data.byteOffset, data.byteLength) };
  });
}

/** @param read takes the pixels: after it all canvases are painted on by others */
async function paintOnCanvas(scene: Scene, typesetter: Typesetter, sources: ReadonlyMap<string, PictureSource>, scale: number, read: (canvas: Canvas) => PaintedCut): Promise<PaintedCut> {
  const bitmaps = new Map<PictureNode, Canvas>();
  for (const node of scene.nodes) {
    if (node.kind !== 'picture') continue;
    const source = sources.get(node.pictureId);
    if (!source) throw new RangeError(`No file is at hand for picture '${node.pictureId}'`);
    bitmaps.set(node, isWide(node, scene) ? await rasteriseWide(node, source, scale) : await rasterise(node, source, scale));
  }
  const canvas = surfaceOf(Math.round(scene.size.widthPx * scale), Math.round(scene.size.heightPx * scale));
  paint<Path2D, Canvas>(canvas.getContext('2d') as never, scene, scale, {
    path: (data) => new Path2D(data),
    glyph: glyphPaths(typesetter),
    picture: (node) => bitmaps.get(node) ?? null,
  });
  const painted = read(canvas);
  for (const [node, bitmap] of bitmaps) if (!isWide(node, scene)) giveBack(bitmap);
  return painted;
}

/** Whether a picture runs through several slides. */
function isWide({ box }: PictureNode, { size }: Scene): boolean {
  return box.widthPx > size.widthPx;
}

/** Canvases that are painted on again and again, one a size: their memory lies outside the heap and weighs on its collector. */
const surfaces = new LRUCache<string, Canvas>({ max: 6 });

/** An empty canvas. Painting does not wait in between, so no two paint on one. */
function surfaceOf(width: number, height: number): Canvas {
  const key = `${width}x${height}`;
  const known = surfaces.get(key);
  known?.getContext('2d').clearRect(0, 0, width, height);
  const canvas = known ?? createCanvas(width, height);
  surfaces.set(key, canvas);
  return canvas;
}

/** Canvases of pictures that have been painted, for other pictures of their size: each is used by one at a time. */
const spares: Canvas[] = [];
const MAX_SPARES = 6;

/** A canvas that holds something else; what is put on it has to cover it. */
function spareOf(width: number, height: number): Canvas {
  const at = spares.findIndex((canvas) => canvas.width === width && canvas.height === height);
  return spares.splice(at, at < 0 ? 0 : 1)[0] ?? createCanvas(width, height);
}

function giveBack(canvas: Canvas): void {
  spares.unshift(canvas);
  spares.splice(MAX_SPARES);
}

/** A picture that runs through several slides is scaled once for all of them: it is the same one on the next slide. */
let lastWide: { readonly key: string; readonly canvas: Promise<Canvas> } | null = null;

function rasteriseWide(node: PictureNode, source: PictureSource, scale: number): Promise<Canvas> {
  const { widthPx, heightPx } = node.box;
  const key = JSON.stringify([source.filePath, node.window, widthPx, heightPx, scale, node.tone, node.treatment, node.mask]);
  if (lastWide?.key !== key) lastWide = { key, canvas: rasterise(node, source, scale) };
  return lastWide.canvas;
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

/** The pixels that a picture node shows, toned and masked. */
export async function rasterise(node: PictureNode, source: PictureSource, scale: number): Promise<Canvas> {
  const target = pictureRaster(node, scale);
  const shrink = Math.min((node.window.width * source.widthPx) / target.widthPx, (node.window.height * source.heightPx) / target.heightPx);
  const { image, widthPx, heightPx } = await decoded.open(source, shrink);
  const left = Math.min(widthPx - 1, Math.round(node.window.x * widthPx));
  const top = Math.min(heightPx - 1, Math.round(node.window.y * heightPx));
  const { data, info } = await image
    .extract({
      left,
      top,
      width: Math.max(1, Math.min(widthPx - left, Math.round(node.window.width * widthPx))),
      height: Math.max(1, Math.min(heightPx - top, Math.round(node.window.height * heightPx))),
    })
    .resize(target.widthPx, target.heightPx, { fit: 'fill', kernel: 'lanczos3' })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  const canvas = spareOf(info.width, info.height);
  const context = canvas.getContext('2d');
  const pixels = new Uint8ClampedArray(data.buffer, data.byteOffset, data.length);
  if (node.tone) applyTone(pixels, node.tone);
  if (node.treatment) applyTreatment(pixels, node.treatment, { widthPx: info.width, heightPx: info.height, scale });
  context.putImageData(new ImageData(pixels, info.width, info.height), 0, 0);
  maskPicture<Path2D>(context as never, node, scale, (path) => new Path2D(path));
  return canvas;
}

/** Decoded photographs of this thread: the cuts of a piece show the same ones, and decoding is what costs. */
const decoded = new DecodedPictures();

export type PictureFormat = 'png' | 'jpeg' | 'webp' | 'avif';

/** How a painted cut becomes a file. */
export interface Encoding {
  readonly format: PictureFormat;
  /** 1 to 100; PNG is lossless at 100 and takes fewer colours below. */
  readonly quality: number;
  /** XMP packet that travels inside; null sends none along. */
  readonly xmp: string | null;
}

export const BEST_QUALITY: Readonly<Record<PictureFormat, number>> = { png: 100, jpeg: 92, webp: 92, avif: 69 };

/** Encodes a painted cut in sRGB. Encoding is sharp's: the canvas's own encoder is four times slower. */
export async function encodeCut(cut: PaintedCut, { format, quality, xmp }: Encoding): Promise<Buffer> {
  const image = sharp(cut.rgba, { raw: { width: cut.widthPx, height: cut.heightPx, channels: 4 } }).removeAlpha();
  const about = xmp === null ? image : image.withXmp(xmp);
  switch (format) {
    case 'png':
      return tagPngAsSrgb(await about.png(quality >= 100 ? { compressionLevel: 6 } : { compressionLevel: 9, palette: true, quality }).toBuffer());
    case 'jpeg':
      return tagJpegAsSrgb(about).jpeg({ quality, chromaSubsampling: quality >= 90 ? '4:4:4' : '4:2:0' }).toBuffer();
    case 'webp':
      return about.withIccProfile('srgb').webp({ quality }).toBuffer();
    case 'avif':
      return about.withIccProfile('srgb').avif({ quality, effort: 3 }).toBuffer();
  }
}
