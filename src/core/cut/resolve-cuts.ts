import { sheetOfAccount } from '../network/account-kind.ts';
import type { ChannelOffers } from '../network/channel-offers.ts';
import type { NetworkSheet, Placement } from '../network/network-sheet.ts';
import { getPlacement } from '../network/network-sheet.ts';
import type { Adjustment } from '../piece/adjustment.ts';
import { adjustmentOf, cutKey, slideAdjustmentOf, slideKey, type CutRef, type Frame, type Piece } from '../piece/piece.ts';
import { ALONE, filledSlide, placesOf, slidesOfCut, type LeftSlide, type SlidePlace } from '../piece/slides-of-cut.ts';
import { slideTemplate } from '../template/slide-template.ts';
import { COVER, type Template } from '../template/template.ts';
import { withOwnTimes } from '../video/shot-times.ts';

/** What a cut has to know of the account it is for. */
export interface CutChannel {
  readonly id: string;
  readonly name: string;
  /** Key of its network sheet. */
  readonly network: string;
  /** What it has to choose from: boards, playlists. */
  readonly offers?: ChannelOffers | undefined;
  /** What kind of account it is; missing: the usual one. */
  readonly kind?: string | undefined;
}

/** One slide of a cut, ready to be composed; a graphic has one. */
export interface CutSlide {
  /** Names its canvas, its report and its own adjustment. */
  readonly key: string;
  /** The slide as a person keeps it, with the times that it has in this cut. */
  readonly frame: Frame;
  /** The same with what it shares with the cover, its page mark, its number and the running head filled in. */
  readonly filled: Frame;
  readonly template: Template;
  readonly adjustment: Adjustment;
  readonly place: SlidePlace;
  /** Slides of one family share their type sizes. */
  readonly family: string;
}

/** A cut of a piece with its channel, network sheet and placement looked up, and the slides that go out in it. */
export interface Cut<Channel extends CutChannel = CutChannel> {
  readonly key: string;
  readonly ref: CutRef;
  readonly channel: Channel;
  readonly sheet: NetworkSheet;
  readonly placement: Placement;
  readonly adjustment: Adjustment;
  readonly slides: readonly CutSlide[];
  readonly left: readonly LeftSlide[];
}

/** What of a piece decides its cuts; its words do not. */
export type CutPiece = Pick<Piece, 'kind' | 'frames' | 'adjustments'>;

/** All that the cuts of a piece are resolved from. */
export interface CutContext<Channel extends CutChannel = CutChannel> {
  readonly piece: CutPiece;
  readonly template: Template;
  readonly channels: readonly Channel[];
  readonly sheets: readonly NetworkSheet[];
}

/**
 * The cuts of a piece. A reference to a channel or placement that is no longer there is left out: a channel may have been
 * removed since the piece was made.
 */
export function resolveCuts<Channel extends CutChannel>(context: CutContext<Channel>, refs: readonly CutRef[]): readonly Cut<Channel>[] {
  return refs.flatMap((ref) => resolveCut(context, ref) ?? []);
}

/** One cut; null where its channel, network sheet or placement is not there. */
export function resolveCut<Channel extends CutChannel>({ piece, template, channels, sheets }: CutContext<Channel>, ref: CutRef): Cut<Channel> | null {
  const channel = channels.find((each) => each.id === ref.channelId);
  const networkSheet = channel && sheets.find((each) => each.key === channel.network);
  const sheet = networkSheet && sheetOfAccount(networkSheet, channel.kind);
  const placement = sheet?.placements.find((each) => each.key === ref.placement);
  if (!channel || !sheet || !placement) return null;
  const adjustment = adjustmentOf(piece, ref);
  return { key: cutKey(ref), ref, channel, sheet, placement, adjustment, ...slidesFor(piece, template, placement, ref, adjustment) };
}

/**
 * A cut by its network alone, for what has a channel's network and no more.
 * @throws RangeError when there is no sheet of that network, or it has no such placement
 */
export function getCut({ piece, template, sheets }: Omit<CutContext, 'channels'>, network: string, ref: CutRef): Cut {
  const sheet = sheets.find((each) => each.key === network);
  if (!sheet) throw new RangeError(`There is no network sheet '${network}'`);
  const placement = getPlacement(sheet, ref.placement);
  const adjustment = adjustmentOf(piece, ref);
  const channel: CutChannel = { id: ref.channelId, name: sheet.name, network };
  return { key: cutKey(ref), ref, channel, sheet, placement, adjustment, ...slidesFor(piece, template, placement, ref, adjustment) };
}

function slidesFor(piece: CutPiece, template: Template, placement: Placement, ref: CutRef, adjustment: Adjustment): Pick<Cut, 'slides' | 'left'> {
  const { shown, left } = slidesOfCut(piece, template, placement.carousel, adjustment);
  const places = placesOf(shown, template);
  const slides = shown.map((kept, index): CutSlide => {
    const own = slideAdjustmentOf(piece, ref, kept.id);
    const frame = withOwnTimes(kept, own);
    const place = places[index] ?? ALONE;
    return {
      key: piece.kind === 'graphic' ? cutKey(ref) : slideKey(ref, kept.id),
      frame,
      // A graphic may keep values aside from another template: they do no harm. A slide is filled with what it shares.
      filled: piece.kind === 'graphic' ? frame : filledSlide(frame, piece.frames[0], template, place),
      template: slideTemplate(template, kept.slide),
      adjustment: own,
      place,
      family: kept.slide ?? COVER,
    };
  });
  return { slides, left };
}
