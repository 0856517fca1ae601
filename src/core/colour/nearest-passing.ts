import { clampChroma, converter, formatHex } from 'culori';
import { contrastRatio } from './contrast.ts';

const toOklch = converter('oklch');
const STEPS = 400;

/**
 * The colour of the same hue, nearest in lightness, that reaches a contrast against each of some grounds; chroma gives
 * way only where the screen cannot show it. Searched in OKLCH, where equal steps look equal.
 * @param colour `#rrggbb` to be changed
 * @param grounds `#rrggbb` each, that stay
 * @param ratio WCAG contrast that must be reached
 * @returns `#rrggbb`, the colour itself if it passes, or null when no lightness of this hue does
 */
export function nearestPassing(colour: string, grounds: readonly string[], ratio: number): string | null {
  const passes = (candidate: string): boolean => grounds.every((ground) => contrastRatio(candidate, ground) >= ratio);
  if (passes(colour)) return colour;
  const start = toOklch(colour);
  if (!start) throw new RangeError(`Colour '${colour}': expected #rrggbb`);
  for (let step = 1; step <= STEPS; step += 1) {
    for (const sign of [-1, 1]) {
      const lightness = start.l + (sign * step) / STEPS;
      if (lightness < 0 || lightness > 1) continue;
      const candidate = formatHex(clampChroma({ ...start, l: lightness }, 'oklch'));
      if (passes(candidate)) return candidate;
    }
  }
  return null;
}
