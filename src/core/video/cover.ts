import type { VideoRule } from '../network/network-sheet.ts';
import type { Cover } from '../piece/cover.ts';
import type { Frame } from '../piece/piece.ts';
import type { StackPart } from '../template/parts.ts';
import type { Template } from '../template/template.ts';
import type { TimedShot, Timeline } from './timeline.ts';
import { toFrames } from './timeline.ts';

/** What stands for a video in one place before it plays. */
export type CutCover =
  /** A frame of the video; `proposed` where the place takes no other, and something else was chosen. */
  | { readonly kind: 'frame'; readonly frame: number; readonly proposed: boolean }
  | { readonly kind: 'picture'; readonly mediaId: string }
  /** A shot that is not played, as a card. */
  | { readonly kind: 'card'; readonly frame: Frame };

/**
 * The cover of a video in a place; null where none is taken, or nothing was chosen.
 * @param frames all shots of the piece, those that are not played among them
 */
export function coverOf(cover: Cover | undefined, rule: VideoRule | undefined, frames: readonly Frame[], { shots, lengthFrames }: Timeline): CutCover | null {
  if (!cover || !rule?.cover) return null;
  const last = Math.max(0, lengthFrames - 1);
  const resting = (shot: TimedShot | undefined): number => (shot ? restingFrame(shot) : 0);
  switch (cover.kind) {
    case 'frame':
      return { kind: 'frame', frame: Math.min(last, toFrames(cover.atMs)), proposed: false };
    case 'picture':
      if (rule.cover === 'any') return { kind: 'picture', mediaId: cover.mediaId };
      // The nearest frame is one that shows the same picture.
      return { kind: 'frame', frame: resting(shots.find(({ frame }) => Object.values(frame.slots).some((value) => value.kind === 'picture' && value.mediaId === cover.mediaId)) ?? shots[0]), proposed: true };
    case 'shot': {
      const played = shots.find(({ frame }) => frame.id === cover.frameId);
      if (played) return { kind: 'frame', frame: restingFrame(played), proposed: false };
      const card = frames.find(({ id }) => id === cover.frameId);
      return card && rule.cover === 'any' ? { kind: 'card', frame: card } : { kind: 'frame', frame: resting(shots[0]), proposed: card !== undefined };
    }
  }
}

/** Where all texts of a shot have come in and none has left. */
export function restingFrame({ startFrame, lengthFrames, into }: Pick<TimedShot, 'startFrame' | 'lengthFrames' | 'into'>): number {
  return startFrame + Math.max(into.frames, Math.min(Math.round(lengthFrames * 0.6), lengthFrames - 8));
}

const root: StackPart = { part: 'stack', direction: 'column', align: 'stretch', field: { ink: 'ground' }, children: [{ part: 'picture', slot: 'picture', grow: 1 }] };

/** How a picture is a cover: cropped to the place, with nothing over it. */
export const coverTemplate: Template = {
  version: 1,
  key: 'cover',
  name: 'Cover',
  purpose: 'A picture that stands for a video',
  kind: 'graphic',
  scheme: 'dark',
  slots: [{ key: 'picture', kind: 'picture', label: 'Picture', hint: 'What stands for the video', required: true }],
  arrangements: [
    { key: 'upright', name: 'Upright', aspect: { from: 0, to: 1 }, root },
    { key: 'wide', name: 'Wide', aspect: { from: 1, to: 10 }, root },
  ],
};

/** A cover's picture as a frame of its template. */
export function coverFrame(mediaId: string): Frame {
  return { id: 'cover', slots: { picture: { kind: 'picture', mediaId } } };
}
