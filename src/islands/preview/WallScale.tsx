import { WALL_SCALES, type Cuts } from '../piece/use-cuts.ts';

/** How large the cuts are shown. */
export function WallScale({ cuts, compact = false }: { readonly cuts: Pick<Cuts, 'wallScale' | 'setWallScale'>; readonly compact?: boolean }) {
  const percent = `${Math.round(cuts.wallScale * 100)}%`;
  return (
    <label className="flex items-center gap-2 text-xs text-quiet">
      <span className={compact ? 'sr-only' : ''}>Scale</span>
      <input type="range" min={WALL_SCALES.least} max={WALL_SCALES.most} step={0.01} value={cuts.wallScale} aria-valuetext={percent} onChange={(event) => cuts.setWallScale(Number(event.target.value))} className="w-24 accent-house" />
      {!compact && <span className="w-8 text-right tabular-nums">{percent}</span>}
    </label>
  );
}
