import type { Box, Size } from '../geometry/box.ts';
import type { ArtworkNode, GlyphsNode, Scene, SceneNode } from '../scene/scene.ts';
import { MOST_WORDS, type Manner } from './manner.ts';

/** Glyphs and emoji of a text. */
export type TextNode = GlyphsNode | ArtworkNode;

/** What of a shot stays as it is, and what comes in and leaves: in painting order. */
export type MotionLayer =
  | { readonly kind: 'still'; readonly nodes: readonly SceneNode[] }
  /** `order` counts the moving parts of a shot in reading order, from 0, of `count`. */
  | { readonly kind: 'text'; readonly order: number; readonly count: number; readonly nodes: readonly TextNode[]; readonly window: TextWindow | null };

/** What a part of a text is seen through while it comes in and leaves. */
export interface TextWindow {
  /** In whole pairs of pixels: video keeps colour at half the resolution. */
  readonly box: Box;
  readonly along: 'across' | 'up';
  /** The text is read from right to left, and unveiled so. */
  readonly rightToLeft: boolean;
}

/** How far the ink of a line may reach from the origins of its glyphs, in em. */
const REACH_EM = { left: 0.3, right: 1.3, top: 1.2, bottom: 0.45 } as const;

/** A piece of a node that moves by itself. */
interface Piece {
  readonly slot: string;
  /** The line or word of its text; 0 where the text moves whole. */
  readonly number: number;
  readonly node: TextNode;
}

/** Takes a scene apart. Texts that are read move, whole or by line or word; what lies behind and between them is still. */
export function motionLayers({ nodes, size }: Scene, manner: Manner): readonly MotionLayer[] {
  const byWord = manner.by === 'word' ? leadingSlot(nodes) : null;
  const pieces = nodes.map((node) => piecesOf(node, manner, byWord));
  const orders = orderOf(pieces.flatMap((each) => each ?? []));
  const layers: MotionLayer[] = [];
  pieces.forEach((parts, index) => {
    const node = nodes[index];
    if (!node) return;
    const last = layers.at(-1);
    if (!parts) {
      if (last?.kind === 'still') layers[layers.length - 1] = { ...last, nodes: [...last.nodes, node] };
      else layers.push({ kind: 'still', nodes: [node] });
      return;
    }
    for (const part of parts) {
      const before = layers.at(-1);
      const order = orders.get(keyOf(part)) ?? 0;
      if (before?.kind === 'text' && before.order === order) layers[layers.length - 1] = { ...before, nodes: [...before.nodes, part.node] };
      else layers.push({ kind: 'text', order, count: orders.size, nodes: [part.node], window: null });
    }
  });
  return manner.entrance === 'rise' ? layers : layers.map((layer) => (layer.kind === 'text' ? { ...layer, window: windowOf(layer.nodes, manner, size) } : layer));
}

const keyOf = ({ slot, number }: Piece): string => `${slot} ${number}`;

/** The pieces of a text's node; null for what is not read. */
function piecesOf(node: SceneNode, { by }: Manner, byWord: string | null): readonly Piece[] | null {
  if (node.kind === 'artwork') {
    const { text } = node;
    return text ? [{ slot: text.slot, number: by === 'text' ? 0 : text.slot === byWord ? text.word : text.line, node }] : null;
  }
  if (node.kind !== 'glyphs' || node.slot === undefined) return null;
  const { slot } = node;
  if (by === 'text') return [{ slot, number: 0, node }];
  const numbers = new Map<number, GlyphsNode['glyphs'][number][]>();
  for (const glyph of node.glyphs) {
    const number = (slot === byWord ? glyph.word : glyph.line) ?? 0;
    const own = numbers.get(number);
    if (own) own.push(glyph);
    else numbers.set(number, [glyph]);
  }
  return [...numbers].map(([number, glyphs]) => ({ slot, number, node: { ...node, glyphs } }));
}

/** Texts in the order they are painted, the parts of each in the order they are read. */
function orderOf(pieces: readonly Piece[]): ReadonlyMap<string, number> {
  const slots = [...new Set(pieces.map(({ slot }) => slot))];
  const keys = slots.flatMap((slot) => [...new Set(pieces.filter((each) => each.slot === slot).map(({ number }) => number))].sort((a, b) => a - b).map((number) => `${slot} ${number}`));
  return new Map(keys.map((key, order) => [key, order]));
}

/** The text that is set largest, where it has few words. */
function leadingSlot(nodes: readonly SceneNode[]): string | null {
  const read = nodes.filter((node): node is GlyphsNode => node.kind === 'glyphs' && node.slot !== undefined);
  const largest = read.reduce<GlyphsNode | null>((best, node) => (best && best.sizePx >= node.sizePx ? best : node), null);
  const slot = largest?.slot;
  if (slot === undefined) return null;
  const words = Math.max(...read.filter((node) => node.slot === slot).flatMap(({ glyphs }) => glyphs.map(({ word }) => (word ?? 0) + 1)), 0);
  return words <= MOST_WORDS ? slot : null;
}

/** Room around the ink of a part, inside the cut. */
function windowOf(nodes: readonly TextNode[], { entrance }: Manner, { widthPx, heightPx }: Size): TextWindow {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  const reach = (xPx: number, baselinePx: number, sizePx: number): void => {
    left = Math.min(left, xPx - REACH_EM.left * sizePx);
    right = Math.max(right, xPx + REACH_EM.right * sizePx);
    top = Math.min(top, baselinePx - REACH_EM.top * sizePx);
    bottom = Math.max(bottom, baselinePx + REACH_EM.bottom * sizePx);
  };
  for (const node of nodes) {
    if (node.kind === 'glyphs') for (const { xPx, yPx } of node.glyphs) reach(xPx, yPx, node.sizePx);
    else if (node.text) reach(node.xPx, node.yPx + node.text.sizePx, node.text.sizePx);
  }
  const down = (value: number): number => Math.max(0, 2 * Math.floor(value / 2));
  const up = (value: number, most: number): number => Math.min(2 * Math.floor(most / 2), 2 * Math.ceil(value / 2));
  const [xPx, yPx] = [down(left), down(top)];
  return {
    box: { xPx, yPx, widthPx: Math.max(2, up(right, widthPx) - xPx), heightPx: Math.max(2, up(bottom, heightPx) - yPx) },
    along: entrance === 'climb' ? 'up' : 'across',
    rightToLeft: nodes.some((node) => node.kind === 'glyphs' && node.rightToLeft === true),
  };
}
