import { useCallback, useMemo, useState } from 'react';
import type { CutReport } from '../../core/compose/report.ts';
import type { NetworkSheet, Placement } from '../../core/network/network-sheet.ts';
import type { Adjustment } from '../../core/piece/adjustment.ts';
import { adjustmentOf, cutKey, mediaOfPiece, type CutRef, type Piece } from '../../core/piece/piece.ts';
import type { CutToCheck } from '../../core/preflight/finding.ts';
import type { Template } from '../../core/template/template.ts';
import type { WantedCut } from '../../workers/wall-protocol.ts';
import { brandContent, type PaintContent } from './brand-content.ts';
import type { BrandData, MediaItem } from './PieceEditor.tsx';
import { useWall, type Wall } from './wall.ts';

/** A cut of the piece with its channel and placement looked up. */
export interface Cut {
  readonly key: string;
  readonly ref: CutRef;
  readonly channelId: string;
  readonly channelName: string;
  readonly sheet: NetworkSheet;
  readonly placement: Placement;
  readonly adjustment: Adjustment;
}

export interface Cuts {
  readonly list: readonly Cut[];
  readonly wall: Wall | null;
  readonly reports: ReadonlyMap<string, CutReport>;
  readonly problem: string | null;
  readonly toCheck: readonly CutToCheck[];
  /** Pixels of the screen a pixel of a cut, on the wall. */
  readonly wallScale: number;
  readonly setWallScale: (scale: number) => void;
  /** What every painting of this piece is made of; which cuts, and how large, is said beside it. */
  readonly content: PaintContent;
  readonly wanted: (cut: Cut, scale: number) => WantedCut;
}

/** Between these a wall is useful: from an overview to one cut filling it. */
export const WALL_SCALES = { least: 0.1, usual: 0.175, most: 0.4 } as const;
interface UseCutsInput {
  readonly brandData: BrandData;
  readonly piece: Piece;
  readonly template: Template;
  readonly media: ReadonlyMap<string, MediaItem>;
}

/** The cuts of a piece, painted and reported on as it changes. */
export function useCuts({ brandData, piece, template, media }: UseCutsInput): Cuts {
  const [wallScale, setWallScale] = useState<number>(WALL_SCALES.usual);
  const { cuts: cutRefs, adjustments } = piece;
  const list = useMemo(
    () =>
      cutRefs.flatMap((ref): Cut[] => {
        const channel = brandData.channels.find((each) => each.id === ref.channelId);
        const sheet = brandData.sheets.find((each) => each.key === channel?.network);
        const placement = sheet?.placements.find((each) => each.key === ref.placement);
        return channel && sheet && placement ? [{ key: cutKey(ref), ref, channelId: channel.id, channelName: channel.name, sheet, placement, adjustment: adjustmentOf({ adjustments }, ref) }] : [];
      }),
    [cutRefs, adjustments, brandData],
  );
  // Words change on every keystroke of the wording sheet; the look depends on the frames alone.
  const { frames } = piece;
  const content = useMemo(() => brandContent(brandData, brandData.book, mediaOfPiece({ frames }).flatMap((id) => media.get(id) ?? [])), [frames, brandData, media]);
  const wanted = useCallback(({ key, placement, adjustment }: Cut, scale: number): WantedCut => ({ key, template, frame: frames[0], placement, adjustment, scale }), [template, frames]);
  const request = useMemo(() => {
    const density = Math.min(2, globalThis.devicePixelRatio || 1);
    return { ...content, ghosts: true, cuts: list.map((cut) => wanted(cut, wallScale * density)) };
  }, [content, wanted, list, wallScale]);
  const { wall, state } = useWall(request);
  const toCheck = useMemo(
    () =>
      list.flatMap((cut): CutToCheck[] => {
        const report = state.reports.get(cut.key);
        return report ? [{ ref: cut.ref, channelName: cut.channelName, sheet: cut.sheet, placement: cut.placement, report }] : [];
      }),
    [list, state.reports],
  );
  return { list, wall, reports: state.reports, problem: state.problem, toCheck, wallScale, setWallScale, content, wanted };
}
