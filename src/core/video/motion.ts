import { marginPx } from '../compose/cut-frame.ts';
import { intersectBoxes, type Box } from '../geometry/box.ts';
import type { Scene, SceneNode } from '../scene/scene.ts';
import { LEAVE_POWER, type Manner } from './manner.ts';
import { motionLayers, type TextNode, type TextWindow } from './motion-layers.ts';
import { movedPicture, moves, type Movement } from './movement.ts';

/** The first part comes in at this frame of its shot. */
export const FIRST_FRAME = 3;
/** All parts stand by this share of a shot, however many they are. */
const ALL_IN_BY = 0.45;
/** How far below its place a text begins to rise, in m. */
const RISE_M = 0.7;

/** When a part of a text comes in and leaves, in frames of its shot, and on which curve it comes. */
export interface TextTimes {
  readonly enterAt: number;
  readonly enterFrames: number;
  readonly enterPower: number;
  readonly leaveAt: number;
  readonly leaveFrames: number;
}

/** How texts begin and end in a shot. */
export interface ShotEnds {
  readonly lengthFrames: number;
  /** The last shot keeps its texts: a video ends on what it has to say. */
  readonly isLast: boolean;
  /** Its texts stand from the first frame on, which is all that many see of a video. */
  readonly standsAtStart: boolean;
}

/** Which part of a shot it is, of how many. */
export interface PartPlace {
  readonly order: number;
  readonly count: number;
}

export function textTimes({ order, count }: PartPlace, { lengthFrames, isLast, standsAtStart }: ShotEnds, { staggerFrames, enterFrames, leaveFrames, enterPower }: Manner): TextTimes {
  const room = lengthFrames * ALL_IN_BY - FIRST_FRAME - enterFrames;
  const stagger = count > 1 ? Math.max(0, Math.min(staggerFrames, room / (count - 1))) : 0;
  return { enterAt: standsAtStart ? -enterFrames : FIRST_FRAME + Math.round(order * stagger), enterFrames, enterPower, leaveAt: isLast ? Infinity : lengthFrames - leaveFrames, leaveFrames };
}

/** How far below its place a rising text begins, in pixels. */
export function risePx({ size }: Pick<Scene, 'size'>): number {
  return marginPx(size) * RISE_M;
}

/** How far a part has come in and left at a frame: shares of its time. */
function shares({ enterAt, enterFrames, leaveAt, leaveFrames }: TextTimes, frame: number): { readonly entered: number; readonly left: number } {
  const share = (value: number): number => Math.min(1, Math.max(0, value));
  return { entered: share((frame - enterAt) / enterFrames), left: Number.isFinite(leaveAt) ? share((frame - leaveAt) / leaveFrames) : 0 };
}

/** A rising text at a frame: its opacity, and the share of its rise that is still to go. */
export function textState(times: TextTimes, frame: number): { readonly alpha: number; readonly rise: number } {
  const { entered, left } = shares(times, frame);
  return { alpha: entered * (1 - left), rise: (1 - entered) ** times.enterPower };
}

/** How far a part has passed through its window at a frame: 0 is not in it yet, 1 in its place, 2 out of it again. */
export function travelAt(times: TextTimes, frame: number): number {
  const { entered, left } = shares(times, frame);
  return 1 - (1 - entered) ** times.enterPower + left ** LEAVE_POWER;
}

/** How far below its place a text is, in whole pairs of pixels: video keeps colour at half the resolution, and could show nothing between. */
export function shiftPx(rise: number, wholeRisePx: number): number {
  return 2 * Math.floor((rise * wholeRisePx) / 2);
}

/** What is seen of a part in its window: how far it is below its place, and within which box. */
export function throughWindow({ box, along, rightToLeft }: TextWindow, travel: number): { readonly downPx: number; readonly within: Box | null } {
  if (travel <= 0 || travel >= 2) return { downPx: 0, within: null };
  if (along === 'up') return { downPx: box.heightPx - shiftPx(travel, box.heightPx), within: box };
  const passed = shiftPx(rightToLeft ? 2 - travel : travel, box.widthPx);
  const open = { ...box, xPx: box.xPx + passed - box.widthPx };
  return { downPx: 0, within: intersectBoxes(box, open) };
}

/** Which frame of a shot, and how its pictures move. */
export interface ShotMoment extends ShotEnds {
  readonly frame: number;
  readonly movements: ReadonlyMap<string, Movement>;
}

/** A shot's scene as it looks at one of its frames. */
export function sceneAt(scene: Scene, moment: ShotMoment, manner: Manner): Scene {
  const { frame, movements } = moment;
  const rise = risePx(scene);
  const nodes = motionLayers(scene, manner).flatMap((layer): readonly SceneNode[] => {
    if (layer.kind === 'still') return layer.nodes.map((node) => movedNode(node, movements, frame));
    const times = textTimes(layer, moment, manner);
    if (layer.window) {
      const travel = travelAt(times, frame);
      if (travel === 1) return layer.nodes;
      const { downPx, within } = throughWindow(layer.window, travel);
      return within ? layer.nodes.map((node) => ({ ...loweredText(node, downPx), within })) : [];
    }
    const state = textState(times, frame);
    if (state.alpha === 0) return [];
    if (state.alpha === 1 && state.rise === 0) return layer.nodes;
    return layer.nodes.map((node) => ({ ...loweredText(node, shiftPx(state.rise, rise)), alpha: (node.alpha ?? 1) * state.alpha }));
  });
  return { size: scene.size, nodes };
}

function loweredText(node: TextNode, downPx: number): TextNode {
  if (node.kind === 'artwork') return { ...node, yPx: node.yPx + downPx };
  return { ...node, glyphs: node.glyphs.map((glyph) => ({ ...glyph, yPx: glyph.yPx + downPx })) };
}

function movedNode(node: SceneNode, movements: ReadonlyMap<string, Movement>, frame: number): SceneNode {
  const movement = node.kind === 'picture' ? movements.get(node.pictureId) : undefined;
  return node.kind === 'picture' && moves(node, movement) ? movedPicture(node, movement, frame) : node;
}
