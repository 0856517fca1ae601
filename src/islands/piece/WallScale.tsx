import { WALL_SCALES, type Cuts } from './use-cuts.ts';

/** How large the cuts are shown. */
export function WallScale({ cuts }: { readonly cuts: Pick<Cuts, 'wallScale' | 'setWallScale'> }) {
  const percent = `${Math.round(cuts.wallScale * 100)}%`;
  return (
    <label className="flex items-center gap-2 text-xs text-quiet">
      Scale
      <input type="range" min={WALL_SCALES.least} max={WALL_SCALES.most} step={0.01} value={cuts.wallScale} aria-valuetext={percent} onChange={(event) => cuts.setWallScale(Number(event.target.value))} className="w-24 accent-house" />
      <span className="w-8 text-right tabular-nums">{percent}</span>
    </label>
  );
}
