import { LRUCache } from 'lru-cache';
import { pathBox } from '../artwork/path-box.ts';
import { boxAround, type Box } from '../geometry/box.ts';
import type { GlyphReach } from '../text/typesetter.ts';
import type { ArtworkNode, GlyphsNode, PathData, SceneGlyph, SceneNode } from './scene.ts';
import { withShadow } from './shadow.ts';

/** How far a glyph's ink reaches from its origin. */
export type ReachOf = (fontKey: string, glyphId: number) => GlyphReach;

/** A box that a node paints nothing outside of, in pixels of the cut; null for a node that paints nothing. */
export function nodeBox(node: SceneNode, reachOf: ReachOf): Box | null {
  switch (node.kind) {
    case 'fill':
      return knownPathBox(node.path);
    case 'picture':
      return node.shadow ? withShadow(node.box, node.shadow) : node.box;
    case 'glyphs':
      return boxAround(node.glyphs.map((glyph) => glyphBox(node, glyph, reachOf)));
    case 'artwork':
      return artworkBox(node);
  }
}

/** A box that a glyph of a node paints nothing outside of, in pixels of the cut. */
export function glyphBox({ sizePx, edge }: GlyphsNode, { fontKey, id, xPx, yPx }: SceneGlyph, reachOf: ReachOf): Box {
  const roomPx = (edge?.widthPx ?? 0) / 2;
  const { topEm, bottomEm, leftEm, rightEm } = reachOf(fontKey, id);
  return { xPx: xPx + leftEm * sizePx - roomPx, yPx: yPx - topEm * sizePx - roomPx, widthPx: (rightEm - leftEm) * sizePx + 2 * roomPx, heightPx: (topEm + bottomEm) * sizePx + 2 * roomPx };
}

function artworkBox({ paths, xPx, yPx, scale }: ArtworkNode): Box | null {
  const box = boxAround(paths.flatMap(({ d }) => knownPathBox(d) ?? []));
  return box ? { xPx: xPx + box.xPx * scale, yPx: yPx + box.yPx * scale, widthPx: box.widthPx * scale, heightPx: box.heightPx * scale } : null;
}

/** Outlines come again with every key. */
const pathBoxes = new LRUCache<PathData, { readonly box: Box | null }>({ max: 2_000 });

function knownPathBox(path: PathData): Box | null {
  const known = pathBoxes.get(path) ?? { box: pathBox(path) };
  pathBoxes.set(path, known);
  return known.box;
}
