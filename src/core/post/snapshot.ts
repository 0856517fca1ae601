import type { BrandBook } from '../brand/brand-book.ts';
import type { Picture } from '../crop/crop-window.ts';
import type { NetworkSheet } from '../network/network-sheet.ts';
import type { Piece } from '../piece/piece.ts';
import type { Recording } from '../video/recording.ts';
import type { Template } from '../template/template.ts';

/** A picture as a post keeps it: what layout knows, and the hash that names the stored bytes, which never change. */
export interface PinnedPicture extends Picture {
  readonly storedHash: string;
  /** Missing in posts that were scheduled before they were kept. */
  readonly credit?: string;
  readonly licence?: string;
  /** What a clip or sound is beside the picture that stands for it. */
  readonly recording?: PinnedRecording;
}

/** A clip or sound as a post keeps it, with the hash that names its working copy. */
export interface PinnedRecording extends Recording {
  readonly storedHash: string;
}

/** All that the cuts of a piece are made of, at one moment: as it is now, or as a pin keeps it. */
export interface Snapshot {
  readonly piece: Piece;
  readonly template: Template;
  readonly book: BrandBook;
  readonly sheets: readonly NetworkSheet[];
  readonly pictures: readonly PinnedPicture[];
}
