import { resolveCuts, type Cut as ResolvedCut } from '../../core/cut/resolve-cuts.ts';
import { isBlank, mediaOfPiece, type Piece } from '../../core/piece/piece.ts';
import type { Template } from '../../core/template/template.ts';
import type { WallContent, WantedCut } from '../../workers/wall-protocol.ts';
import type { MediaItem } from '../media/media-address.ts';
import { brandContent, type BrandData } from '../preview/brand-content.ts';
import type { WallRequest } from '../preview/wall.ts';

/** A cut on the wall, with the brand's channel it is for. */
export type Cut = ResolvedCut<BrandData['channels'][number]>;

/** All that the wall of a piece is made from. */
export interface WallSource {
  readonly brandData: BrandData;
  readonly piece: Piece;
  readonly template: Template;
  readonly media: ReadonlyMap<string, MediaItem>;
  /** Pixels of the screen a pixel of a graphic. */
  readonly wallScale: number;
}

/** What a piece's wall shows. */
export interface PieceWall {
  readonly list: readonly Cut[];
  /** The content that all cuts of this piece are painted from. */
  readonly content: WallContent;
  readonly request: WallRequest;
}

/** Width of a contact sheet's column at full scale. */
const COLUMN_PX = 760;

/** Pixels of the screen that a cut is shown at: all graphics at one scale, all slides at one width. */
export function scaleOfCut({ placement }: Cut, kind: Piece['kind'], wallScale: number): number {
  return kind !== 'carousel' ? wallScale : (wallScale * COLUMN_PX) / placement.exportPx.width;
}

/** The slides of a cut as painters want them. */
export function wantedSlides(cut: Cut, scale: number): readonly WantedCut[] {
  return cut.slides.map(({ key, template, frame, filled, adjustment, place, family }) => ({
    key,
    template,
    frame: filled,
    placement: cut.placement,
    adjustment,
    scale,
    run: cut.key,
    place,
    family,
    ...(isBlank(frame) ? { blank: true } : {}),
  }));
}

/**
 * What the wall of a piece is asked for. A part is made anew only where something changes that it depends on: words of the wording sheet, say,
 * change with every key, and no cut does. So whoever asks twice for the same piece gets the same request.
 */
export function wallRequests(): (source: WallSource) => PieceWall {
  const cutsOf = rememberLast((kind: Piece['kind'], frames: Piece['frames'], adjustments: Piece['adjustments'], refs: Piece['cuts'], template: Template, { channels, sheets }: BrandData): readonly Cut[] => resolveCuts({ piece: { kind, frames, adjustments }, template, channels, sheets }, refs));
  const contentOf = rememberLast((mediaIds: string, brandData: BrandData, media: WallSource['media']): WallContent => brandContent(brandData, brandData.book, mediaIds.split(' ').flatMap((id) => media.get(id) ?? [])));
  const requestOf = rememberLast((content: WallContent, list: readonly Cut[], kind: Piece['kind'], wallScale: number): WallRequest => {
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    const cuts = list.flatMap((cut) => wantedSlides(cut, scaleOfCut(cut, kind, wallScale) * density));
    // A video is painted moment by moment by whoever plays it; here its shots are only fitted.
    return kind === 'video' ? { content, ghosts: false, cuts: cuts.map((cut): WantedCut => ({ ...cut, unseen: true })) } : { content, ghosts: true, isWrittenIn: true, cuts };
  });
  return ({ piece: { kind, frames, adjustments, cuts, cover }, template, brandData, media, wallScale }) => {
    const list = cutsOf(kind, frames, adjustments, cuts, template, brandData);
    const content = contentOf(mediaOfPiece({ frames, cover }).join(' '), brandData, media);
    return { list, content, request: requestOf(content, list, kind, wallScale) };
  };
}

/** Calls again only with other arguments than the last time. */
function rememberLast<Arguments extends readonly unknown[], Made>(make: (...args: Arguments) => Made): (...args: Arguments) => Made {
  let last: { readonly args: Arguments; readonly made: Made } | null = null;
  return (...args) => {
    const known = last;
    if (known && args.every((each, index) => each === known.args[index])) return known.made;
    const made = make(...args);
    last = { args, made };
    return made;
  };
}
