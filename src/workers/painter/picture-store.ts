import { LRUCache } from 'lru-cache';
import { applyTone, maskPicture } from '../../core/scene/picture-looks.ts';
import { applyTreatment } from '../../core/scene/treatment.ts';
import { pictureRaster, type PictureNode } from '../../core/scene/scene.ts';
import type { WallContent } from '../wall-protocol.ts';
import { pathOf } from './outlines.ts';

/** Pictures as they came: up to 1280 pixels wide, some 6 MB each. */
const MAX_SOURCES = 60;
/** Smaller copies that pictures are scaled from, the smallest first, and what has to be left to scale from them. */
const REDUCTIONS = [4, 2] as const;
const LEFT_TO_SCALE = 1.25;
/** Pictures cropped and scaled to the pixels they fill in a cut. */
const MAX_SCALED = 120;

/** Pictures by what is shown of them, fetched and scaled by need. The oldest go first. */
export class PictureStore {
  readonly #sources = new LRUCache<string, Promise<ImageBitmap>>({ max: MAX_SOURCES, dispose: (source, address) => { this.#come.delete(address); void source.then((bitmap) => bitmap.close(), () => undefined); } });
  /** Addresses of sources that have come. */
  readonly #come = new Set<string>();
  readonly #scaled = new LRUCache<string, ImageBitmap>({ max: MAX_SCALED, dispose: (bitmap) => bitmap.close() });

  has(node: PictureNode, scale: number): boolean {
    return this.#scaled.has(keyOf(node, scale));
  }

  /** The picture of a node; while a new crop is on its way, the last one of about this size, which is better than a grey field. */
  get(node: PictureNode, scale: number): ImageBitmap | null {
    return this.#scaled.get(keyOf(node, scale)) ?? this.#scaled.find((bitmap, key) => key.startsWith(`${node.pictureId}|`) && key.endsWith(`@${scale}`) && bitmap.width === Math.round(node.box.widthPx * scale)) ?? null;
  }

  /** Whether a picture has come, and only has to be cropped and scaled. */
  isAtHand(node: PictureNode, { pictures }: WallContent): boolean {
    const wanted = pictures.find(({ picture }) => picture.id === node.pictureId);
    return wanted !== undefined && this.#come.has(wanted.address);
  }

  async fetch(node: PictureNode, scale: number, { pictures }: WallContent): Promise<void> {
    const wanted = pictures.find(({ picture }) => picture.id === node.pictureId);
    if (!wanted) throw new Error('A cut shows a picture that is not at hand');
    const target = pictureRaster(node, scale);
    const whole = await this.#source(wanted.address);
    const bitmap = await this.#reduced(wanted.address, whole, (node.window.width * whole.width) / target.widthPx);
    const scaled = await createImageBitmap(
      bitmap,
      Math.round(node.window.x * bitmap.width),
      Math.round(node.window.y * bitmap.height),
      Math.max(1, Math.round(node.window.width * bitmap.width)),
      Math.max(1, Math.round(node.window.height * bitmap.height)),
      { resizeWidth: target.widthPx, resizeHeight: target.heightPx, resizeQuality: 'high' },
    );
    this.#scaled.set(keyOf(node, scale), applyLooks(node, scale, scaled));
  }

  /**
   * The picture at a half or a quarter of its size, where that leaves enough to scale: most of the work of scaling is reading pixels, and a
   * new crop is wanted by every cut at once when a text takes another line.
   * @param reduction how many pixels of the whole picture fall on one that is wanted
   */
  async #reduced(address: string, whole: ImageBitmap, reduction: number): Promise<ImageBitmap> {
    const by = REDUCTIONS.find((each) => reduction >= each * LEFT_TO_SCALE);
    if (by === undefined) return whole;
    const key = `${address} 1/${by}`;
    const known = this.#sources.get(key);
    if (known) return known;
    const reduced = createImageBitmap(whole, { resizeWidth: Math.max(1, Math.round(whole.width / by)), resizeHeight: Math.max(1, Math.round(whole.height / by)), resizeQuality: 'high' });
    this.#sources.set(key, reduced);
    return reduced;
  }

  #source(address: string): Promise<ImageBitmap> {
    const known = this.#sources.get(address);
    if (known) return known;
    const source = fetch(address).then(async (response) => {
      if (!response.ok) throw new Error('A picture could not be loaded');
      const bitmap = await createImageBitmap(await response.blob());
      this.#come.add(address);
      return bitmap;
    });
    source.catch(() => this.#sources.delete(address));
    this.#sources.set(address, source);
    return source;
  }
}

function keyOf(node: PictureNode, scale: number): string {
  const { x, y, width, height } = node.window;
  const { widthPx, heightPx } = node.box;
  return `${node.pictureId}|${x}|${y}|${width}|${height}|${widthPx}x${heightPx}|${node.mask ?? ''}|${node.tone?.dark ?? ''}${node.tone?.light ?? ''}|${node.treatment ? JSON.stringify(node.treatment) : ''}@${scale}`;
}

/** Duotone, treatment and mask, for the pictures that have them. */
function applyLooks(node: PictureNode, scale: number, bitmap: ImageBitmap): ImageBitmap {
  if (!node.mask && !node.tone && !node.treatment) return bitmap;
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  const context = canvas.getContext('2d', { willReadFrequently: true });
  if (!context) throw new Error('This browser has no canvas for workers');
  context.drawImage(bitmap, 0, 0);
  bitmap.close();
  if (node.tone || node.treatment) {
    const image = context.getImageData(0, 0, canvas.width, canvas.height);
    if (node.tone) applyTone(image.data, node.tone);
    if (node.treatment) applyTreatment(image.data, node.treatment, { widthPx: canvas.width, heightPx: canvas.height, scale });
    context.putImageData(image, 0, 0);
  }
  maskPicture<Path2D>(context, node, scale, pathOf);
  return canvas.transferToImageBitmap();
}
