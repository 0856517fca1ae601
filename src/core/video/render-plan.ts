import type { CropWindow } from '../crop/crop-window.ts';
import type { Box } from '../geometry/box.ts';
import type { PictureNode, Scene, SceneNode } from '../scene/scene.ts';
import { movingTreatment, type Treatment } from '../scene/treatment.ts';
import type { Manner } from './manner.ts';
import { motionLayers, type TextNode, type TextWindow } from './motion-layers.ts';
import { textTimes, type ShotMoment, type TextTimes } from './motion.ts';
import { moves, slowPart, windowPath, type Movement } from './movement.ts';

/**
 * One layer of a shot, in painting order. A `still` is painted once for the whole shot; a `text` is painted once, comes in and
 * leaves; a `recording` is the moving picture of a clip, cropped to its window, which may go along a path, and scaled to its box; a
 * `moving` photograph is painted once, and a part of it is shown that changes evenly.
 */
export type PlanLayer =
  | { readonly kind: 'still'; readonly nodes: readonly SceneNode[] }
  | { readonly kind: 'text'; readonly nodes: readonly TextNode[]; readonly times: TextTimes; readonly window: TextWindow | null }
  | { readonly kind: 'clip'; readonly mediaId: string; readonly box: Box; readonly path: WindowPath; readonly treatment?: Treatment | undefined }
  | { readonly kind: 'moving'; readonly node: PictureNode; readonly from: CropWindow; readonly to: CropWindow };

/** Where a window is at frames of its shot, at least one; between them it moves evenly. */
export type WindowPath = readonly { readonly frame: number; readonly window: CropWindow }[];

/**
 * What has to be painted of a shot so that a video program can put it together.
 * @param clips the media that move; other pictures are still
 */
export function planShot(scene: Scene, shot: Omit<ShotMoment, 'frame'>, clips: ReadonlySet<string>, manner: Manner): readonly PlanLayer[] {
  const layers = motionLayers(scene, manner).flatMap((layer): readonly PlanLayer[] => (layer.kind === 'text' ? [{ kind: 'text', nodes: layer.nodes, times: textTimes(layer, shot, manner), window: layer.window }] : splitStill(layer.nodes, clips, shot.movements, shot.lengthFrames)));
  // What a clip or photograph covers whole need not be put together.
  const cover = layers.findLastIndex((layer) => {
    const box = layer.kind === 'clip' ? layer.box : layer.kind === 'moving' ? layer.node.box : null;
    return box !== null && box.widthPx >= scene.size.widthPx && box.heightPx >= scene.size.heightPx;
  });
  return cover < 0 ? layers : layers.slice(cover);
}

function splitStill(nodes: readonly SceneNode[], clips: ReadonlySet<string>, movements: ReadonlyMap<string, Movement>, lengthFrames: number): readonly PlanLayer[] {
  const layers: PlanLayer[] = [];
  for (const node of nodes) {
    const last = layers.at(-1);
    const movement = node.kind === 'picture' ? movements.get(node.pictureId) : undefined;
    if (node.kind === 'picture' && clips.has(node.pictureId)) layers.push({ kind: 'clip', mediaId: node.pictureId, box: node.box, path: moves(node, movement) && movement.kind === 'follow' ? windowPath(node.window, movement, lengthFrames) : [{ frame: 0, window: node.window }], treatment: movingTreatment(node.treatment) });
    else if (node.kind === 'picture' && moves(node, movement) && movement.kind === 'slow') layers.push({ kind: 'moving', node, from: slowPart(node.window, movement, 0), to: slowPart(node.window, movement, lengthFrames) });
    else if (last?.kind === 'still') layers[layers.length - 1] = { kind: 'still', nodes: [...last.nodes, node] };
    else layers.push({ kind: 'still', nodes: [node] });
  }
  return layers;
}
