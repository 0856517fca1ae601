import { useCallback } from 'react';
import type { Wall } from './wall.ts';

interface CutCanvasProps {
  readonly wall: Wall | null;
  readonly cutKey: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly label?: string;
}

/** Where one cut is shown. The wall's worker paints it; this only gives it room. */
export function CutCanvas({ wall, cutKey, widthPx, heightPx, label }: CutCanvasProps) {
  const place = useCallback(
    (canvas: HTMLCanvasElement | null) => {
      wall?.place(cutKey, canvas);
    },
    [wall, cutKey],
  );
  return (
    <canvas
      // A canvas keeps its first context for life: another wall needs another canvas.
      key={wall ? 'painted' : 'waiting'}
      ref={place}
      data-cut={cutKey}
      style={{ width: widthPx, aspectRatio: `${widthPx} / ${heightPx}` }}
      className="block bg-sunk"
      {...(label === undefined ? {} : { role: 'img', 'aria-label': label })}
    />
  );
}
