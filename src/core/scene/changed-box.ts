import { dequal as equal } from 'dequal/lite';
import { pathBox } from '../artwork/path-box.ts';
import { boxAround, type Box } from '../geometry/box.ts';
import type { GlyphReach } from '../text/typesetter.ts';
import type { ArtworkNode, GlyphsNode, Scene, SceneNode } from './scene.ts';
import { withShadow } from './shadow.ts';

/** How far a glyph's ink reaches from its origin. */
export type ReachOf = (fontKey: string, glyphId: number) => GlyphReach;

/** The smallest box around all nodes that are in one of two scenes alone, in pixels of the cut; null where there are none. Outside of it both look the same. */
export function changedBox(before: Scene, after: Scene, reachOf: ReachOf): Box | null {
  return boxAround(unshared(before.nodes, after.nodes).flatMap((node) => nodeBox(node, reachOf) ?? []));
}

/** The nodes that are in one of two lists alone, or in another order there: what is painted over what counts. */
function unshared(before: readonly SceneNode[], after: readonly SceneNode[]): readonly SceneNode[] {
  const found: SceneNode[] = [];
  let next = 0;
  for (const node of after) {
    const at = before.findIndex((each, index) => index >= next && equal(each, node));
    if (at === -1) found.push(node);
    else {
      found.push(...before.slice(next, at));
      next = at + 1;
    }
  }
  return [...found, ...before.slice(next)];
}

/** A box that a node paints nothing outside of; null for a node that paints nothing. */
function nodeBox(node: SceneNode, reachOf: ReachOf): Box | null {
  switch (node.kind) {
    case 'fill':
      return pathBox(node.path);
    case 'picture':
      return node.shadow ? withShadow(node.box, node.shadow) : node.box;
    case 'glyphs':
      return glyphsBox(node, reachOf);
    case 'artwork':
      return artworkBox(node);
  }
}

function glyphsBox({ glyphs, sizePx, edge }: GlyphsNode, reachOf: ReachOf): Box | null {
  const roomPx = (edge?.widthPx ?? 0) / 2;
  const inks = glyphs.map(({ fontKey, id, xPx, yPx }): Box => {
    const { topEm, bottomEm, leftEm, rightEm } = reachOf(fontKey, id);
    return { xPx: xPx + leftEm * sizePx - roomPx, yPx: yPx - topEm * sizePx - roomPx, widthPx: (rightEm - leftEm) * sizePx + 2 * roomPx, heightPx: (topEm + bottomEm) * sizePx + 2 * roomPx };
  });
  return boxAround(inks);
}

function artworkBox({ paths, xPx, yPx, scale }: ArtworkNode): Box | null {
  const box = boxAround(paths.flatMap(({ d }) => pathBox(d) ?? []));
  return box ? { xPx: xPx + box.xPx * scale, yPx: yPx + box.yPx * scale, widthPx: box.widthPx * scale, heightPx: box.heightPx * scale } : null;
}
