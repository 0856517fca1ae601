import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { CropWindow } from '../../core/crop/crop-window.ts';
import type { Box, Size } from '../../core/geometry/box.ts';
import type { Scene, SceneNode } from '../../core/scene/scene.ts';
import type { Typesetter } from '../../core/text/typesetter.ts';
import { colourTable } from '../../core/scene/treatment.ts';
import type { Manner } from '../../core/video/manner.ts';
import { risePx, type ShotMoment, type TextTimes } from '../../core/video/motion.ts';
import type { TextWindow } from '../../core/video/motion-layers.ts';
import { planShot, type PlanLayer, type WindowPath } from '../../core/video/render-plan.ts';
import { paintLayer, type PaintedCut, type PictureSource } from './canvas-painter.ts';

/** A file of bare pixels, four bytes each: red, green, blue, alpha. It is read once, by a program of this machine. */
export interface RawPicture {
  readonly file: string;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** What was painted, and where it stands, in pixels of the cut. */
export interface PaintedInk {
  readonly picture: RawPicture;
  readonly box: Box;
}

/** A layer as a file, or as the clip that it shows. */
export type PaintedLayer =
  | ({ readonly kind: 'still' } & PaintedInk)
  | ({ readonly kind: 'text' } & PaintedInk & { readonly times: TextTimes; readonly risePx: number })
  /** A text that comes in through a window, which its picture fills. */
  | ({ readonly kind: 'windowed' } & PaintedInk & { readonly times: TextTimes; readonly window: TextWindow })
  | { readonly kind: 'clip'; readonly mediaId: string; readonly box: Box; readonly path: WindowPath; /** A file of colours that it is shown in. */ readonly colours?: string }
  /** A photograph of which a part is shown, from one to another over the length of the shot. */
  | { readonly kind: 'moving'; readonly picture: RawPicture; readonly box: Box; readonly from: CropWindow; readonly to: CropWindow };

export interface PaintedShot {
  readonly lengthFrames: number;
  readonly layers: readonly PaintedLayer[];
}

/** How a shot plays, as far as painting has to know. */
export type ShotTimes = Omit<ShotMoment, 'frame'>;

export interface LayerPainter {
  readonly typesetter: Typesetter;
  readonly sources: ReadonlyMap<string, PictureSource>;
  /** Where the files go. */
  readonly folder: string;
}

/** Paints what of a shot does not move by itself, each layer cut to its own ink, into files. */
export async function paintShot(scene: Scene, times: ShotTimes, { clips, manner, name }: { readonly clips: ReadonlySet<string>; readonly manner: Manner; readonly name: string }, painter: LayerPainter): Promise<PaintedShot> {
  const layers: PaintedLayer[] = [];
  for (const [index, layer] of planShot(scene, times, clips, manner).entries()) {
    const painted = await paintPlanLayer(layer, scene, `${name}-${index}.rgba`, painter);
    if (painted) layers.push(painted);
  }
  return { lengthFrames: times.lengthFrames, layers };
}

async function paintPlanLayer(layer: PlanLayer, scene: Scene, fileName: string, painter: LayerPainter): Promise<PaintedLayer | null> {
  if (layer.kind === 'clip') return paintClip(layer, fileName, painter);
  if (layer.kind === 'moving') return paintMoving(layer, fileName, painter);
  const window = layer.kind === 'text' ? layer.window : null;
  const painted = await paintToFile({ size: scene.size, nodes: layer.nodes }, fileName, painter, window?.box);
  if (!painted) return null;
  if (layer.kind === 'text' && window) return { kind: 'windowed', ...painted, times: layer.times, window };
  return layer.kind === 'text' ? { kind: 'text', ...painted, times: layer.times, risePx: risePx(scene) } : { kind: 'still', ...painted };
}

/** Clips are put together by a video program, which gets the brand's treatment as a table of colours. */
async function paintClip({ treatment, ...clip }: PlanLayer & { readonly kind: 'clip' }, fileName: string, { folder }: LayerPainter): Promise<PaintedLayer> {
  if (!treatment) return clip;
  const colours = join(folder, `${fileName}.cube`);
  await writeFile(colours, colourTable(treatment));
  return { ...clip, colours };
}

/** A photograph as large as its box, which it fills whatever part of it is shown. */
async function paintMoving({ node, from, to }: PlanLayer & { readonly kind: 'moving' }, fileName: string, { typesetter, sources, folder }: LayerPainter): Promise<PaintedLayer> {
  const { widthPx, heightPx } = node.box;
  const own = { ...node, box: { xPx: 0, yPx: 0, widthPx, heightPx } };
  const painted = await paintLayer({ size: { widthPx, heightPx }, nodes: [own] }, typesetter, sources);
  const picture = { file: join(folder, fileName), widthPx: painted.widthPx, heightPx: painted.heightPx };
  await writeFile(picture.file, painted.rgba);
  return { kind: 'moving', picture, box: node.box, from, to };
}

/** Paints nodes on nothing and keeps the part that has ink, or a part that is asked for; null where there is no ink. */
export async function paintToFile(scene: { readonly size: Size; readonly nodes: readonly SceneNode[] }, fileName: string, { typesetter, sources, folder }: LayerPainter, part?: Box): Promise<PaintedInk | null> {
  const painted = await paintLayer(scene, typesetter, sources);
  const ink = inkBox(painted);
  if (!ink) return null;
  const box = part ?? ink;
  const file = join(folder, fileName);
  await writeFile(file, cutOut(painted, box));
  return { picture: { file, widthPx: box.widthPx, heightPx: box.heightPx }, box };
}

/** The pixels that are not clear, on even pixels: video keeps colour at half the resolution. */
function inkBox({ rgba, widthPx, heightPx }: PaintedCut): Box | null {
  const pixels = new Uint32Array(rgba.buffer, rgba.byteOffset, widthPx * heightPx);
  let [top, bottom, left, right] = [-1, -1, widthPx, -1];
  for (let y = 0; y < heightPx; y += 1) {
    const row = pixels.subarray(y * widthPx, (y + 1) * widthPx);
    let first = 0;
    while (first < widthPx && row[first] === 0) first += 1;
    if (first === widthPx) continue;
    let last = widthPx - 1;
    while (last > right && row[last] === 0) last -= 1;
    if (top < 0) top = y;
    bottom = y;
    left = Math.min(left, first);
    right = Math.max(right, last);
  }
  if (right < 0) return null;
  const even = (value: number): number => value - (value % 2);
  const [x0, y0] = [even(left), even(top)];
  return { xPx: x0, yPx: y0, widthPx: Math.min(widthPx, even(right) + 2) - x0, heightPx: Math.min(heightPx, even(bottom) + 2) - y0 };
}

/** The pixels of a part. */
export function cutOut({ rgba, widthPx: rowPx }: PaintedCut, { xPx, yPx, widthPx, heightPx }: Box): Uint8Array {
  const cut = new Uint8Array(widthPx * heightPx * 4);
  for (let y = 0; y < heightPx; y += 1) {
    const from = ((yPx + y) * rowPx + xPx) * 4;
    cut.set(rgba.subarray(from, from + widthPx * 4), y * widthPx * 4);
  }
  return cut;
}
