import type { ResolvedScheme } from '../brand/brand-book.ts';
import { relativeLuminance } from '../colour/contrast.ts';
import { clearWindow } from '../crop/clear-window.ts';
import { centredCropWindow, cropWindow, ownCropWindow, windowWithin, type CropWindow, type Picture } from '../crop/crop-window.ts';
import { isCutOut } from '../crop/picture-facts.ts';
import { clampBox, snapBoxOutward, type Box } from '../geometry/box.ts';
import type { OwnCrop } from '../piece/adjustment.ts';
import type { SlidePlace } from '../piece/slides-of-cut.ts';
import type { Tone } from '../scene/scene.ts';
import { softShadow, type Shadow } from '../scene/shadow.ts';
import type { Treatment } from '../scene/treatment.ts';
import type { Edge, PicturePart } from '../template/parts.ts';
import type { CutFrame } from './cut-frame.ts';
import { ownWindowPath, rectPath, windowPath } from './part-outlines.ts';
import { throughBox } from './through-box.ts';
import { uncovered } from './uncovered.ts';

/** A round window leaves a rim of the disc behind it. */
const DISC_SHARE = 0.94;
const WHOLE = { x: 0, y: 0, width: 1, height: 1 };

export interface PlaceOfPicture {
  readonly frame: CutFrame;
  readonly slide: SlidePlace;
  readonly scheme: ResolvedScheme;
  /** What lies over pictures: a crop keeps the subject out of it. */
  readonly covers: readonly Box[];
  /** A crop that a person has moved in this cut. */
  readonly own: OwnCrop | undefined;
  /** What the brand does to this photograph. */
  readonly treatment: Treatment | undefined;
}

/** How a picture is shown in its place. */
export interface ShownPicture {
  readonly box: Box;
  /** What this slide shows of a picture that runs through all of them behind the words between them; missing: all that lies on the slide. */
  readonly seen?: { readonly box: Box; readonly window: CropWindow } | undefined;
  readonly window: CropWindow;
  /** Path that clips the picture; undefined clips it to `box`. */
  readonly mask: string | undefined;
  readonly tone: Tone | undefined;
  readonly treatment: Treatment | undefined;
  readonly shadow?: Shadow | undefined;
  /** The picture has a transparent ground, so what lies behind it stays visible. */
  readonly isCutOut: boolean;
  /** Shown width divided by the source pixels in that width. */
  readonly enlargedBy: number;
}

/** Shows a picture in the place that the layout has for its part: in a window, over all slides, through a disc, or cut out. */
export function showPicture(part: PicturePart, picture: Picture, visible: Box, place: PlaceOfPicture): ShownPicture {
  // What a template shows in two inks has its treatment.
  if (part.duotone) return { ...placed(part, picture, visible, place), tone: duotoneOf(place.scheme) };
  return { ...placed(part, picture, visible, place), treatment: place.treatment };
}

function placed(part: PicturePart, picture: Picture, visible: Box, place: PlaceOfPicture): ShownPicture {
  if (part.through) return overAllSlides(picture, visible, place);
  if (part.whole) {
    if (!isCutOut(picture.facts)) return inDisc(picture, visible, place);
    const { ground, ink } = place.scheme;
    return { ...cutOut(picture, visible), ...(part.shadow ? { shadow: softShadow(relativeLuminance(ground) < relativeLuminance(ink) ? ground : ink, place.frame.marginPx) } : {}) };
  }
  const box = boxUnderNeighbours(part, visible, place.frame);
  const window = place.own ? ownCropWindow(picture, box, place.own) : foundWindow(part, picture, box, uncovered(visible, place.covers));
  return { ...shown(picture, box, window), mask: maskOf(part, box, place.frame) };
}

function foundWindow(part: PicturePart, picture: Picture, box: Box, seen: readonly [Box, ...Box[]]): CropWindow {
  return (part.window === 'circle' ? centredCropWindow(picture, box) : null) ?? clearWindow(picture, box, seen);
}

