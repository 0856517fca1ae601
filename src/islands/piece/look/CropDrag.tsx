import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { PlacedPicture } from '../../../core/compose/report.ts';
import { adjustCut, moveCrop } from '../../../core/piece/adjust.ts';
import type { ViewProps } from '../view-props.ts';
import type { Cut } from '../use-cuts.ts';

interface DragProps extends Pick<ViewProps, 'store'> {
  readonly cut: Cut;
  readonly picture: PlacedPicture;
  /** Pixels of the screen a pixel of the cut. */
  readonly scale: number;
}

const KEY_STEP = 0.02;

/** Lies over a picture of the large cut: dragging it, or the arrow keys, move what of the picture is shown. */
export function CropDrag({ cut, picture, scale, store }: DragProps) {
  const start = useRef<{ readonly clientX: number; readonly clientY: number; readonly x: number; readonly y: number } | null>(null);
  const { box, window, slot } = picture;
  const zoom = cut.adjustment.crops?.[slot]?.zoom ?? 1;
  const middle = { x: window.x + window.width / 2, y: window.y + window.height / 2 };
  const moveTo = (x: number, y: number): void => store.change(`crop-${cut.key}`, (draft) => adjustCut(draft, cut.key, (adjustment) => moveCrop(adjustment, slot, { x, y, zoom })));
  const drag = (event: PointerEvent): void => {
    const from = start.current;
    if (!from) return;
    moveTo(from.x - ((event.clientX - from.clientX) / scale / box.widthPx) * window.width, from.y - ((event.clientY - from.clientY) / scale / box.heightPx) * window.height);
  };
  const step = (event: KeyboardEvent): void => {
    const moves: Readonly<Record<string, readonly [number, number]>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    moveTo(middle.x + move[0] * KEY_STEP, middle.y + move[1] * KEY_STEP);
  };
  return (
    <button
      type="button"
      aria-label="Crop: drag, or move with the arrow keys"
      onKeyDown={step}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        start.current = { clientX: event.clientX, clientY: event.clientY, ...middle };
      }}
      onPointerMove={drag}
      onPointerUp={() => (start.current = null)}
      onPointerCancel={() => (start.current = null)}
      style={{ left: box.xPx * scale, top: box.yPx * scale, width: box.widthPx * scale, height: box.heightPx * scale }}
      className="absolute cursor-move touch-none hover:outline-1 hover:outline-offset-[-1px] hover:outline-panel hover:outline-dashed"
    />
  );
}
