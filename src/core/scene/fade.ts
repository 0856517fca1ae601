/** A point of a cut, in pixels. */
interface Point {
  readonly xPx: number;
  readonly yPx: number;
}

/** How much of a fill is left at a place of its fade: both in [0, 1]. */
export interface FadeStop {
  readonly at: number;
  readonly share: number;
}

export interface LineFade {
  readonly kind: 'line';
  readonly from: Point;
  readonly to: Point;
  /** In rising order. Between two of them the fade is linear, before the first and behind the last it stays as they are. */
  readonly stops: readonly FadeStop[];
}

export interface RoundFade {
  readonly kind: 'round';
  readonly middle: Point;
  readonly radiusPx: number;
  readonly stops: readonly FadeStop[];
}

/** A fill that comes and goes along a line, or outwards from a point. */
export type Fade = LineFade | RoundFade;

/** What the painter uses of a gradient. */
export interface PaintGradient {
  addColorStop(offset: number, colour: string): void;
}

/** What it uses of a canvas to make one. */
export interface GradientContext {
  createLinearGradient(x0: number, y0: number, x1: number, y1: number): PaintGradient;
  createRadialGradient(x0: number, y0: number, r0: number, x1: number, y1: number, r1: number): PaintGradient;
}

/** A fade as the fill style of a canvas. @param colour `#rrggbb` */
export function fadeStyle(context: GradientContext, fade: Fade, colour: string): PaintGradient {
  const gradient =
    fade.kind === 'line'
      ? context.createLinearGradient(fade.from.xPx, fade.from.yPx, fade.to.xPx, fade.to.yPx)
      : context.createRadialGradient(fade.middle.xPx, fade.middle.yPx, 0, fade.middle.xPx, fade.middle.yPx, fade.radiusPx);
  const channels = [1, 3, 5].map((start) => parseInt(colour.slice(start, start + 2), 16)).join(', ');
  for (const { at, share } of fade.stops) gradient.addColorStop(at, `rgba(${channels}, ${share.toFixed(5)})`);
  return gradient;
}

/** The same fade higher up. */
export function raiseFade(fade: Fade, risePx: number): Fade {
  const raised = ({ xPx, yPx }: Point): Point => ({ xPx, yPx: yPx - risePx });
  return fade.kind === 'line' ? { ...fade, from: raised(fade.from), to: raised(fade.to) } : { ...fade, middle: raised(fade.middle) };
}
