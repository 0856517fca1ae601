import type { Frame } from '../piece/piece.ts';
import { MIN_SHOT_MS } from '../piece/shot.ts';
import { slideTemplate } from '../template/slide-template.ts';
import type { Template } from '../template/template.ts';
import { VIDEO_FPS } from './shot-times.ts';
import type { TimedShot } from './timeline.ts';

/**
 * A shot as two that show its clip on: the first keeps the words, the second begins where the first ends. Null for a shot without a
 * clip, and too near to its ends.
 * @param insideFrame of the shot, the first one of the second part
 */
export function splitShot({ frame, clip, lengthFrames }: TimedShot, insideFrame: number, template: Template, id: string): readonly [Frame, Frame] | null {
  const msOf = (frames: number): number => Math.round((frames * 1000) / VIDEO_FPS);
  if (!clip || msOf(insideFrame) < MIN_SHOT_MS || msOf(lengthFrames - insideFrame) < MIN_SHOT_MS) return null;
  const pictures = Object.entries(frame.slots).filter(([, value]) => value.kind === 'picture');
  const slide = wordlessKind(template, pictures.map(([slot]) => slot)) ?? frame.slide;
  const second: Frame = { id, slots: Object.fromEntries(pictures), shot: { ...frame.shot, fromMs: msOf(clip.fromFrame + insideFrame), lengthMs: msOf(lengthFrames - insideFrame), into: { kind: 'cut', ms: 0 } } };
  return [
    { ...frame, shot: { ...frame.shot, fromMs: msOf(clip.fromFrame), lengthMs: msOf(insideFrame) } },
    slide === undefined ? second : { ...second, slide },
  ];
}

/** A kind of shot that has all these pictures and needs no words. */
function wordlessKind(template: Template, pictureSlots: readonly string[]): string | undefined {
  return template.slides?.find(({ key }) => {
    const { slots } = slideTemplate(template, key);
    return pictureSlots.every((slot) => slots.some((each) => each.key === slot && each.kind === 'picture')) && slots.every((slot) => slot.kind === 'picture' || !slot.required);
  })?.key;
}
