import type { Box } from '../geometry/box.ts';

/** A soft shadow under a subject on nothing, in pixels of the cut. */
export interface Shadow {
  readonly colour: string;
  readonly alpha: number;
  /** As a canvas takes it: twice the standard deviation of the blur. */
  readonly blurPx: number;
  readonly downPx: number;
}

/** Blur and offset of a soft shadow, in m. */
const SHADOW_M = { blur: 0.7, down: 0.28 } as const;
const ALPHA = 0.34;

/** A shadow in the darker colour of a scheme. */
export function softShadow(colour: string, marginPx: number): Shadow {
  return { colour, alpha: ALPHA, blurPx: SHADOW_M.blur * marginPx, downPx: SHADOW_M.down * marginPx };
}

/** A subject's box with room for its shadow, in whole pixels around it. */
export function withShadow({ xPx, yPx, widthPx, heightPx }: Box, { blurPx, downPx }: Shadow): Box {
  const room = Math.ceil(1.5 * blurPx + downPx);
  return { xPx: xPx - room, yPx: yPx - room, widthPx: widthPx + 2 * room, heightPx: heightPx + 2 * room };
}

/** The shadow settings of a canvas. */
export interface ShadowContext {
  shadowColor: string;
  shadowBlur: number;
  shadowOffsetY: number;
}

/** Draws with a shadow below. @param scale pixels of the canvas a pixel of the cut, which a canvas does not apply to shadows by itself */
export function drawShadowed(context: ShadowContext, { colour, alpha, blurPx, downPx }: Shadow, scale: number, draw: () => void): void {
  context.shadowColor = `${colour}${Math.round(alpha * 255).toString(16).padStart(2, '0')}`;
  context.shadowBlur = blurPx * scale;
  context.shadowOffsetY = downPx * scale;
  draw();
  context.shadowColor = 'transparent';
  context.shadowBlur = 0;
  context.shadowOffsetY = 0;
}
