import type { Picture } from '../crop/crop-window.ts';
import { slotText, type Frame } from '../piece/piece.ts';
import { tidyText } from '../text/tidy.ts';
import type { Template } from '../template/template.ts';
import type { CutFinding } from './report.ts';

/** A text ready to be set. A ghost is the slot's hint, shown faintly in an empty slot of a preview. */
export interface BoundText {
  readonly text: string;
  readonly ghost: boolean;
}

export interface Bound {
  readonly texts: Readonly<Record<string, BoundText>>;
  readonly pictures: Readonly<Record<string, Picture>>;
  readonly findings: readonly CutFinding[];
}

/**
 * Puts the content of a frame into the slots of a template.
 * @param ghosts whether empty text slots show their hint
 */
export function bind(template: Template, frame: Frame, pictures: ReadonlyMap<string, Picture>, ghosts: boolean): Bound {
  const texts: Record<string, BoundText> = {};
  const bound: Record<string, Picture> = {};
  const findings: CutFinding[] = [];
  for (const slot of template.slots) {
    let filled: boolean;
    if (slot.kind === 'text') {
      const text = tidyText(slotText(frame, slot.key).trim());
      filled = text !== '';
      if (filled) texts[slot.key] = { text, ghost: false };
      else if (ghosts) texts[slot.key] = { text: slot.hint, ghost: true };
    } else {
      const value = frame.slots[slot.key];
      const picture = value?.kind === 'picture' ? pictures.get(value.mediaId) : undefined;
      filled = picture !== undefined;
      if (picture) bound[slot.key] = picture;
    }
    if (!filled && slot.required) findings.push({ kind: 'empty-slot', slot: slot.key });
  }
  return { texts, pictures: bound, findings };
}
