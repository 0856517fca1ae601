import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import type { CropWindow } from '../../core/crop/crop-window.ts';
import type { Box, Size } from '../../core/geometry/box.ts';
import type { Scene, SceneNode } from '../../core/scene/scene.ts';
import type { Typesetter } from '../../core/text/typesetter.ts';
import { risePx, type ShotMoment, type TextTimes } from '../../core/video/motion.ts';
import { planShot, type PlanLayer, type WindowPath } from '../../core/video/render-plan.ts';
import { paintLayer, type PictureSource } from '../render/canvas-painter.ts';

/** A layer as files: what was painted, and where it stands, in pixels of the cut. */
export type PaintedLayer =
  | { readonly kind: 'still'; readonly file: string; readonly box: Box }
  | { readonly kind: 'text'; readonly file: string; readonly box: Box; readonly times: TextTimes; readonly risePx: number }
  | { readonly kind: 'film'; readonly mediaId: string; readonly box: Box; readonly path: WindowPath }
  /** A photograph of which a part is shown, from one to another over the length of the shot. */
  | { readonly kind: 'moving'; readonly file: string; readonly box: Box; readonly from: CropWindow; readonly to: CropWindow };

export interface PaintedShot {
  readonly lengthFrames: number;
  readonly layers: readonly PaintedLayer[];
}

/** How a shot plays, as far as painting has to know. */
export type ShotTimes = Omit<ShotMoment, 'frame'>;

interface LayerPainter {
  readonly typesetter: Typesetter;
  readonly sources: ReadonlyMap<string, PictureSource>;
  /** Where the files go. */
  readonly folder: string;
}

/** Paints what of a shot does not move by itself, each layer cut to its own ink, into files. */
export async function paintShot(scene: Scene, times: ShotTimes, clips: ReadonlySet<string>, name: string, painter: LayerPainter): Promise<PaintedShot> {
  const layers: PaintedLayer[] = [];
  for (const [index, layer] of planShot(scene, times, clips).entries()) {
    const painted = await paintPlanLayer(layer, scene, `${name}-${index}.png`, painter);
    if (painted) layers.push(painted);
  }
  return { lengthFrames: times.lengthFrames, layers };
}

async function paintPlanLayer(layer: PlanLayer, scene: Scene, fileName: string, painter: LayerPainter): Promise<PaintedLayer | null> {
  if (layer.kind === 'film') return layer;
  if (layer.kind === 'moving') return paintMoving(layer, fileName, painter);
  const painted = await paintToFile({ size: scene.size, nodes: layer.nodes }, fileName, painter);
  if (!painted) return null;
  return layer.kind === 'text' ? { kind: 'text', ...painted, times: layer.times, risePx: risePx(scene) } : { kind: 'still', ...painted };
}

/** A photograph as large as its box, which it fills whatever part of it is shown. */
async function paintMoving({ node, from, to }: PlanLayer & { readonly kind: 'moving' }, fileName: string, { typesetter, sources, folder }: LayerPainter): Promise<PaintedLayer> {
  const { widthPx, heightPx } = node.box;
  const own = { ...node, box: { xPx: 0, yPx: 0, widthPx, heightPx } };
  const painted = await paintLayer({ size: { widthPx, heightPx }, nodes: [own] }, typesetter, sources);
  const file = join(folder, fileName);
  await writeFile(file, await sharp(painted.rgba, { raw: { width: painted.widthPx, height: painted.heightPx, channels: 4 } }).png({ compressionLevel: 1 }).toBuffer());
  return { kind: 'moving', file, box: node.box, from, to };
}

/** Paints nodes on nothing and keeps the part that has ink; null where there is none. */
export async function paintToFile(scene: { readonly size: Size; readonly nodes: readonly SceneNode[] }, fileName: string, { typesetter, sources, folder }: LayerPainter): Promise<{ readonly file: string; readonly box: Box } | null> {
  const { rgba, widthPx, heightPx } = await paintLayer(scene, typesetter, sources);
  const box = inkBox(rgba, widthPx, heightPx);
  if (!box) return null;
  const png = await sharp(rgba, { raw: { width: widthPx, height: heightPx, channels: 4 } })
    .extract({ left: box.xPx, top: box.yPx, width: box.widthPx, height: box.heightPx })
    .png({ compressionLevel: 1 })
    .toBuffer();
  const file = join(folder, fileName);
  await writeFile(file, png);
  return { file, box };
}

/** The pixels that are not clear, on even pixels: video keeps colour at half the resolution. */
function inkBox(rgba: Uint8Array, width: number, height: number): Box | null {
  let [left, top, right, bottom] = [width, height, -1, -1];
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      if (rgba[(y * width + x) * 4 + 3] === 0) continue;
      if (x < left) left = x;
      if (x > right) right = x;
      if (y < top) top = y;
      bottom = y;
    }
  }
  if (right < 0) return null;
  const even = (value: number): number => value - (value % 2);
  const [x0, y0] = [even(left), even(top)];
  return { xPx: x0, yPx: y0, widthPx: Math.min(width, even(right) + 2) - x0, heightPx: Math.min(height, even(bottom) + 2) - y0 };
}
