import { useCallback, useMemo, useState } from 'react';
import type { CutReport } from '../../core/compose/report.ts';
import { resolveCuts, type Cut as ResolvedCut } from '../../core/cut/resolve-cuts.ts';
import { isBlank, mediaOfPiece, type Piece } from '../../core/piece/piece.ts';
import { cutToCheck, type CutToCheck } from '../../core/preflight/finding.ts';
import type { Template } from '../../core/template/template.ts';
import type { WallContent, WantedCut } from '../../workers/wall-protocol.ts';
import { brandContent } from '../preview/brand-content.ts';
import type { BrandData } from '../preview/brand-content.ts';
import type { MediaItem } from '../media/media-address.ts';
import { useWall, type Wall } from '../preview/wall.ts';

/** A cut on the wall, with the brand's channel it is for. */
export type Cut = ResolvedCut<BrandData['channels'][number]>;
export type { CutSlide } from '../../core/cut/resolve-cuts.ts';

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
  /** The content that all cuts of this piece are painted from. */
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
  const list = useMemo(() => resolveCuts({ piece: { kind, frames, adjustments }, template, channels: brandData.channels, sheets: brandData.sheets }, cutRefs), [cutRefs, adjustments, frames, kind, template, brandData]);
  // Words change on every keystroke of the wording sheet; the look depends on the frames alone.
  const mediaIds = mediaOfPiece({ frames, cover }).join(' ');
  const content = useMemo(() => brandContent(brandData, brandData.book, mediaIds.split(' ').flatMap((id) => media.get(id) ?? [])), [mediaIds, brandData, media]);
  const wanted = useCallback(
    (cut: Cut, scale: number): readonly WantedCut[] =>
      cut.slides.map(({ key, template: own, frame, filled, adjustment, place, family }) => ({
        key,
        template: own,
        frame: filled,
        placement: cut.placement,
        adjustment,
        scale,
        run: cut.key,
        place,
        family,
        ...(isBlank(frame) ? { blank: true } : {}),
      })),
    [],
  );
  const scaleOf = useCallback((cut: Cut): number => (kind !== 'carousel' ? wallScale : (wallScale * COLUMN_PX) / cut.placement.exportPx.width), [kind, wallScale]);
  const request = useMemo(() => {
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    const cuts = list.flatMap((cut) => wanted(cut, scaleOf(cut) * density));
    // A video is painted moment by moment by whoever plays it; here its shots are only fitted.
    return kind === 'video' ? { content, ghosts: false, cuts: cuts.map((cut): WantedCut => ({ ...cut, unseen: true })) } : { content, ghosts: true, isWrittenIn: true as const, cuts };
  }, [content, wanted, list, scaleOf, kind]);
  const { wall, state } = useWall(request);
  const toCheck = useMemo(
    () =>
      list.flatMap((cut): CutToCheck[] => {
        const toCheck = cutToCheck(cut, ({ key }) => state.reports.get(key));
        return toCheck.slides.length === cut.slides.length ? [toCheck] : [];
      }),
    [list, state.reports],
  );
  return { list, template, wall, reports: state.reports, problem: state.problem, toCheck, wallScale, setWallScale, content, wanted, scaleOf };
}
