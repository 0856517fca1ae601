import type { CutReport } from '../compose/report.ts';
import type { Cut, CutSlide } from '../cut/resolve-cuts.ts';
import type { ChannelOffers } from '../network/channel-offers.ts';
import type { NetworkSheet, Placement } from '../network/network-sheet.ts';
import type { CutRef, Frame } from '../piece/piece.ts';
import type { LeftSlide } from '../piece/slides-of-cut.ts';
import type { Recording } from '../video/recording.ts';
import type { Fix } from './fix.ts';

/** What would go wrong or look wrong at sending, in a sentence, with its place. `stops` keeps a post from being scheduled. */
export interface Finding {
  readonly severity: 'stops' | 'warns';
  readonly sentence: string;
  /** The cut it is about; null when it is about the piece. */
  readonly cut: string | null;
  /** Where it is mended. */
  readonly view: 'look' | 'words' | 'facts' | 'media';
  /** The slide of a carousel that it is about. */
  readonly slide?: string | undefined;
  /** What a machine can do about it, and how that is called. */
  readonly fix: { readonly label: string; readonly change: Fix } | null;
}

/** A cut with all that is known about it. */
export interface CutToCheck {
  readonly ref: CutRef;
  readonly channelName: string;
  readonly offers?: ChannelOffers | undefined;
  readonly sheet: NetworkSheet;
  readonly placement: Placement;
  /** The slides that go out in it, each with its report; a graphic has one. */
  readonly slides: readonly CheckedSlide[];
  /** Slides of a carousel that stay behind here. */
  readonly left: readonly LeftSlide[];
}

/**
 * A resolved cut with the reports of its slides.
 * @param reportOf the report of a slide; undefined while it has not been composed, which leaves the slide out
 */
export function cutToCheck({ ref, channel, sheet, placement, slides, left }: Cut, reportOf: (slide: CutSlide, index: number) => CutReport | undefined): CutToCheck {
  const checked = slides.flatMap((slide, index): CheckedSlide[] => {
    const report = reportOf(slide, index);
    return report ? [{ frame: slide.frame, report }] : [];
  });
  return { ref, channelName: channel.name, offers: channel.offers, sheet, placement, slides: checked, left };
}

export interface CheckedSlide {
  readonly frame: Frame;
  readonly report: CutReport;
}

/** What is known of a picture beside its pixels. */
export interface PictureTerms {
  readonly id: string;
  readonly name: string;
  readonly altText: string;
  /** What a clip is; null for a picture. */
  readonly recording: Recording | null;
  readonly licence: string;
  readonly widthPx: number;
  readonly heightPx: number;
  /** The last day of its licence, `YYYY-MM-DD`; null when it has no end. */
  readonly licenceUntil: string | null;
}

export function plural(count: number, noun: string): string {
  return `${count} ${noun}${count === 1 ? '' : 's'}`;
}
