import type { Role } from '../../core/access/access.ts';
import type { Frame, Piece } from '../../core/piece/piece.ts';
import type { Template } from '../../core/template/template.ts';
import type { MediaItem } from '../media/media-address.ts';
import type { BrandData } from '../preview/brand-content.ts';
import type { PieceStore } from './piece-store.ts';
import type { Cuts } from './use-cuts.ts';

/** What every view of a piece is handed. */
export interface ViewProps {
  readonly brand: { readonly slug: string; readonly zone: string; readonly role: Role };
  readonly brandData: BrandData;
  readonly template: Template;
  readonly store: PieceStore;
  readonly piece: Piece;
  readonly pieceId: string;
  readonly cuts: Cuts;
  readonly readOnly: boolean;
}

export interface LookProps extends ViewProps {
  readonly media: ReadonlyMap<string, MediaItem>;
  readonly onMedia: (item: MediaItem) => void;
}

/** Of the content sheet and what stands on it. */
export interface ContentProps extends LookProps {
  /** The slide at work; a graphic's only frame. */
  readonly frame: Frame;
}

/** Of walls on which slides or shots stand side by side. */
export interface ContactProps extends ViewProps {
  /** The slide at work. */
  readonly frame: Frame;
  /** Slides that are chosen together. */
  readonly chosen: ReadonlySet<string>;
  readonly onChosen: (ids: ReadonlySet<string>, last: string | null) => void;
  readonly onLook: (cutKey: string, frameId: string) => void;
  readonly onMedia: (item: MediaItem) => void;
}
