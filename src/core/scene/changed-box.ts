import { dequal as equal } from 'dequal/lite';
import { boxAround, type Box } from '../geometry/box.ts';
import { nodeBox, type ReachOf } from './node-box.ts';
import type { GlyphsNode, Scene, SceneGlyph, SceneNode } from './scene.ts';

/** The smallest box around all that is painted in one of two scenes alone, in pixels of the cut; null where there is nothing. Outside of it both look the same. */
export function changedBox(before: Scene, after: Scene, reachOf: ReachOf): Box | null {
  return boxAround(gapsBetween(before.nodes, after.nodes).flatMap(unshared).flatMap((node) => nodeBox(node, reachOf) ?? []));
}

/** Nodes that stand between the same two nodes, or at the same end, in one of two lists alone. */
interface Gap {
  readonly before: readonly SceneNode[];
  readonly after: readonly SceneNode[];
}

/** Where two lists differ between the nodes that they share in the same order: what is painted over what counts. */
function gapsBetween(before: readonly SceneNode[], after: readonly SceneNode[]): readonly Gap[] {
  const gaps: Gap[] = [];
  let next = 0;
  let added: SceneNode[] = [];
  for (const node of after) {
    const at = before.findIndex((each, index) => index >= next && paintAlike(each, node));
    if (at === -1) {
      added.push(node);
      continue;
    }
    gaps.push({ before: before.slice(next, at), after: added });
    next = at + 1;
    added = [];
  }
  return [...gaps, { before: before.slice(next), after: added }];
}

/** The nodes of a gap; of a text that is set alike before and after, the letters that differ alone. */
function unshared({ before, after }: Gap): readonly SceneNode[] {
  if (before.length !== after.length) return [...before, ...after];
  return before.flatMap((node, index): readonly SceneNode[] => {
    const other = after[index];
    if (!other) return [];
    return node.kind === 'glyphs' && other.kind === 'glyphs' && isSetAlike(node, other) ? unlikeLetters(node, other) : [node, other];
  });
}

/** Two texts without the letters at their beginnings and at their ends that stand in both, at the same place. */
function unlikeLetters(before: GlyphsNode, after: GlyphsNode): readonly GlyphsNode[] {
  const most = Math.min(before.glyphs.length, after.glyphs.length);
  let first = 0;
  while (first < most && isSameGlyph(before.glyphs[first], after.glyphs[first])) first += 1;
  let last = 0;
  while (last < most - first && isSameGlyph(before.glyphs.at(-1 - last), after.glyphs.at(-1 - last))) last += 1;
  return [before, after].map((node) => ({ ...node, glyphs: node.glyphs.slice(first, node.glyphs.length - last) }));
}

/** Whether two nodes look the same. Most of a scene is letters: they are held against each other by what is painted of them alone. */
function paintAlike(a: SceneNode, b: SceneNode): boolean {
  if (a.kind !== 'glyphs' || b.kind !== 'glyphs') return a.kind === b.kind && equal(a, b);
  return a.glyphs.length === b.glyphs.length && isSetAlike(a, b) && a.glyphs.every((glyph, index) => isSameGlyph(glyph, b.glyphs[index]));
}

/** Whether the letters of two texts look the same where they stand at the same place. */
function isSetAlike(a: GlyphsNode, b: GlyphsNode): boolean {
  return a.sizePx === b.sizePx && a.colour === b.colour && a.alpha === b.alpha && equal(a.edge, b.edge) && equal(a.within, b.within);
}

function isSameGlyph(a: SceneGlyph | undefined, b: SceneGlyph | undefined): boolean {
  return a !== undefined && b !== undefined && a.xPx === b.xPx && a.yPx === b.yPx && a.id === b.id && a.fontKey === b.fontKey;
}
