import type { ArtworkPath } from '../artwork/artwork.ts';
import type { CropWindow } from '../crop/crop-window.ts';
import type { Box, Size } from '../geometry/box.ts';
import type { Fade } from './fade.ts';
import type { Shadow } from './shadow.ts';
import type { Treatment } from './treatment.ts';

/** A closed outline as SVG path data in pixels of the cut. */
export type PathData = string;

export interface FillNode {
  readonly kind: 'fill';
  readonly path: PathData;
  readonly colour: string;
  readonly alpha: number;
  /** Where it comes and goes; missing: it is even. */
  readonly fade?: Fade | undefined;
}

/** A picture painted into a box of whole pixels, showing the window of it. */
export interface PictureNode {
  readonly kind: 'picture';
  readonly pictureId: string;
  readonly box: Box;
  readonly window: CropWindow;
  /** Only what lies inside this outline is shown. */
  readonly mask?: PathData | undefined;
  /** The picture in two colours instead of its own. */
  readonly tone?: Tone | undefined;
  /** What the brand does to its photographs. */
  readonly treatment?: Treatment | undefined;
  /** A subject on nothing, shown whole. */
  readonly cutOut?: true | undefined;
  /** The shadow below it. */
  readonly shadow?: Shadow | undefined;
  /** The part of the window that is shown, as shares of it, while the picture moves; missing: all of it. */
  readonly part?: CropWindow | undefined;
}

/** The two colours of a duotone: shadows and lights. */
export interface Tone {
  readonly dark: string;
  readonly light: string;
}

/** A glyph outline of a typeface; the point is its origin on the baseline. */
export interface SceneGlyph {
  readonly fontKey: string;
  readonly id: number;
  readonly xPx: number;
  readonly yPx: number;
  /** The line and the word of its text, counted from 0; ornaments have none. */
  readonly line?: number | undefined;
  readonly word?: number | undefined;
}

export interface GlyphsNode {
  readonly kind: 'glyphs';
  readonly sizePx: number;
  readonly colour: string;
  readonly alpha: number;
  readonly glyphs: readonly SceneGlyph[];
  /** The slot whose text these glyphs are, where they are to be read; ornaments have none. */
  readonly slot?: string | undefined;
  /** An outline around the letters, painted below them. */
  readonly edge?: { readonly colour: string; readonly widthPx: number } | undefined;
  /** The text is read from right to left. */
  readonly rightToLeft?: true | undefined;
  /** Only what lies inside this box is shown, while the text moves. */
  readonly within?: Box | undefined;
}

/** Vector artwork in its own coordinates, moved and scaled to its place. */
export interface ArtworkNode {
  readonly kind: 'artwork';
  readonly xPx: number;
  readonly yPx: number;
  readonly scale: number;
  readonly paths: readonly ArtworkPath[];
  /** The text that it stands in, for an emoji. */
  readonly text?: { readonly slot: string; readonly line: number; readonly word: number; readonly sizePx: number } | undefined;
  /** Missing: 1. */
  readonly alpha?: number | undefined;
  readonly within?: Box | undefined;
}

export type SceneNode = FillNode | PictureNode | GlyphsNode | ArtworkNode;

/** A cut with nothing left to decide: nodes in painting order, in pixels of the export size. */
export interface Scene {
  readonly size: Size;
  readonly nodes: readonly SceneNode[];
}

/** The pixels, rounded outward from nothing, that a picture node fills when the scene is painted at `scale`. */
export function pictureRaster(node: PictureNode, scale: number): { xPx: number; yPx: number; widthPx: number; heightPx: number } {
  const xPx = Math.round(node.box.xPx * scale);
  const yPx = Math.round(node.box.yPx * scale);
  return {
    xPx,
    yPx,
    widthPx: Math.max(1, Math.round((node.box.xPx + node.box.widthPx) * scale) - xPx),
    heightPx: Math.max(1, Math.round((node.box.yPx + node.box.heightPx) * scale) - yPx),
  };
}
