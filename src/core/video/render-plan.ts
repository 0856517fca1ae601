import type { CropWindow } from '../crop/crop-window.ts';
import type { Box } from '../geometry/box.ts';
import type { GlyphsNode, Scene, SceneNode } from '../scene/scene.ts';
import { motionLayers, textTimes, type TextTimes } from './motion.ts';

/**
 * One layer of a shot, in painting order. A `still` is painted once for the whole shot; a `text` is painted once, comes in and
 * leaves; a `film` is the moving picture of a clip, cropped to its window and scaled to its box.
 */
export type PlanLayer =
  | { readonly kind: 'still'; readonly nodes: readonly SceneNode[] }
  | { readonly kind: 'text'; readonly nodes: readonly GlyphsNode[]; readonly times: TextTimes }
  | { readonly kind: 'film'; readonly mediaId: string; readonly box: Box; readonly window: CropWindow };

/**
 * What has to be painted of a shot so that a video program can put it together.
 * @param clips the media that move; other pictures are still
 */
export function planShot(scene: Scene, { lengthFrames, isLast }: { readonly lengthFrames: number; readonly isLast: boolean }, clips: ReadonlySet<string>): readonly PlanLayer[] {
  const layers = motionLayers(scene).flatMap((layer): readonly PlanLayer[] => (layer.kind === 'text' ? [{ kind: 'text', nodes: layer.nodes, times: textTimes(layer.order, lengthFrames, isLast) }] : splitAtFilms(layer.nodes, clips)));
  // What a clip covers whole need not be put together.
  const cover = layers.findLastIndex((layer) => layer.kind === 'film' && layer.box.widthPx >= scene.size.widthPx && layer.box.heightPx >= scene.size.heightPx);
  return cover < 0 ? layers : layers.slice(cover);
}

function splitAtFilms(nodes: readonly SceneNode[], clips: ReadonlySet<string>): readonly PlanLayer[] {
  const layers: PlanLayer[] = [];
  for (const node of nodes) {
    const last = layers.at(-1);
    if (node.kind === 'picture' && clips.has(node.pictureId)) layers.push({ kind: 'film', mediaId: node.pictureId, box: node.box, window: node.window });
    else if (last?.kind === 'still') layers[layers.length - 1] = { kind: 'still', nodes: [...last.nodes, node] };
    else layers.push({ kind: 'still', nodes: [node] });
  }
  return layers;
}
