import { clampChroma, converter, formatHex } from 'culori';
import { contrastRatio } from './contrast.ts';

const toOklch = converter('oklch');
const STEPS = 400;

/**
 * The colour of the same hue, nearest in lightness, that reaches a contrast against another; chroma gives way only where
 * the screen cannot show it. Searched in OKLCH, where equal steps look equal.
 * @param colour `#rrggbb` to be changed
 * @param against `#rrggbb` that stays
 * @param ratio WCAG contrast that must be reached
 * @returns `#rrggbb`, the colour itself if it passes, or null when no lightness of this hue does
 */
export function nearestPassing(colour: string, against: string, ratio: number): string | null {
  if (contrastRatio(colour, against) >= ratio) return colour;
  const start = toOklch(colour);
  if (!start) throw new RangeError(`Colour '${colour}': expected #rrggbb`);
  for (let step = 1; step <= STEPS; step += 1) {
    for (const sign of [-1, 1]) {
      const lightness = start.l + (sign * step) / STEPS;
      if (lightness < 0 || lightness > 1) continue;
      const candidate = formatHex(clampChroma({ ...start, l: lightness }, 'oklch'));
      if (contrastRatio(candidate, against) >= ratio) return candidate;
    }
  }
  return null;
}
