import { createCanvas, Path2D, type SKRSContext2D } from '@napi-rs/canvas';
import { paint } from '../../src/core/scene/paint.ts';
import type { ArtworkNode, GlyphsNode, Scene } from '../../src/core/scene/scene.ts';
import type { Typesetter } from '../../src/core/text/typesetter.ts';

/** Around ink lies what it is read against. */
export const NEAR_PX = 6;
/** A mask has room around it, so that whoever looks near its ink need not look where it ends. */
const MARGIN_PX = 2 * NEAR_PX;

/** Coverage of a node's ink in a part of the cut, a byte a pixel, with a margin of nothing around it. Coordinates are those of the cut. */
export interface Mask {
  readonly region: Region;
  readonly coverage: Uint8Array;
  /** Bytes a row. */
  readonly stride: number;
  /** Box of the pixels that are covered; null when there are none. */
  readonly box: Region | null;
}

export interface Region {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Ink fainter than this is an edge. */
const EDGE_COVERAGE = 64;

/** Where a pixel of the cut lies in the coverage of a mask. */
export function indexAt({ region, stride }: Mask, x: number, y: number): number {
  return (y - region.top + MARGIN_PX) * stride + (x - region.left + MARGIN_PX);
}

/**
 * Visits the pixels that are covered at least so much.
 * @param widthPx of the cut
 * @param visit gets the index of a pixel in the cut
 */
export function forEachCovered(mask: Mask, from: number, widthPx: number, visit: (at: number) => void): void {
  if (!mask.box) return;
  const { left, top, right, bottom } = mask.box;
  for (let y = top; y < bottom; y += 1) {
    for (let x = left, inMask = indexAt(mask, left, y); x < right; x += 1, inMask += 1) if ((mask.coverage[inMask] ?? 0) >= from) visit(y * widthPx + x);
  }
}

/** Paints one node alone, by the painter that paints all of them, and looks where its ink is. */
export function maskOf(scene: Scene, typesetter: Typesetter, node: GlyphsNode | ArtworkNode): Mask {
  const region = regionOf(node, scene);
  const [width, height] = [region.right - region.left, region.bottom - region.top];
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  paint<Path2D, never>(context as SKRSContext2D as never, { size: scene.size, nodes: [movedBy(node, -region.left, -region.top)] }, 1, {
    path: (data) => new Path2D(data),
    glyph: (fontKey, glyphId) => ({ path: glyphPath(typesetter, fontKey, glyphId), unitsPerEm: typesetter.unitsPerEm(fontKey) }),
    picture: () => null,
  });
  const { buffer, byteOffset } = canvas.data();
  const pixels = new Uint32Array(buffer, byteOffset, width * height);
  const stride = width + 2 * MARGIN_PX;
  const coverage = new Uint8Array(stride * (height + 2 * MARGIN_PX));
  let [left, top, right, bottom] = [width, height, -1, -1];
  for (let y = 0; y < height; y += 1) {
    const row = (y + MARGIN_PX) * stride + MARGIN_PX;
    for (let x = 0; x < width; x += 1) {
      const pixel = pixels[y * width + x] ?? 0;
      // Most of a region is empty.
      if (pixel === 0) continue;
      const value = pixel >>> ALPHA_BITS;
      coverage[row + x] = value;
      if (value < EDGE_COVERAGE) continue;
      if (x < left) left = x;
      if (x > right) right = x;
      if (y < top) top = y;
      if (y > bottom) bottom = y;
    }
  }
  return { region, coverage, stride, box: right < 0 ? null : { left: region.left + left, top: region.top + top, right: region.left + right + 1, bottom: region.top + bottom + 1 } };
}

/** A pixel's alpha is its last byte, the highest one of a number. */
const ALPHA_BITS = 24;

function movedBy(node: GlyphsNode | ArtworkNode, xPx: number, yPx: number): GlyphsNode | ArtworkNode {
  if (node.kind === 'artwork') return { ...node, xPx: node.xPx + xPx, yPx: node.yPx + yPx };
  return { ...node, glyphs: node.glyphs.map((glyph) => ({ ...glyph, xPx: glyph.xPx + xPx, yPx: glyph.yPx + yPx })) };
}

const glyphPaths = new Map<string, Path2D>();

function glyphPath(typesetter: Typesetter, fontKey: string, glyphId: number): Path2D {
  const key = `${fontKey}/${glyphId}`;
  const path = glyphPaths.get(key) ?? new Path2D(typesetter.outline(fontKey, glyphId));
  glyphPaths.set(key, path);
  return path;
}

/** The part of the cut that a node's ink can reach: far around the origins of its glyphs, or the box of its artwork. */
function regionOf(node: GlyphsNode | ArtworkNode, { size }: Scene): Region {
  const within = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, value));
  const clamp = (region: Region): Region => {
    const [left, top] = [within(Math.floor(region.left), 0, size.widthPx - 1), within(Math.floor(region.top), 0, size.heightPx - 1)];
    return { left, top, right: within(Math.ceil(region.right), left + 1, size.widthPx), bottom: within(Math.ceil(region.bottom), top + 1, size.heightPx) };
  };
  // How far artwork reaches is looked up in its pixels: to the edges of the cut.
  if (node.kind === 'artwork') return clamp({ left: node.xPx - 2, top: node.yPx - 2, right: size.widthPx, bottom: size.heightPx });
  const reach = node.sizePx * 1.6;
  const xs = node.glyphs.map((glyph) => glyph.xPx);
  const ys = node.glyphs.map((glyph) => glyph.yPx);
  return clamp({ left: Math.min(...xs) - reach, top: Math.min(...ys) - reach, right: Math.max(...xs) + reach, bottom: Math.max(...ys) + reach });
}
