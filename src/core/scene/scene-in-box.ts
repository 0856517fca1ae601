import { intersectBoxes, type Box } from '../geometry/box.ts';
import { glyphBox, nodeBox, type ReachOf } from './node-box.ts';
import type { Scene, SceneNode } from './scene.ts';

/** A scene without the nodes and the letters that paint nothing inside a box, which is in pixels of the cut. Inside the box it looks the same. */
export function sceneInBox(scene: Scene, box: Box, reachOf: ReachOf): Scene {
  const meets = (other: Box | null): boolean => other !== null && intersectBoxes(other, box) !== null;
  return {
    ...scene,
    nodes: scene.nodes.flatMap((node): readonly SceneNode[] => {
      if (node.kind !== 'glyphs') return meets(nodeBox(node, reachOf)) ? [node] : [];
      const glyphs = node.glyphs.filter((glyph) => meets(glyphBox(node, glyph, reachOf)));
      return glyphs.length > 0 ? [{ ...node, glyphs }] : [];
    }),
  };
}
