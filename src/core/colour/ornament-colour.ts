import { nearestPassing } from './nearest-passing.ts';

/** An ornament need not be read, but it has to be seen: pale letters on a pale ground look like a fault of the print. */
const LEAST_CONTRAST = 1.35;

/** The colour of letters that are ornament on a ground: the template's, or the nearest to it that can be seen. */
export function ornamentColour(colour: string, ground: string): string {
  return nearestPassing(colour, [ground], LEAST_CONTRAST) ?? colour;
}
