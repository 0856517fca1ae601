import type { BrandBook } from '../../core/brand/brand-book.ts';
import { cutFrame } from '../../core/compose/cut-frame.ts';
import type { Composed } from '../../core/compose/compose.ts';
import { clampBox, growBox, snapBoxOutward, type Box, type Size } from '../../core/geometry/box.ts';
import { changedBox } from '../../core/scene/changed-box.ts';
import type { ReachOf } from '../../core/scene/node-box.ts';
import { paint, type PaintAssets } from '../../core/scene/paint.ts';
import { raiseScene } from '../../core/scene/raise-scene.ts';
import { sceneInBox } from '../../core/scene/scene-in-box.ts';
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
import type { PaintedPixels, WantedCut } from '../wall-protocol.ts';
import { glyphPath, pathOf } from './outlines.ts';
import type { PictureStore } from './picture-store.ts';

/** What clips show now, by their media. */
export type ClipPictures = ReadonlyMap<string, ImageBitmap>;
/** The cuts of a request by key: a transition shows two of them, a subtitle lies over another. */
export type ComposedCuts = ReadonlyMap<string, { readonly cut: WantedCut; readonly composed: Composed }>;

/** A photograph that moves is kept this much larger than it is shown: its parts are scaled anew with every frame. */
const MOVING_DETAIL = 1.6;

/** Room around what changes for its smoothed edge, in pixels of the canvas. */
const SMOOTHED_PX = 2;

/** Where more of a cut changes than this share, it is painted whole. */
const MOST_CHANGED = 0.8;

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

  /**
   * The pixels of a cut. Reading them from a canvas that is kept costs less than making it a bitmap.
   * @param now what the page shows of it: then what has changed is painted alone
   */
  paint(cut: WantedCut, composed: Composed, context: PaintContext, now: Composed | null): PaintedPixels {
    const part = now && this.#changedPixels(cut, now, composed);
    if (part) return this.#part(cut, composed, context, part);
    const shown = this.#shot(cut, composed, context, 'shown');
    const { width, height } = shown.canvas;
    const over = cut.moment?.over;
    const before = over && context.all.get(over.key);
    const surface = over && before ? this.#mixed(cut, composed, this.#shot(before.cut, before.composed, context, 'before'), shown, context) : shown;
    this.#subtitle(surface, cut, context);
    return { image: surface.context.getImageData(0, 0, width, height), xPx: 0, yPx: 0, whole: { widthPx: width, heightPx: height } };
  }

  /** Pixels of the canvas around what differs from before, at least one; null where painting all costs as much. */
  #changedPixels({ scale }: WantedCut, before: Composed, { scene }: Composed): Box | null {
    const whole = canvasSize(scene, scale);
    const changed = changedBox(before.scene, scene, this.#reachOf);
    if (!changed) return { xPx: 0, yPx: 0, widthPx: 1, heightPx: 1 };
    const scaled: Box = { xPx: changed.xPx * scale, yPx: changed.yPx * scale, widthPx: changed.widthPx * scale, heightPx: changed.heightPx * scale };
    const part = clampBox(growBox(snapBoxOutward(scaled), SMOOTHED_PX), whole);
    return part.widthPx * part.heightPx < MOST_CHANGED * whole.widthPx * whole.heightPx ? part : null;
  }

  /** A part of a cut, from a canvas that may show another cut around it. */
  #part(cut: WantedCut, { scene }: Composed, { clipPictures }: PaintContext, part: Box): PaintedPixels {
    const { xPx, yPx, widthPx, heightPx } = part;
    const whole = canvasSize(scene, cut.scale);
    const { context } = surfaceOf('shown', whole.widthPx, whole.heightPx);
    this.#scene(context, sceneInBox(scene, inCut(growBox(part, SMOOTHED_PX), cut.scale), this.#reachOf), cut.scale, clipPictures, part);
    return { image: context.getImageData(xPx, yPx, widthPx, heightPx), xPx, yPx, whole };
  }

  readonly #reachOf: ReachOf = (fontKey, glyphId) => this.typesetter.glyphReach(fontKey, glyphId);

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
    const { widthPx, heightPx } = canvasSize(scene, cut.scale);
    const surface = surfaceOf(use, widthPx, heightPx);
    this.#scene(surface.context, cut.moment ? sceneAt(scene, cut.moment, mannerOf(book.video)) : scene, cut.scale, clipPictures);
    return surface;
  }

  #scene(context: OffscreenCanvasRenderingContext2D, scene: Scene, scale: number, clipPictures: ClipPictures, part?: Box): void {
    const assets: PaintAssets<Path2D, ImageBitmap | OffscreenCanvas> = {
      path: pathOf,
      glyph: (fontKey, glyphId) => ({ path: glyphPath(this.typesetter, fontKey, glyphId), unitsPerEm: this.typesetter.unitsPerEm(fontKey) }),
      picture: (node, at) => clipPart(node, at, clipPictures) ?? (node.part ? this.#movingPart(node, at) : this.pictures.get(node, at)),
    };
    paint(context, scene, scale, assets, part);
  }

  /** The part of a photograph that is shown while it moves, at the pixels it fills. */
  #movingPart(node: PictureNode, scale: number): OffscreenCanvas | null {
    const bitmap = this.pictures.get(node, scale * MOVING_DETAIL);
    return node.part && bitmap ? drawPart(bitmap, node.part, node, scale).canvas : null;
  }
}

/** Whole pixels only: a last one that the scene covers in part would show as a dark edge. */
function canvasSize({ size }: Scene, scale: number): Size {
  const wholePixels = (lengthPx: number): number => Math.max(1, Math.floor(lengthPx * scale + 1e-6));
  return { widthPx: wholePixels(size.widthPx), heightPx: wholePixels(size.heightPx) };
}

/** A box in pixels of the canvas, in pixels of the cut. */
function inCut({ xPx, yPx, widthPx, heightPx }: Box, scale: number): Box {
  return { xPx: xPx / scale, yPx: yPx / scale, widthPx: widthPx / scale, heightPx: heightPx / scale };
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
