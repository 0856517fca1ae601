import { useCallback, useMemo, useState } from 'react';
import type { CutReport } from '../../core/compose/report.ts';
import type { NetworkSheet, Placement } from '../../core/network/network-sheet.ts';
import type { Adjustment } from '../../core/piece/adjustment.ts';
import { adjustmentOf, cutKey, isBlank, mediaOfPiece, slideAdjustmentOf, slideKey, type CutRef, type Frame, type Piece } from '../../core/piece/piece.ts';
import { ALONE, filledSlide, placesOf, slidesOfCut, type LeftSlide, type SlidePlace } from '../../core/piece/slides-of-cut.ts';
import type { CutToCheck } from '../../core/preflight/finding.ts';
import { slideTemplate } from '../../core/template/slide-template.ts';
import { COVER, type Template } from '../../core/template/template.ts';
import { withOwnTimes } from '../../core/video/shot-times.ts';
import type { WallContent, WantedCut } from '../../workers/wall-protocol.ts';
import { brandContent } from '../preview/brand-content.ts';
import type { BrandData, MediaItem } from './PieceEditor.tsx';
import { useWall, type Wall } from '../preview/wall.ts';

/** One slide of a cut; a graphic has one. */
export interface CutSlide {
  /** Names its canvas, its report and what is its own in this cut. */
  readonly key: string;
  readonly frame: Frame;
  readonly template: Template;
  readonly adjustment: Adjustment;
  readonly place: SlidePlace;
}

/** A cut of the piece with its channel and placement looked up, and the slides that go out in it. */
export interface Cut {
  readonly key: string;
  readonly ref: CutRef;
  readonly channelId: string;
  readonly channelName: string;
  readonly sheet: NetworkSheet;
  readonly placement: Placement;
  readonly adjustment: Adjustment;
  readonly slides: readonly CutSlide[];
  readonly left: readonly LeftSlide[];
}

export interface Cuts {
  readonly list: readonly Cut[];
  readonly template: Template;
  readonly wall: Wall | null;
  readonly reports: ReadonlyMap<string, CutReport>;
  readonly problem: string | null;
  readonly toCheck: readonly CutToCheck[];
  /** Pixels of the screen a pixel of a cut, on the wall. */
  readonly wallScale: number;
  readonly setWallScale: (scale: number) => void;
  /** What every painting of this piece is made of; which cuts, and how large, is said beside it. */
  readonly content: WallContent;
  readonly wanted: (cut: Cut, scale: number) => readonly WantedCut[];
  /** Pixels of the screen that a cut is shown at: all graphics at one scale, all slides at one width. */
  readonly scaleOf: (cut: Cut) => number;
}

/** Between these a wall is useful: from an overview to one cut filling it. */
export const WALL_SCALES = { least: 0.1, usual: 0.175, most: 0.4 } as const;
/** Width of a contact sheet's column at full scale. */
const COLUMN_PX = 760;

interface UseCutsInput {
  readonly brandData: BrandData;
  readonly piece: Piece;
  readonly template: Template;
  readonly media: ReadonlyMap<string, MediaItem>;
}

/** The cuts of a piece, painted and reported on as it changes. */
export function useCuts({ brandData, piece, template, media }: UseCutsInput): Cuts {
  const [wallScale, setWallScale] = useState<number>(WALL_SCALES.usual);
  const { cuts: cutRefs, adjustments, frames, kind, cover } = piece;
  const list = useMemo(
    () =>
      cutRefs.flatMap((ref): Cut[] => {
        const channel = brandData.channels.find((each) => each.id === ref.channelId);
        const sheet = brandData.sheets.find((each) => each.key === channel?.network);
        const placement = sheet?.placements.find((each) => each.key === ref.placement);
        if (!channel || !sheet || !placement) return [];
        const adjustment = adjustmentOf({ adjustments }, ref);
        const { shown, left } = slidesOfCut({ kind, frames }, template, placement.carousel, adjustment);
        const places = placesOf(shown, template);
        const slides = shown.map((frame, index): CutSlide => ({
          key: kind === 'graphic' ? cutKey(ref) : slideKey(ref, frame.id),
          frame: withOwnTimes(frame, slideAdjustmentOf({ adjustments }, ref, frame.id)),
          template: slideTemplate(template, frame.slide),
          adjustment: slideAdjustmentOf({ adjustments }, ref, frame.id),
          place: places[index] ?? ALONE,
        }));
        return [{ key: cutKey(ref), ref, channelId: channel.id, channelName: channel.name, sheet, placement, adjustment, slides, left }];
      }),
    [cutRefs, adjustments, frames, kind, template, brandData],
  );
  // Words change on every keystroke of the wording sheet; the look depends on the frames alone.
  const mediaIds = mediaOfPiece({ frames, cover }).join(' ');
  const content = useMemo(() => brandContent(brandData, brandData.book, mediaIds.split(' ').flatMap((id) => media.get(id) ?? [])), [mediaIds, brandData, media]);
  const wanted = useCallback(
    (cut: Cut, scale: number): readonly WantedCut[] =>
      cut.slides.map((slide) => ({
        key: slide.key,
        template: slide.template,
        frame: kind === 'graphic' ? slide.frame : filledSlide(slide.frame, frames[0], template, slide.place),
        placement: cut.placement,
        adjustment: slide.adjustment,
        scale,
        run: cut.key,
        place: slide.place,
        family: slide.frame.slide ?? COVER,
        ...(isBlank(slide.frame) ? { blank: true } : {}),
      })),
    [template, frames, kind],
  );
  const scaleOf = useCallback((cut: Cut): number => (kind !== 'carousel' ? wallScale : (wallScale * COLUMN_PX) / cut.placement.exportPx.width), [kind, wallScale]);
  const request = useMemo(() => {
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    const cuts = list.flatMap((cut) => wanted(cut, scaleOf(cut) * density));
    // A video is painted moment by moment by whoever plays it; here its shots are only fitted.
    return { content, ghosts: kind !== 'video', cuts: kind === 'video' ? cuts.map((cut): WantedCut => ({ ...cut, unseen: true })) : cuts };
  }, [content, wanted, list, scaleOf, kind]);
  const { wall, state } = useWall(request);
  const toCheck = useMemo(
    () =>
      list.flatMap(({ ref, channelName, sheet, placement, slides: all, left }): CutToCheck[] => {
        const slides = all.flatMap(({ key, frame }) => {
          const report = state.reports.get(key);
          return report ? [{ frame, report }] : [];
        });
        return slides.length === all.length ? [{ ref, channelName, sheet, placement, slides, left }] : [];
      }),
    [list, state.reports],
  );
  return { list, template, wall, reports: state.reports, problem: state.problem, toCheck, wallScale, setWallScale, content, wanted, scaleOf };
}
