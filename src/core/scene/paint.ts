import type { Box } from '../geometry/box.ts';
import { fadeStyle, type GradientContext } from './fade.ts';
import { drawShadowed, type ShadowContext } from './shadow.ts';
import { pictureRaster, type ArtworkNode, type GlyphsNode, type PictureNode, type Scene } from './scene.ts';

/** What the painter uses of a 2D canvas; the browser's and the server's both have it. */
export interface PaintContext<Path, Bitmap> extends ShadowContext, GradientContext {
  fillStyle: unknown;
  globalAlpha: number;
  save(): void;
  restore(): void;
  beginPath(): void;
  rect(x: number, y: number, width: number, height: number): void;
  clip(): void;
  strokeStyle: unknown;
  lineWidth: number;
  lineJoin: 'round' | 'bevel' | 'miter';
  stroke(path: Path): void;
  setTransform(a: number, b: number, c: number, d: number, e: number, f: number): void;
  fill(path: Path, rule?: 'nonzero' | 'evenodd'): void;
  fillRect(x: number, y: number, width: number, height: number): void;
  drawImage(bitmap: Bitmap, x: number, y: number): void;
}

/** What a scene needs from outside: outlines as paths, and pictures already scaled to the pixels they fill. */
export interface PaintAssets<Path, Bitmap> {
  path(data: string): Path;
  glyph(fontKey: string, glyphId: number): { readonly path: Path; readonly unitsPerEm: number };
  /** The bitmap of a picture node at this scale, or null while it is on its way. */
  picture(node: PictureNode, scale: number): Bitmap | null;
}

/** Colour shown where a picture is still on its way. */
const PENDING_PICTURE = '#8a8c90';

/**
 * Paints a scene. The only painter: preview and export both end here.
 * @param scale pixels of the canvas a pixel of the cut
 * @param part the pixels of the canvas that are wanted, where not all are: pictures, most of the work, are painted there alone. Outlines are
 *   painted whole, as a canvas smooths those that it cuts off a little differently
 */
export function paint<Path, Bitmap>(context: PaintContext<Path, Bitmap>, scene: Scene, scale: number, assets: PaintAssets<Path, Bitmap>, part?: Box): void {
  context.save();
  for (const node of scene.nodes) {
    context.setTransform(scale, 0, 0, scale, 0, 0);
    switch (node.kind) {
      case 'fill':
        context.globalAlpha = node.alpha;
        context.fillStyle = node.fade ? fadeStyle(context, node.fade, node.colour) : node.colour;
        context.fill(assets.path(node.path));
        break;
      case 'picture':
        paintPicture(context, node, scale, assets, part);
        break;
      case 'glyphs':
        insideOf(context, node.within, scale, () => paintGlyphs(context, node, scale, assets));
        break;
      case 'artwork':
        insideOf(context, node.within, scale, () => paintArtwork(context, node, scale, assets));
        break;
    }
  }
  context.restore();
}

/** Paints what lies inside a box, given in pixels of the cut where `scale` is that of the scene, and of the canvas where it is 1; all of it where there is none. */
function insideOf<Path, Bitmap>(context: PaintContext<Path, Bitmap>, box: Box | undefined, scale: number, draw: () => void): void {
  if (!box) return draw();
  context.save();
  context.setTransform(scale, 0, 0, scale, 0, 0);
  context.beginPath();
  context.rect(box.xPx, box.yPx, box.widthPx, box.heightPx);
  context.clip();
  draw();
  context.restore();
}

function paintPicture<Path, Bitmap>(context: PaintContext<Path, Bitmap>, node: PictureNode, scale: number, assets: PaintAssets<Path, Bitmap>, part: Box | undefined): void {
  const raster = pictureRaster(node, scale);
  const bitmap = assets.picture(node, scale);
  context.globalAlpha = 1;
  context.setTransform(1, 0, 0, 1, 0, 0);
  if (bitmap !== null) {
    // One to one: how a canvas smooths a scaled picture differs between browsers and servers.
    const draw = (): void => context.drawImage(bitmap, raster.xPx, raster.yPx);
    if (node.shadow) drawShadowed(context, node.shadow, scale, draw);
    else insideOf(context, part, 1, draw);
    return;
  }
  context.fillStyle = PENDING_PICTURE;
  context.fillRect(raster.xPx, raster.yPx, raster.widthPx, raster.heightPx);
}

function paintGlyphs<Path, Bitmap>(context: PaintContext<Path, Bitmap>, node: GlyphsNode, scale: number, assets: PaintAssets<Path, Bitmap>): void {
  const { alpha, colour, edge, glyphs, sizePx } = node;
  const each = (draw: (path: Path, unitPx: number) => void): void => {
    for (const glyph of glyphs) {
      const { path, unitsPerEm } = assets.glyph(glyph.fontKey, glyph.id);
      const unit = (sizePx / unitsPerEm) * scale;
      context.setTransform(unit, 0, 0, -unit, glyph.xPx * scale, glyph.yPx * scale);
      draw(path, sizePx / unitsPerEm);
    }
  };
  context.globalAlpha = alpha;
  // Edges come first: that of one letter lies under the next one.
  if (edge) {
    context.strokeStyle = edge.colour;
    context.lineJoin = 'round';
    each((path, unitPx) => {
      context.lineWidth = edge.widthPx / unitPx;
      context.stroke(path);
    });
  }
  context.fillStyle = colour;
  each((path) => context.fill(path));
}

function paintArtwork<Path, Bitmap>(context: PaintContext<Path, Bitmap>, node: ArtworkNode, scale: number, assets: PaintAssets<Path, Bitmap>): void {
  context.globalAlpha = node.alpha ?? 1;
  const unit = node.scale * scale;
  context.setTransform(unit, 0, 0, unit, node.xPx * scale, node.yPx * scale);
  for (const each of node.paths) {
    context.fillStyle = each.fill;
    context.fill(assets.path(each.d), each.evenOdd ? 'evenodd' : 'nonzero');
  }
}
