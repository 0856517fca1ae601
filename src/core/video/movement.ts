import type { CropWindow, Picture } from '../crop/crop-window.ts';
import type { FocalPoint } from '../crop/picture-facts.ts';
import type { OwnCrop } from '../piece/adjustment.ts';
import type { SlowMove } from '../piece/shot.ts';
import type { PictureNode } from '../scene/scene.ts';
import { subjectOf, type Recording, type FocalAt } from './recording.ts';
import { VIDEO_FPS } from './shot-times.ts';
import type { TimedShot } from './timeline.ts';

/** How the crop of a picture moves while its shot plays. Frames are those of the shot. */
export type Movement =
  /** The window keeps its size and follows the subject, which is at `points`; `focal` is where the still crop saw it. */
  | { readonly kind: 'follow'; readonly focal: FocalPoint; readonly points: readonly FocalAtFrame[] }
  /** The window changes evenly from the first frame to the last, with the subject in its place. */
  | { readonly kind: 'slow'; readonly move: Exclude<SlowMove, 'still'>; readonly focal: FocalPoint; readonly lengthFrames: number };

export interface FocalAtFrame extends FocalPoint {
  readonly frame: number;
}

/** How much of a photograph's crop a slow move gives away: enough to be seen, and no softer for it. */
const MOVE_SHARE = 0.08;
/** The subject is kept within this share of a window's side from its middle. */
const MAX_OFF_MIDDLE = 0.22;

/** The pictures of a shot that move within their crops, by media. A crop that a person has set stays where it is. */
export function shotMovements({ frame, clip, lengthFrames }: TimedShot, pictures: ReadonlyMap<string, Pick<Picture, 'focal'> & { readonly recording?: Recording | null | undefined }>, crops: Readonly<Record<string, OwnCrop>>): ReadonlyMap<string, Movement> {
  const movements = new Map<string, Movement>();
  for (const [slot, value] of Object.entries(frame.slots)) {
    const picture = value.kind === 'picture' ? pictures.get(value.mediaId) : undefined;
    if (value.kind !== 'picture' || !picture || crops[slot]) continue;
    const movement = picture.recording ? follow(picture.recording, picture.focal, clip?.fromFrame ?? 0, lengthFrames) : slowMove(frame.shot?.move ?? 'closer', picture.focal, lengthFrames);
    if (movement) movements.set(value.mediaId, movement);
  }
  return movements;
}

function follow(recording: Recording, focal: FocalPoint, fromFrame: number, lengthFrames: number): Movement | null {
  const all = subjectOf(recording).map(({ atMs, x, y }): FocalAtFrame => ({ frame: Math.round((atMs * VIDEO_FPS) / 1000) - fromFrame, x, y }));
  // Of the points outside the shot only the nearest on either side say anything.
  const first = Math.max(0, all.findLastIndex(({ frame }) => frame <= 0));
  const after = all.findIndex(({ frame }) => frame >= lengthFrames);
  const points = all.slice(first, after < 0 ? undefined : after + 1);
  return points.length === 0 ? null : { kind: 'follow', focal, points };
}

function slowMove(move: SlowMove, focal: FocalPoint, lengthFrames: number): Movement | null {
  return move === 'still' ? null : { kind: 'slow', move, focal, lengthFrames };
}

/** True when a movement can be seen in a node: masks and cut-outs stand. */
export function moves(node: PictureNode, movement: Movement | undefined): movement is Movement {
  return movement !== undefined && !node.mask && !node.cutOut && !(movement.kind === 'slow' && node.window.width * node.window.height === 0);
}

/** A picture as it is cropped at a frame of its shot. */
export function movedPicture(node: PictureNode, movement: Movement, frame: number): PictureNode {
  return movement.kind === 'follow' ? { ...node, window: followingWindow(node.window, movement, frame) } : { ...node, part: slowPart(node.window, movement, frame) };
}

/** Where the subject is at a frame: evenly from one point to the next. */
function focalAt(points: readonly FocalAtFrame[], frame: number): FocalPoint {
  const next = points.findIndex((point) => point.frame > frame);
  const [before, after] = [points[next < 0 ? points.length - 1 : Math.max(0, next - 1)], points[next < 0 ? points.length - 1 : next]];
  if (!before || !after) return { x: 0.5, y: 0.5 };
  const share = after.frame === before.frame ? 0 : Math.min(1, Math.max(0, (frame - before.frame) / (after.frame - before.frame)));
  return { x: before.x + (after.x - before.x) * share, y: before.y + (after.y - before.y) * share };
}

/** Where the subject of a clip is at a moment of it; null when nothing is known. */
export function subjectAt(subject: readonly FocalAt[], atMs: number): FocalPoint | null {
  return subject.length === 0 ? null : focalAt(subject.map(({ atMs: frame, x, y }) => ({ frame, x, y })), atMs);
}

/** The window, moved so that the subject stays about where the still crop had it. */
export function followingWindow(window: CropWindow, { focal, points }: Movement & { readonly kind: 'follow' }, frame: number): CropWindow {
  const at = focalAt(points, frame);
  return { ...window, x: follows(at.x, focal.x, window.x, window.width), y: follows(at.y, focal.y, window.y, window.height) };
}

function follows(at: number, focal: number, start: number, length: number): number {
  const most = MAX_OFF_MIDDLE * length;
  const offMiddle = Math.min(most, Math.max(-most, focal - (start + length / 2)));
  return Math.min(1 - length, Math.max(0, at - offMiddle - length / 2));
}

/** The frames between which a followed window moves evenly in one dimension: all its points, and where it meets the picture's edge. */
export function windowPath(window: CropWindow, movement: Movement & { readonly kind: 'follow' }, lengthFrames: number): readonly { readonly frame: number; readonly window: CropWindow }[] {
  const frames = new Set([0, ...movement.points.map(({ frame }) => frame).filter((frame) => frame > 0 && frame < lengthFrames), lengthFrames]);
  return [...frames].sort((a, b) => a - b).map((frame) => ({ frame, window: followingWindow(window, movement, frame) }));
}

/** The part of a photograph's window at a frame: it begins or ends with all of it. */
export function slowPart(window: CropWindow, { move, focal, lengthFrames }: Movement & { readonly kind: 'slow' }, frame: number): CropWindow {
  const share = Math.min(1, Math.max(0, frame / Math.max(1, lengthFrames)));
  const within = (value: number, start: number, length: number): number => Math.min(1, Math.max(0, (value - start) / length));
  const [x, y] = [within(focal.x, window.x, window.width), within(focal.y, window.y, window.height)];
  const given = MOVE_SHARE * (move === 'closer' ? share : move === 'away' ? 1 - share : 1);
  const along = move === 'left' ? 1 - share : move === 'right' ? share : x;
  return { x: given * along, y: given * y, width: 1 - given, height: 1 - given };
}
