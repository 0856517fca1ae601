import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { CutReport } from '../../core/compose/report.ts';
import { cutToCheck, type CutToCheck } from '../../core/preflight/finding.ts';
import type { Template } from '../../core/template/template.ts';
import type { WallContent, WantedCut } from '../../workers/wall-protocol.ts';
import { useWall, type Wall } from '../preview/wall.ts';
import type { PieceStore } from './piece-store.ts';
import { scaleOfCut, wallRequests, wantedSlides, type Cut, type WallSource } from './wall-requests.ts';

export type { Cut } from './wall-requests.ts';
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

interface UseCutsInput extends Omit<WallSource, 'wallScale'> {
  /** Where the piece is kept. */
  readonly store: PieceStore;
}

/** The cuts of a piece, painted and reported on as it changes. */
export function useCuts({ store, brandData, piece, template, media }: UseCutsInput): Cuts {
  const [wallScale, setWallScale] = useState<number>(WALL_SCALES.usual);
  const [wallOf] = useState(wallRequests);
  const { kind } = piece;
  const source: WallSource = { brandData, piece, template, media, wallScale };
  const { list, content, request } = wallOf(source);
  const { wall, state } = useWall(request);
  usePaintAtOnce(store, { source, content }, wallOf, wall);
  const scaleOf = useCallback((cut: Cut): number => scaleOfCut(cut, kind, wallScale), [kind, wallScale]);
  const toCheck = useMemo(
    () =>
      list.flatMap((cut): CutToCheck[] => {
        const toCheck = cutToCheck(cut, ({ key }) => state.reports.get(key));
        return toCheck.slides.length === cut.slides.length ? [toCheck] : [];
      }),
    [list, state.reports],
  );
  return { list, template, wall, reports: state.reports, problem: state.problem, toCheck, wallScale, setWallScale, content, wanted: wantedSlides, scaleOf };
}

/** Asks the painters for a change before the page renders it: they work on it meanwhile, and the page then asks for nothing new. */
function usePaintAtOnce(store: PieceStore, now: { readonly source: WallSource; readonly content: WallContent }, wallOf: ReturnType<typeof wallRequests>, wall: Wall | null): void {
  const rendered = useRef(now);
  useEffect(() => {
    rendered.current = now;
  });
  useEffect(() => {
    if (!wall) return undefined;
    return store.subscribe(() => {
      const { source, content } = rendered.current;
      const piece = store.getState().history.document;
      if (piece === source.piece) return;
      const next = wallOf({ ...source, piece });
      // Another template or picture comes with the page.
      if (piece.template.key === source.piece.template.key && next.content === content && next.request.cuts.length > 0) wall.paint(next.request);
    });
  }, [store, wall, wallOf]);
}
