import svgpath from 'svgpath';
import { raiseFade } from './fade.ts';
import type { Scene, SceneNode } from './scene.ts';

/** The same scene higher up, by this many pixels of the cut. */
export function raiseScene(scene: Scene, risePx: number): Scene {
  return risePx === 0 ? scene : { ...scene, nodes: scene.nodes.map((node) => raised(node, risePx)) };
}

function raised(node: SceneNode, risePx: number): SceneNode {
  const outline = (path: string): string => svgpath(path).translate(0, -risePx).toString();
  switch (node.kind) {
    case 'fill':
      return { ...node, path: outline(node.path), ...(node.fade ? { fade: raiseFade(node.fade, risePx) } : {}) };
    case 'picture':
      return { ...node, box: { ...node.box, yPx: node.box.yPx - risePx }, ...(node.mask === undefined ? {} : { mask: outline(node.mask) }) };
    case 'glyphs':
      return { ...node, glyphs: node.glyphs.map((glyph) => ({ ...glyph, yPx: glyph.yPx - risePx })) };
    case 'artwork':
      return { ...node, yPx: node.yPx - risePx };
  }
}
