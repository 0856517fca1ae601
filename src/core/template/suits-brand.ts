import { hasScheme, resolveScheme, type BrandBook } from '../brand/brand-book.ts';
import { contrastRatio, MIN_LARGE_CONTRAST, MIN_TEXT_CONTRAST } from '../colour/contrast.ts';
import { walkParts } from './parts.ts';
import type { Template } from './template.ts';

/** What a template lives on beside words. */
export const pictureWants = ['photo', 'cut-out', 'clip'] as const;
export type PictureWant = (typeof pictureWants)[number];

/** The pictures that a template cannot do without. One cut out is wanted where it is shown whole; a photograph looks through a disc there. */
export function wantsOf(template: Template): readonly PictureWant[] {
  const parts = template.arrangements.flatMap(({ root }) => [...walkParts(root)]);
  const needed = template.slots.filter(({ kind, required }) => kind === 'picture' && required).map(({ key }) => key);
  if (needed.length === 0) return [];
  if (template.kind === 'video') return ['clip'];
  return parts.some((part) => part.part === 'picture' && part.whole && needed.includes(part.slot)) ? ['cut-out'] : ['photo'];
}

/** What a brand has to fill templates with, of each kind. */
export type BrandHolds = Readonly<Record<PictureWant, number>>;

/** Clips may be pictures that move slowly, so photographs do for them; nothing does for what is cut out but a cut-out. */
const does: Readonly<Record<PictureWant, readonly PictureWant[]>> = { photo: ['photo'], 'cut-out': ['cut-out'], clip: ['clip', 'photo'] };

/** What a template wants and the brand has not got. */
export function lackFor(wants: readonly PictureWant[], holds: BrandHolds): PictureWant | null {
  return wants.find((want) => does[want].every((kind) => holds[kind] === 0)) ?? null;
}

/** From the worst on: nothing to fill it with; words that cannot be read in its scheme; an accent that does not stand out. */
const WEIGHTS = { lack: 4, words: 2, accent: 1 } as const;

/** What lists say of a template; the scheme is null where they do not know it. */
interface Listed {
  readonly wants: readonly PictureWant[];
  readonly scheme: string | null;
}

/** How badly a template suits a brand: 0 where nothing speaks against it. */
function against({ wants, scheme }: Listed, book: BrandBook, holds: BrandHolds): number {
  const lack = lackFor(wants, holds) === null ? 0 : WEIGHTS.lack;
  if (!hasScheme(book, scheme)) return lack;
  const { ground, ink, accent } = resolveScheme(book, scheme);
  return lack + (contrastRatio(ground, ink) < MIN_TEXT_CONTRAST ? WEIGHTS.words : 0) + (contrastRatio(ground, accent) < MIN_LARGE_CONTRAST ? WEIGHTS.accent : 0);
}

/** Templates in the order in which they suit a brand; those that suit it alike stay in theirs. */
export function bySuitability<Each extends Listed>(templates: readonly Each[], book: BrandBook, holds: BrandHolds): readonly Each[] {
  const weighed = templates.map((template) => ({ template, weight: against(template, book, holds) }));
  return weighed.toSorted((a, b) => a.weight - b.weight).map(({ template }) => template);
}