/** The outline to fill while no picture is chosen; null for cut-outs, which show only the disc behind them. */
export function emptyPlace(part: PicturePart, visible: Box, frame: CutFrame): { readonly path: string; readonly box: Box } | null {
  if (part.through) {
    const seen = snapBoxOutward(visible);
    return { path: rectPath(seen), box: seen };
  }
  if (part.whole) return null;
  const box = boxUnderNeighbours(part, visible, frame);
  return { path: maskOf(part, box, frame) ?? rectPath(box), box };
}

/** The outline of a picture's window; undefined where it fills its box. */
function maskOf({ outline, window }: PicturePart, box: Box, { marginPx }: CutFrame): string | undefined {
  if (outline) return ownWindowPath(outline, box);
  return window ? windowPath(window, box, marginPx) : undefined;
}

/** Pictures reach under their neighbours' slanted edges. */
function boxUnderNeighbours(part: PicturePart, visible: Box, { marginPx, size }: CutFrame): Box {
  const under = (edge: Edge): number => (part.underM?.[edge] ?? 0) * marginPx;
  return clampBox(
    snapBoxOutward({
      xPx: visible.xPx - under('left'),
      yPx: visible.yPx - under('top'),
      widthPx: visible.widthPx + under('left') + under('right'),
      heightPx: visible.heightPx + under('top') + under('bottom'),
    }),
    size,
  );
}

function shown(picture: Picture, box: Box, window: CropWindow): ShownPicture {
  return { box, window, mask: undefined, tone: undefined, treatment: undefined, isCutOut: false, enlargedBy: box.widthPx / (window.width * picture.widthPx) };
}

/**
 * A picture over all slides of the cut, of which this one shows its part. It is cropped and scaled once, for all of them: the
 * seams meet by themselves.
 */
function overAllSlides(picture: Picture, visible: Box, { frame, slide, own }: PlaceOfPicture): ShownPicture {
  const here = snapBoxOutward(visible);
  const box = throughBox(here, slide);
  const window = own ? ownCropWindow(picture, box, own) : cropWindow(picture, box, box);
  return { ...shown(picture, box, window), ...(here.widthPx < frame.size.widthPx ? { seen: { box: here, window: windowWithin(window, box, here) } } : {}) };
}

/** A photograph where a cut-out is meant: through a round window as large as its place. */
function inDisc(picture: Picture, place: Box, { frame, covers, own }: PlaceOfPicture): ShownPicture {
  const sidePx = Math.min(place.widthPx, place.heightPx) * DISC_SHARE;
  const box = { xPx: place.xPx + (place.widthPx - sidePx) / 2, yPx: place.yPx + (place.heightPx - sidePx) / 2, widthPx: sidePx, heightPx: sidePx };
  const window = own ? ownCropWindow(picture, box, own) : clearWindow(picture, box, uncovered(box, covers));
  return { ...shown(picture, box, window), mask: windowPath('circle', box, frame.marginPx) };
}

/** A cut-out stands whole in the middle of its place, on what lies behind it. */
function cutOut(picture: Picture, place: Box): ShownPicture {
  const scale = Math.min(place.widthPx / picture.widthPx, place.heightPx / picture.heightPx);
  const [widthPx, heightPx] = [picture.widthPx * scale, picture.heightPx * scale];
  const box = { xPx: place.xPx + (place.widthPx - widthPx) / 2, yPx: place.yPx + (place.heightPx - heightPx) / 2, widthPx, heightPx };
  return { box, window: WHOLE, mask: undefined, tone: undefined, treatment: undefined, isCutOut: true, enlargedBy: scale };
}

/** Shadows in the darker of ground and ink, lights in the other: a duotone is never a negative. */
function duotoneOf(scheme: ResolvedScheme): Tone {
  const groundIsDark = relativeLuminance(scheme.ground) < relativeLuminance(scheme.ink);
  return groundIsDark ? { dark: scheme.ground, light: scheme.ink } : { dark: scheme.ink, light: scheme.ground };
}
