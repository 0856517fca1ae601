import type { BrandBook } from '../../core/brand/brand-book.ts';
import { cutFrame } from '../../core/compose/cut-frame.ts';
import type { Composed } from '../../core/compose/compose.ts';
import { paint } from '../../core/scene/paint.ts';
import { raiseScene } from '../../core/scene/raise-scene.ts';
import { pictureRaster, type PictureNode, type Scene } from '../../core/scene/scene.ts';
import type { Typesetter } from '../../core/text/typesetter.ts';
import { applyTreatment, movingTreatment } from '../../core/scene/treatment.ts';
import { blend } from '../../core/video/blend.ts';
import { mannerOf } from '../../core/video/manner.ts';
import { sceneAt } from '../../core/video/motion.ts';
import { moves } from '../../core/video/movement.ts';
import { subtitleRisePx } from '../../core/video/place-subtitle.ts';
import { styledSubtitle, subtitleStyle, type SubtitleStyle } from '../../core/video/subtitle-style.ts';
import { sweepBand, sweepLeftPx } from '../../core/video/sweep.ts';
import { surfaceOf, type Surface } from '../surfaces.ts';
import type { WantedCut } from '../wall-protocol.ts';
import { glyphPath, pathOf } from './outlines.ts';
import type { PictureStore } from './picture-store.ts';

/** What clips show now, by their media. */
export type ClipPictures = ReadonlyMap<string, ImageBitmap>;
/** The cuts of a request by key: a transition shows two of them, a subtitle lies over another. */
export type ComposedCuts = ReadonlyMap<string, { readonly cut: WantedCut; readonly composed: Composed }>;

/** A photograph that moves is kept this much larger than it is shown: its parts are scaled anew with every frame. */
const MOVING_DETAIL = 1.6;

/** What the cuts of one request are painted from. */
export interface PaintContext {
  readonly all: ComposedCuts;
  readonly clipPictures: ClipPictures;
  readonly book: BrandBook;
}

/** Paints composed cuts with the painter that the server uses as well. */
export class CutPainter {
  constructor(
    readonly typesetter: Typesetter,
    readonly pictures: PictureStore,
  ) {}

  /** The pixels of a cut. Reading them from a canvas that is kept costs less than making it a bitmap. */
  paint(cut: WantedCut, composed: Composed, context: PaintContext): ImageData {
    const shown = this.#shot(cut, composed, context, 'shown');
    const { width, height } = shown.canvas;
    const over = cut.moment?.over;
    const before = over && context.all.get(over.key);
    const surface = over && before ? this.#mixed(cut, composed, this.#shot(before.cut, before.composed, context, 'before'), shown, context) : shown;
    this.#subtitle(surface, cut, context);
    return surface.context.getImageData(0, 0, width, height);
  }

  #style: { readonly book: BrandBook; readonly style: SubtitleStyle } | null = null;

  /** Looked up once a book, as every frame asks for it. */
  #styleOf(book: BrandBook): SubtitleStyle {
    if (this.#style?.book !== book) this.#style = { book, style: subtitleStyle(book) };
    return this.#style.style;
  }

