import { marginPx } from '../compose/cut-frame.ts';
import type { GlyphsNode, Scene, SceneNode } from '../scene/scene.ts';
import { movedPicture, moves, type Movement } from './movement.ts';

/** Parts come in one after another in reading order, by a rise and a fade, and leave together; nothing bounces, nothing flashes. */
export const MOTION = { firstFrame: 3, staggerFrames: 2, enterFrames: 12, leaveFrames: 6 } as const;
/** How far below its place a text begins, in m. */
const RISE_M = 0.7;

/** What of a shot stays as it is, and what comes in and leaves: in painting order. */
export type MotionLayer =
  | { readonly kind: 'still'; readonly nodes: readonly SceneNode[] }
  /** `order` counts the texts of a shot in reading order, from 0. */
  | { readonly kind: 'text'; readonly order: number; readonly nodes: readonly GlyphsNode[] };

/** Takes a scene apart. Texts that are read move; what lies behind and between them is still. */
export function motionLayers({ nodes }: Scene): readonly MotionLayer[] {
  const orders = new Map<string, number>();
  const layers: MotionLayer[] = [];
  for (const node of nodes) {
    const slot = node.kind === 'glyphs' ? node.slot : undefined;
    const last = layers.at(-1);
    if (node.kind !== 'glyphs' || slot === undefined) {
      if (last?.kind === 'still') layers[layers.length - 1] = { ...last, nodes: [...last.nodes, node] };
      else layers.push({ kind: 'still', nodes: [node] });
      continue;
    }
    const order = orders.get(slot) ?? orders.size;
    orders.set(slot, order);
    if (last?.kind === 'text' && last.order === order) layers[layers.length - 1] = { ...last, nodes: [...last.nodes, node] };
    else layers.push({ kind: 'text', order, nodes: [node] });
  }
  return layers;
}

/** When a text comes in and leaves, in frames of its shot. */
export interface TextTimes {
  readonly enterAt: number;
  readonly enterFrames: number;
  readonly leaveAt: number;
  readonly leaveFrames: number;
}

/** @param staysAtEnd the last shot keeps its texts: a video ends on what it has to say */
export function textTimes(order: number, lengthFrames: number, staysAtEnd: boolean): TextTimes {
  const { firstFrame, staggerFrames, enterFrames, leaveFrames } = MOTION;
  return { enterAt: firstFrame + order * staggerFrames, enterFrames, leaveAt: staysAtEnd ? Infinity : lengthFrames - leaveFrames, leaveFrames };
}

/** How far a text begins below its place, in pixels. */
export function risePx({ size }: Pick<Scene, 'size'>): number {
  return marginPx(size) * RISE_M;
}

/** A text at a frame: its opacity, and the share of its rise that is still to go, which eases out. */
export function textState({ enterAt, enterFrames, leaveAt, leaveFrames }: TextTimes, frame: number): { readonly alpha: number; readonly rise: number } {
  const share = (value: number): number => Math.min(1, Math.max(0, value));
  const entered = share((frame - enterAt) / enterFrames);
  const left = Number.isFinite(leaveAt) ? share((frame - leaveAt) / leaveFrames) : 0;
  return { alpha: entered * (1 - left), rise: (1 - entered) ** 3 };
}

/** How far below its place a text is, in whole pairs of pixels: video keeps colour at half the resolution, and could show nothing between. */
export function shiftPx(rise: number, wholeRisePx: number): number {
  return 2 * Math.floor((rise * wholeRisePx) / 2);
}

/** Which frame of a shot, and how its pictures move. */
export interface ShotMoment {
  readonly frame: number;
  readonly lengthFrames: number;
  readonly isLast: boolean;
  readonly movements: ReadonlyMap<string, Movement>;
}

/** A shot's scene as it looks at one of its frames. The last shot keeps its texts. */
export function sceneAt(scene: Scene, { frame, lengthFrames, isLast, movements }: ShotMoment): Scene {
  const rise = risePx(scene);
  const nodes = motionLayers(scene).flatMap((layer): readonly SceneNode[] => {
    if (layer.kind === 'still') return layer.nodes.map((node) => movedNode(node, movements, frame));
    const state = textState(textTimes(layer.order, lengthFrames, isLast), frame);
    if (state.alpha === 0) return [];
    if (state.alpha === 1 && state.rise === 0) return layer.nodes;
    return layer.nodes.map((node) => ({ ...node, alpha: node.alpha * state.alpha, glyphs: node.glyphs.map((glyph) => ({ ...glyph, yPx: glyph.yPx + shiftPx(state.rise, rise) })) }));
  });
  return { size: scene.size, nodes };
}

function movedNode(node: SceneNode, movements: ReadonlyMap<string, Movement>, frame: number): SceneNode {
  const movement = node.kind === 'picture' ? movements.get(node.pictureId) : undefined;
  return node.kind === 'picture' && moves(node, movement) ? movedPicture(node, movement, frame) : node;
}
