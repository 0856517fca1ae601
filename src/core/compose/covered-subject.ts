import type { Picture } from '../crop/crop-window.ts';
import { subjectBox } from '../crop/subject-box.ts';
import { boxContains, type Box } from '../geometry/box.ts';
import type { ReadingHelp } from './reading-help.ts';
import { hidesSubject, type BlockOnPhoto } from './words-on-photo.ts';

/** A text of a block, and the box of its ink. */
export interface TextOnPhoto {
  readonly slot: string;
  readonly box: Box;
}

/**
 * The text that lies on the subject of its photograph, or that most of the help to be read, or of its field, is for where that hides the subject.
 * `isVeiled`: a colour of the template, which opens where words leave it room, hides the subject. Null where the subject can be seen, or where the focal point is only a guess: nobody has pointed at it, and no outline is known.
 */
export function coveringText(picture: Picture, block: BlockOnPhoto, texts: readonly TextOnPhoto[], help: ReadingHelp, isVeiled: boolean): string | null {
  const { subject } = block;
  const isKnown = picture.focalBy === 'person' || subjectBox(picture.facts, picture.focal) !== null;
  if (!subject || !isKnown) return null;
  const on = texts.find(({ box }) => boxContains(box, { ...subject, widthPx: 0, heightPx: 0 }));
  if (on) return on.slot;
  const bySize = texts.toSorted((a, b) => b.box.widthPx * b.box.heightPx - a.box.widthPx * a.box.heightPx);
  return isVeiled || hidesSubject(help, block) ? (bySize[0]?.slot ?? null) : null;
}
