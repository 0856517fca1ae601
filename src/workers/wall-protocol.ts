import type { BrandBook } from '../core/brand/brand-book.ts';
import type { CutReport } from '../core/compose/report.ts';
import type { Picture } from '../core/crop/crop-window.ts';
import type { Size } from '../core/geometry/box.ts';
import type { Placement } from '../core/network/network-sheet.ts';
import type { Adjustment } from '../core/piece/adjustment.ts';
import type { Frame } from '../core/piece/piece.ts';
import type { ShotMoment } from '../core/video/motion.ts';
import type { TransitionKind } from '../core/piece/shot.ts';
import type { SlidePlace } from '../core/piece/slides-of-cut.ts';
import type { Template } from '../core/template/template.ts';

/** A cut that the wall shows, what it is made of, and how large. */
export interface WantedCut {
  readonly key: string;
  readonly template: Template;
  readonly frame: Frame;
  readonly placement: Placement;
  readonly adjustment: Adjustment;
  /** Slides of one run are fitted together; a graphic runs alone. */
  readonly run: string;
  readonly place: SlidePlace;
  /** The kind of slide: those of one kind share their type sizes. */
  readonly family: string;
  /** Pixels of the canvas a pixel of the cut; 1 is full size. */
  readonly scale: number;
  /** It is fitted and reported on along with its run, but not painted. */
  readonly unseen?: true | undefined;
  /** It shows its hints, whatever the others do: nothing is in it yet. */
  readonly blank?: true | undefined;
  /** Its report says where the parts of its arrangement stand. */
  readonly wantsParts?: true | undefined;
  /** A shot of a video at one of its frames. */
  readonly moment?: WantedMoment | undefined;
}

/** Which frame of a shot is shown, and what it takes over from. */
export interface WantedMoment extends ShotMoment {
  /** The shot before, by the key of its wanted cut, and how far this one has taken over. */
  readonly over?: { readonly key: string; readonly kind: TransitionKind; readonly progress: number } | undefined;
  /** The line of subtitles that is laid over it, and the shots that it lies over while it is shown, by the keys of their wanted cuts. */
  readonly subtitle?: { readonly key: string; readonly over: readonly string[]; /** The word that is spoken, counted from 0. */ readonly word: number } | undefined;
}

/** The picture of a clip at the moment that is painted. */
export interface ClipPicture {
  readonly mediaId: string;
  readonly bitmap: ImageBitmap;
}

/** What all cuts of a wall are made of. It changes seldom and is large, so it is sent once and then referred to. */
export interface WallContent {
  readonly book: BrandBook;
  readonly pictures: readonly { readonly picture: Picture; readonly address: string }[];
  /** Where the brand's own typefaces are fetched, by key. */
  readonly typefaces: Readonly<Record<string, string>>;
}

/** Paint these cuts of the content sent last; a newer request of the same wall makes an older one void. */
export interface PaintRequest {
  readonly kind: 'paint';
  readonly id: number;
  readonly cuts: readonly WantedCut[];
  /** Whether empty texts show their hint. */
  readonly ghosts: boolean;
  /** Somebody writes in what is shown: the painter rehearses while it has nothing else to do. */
  readonly isWrittenIn?: true | undefined;
  /** Keys of the cuts that are sent even if they have not changed: another painter had them, or (all of them) a canvas has come anew. */
  readonly again: 'all' | readonly string[];
  /** What clips show now; missing: their stills. */
  readonly clipPictures?: readonly ClipPicture[] | undefined;
}

/** A message to a painter. */
export type PainterMessage = { readonly kind: 'content'; readonly content: WallContent } | PaintRequest;

/** Painted pixels: a whole cut, or the part of it that has changed since it was painted before. */
export interface PaintedPixels {
  readonly image: ImageData;
  /** Where they begin in the cut, in pixels of the canvas. */
  readonly xPx: number;
  readonly yPx: number;
  /** The size of the whole cut. */
  readonly whole: Size;
}

/** A cut as it looks now; settled, once its pictures are there. */
export interface PaintedCut {
  readonly key: string;
  /** Null for what is not painted. */
  readonly pixels: PaintedPixels | null;
  readonly report: CutReport;
  readonly settled: boolean;
}

export type WallMessage =
  | { readonly kind: 'painted'; readonly id: number; readonly cuts: readonly PaintedCut[] }
  /** All cuts of a request are painted, pictures and all. */
  | { readonly kind: 'done'; readonly id: number; readonly tookMs: number }
  | { readonly kind: 'failed'; readonly id: number; readonly sentence: string };
