import type { Adjustment } from '../piece/adjustment.ts';
import { walkParts, type Edge, type Part, type StackPart, type WindowShape } from '../template/parts.ts';
import type { Arrangement, Template } from '../template/template.ts';

/** What a person can change in any template outside the workshop. */
export type Variation = Pick<Adjustment, 'align' | 'swapsSides' | 'isPlain'>;

/** Which of these changes have an effect. */
export interface Turnable {
  readonly align: boolean;
  readonly sides: boolean;
  readonly ornament: boolean;
}

const varied = new WeakMap<Arrangement, Map<string, Arrangement>>();

/** Applies a variation to an arrangement. Answers the same object for the same variation, so that caches keyed by it work. */
export function vary(arrangement: Arrangement, { align, swapsSides, isPlain }: Variation): Arrangement {
  if (align === undefined && !swapsSides && !isPlain) return arrangement;
  const key = `${align ?? ''} ${swapsSides ?? ''} ${isPlain ?? ''}`;
  const known = varied.get(arrangement) ?? new Map<string, Arrangement>();
  varied.set(arrangement, known);
  const found = known.get(key);
  if (found) return found;
  const swapped = swapsSides ? swapSides(arrangement.root) : arrangement.root;
  const plain = isPlain ? withoutOrnament(swapped) : swapped;
  const made = { ...arrangement, root: align === undefined ? plain : aligned(plain, align) };
  known.set(key, made);
  return made;
}

/** Which changes have an effect in at least one of these arrangements. */
export function turnable(arrangements: Template['arrangements']): Turnable {
  const roots = arrangements.map(({ root }) => root);
  return {
    align: roots.some((root) => [...walkParts(root)].some((part) => part.part === 'text' && !part.ornament && part.align !== 'end')),
    sides: roots.some((root) => hasSides(root)),
    ornament: roots.some((root) => [...walkParts(root)].some(isOrnament)),
  };
}

const isOrnament = ({ part }: Part): boolean => part === 'motif' || part === 'sign' || part === 'artwork';
const holdsPicture = (part: Part): boolean => [...walkParts(part)].some((each) => each.part === 'picture' && each.over === undefined);
const holdsText = (part: Part): boolean => [...walkParts(part)].some((each) => each.part === 'text' || each.part === 'rows');

/** A row with a picture at one side and words at the other. */
function isRowOfSides(part: StackPart): boolean {
  if (part.direction !== 'row') return false;
  const inRow = part.children.filter(({ over }) => over === undefined);
  return inRow.some((child) => holdsPicture(child) && !holdsText(child)) && inRow.some((child) => holdsText(child) && !holdsPicture(child));
}

const hasSides = (part: Part): boolean => part.part === 'stack' && (isRowOfSides(part) || part.children.some(hasSides));

/** Reverses rows with a picture at one side, and mirrors what is laid over them. The inside of each side keeps its order. */
function swapSides(part: StackPart): StackPart {
  if (!hasSides(part)) return part;
  const turned = (child: Part): Part => {
    if (child.over !== undefined) return { ...child, over: mirroredEdges(child.over) };
    if (isRowOfSides(part)) return mirrored(child);
    return child.part === 'stack' ? swapSides(child) : child;
  };
  const children = part.children.map(turned);
  // Parts that are laid over others stay last, so that they are still painted on top.
  return { ...mirroredStack(part), children: isRowOfSides(part) ? [...children.filter(({ over }) => over === undefined).reverse(), ...children.filter(({ over }) => over !== undefined)] : children };
}

/** Mirrors the edges and windows of one side; its words stay as they are. */
function mirrored(part: Part): Part {
  if (part.part === 'stack') return { ...mirroredStack(part), children: part.children.map(mirrored) };
  if (part.part !== 'picture') return part;
  return { ...part, ...(part.underM ? { underM: mirroredEdges(part.underM) } : {}), ...(part.window ? { window: mirroredWindows[part.window] ?? part.window } : {}) };
}

function mirroredStack(part: StackPart): StackPart {
  return {
    ...part,
    ...(part.padM ? { padM: mirroredEdges(part.padM) } : {}),
    ...(part.safe ? { safe: part.safe.map((edge) => mirroredEdge[edge]) } : {}),
    ...(part.field?.slant ? { field: { ...part.field, slant: { ...part.field.slant, edge: mirroredEdge[part.field.slant.edge] } } } : {}),
  };
}

const mirroredEdge: Readonly<Record<Edge, Edge>> = { top: 'top', right: 'left', bottom: 'bottom', left: 'right' };
const mirroredWindows: Readonly<Partial<Record<WindowShape, WindowShape>>> = { 'slant-left': 'slant-right', 'slant-right': 'slant-left' };

/** Distances from edges, seen in a mirror. */
export function mirroredEdges<Edges extends { readonly left?: number | undefined; readonly right?: number | undefined }>({ left, right, ...others }: Edges): Edges {
  return { ...others, ...(right === undefined ? {} : { left: right }), ...(left === undefined ? {} : { right: left }) } as Edges;
}

/** Removes motifs, signs and drawings. One that takes room in a row becomes an empty stack of that size. */
function withoutOrnament(part: StackPart): StackPart {
  const children = part.children.flatMap((child): readonly Part[] => {
    if (child.part === 'stack') return [withoutOrnament(child)];
    if (!isOrnament(child)) return [child];
    const { grow, share, leastShare } = child;
    return child.over !== undefined || (grow === undefined && share === undefined && leastShare === undefined) ? [] : [{ part: 'stack', direction: 'column', grow, share, leastShare, children: [] }];
  });
  return { ...part, children };
}

/** Sets texts flush or centred, and aligns other parts of the same column with them. Texts set at the end stay there. */
function aligned(part: StackPart, align: 'start' | 'centre'): StackPart {
  const from = align === 'centre' ? 'start' : 'centre';
  const isColumnOfText = part.direction === 'column' && part.children.some((child) => child.part === 'text' && !child.ornament);
  const turn = <Wanted extends string | undefined>(value: Wanted): Wanted | typeof align => (value === from ? align : value);
  const children = part.children.map((child): Part => {
    const inside = child.part === 'stack' ? aligned(child, align) : child.part === 'text' && !child.ornament ? { ...child, align: turn(child.align), ...(align === 'centre' ? { hanging: false } : {}) } : child;
    if (!isColumnOfText || inside.over !== undefined) return inside;
    // A short rule and a mark stand where the words begin.
    const own = inside.alignSelf ?? (align === 'centre' && (inside.part === 'mark' || (inside.part === 'rule' && inside.lengthM > 0)) ? 'start' : undefined);
    return own === undefined ? inside : { ...inside, alignSelf: turn(own) };
  });
  return { ...part, ...(isColumnOfText && part.align !== undefined ? { align: turn(part.align) } : {}), children };
}
