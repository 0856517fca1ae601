import { relativeLuminance } from '../colour/contrast.ts';
import type { Treatment } from './treatment.ts';
import type { BrandBook, PictureTreatment } from '../brand/brand-book.ts';

/** What the brand does to its photographs, with its colours looked up: where none is chosen, the darkest, the lightest, and the accent of the first scheme. */
export function resolveTreatment({ colours, schemes, treatment }: Pick<BrandBook, 'colours' | 'schemes'> & { readonly treatment?: PictureTreatment | undefined }): Treatment | undefined {
  if (!treatment) return undefined;
  const { kind, strength } = treatment;
  const hexOf = (key: string | undefined, otherwise: string): string => colours.find((colour) => colour.key === key)?.hex ?? otherwise;
  const byLight = colours.map(({ hex }) => hex).sort((a, b) => relativeLuminance(a) - relativeLuminance(b));
  switch (kind) {
    case 'duotone':
    case 'halftone':
      return { kind, strength, dark: hexOf(treatment.dark, byLight[0] ?? '#000000'), light: hexOf(treatment.light, byLight.at(-1) ?? '#ffffff') };
    case 'tint':
      return { kind, strength, colour: hexOf(treatment.colour, hexOf(schemes[0]?.accent, '#888888')) };
    default:
      return { kind, strength };
  }
}
