import type { TransitionKind } from '../piece/shot.ts';
import { SWEEP_EDGE } from './sweep.ts';

/** What a transition needs of a 2D canvas. */
export interface BlendContext<Picture> {
  globalAlpha: number;
  save(): void;
  restore(): void;
  setTransform(a: number, b: number, c: number, d: number, e: number, f: number): void;
  drawImage(picture: Picture, sx: number, sy: number, sw: number, sh: number, dx: number, dy: number, dw: number, dh: number): void;
}

/**
 * Draws a shot that takes over from another, as far as it has come; the band of a sweep goes over it. Export does the same by filters of the video program.
 * @param progress in (0, 1)
 */
export function blend<Picture>(context: BlendContext<Picture>, before: Picture, after: Picture, { kind, progress }: { readonly kind: TransitionKind; readonly progress: number }, size: { readonly width: number; readonly height: number }): void {
  const { width, height } = size;
  const share = kind === 'cut' ? 1 : kind === 'sweep' ? Math.min(1, Math.max(0, (progress - SWEEP_EDGE.comes) / (SWEEP_EDGE.leaves - SWEEP_EDGE.comes))) : progress;
  const draw = (picture: Picture, fromX: number, toX: number, wide: number): void => {
    if (wide > 0) context.drawImage(picture, fromX, 0, wide, height, toX, 0, wide, height);
  };
  context.save();
  context.setTransform(1, 0, 0, 1, 0, 0);
  context.globalAlpha = 1;
  const come = Math.round(share * width);
  if (kind === 'push') {
    draw(before, come, 0, width - come);
    draw(after, 0, width - come, come);
  } else {
    draw(before, 0, 0, width);
    if (kind === 'fade') context.globalAlpha = share;
    if (kind === 'wipe' || kind === 'sweep') draw(after, width - come, width - come, come);
    else draw(after, 0, 0, width);
  }
  context.restore();
}
