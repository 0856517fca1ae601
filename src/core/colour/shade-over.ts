import { clampChroma, converter, formatHex } from 'culori';
import { relativeLuminance } from './contrast.ts';

const toOklch = converter('oklch');
/** What a deep shade keeps of its colour's lightness and chroma. */
const KEEPS = { lightness: 0.45, chroma: 0.7 } as const;
/** A shade is at most this share as light as what it darkens. */
const DARKER = 0.5;
/** A colour above this luminance bleaches; it is not meant to darken. */
const MAX_DARK = 0.18;

/**
 * The colour with which a dark colour shades something: itself, unless it is hardly darker than that. Then it would lie there like
 * fog, and its deep shade of the same hue is taken.
 * @param colour `#rrggbb`
 * @param meanBehind mean luminance of what is shaded, in [0, 1]
 */
export function shadeOver(colour: string, meanBehind: number): string {
  const luminance = relativeLuminance(colour);
  if (luminance > MAX_DARK || luminance <= meanBehind * DARKER) return colour;
  const own = toOklch(colour);
  if (!own) throw new RangeError(`Colour '${colour}': expected #rrggbb`);
  return formatHex(clampChroma({ ...own, l: own.l * KEEPS.lightness, c: own.c * KEEPS.chroma }, 'oklch'));
}
