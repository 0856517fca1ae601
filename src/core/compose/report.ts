import type { CropWindow } from '../crop/crop-window.ts';
import type { Box } from '../geometry/box.ts';
import type { CalmPlace } from '../template/parts.ts';
import type { PartBoxes } from './part-boxes.ts';
import type { ReadingHelp } from './reading-help.ts';

/** How one text came out in one cut. */
export type TextFit =
  | { readonly kind: 'fits'; readonly slot: string; readonly sizePx: number; readonly lines: number }
  /** `overBy` is the number of characters by which the text is too long at the smallest allowed size. */
  | { readonly kind: 'overflows'; readonly slot: string; readonly sizePx: number; readonly lines: number; readonly overBy: number; readonly reason: 'word-too-wide' | 'too-tall' };

/** Something a person should know about a cut. */
export type CutFinding =
  | { readonly kind: 'empty-slot'; readonly slot: string }
  /** A fill-in that no fact has a text for; `unknown`: no fact has its key. */
  | { readonly kind: 'missing-fact'; readonly slot: string; readonly fact: string; readonly reason: 'unknown' | 'empty' }
  /** The mark runs over the edge of the cut. */
  | { readonly kind: 'cut-off-mark' }
  /** Heights in pixels of a cut 1080 wide. */
  | { readonly kind: 'small-mark'; readonly heightPx: number; readonly leastHeightPx: number }
  /** A mark chosen by a person that stands out too little. */
  | { readonly kind: 'faint-mark'; readonly ratio: number; readonly needed: number }
  /** The book no longer has the mark that a person has chosen; the ground chooses. */
  | { readonly kind: 'lost-mark'; readonly slot: string }
  | { readonly kind: 'crowded-mark'; readonly slot: string }
  /** Left out because there was no room for it, as the template allows. */
  | { readonly kind: 'dropped'; readonly slot: string }
  | { readonly kind: 'missing-glyphs'; readonly slot: string; readonly characters: readonly string[] }
  | { readonly kind: 'low-contrast'; readonly slot: string; readonly ratio: number; readonly needed: number }
  /** Words, or what helps them to be read, lie on the subject of the picture that they stand on. */
  | { readonly kind: 'covered-subject'; readonly slot: string; readonly picture: string }
  | { readonly kind: 'low-resolution'; readonly slot: string; readonly pictureId: string; readonly enlargedBy: number };

/** Where a text ended up, for checks and for the large view. */
export interface PlacedText {
  readonly slot: string;
  /** Box of the ink. */
  readonly box: Box;
  /** Width that its lines had. */
  readonly roomPx: number;
  readonly lines: number;
  readonly lineTexts: readonly string[];
  readonly sizePx: number;
}

/** Where a picture ended up and which part of it is shown. */
export interface PlacedPicture {
  readonly slot: string;
  readonly pictureId: string;
  readonly box: Box;
  readonly window: CropWindow;
  /** Where its subject stands in the cut; null where it is cut off. */
  readonly subject: { readonly xPx: number; readonly yPx: number } | null;
}

/** Where words stand on a photograph, and what they got to be read. */
export interface PlacedBlock {
  /** The slot of the picture. */
  readonly picture: string;
  readonly place: CalmPlace;
  readonly help: ReadingHelp;
  /** Share of the picture's subject that the block and its help hide; 0 where no subject is known. */
  readonly hiddenShare: number;
}

/** A subject that stands before letters. */
export interface PlacedFront {
  /** The slot of the picture. */
  readonly picture: string;
  /** Share of the letters that it hides. */
  readonly hiddenShare: number;
}

/** Words that went beside the photograph they stand on elsewhere, with the share of its subject that can be seen so, and that could be seen with the words on it. */
export interface SetBeside {
  /** The slot of the picture. */
  readonly picture: string;
  readonly seenShare: number;
  readonly seenOnPhoto: number;
}

/** The arrangement that a cut of this shape usually has, with the share of a photograph's subject that it would show, and that is seen instead. */
export interface InsteadOf {
  readonly arrangement: string;
  readonly seenShare: number;
  readonly seenInIt: number;
}

/** What the engine decided for a cut and what it could not reach. */
export interface CutReport {
  /** Key of the arrangement that was taken. */
  readonly arrangement: string;
  /** Missing where the arrangement is the usual or the chosen one. */
  readonly insteadOf?: InsteadOf | undefined;
  readonly texts: readonly TextFit[];
  readonly placed: readonly PlacedText[];
  readonly pictures: readonly PlacedPicture[];
  readonly blocks: readonly PlacedBlock[];
  readonly fronts: readonly PlacedFront[];
  /** Missing where words stand as their arrangement says. */
  readonly beside?: SetBeside | undefined;
  /** Fields that stand on the cut, behind words. */
  readonly panels: readonly Box[];
  /** Boxes of the marks. */
  readonly marks: readonly Box[];
  /** Where the parts of the arrangement stand, where that was asked for. */
  readonly parts?: PartBoxes | undefined;
  readonly findings: readonly CutFinding[];
}
