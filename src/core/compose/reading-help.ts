import { contrastOfLuminances, relativeLuminance } from '../colour/contrast.ts';
import { veiled, worstContrast, type LuminanceRange } from './backdrop.ts';

/** The help that makes words on a photograph readable; `share` says how much of the picture it hides, in [0, 1]. */
export type ReadingHelp = { readonly kind: 'none' } | { readonly kind: 'gradient' | 'tint'; readonly colour: string; readonly share: number } | { readonly kind: 'panel'; readonly colour: string };

export const NO_HELP: ReadingHelp = { kind: 'none' };

/** What lies behind a text and the contrast that it has to reach. */
export interface ToRead {
  readonly behind: LuminanceRange;
  readonly needed: number;
}

/** Help aims at this many times the needed contrast: a canvas mixes each channel, and this file only their luminance. */
const RESERVE = 1.12;
const LEAST_SHARE = 0.15;
/** A gradient that hides more than this is a panel with a blurred edge. */
const MAX_SHARE = 0.8;
const STEP = 0.05;
/** A light veil bleaches a photograph: it has to be this much thinner than a dark one. */
const LIGHT_COSTS = 1.35;
/** The scheme's ground below words in its ink is what a brand expects; the other way round has to be this much thinner. */
const SECOND_COSTS = 1.8;

/**
 * The least help with which one colour of the scheme reads on all of these: nothing, else the thinnest veil in one of the scheme's
 * colours, else a panel.
 * @param inks colours that words may take
 * @param veils colours that a veil may have, the usual one first
 * @param panel the colour of a panel
 * @param isLarge whether the words take most of the cut: then the whole picture is tinted
 */
export function readingHelp(texts: readonly ToRead[], inks: readonly string[], veils: readonly string[], panel: string, isLarge: boolean): ReadingHelp {
  const readsAsIs = inks.some((ink) => texts.every(({ behind, needed }) => worstContrast(ink, behind) >= needed));
  const reads = (veil: { readonly luminance: number; readonly share: number }): boolean => inks.some((ink) => texts.every(({ behind, needed }) => worstContrast(ink, veiled(behind, veil)) >= needed * RESERVE));
  if (texts.length === 0 || readsAsIs) return NO_HELP;
  const thinnest = veils.flatMap((colour, index) => {
    const luminance = relativeLuminance(colour);
    for (let share = LEAST_SHARE; share <= MAX_SHARE + 1e-9; share += STEP) {
      if (reads({ luminance, share })) return [{ colour, share, cost: share * (isLight(luminance) ? LIGHT_COSTS : 1) * (index === 0 ? 1 : SECOND_COSTS) }];
    }
    return [];
  });
  const [first, ...others] = thinnest;
  if (!first) return { kind: 'panel', colour: panel };
  const { colour, share } = others.reduce((best, each) => (each.cost < best.cost ? each : best), first);
  return { kind: isLarge ? 'tint' : 'gradient', colour, share };
}

function isLight(luminance: number): boolean {
  return contrastOfLuminances(luminance, 1) < contrastOfLuminances(luminance, 0);
}
