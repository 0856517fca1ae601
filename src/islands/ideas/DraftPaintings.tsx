import { CutCanvas } from '../preview/CutCanvas.tsx';
import type { Wall } from '../preview/wall.ts';
import type { DraftCut } from './use-draft-wall.ts';

/** The paintings of one draft side by side. */
export function DraftPaintings({ wall, cuts, label }: { readonly wall: Wall | null; readonly cuts: readonly DraftCut[]; readonly label: string }) {
  return (
    <span role="img" aria-label={label} className="flex items-start gap-2 overflow-x-auto overflow-y-hidden">
      {cuts.map(({ cutKey, widthPx, heightPx }) => (
        <CutCanvas key={cutKey} wall={wall} cutKey={cutKey} widthPx={widthPx} heightPx={heightPx} />
      ))}
    </span>
  );
}