  /** The line of subtitles over a shot, where it covers no words. */
  #subtitle(surface: Surface, { moment, scale, placement }: WantedCut, { all, book }: PaintContext): void {
    const subtitle = moment?.subtitle;
    const line = subtitle && all.get(subtitle.key);
    if (!line) return;
    const behind = subtitle.over.flatMap((key) => all.get(key)?.composed.report ?? []);
    const rise = subtitleRisePx(line.composed.report, behind, cutFrame(placement));
    this.#scene(surface.context, raiseScene(styledSubtitle(line.composed.scene, this.#styleOf(book), subtitle.word, this.typesetter), rise), scale, new Map());
  }

  /** The pictures of a cut that are not at hand at the scale it needs. */
  missing(cut: WantedCut, { scene }: Composed, clipPictures: ClipPictures): readonly { readonly node: PictureNode; readonly scale: number }[] {
    return scene.nodes.flatMap((node) => {
      if (node.kind !== 'picture' || clipPictures.has(node.pictureId)) return [];
      const scale = detailOf(cut, node);
      return this.pictures.has(node, scale) ? [] : [{ node, scale }];
    });
  }

  /** One shot taking over from another. */
  #mixed(cut: WantedCut, { scene }: Composed, behind: Surface, shown: Surface, { book }: PaintContext): Surface {
    const over = cut.moment?.over;
    const size = { width: shown.canvas.width, height: shown.canvas.height };
    const mixed = surfaceOf('mixed', size.width, size.height);
    if (!over) return shown;
    blend<OffscreenCanvas>(mixed.context, behind.canvas, shown.canvas, over, size);
    if (over.kind === 'sweep') this.#sweep(mixed.context, cut.scale, scene.size, over.progress, book);
    return mixed;
  }

  /** The band of a sweep, where it is. */
  #sweep(context: OffscreenCanvasRenderingContext2D, scale: number, size: Scene['size'], progress: number, book: BrandBook): void {
    const band = sweepBand(book, size);
    const surface = surfaceOf('band', Math.round(band.size.widthPx * scale), Math.round(band.size.heightPx * scale));
    this.#scene(surface.context, band, scale, new Map());
    context.drawImage(surface.canvas, Math.round(sweepLeftPx(progress, size.widthPx, band.size.widthPx) * scale), 0);
  }

  #shot(cut: WantedCut, { scene }: Composed, { clipPictures, book }: PaintContext, use: string): Surface {
    // Whole pixels only: a last one that the scene covers in part would show as a dark edge.
    const wholePixels = (lengthPx: number): number => Math.max(1, Math.floor(lengthPx * cut.scale + 1e-6));
    const surface = surfaceOf(use, wholePixels(scene.size.widthPx), wholePixels(scene.size.heightPx));
    this.#scene(surface.context, cut.moment ? sceneAt(scene, cut.moment, mannerOf(book.video)) : scene, cut.scale, clipPictures);
    return surface;
  }

  #scene(context: OffscreenCanvasRenderingContext2D, scene: Scene, scale: number, clipPictures: ClipPictures): void {
    paint<Path2D, ImageBitmap | OffscreenCanvas>(context, scene, scale, {
      path: pathOf,
      glyph: (fontKey, glyphId) => ({ path: glyphPath(this.typesetter, fontKey, glyphId), unitsPerEm: this.typesetter.unitsPerEm(fontKey) }),
      picture: (node, at) => clipPart(node, at, clipPictures) ?? (node.part ? this.#movingPart(node, at) : this.pictures.get(node, at)),
    });
  }

  /** The part of a photograph that is shown while it moves, at the pixels it fills. */
  #movingPart(node: PictureNode, scale: number): OffscreenCanvas | null {
    const bitmap = this.pictures.get(node, scale * MOVING_DETAIL);
    return node.part && bitmap ? drawPart(bitmap, node.part, node, scale).canvas : null;
  }
}

/** The scale at which a picture of a cut is kept. */
function detailOf({ moment, scale }: WantedCut, node: PictureNode): number {
  return moment && moves(node, moment.movements.get(node.pictureId)) ? scale * MOVING_DETAIL : scale;
}

/** The part of a clip's picture that a node shows, at the pixels it fills; null for what is no clip. */
function clipPart(node: PictureNode, scale: number, clipPictures: ClipPictures): OffscreenCanvas | null {
  const bitmap = clipPictures.get(node.pictureId);
  if (!bitmap) return null;
  const surface = drawPart(bitmap, node.window, node, scale);
  const treatment = movingTreatment(node.treatment);
  if (treatment) {
    const { width: widthPx, height: heightPx } = surface.canvas;
    const image = surface.context.getImageData(0, 0, widthPx, heightPx);
    applyTreatment(image.data, treatment, { widthPx, heightPx, scale });
    surface.context.putImageData(image, 0, 0);
  }
  return surface.canvas;
}

function drawPart(bitmap: ImageBitmap, { x, y, width, height }: PictureNode['window'], node: PictureNode, scale: number): Surface {
  const { widthPx, heightPx } = pictureRaster(node, scale);
  const surface = surfaceOf('clip', widthPx, heightPx);
  const { context } = surface;
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, x * bitmap.width, y * bitmap.height, width * bitmap.width, height * bitmap.height, 0, 0, widthPx, heightPx);
  return surface;
}
