import type { PieceKind } from '../../../core/piece/piece.ts';

/** What the frames of a piece are called. */
export interface SlideWords {
  readonly one: string;
  readonly One: string;
  /** The first kind of frame that a template has. */
  readonly cover: string;
}

const words: Readonly<Record<PieceKind, SlideWords>> = {
  graphic: { one: 'picture', One: 'Picture', cover: 'Cover' },
  carousel: { one: 'slide', One: 'Slide', cover: 'Cover' },
  video: { one: 'shot', One: 'Shot', cover: 'Opening' },
};

export const slideWords = (kind: PieceKind): SlideWords => words[kind];
