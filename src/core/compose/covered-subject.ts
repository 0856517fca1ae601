import type { Picture } from '../crop/crop-window.ts';
import { knownSubject } from '../crop/known-subject.ts';
import { isCutOut } from '../crop/picture-facts.ts';
import { boxContains, intersectBoxes, type Box } from '../geometry/box.ts';
import { slotOfRow } from './expand.ts';
import type { ReadingHelp } from './reading-help.ts';
import type { CutFinding, PlacedPicture } from './report.ts';
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
  if (!subject || !knownSubject(picture)) return null;
  const on = texts.find(({ box }) => boxContains(box, { ...subject, widthPx: 0, heightPx: 0 }));
  if (on) return on.slot;
  const bySize = texts.toSorted((a, b) => b.box.widthPx * b.box.heightPx - a.box.widthPx * a.box.heightPx);
  return isVeiled || hidesSubject(help, block) ? (bySize[0]?.slot ?? null) : null;
}

/** A text, or the field of one, and how many of a cut's pictures were painted before it. */
export interface PaintedOver {
  readonly slot: string;
  readonly box: Box;
  readonly after: number;
}

/**
 * Texts whose place the template fixes, or their fields, that lie on the subject of a photograph: one for each picture.
 * @param placed in painting order
 */
export function fixedCovers(placed: readonly PlacedPicture[], pictures: Readonly<Record<string, Picture>>, over: readonly PaintedOver[]): readonly CutFinding[] {
  return placed.flatMap(({ slot, subject }, index) => {
    const picture = pictures[slot];
    if (!subject || !picture || isCutOut(picture.facts) || !knownSubject(picture)) return [];
    const on = over.find(({ box, after }) => after > index && boxContains(box, { ...subject, widthPx: 0, heightPx: 0 }));
    return on ? [{ kind: 'covered-subject', slot: slotOfRow(on.slot), picture: slot }] : [];
  });
}

/** A subject is looked at in so many rows and columns. */
const CELLS = 8;

/**
 * The share of a subject's box that is hidden, in [0, 1]: below words, or as far as colours hide it.
 * @param words around the words on the photograph
 * @param hiddenIn how much of a region colours hide
 */
export function hiddenShare(subject: Box, words: Box, hiddenIn: (region: Box) => number): number {
  const [widthPx, heightPx] = [subject.widthPx / CELLS, subject.heightPx / CELLS];
  const cells = Array.from({ length: CELLS * CELLS }, (_, index): Box => ({ xPx: subject.xPx + ((index % CELLS) + 0.5) * widthPx, yPx: subject.yPx + (Math.floor(index / CELLS) + 0.5) * heightPx, widthPx: 1, heightPx: 1 }));
  return cells.reduce((sum, cell) => sum + (intersectBoxes(words, cell) ? 1 : hiddenIn(cell)), 0) / cells.length;
}
