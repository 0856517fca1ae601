import type { Box } from '../geometry/box.ts';
import type { Edge, Part, StackPart, TextPart } from './parts.ts';
import { readTemplate, type Slot, type Template } from './template.ts';

/** What a region of a sketch is for. */
export type RegionKind = 'picture' | 'headline' | 'label' | 'line' | 'list' | 'mark';
export const regionKinds: readonly RegionKind[] = ['picture', 'headline', 'label', 'line', 'list', 'mark'];

/** A region drawn on an upright sheet of 4:5; its place as shares of the sheet. */
export interface Region {
  readonly id: string;
  readonly kind: RegionKind;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export const MAX_REGIONS = 12;

/** Regions that come this near to an edge of the sheet, or to each other, as shares of it, touch. */
const TOUCHES = 0.035;
/** A picture that holds this share of what lies over it is its ground, and one that covers this share of the sheet fills the cut. */
const [HOLDS, FILLS] = [0.8, 0.82] as const;
/** A picture keeps this much of the height that it has in the sketch, however long the words are. */
const LEAST_OF_SHARE = 0.75;
/** Words that take this share of what holds them have the whole line. */
const WHOLE_LINE = 0.7;
/** The margin around words, and the gap between parts, in m. */
const [PAD_M, GAP_M, WORD_GAP_M] = [1.2, 0.9, 0.5] as const;
/** Height of a sheet, in m, of the shapes that a sketch is laid out for: 9:16, 4:5 and 1.91:1. */
const shapes = [
  { key: 'tall', name: 'Tall', aspect: { from: 0, to: 0.7 }, heightM: 29.6 },
  { key: 'usual', name: 'Usual', aspect: { from: 0.7, to: 1.2 }, heightM: 20.8 },
  { key: 'wide', name: 'Wide', aspect: { from: 1.2, to: 10 }, heightM: 16.7 },
] as const;
type Shape = (typeof shapes)[number];

/** Largest type by how high its region is, within these bounds in m; smallest size; lines that a region usually has. */
const types = {
  headline: { role: 'display', ink: 'ink', max: [1.4, 4.4], min: 0.8, lines: 2.3 },
  line: { role: 'text', ink: 'ink', max: [0.66, 1.1], min: 0.54, lines: 2.6 },
  label: { role: 'label', ink: 'accent', max: [0.5, 0.74], min: 0.46, lines: 1.6 },
} as const;

/**
 * A template whose regions stand as in a sketch, laid out for tall, usual and wide cuts: what stands above each other in the sketch stands
 * side by side in wide cuts, and the other way round in tall ones. Regions are cut apart by straight lines that cross none of them;
 * where there is no such line, they stand one below the other.
 * @throws RangeError when there is neither a picture nor a word in it, or too many regions
 */
export function templateFromSketch(name: string, regions: readonly Region[]): Template {
  if (regions.length > MAX_REGIONS) throw new RangeError(`A sketch has at most ${MAX_REGIONS} regions`);
  if (regions.every(({ kind }) => kind === 'mark')) throw new RangeError('A sketch needs a picture or words: draw a region for one');
  const slots = slotsOf(regions);
  return readTemplate({
    version: 1,
    key: 'sketch',
    name,
    purpose: 'From a sketch',
    kind: 'graphic',
    scheme: 'light',
    slots: [...slots.values()],
    drop: [...slots].filter(([, { kind, required }]) => kind === 'text' && !required).map(([, { key }]) => key),
    arrangements: shapes.map((shape) => ({
      key: shape.key,
      name: shape.name,
      aspect: shape.aspect,
      root: { ...asStack(laidOut(turnedFor(shape, regions), { shape, slots, cell: SHEET })), field: { ink: 'ground' } },
    })),
  });
}

const slotWords: Readonly<Record<Exclude<RegionKind, 'mark'>, { readonly key: string; readonly kind: Slot['kind']; readonly label: string; readonly hint: string; readonly sample: string; readonly limit: number }>> = {
  picture: { key: 'photo', kind: 'picture', label: 'Picture', hint: 'One subject', sample: '', limit: 0 },
  headline: { key: 'headline', kind: 'text', label: 'Headline', hint: 'The news in one breath', sample: 'Something good is on its way', limit: 60 },
  label: { key: 'label', kind: 'text', label: 'Label', hint: 'What kind of news', sample: 'Saturday', limit: 28 },
  line: { key: 'line', kind: 'text', label: 'Line', hint: 'When, where, how to get it', sample: 'Where it happens, and from when.', limit: 90 },
  list: { key: 'points', kind: 'list', label: 'Points', hint: 'One a line', sample: 'The first thing\nThe second thing\nThe third thing', limit: 160 },
};

/** A slot a region, by the region's id; the second of a kind gets a number. The mark needs none. */
function slotsOf(regions: readonly Region[]): ReadonlyMap<string, Slot> {
  const counts = new Map<RegionKind, number>();
  const slots = new Map<string, Slot>();
  for (const { id, kind } of regions) {
    if (kind === 'mark') continue;
    const count = (counts.get(kind) ?? 0) + 1;
    counts.set(kind, count);
    const { key, label, hint, limit, sample, kind: slotKind } = slotWords[kind];
    const isFirst = count === 1;
    slots.set(id, {
      key: isFirst ? key : `${key}-${count}`,
      kind: slotKind,
      label: isFirst ? label : `${label} ${count}`,
      hint,
      required: kind === 'picture' || (kind === 'headline' && isFirst),
      ...(limit > 0 ? { softLimit: limit } : {}),
      ...(sample === '' ? {} : { sample }),
    });
  }
  return slots;
}

interface Cell {
  readonly box: Box;
  /** Edges of the cell that lie on edges of the cut. */
  readonly edges: ReadonlySet<Edge>;
}

const SHEET: Cell = { box: { xPx: 0, yPx: 0, widthPx: 1, heightPx: 1 }, edges: new Set(['top', 'right', 'bottom', 'left']) };

interface Context {
  readonly shape: Shape;
  readonly slots: ReadonlyMap<string, Slot>;
  readonly cell: Cell;
}

const boundsOf = (regions: readonly Region[]): Box => {
  const [left, top] = [Math.min(...regions.map(({ x }) => x)), Math.min(...regions.map(({ y }) => y))];
  return { xPx: left, yPx: top, widthPx: Math.max(...regions.map(({ x, width }) => x + width)) - left, heightPx: Math.max(...regions.map(({ y, height }) => y + height)) - top };
};

/** The regions of a sketch as another shape wants them: pictures and words beside each other in wide cuts, above each other in tall ones. */
function turnedFor({ key }: Shape, regions: readonly Region[]): readonly Region[] {
  const [pictures, words] = [regions.filter(({ kind }) => kind === 'picture'), regions.filter(({ kind }) => kind !== 'picture')];
  if (key === 'usual' || pictures.length === 0 || words.length === 0) return regions;
  const [seen, said] = [boundsOf(pictures), boundsOf(words)];
  const areStacked = said.yPx >= seen.yPx + seen.heightPx - TOUCHES || seen.yPx >= said.yPx + said.heightPx - TOUCHES;
  const areBeside = said.xPx >= seen.xPx + seen.widthPx - TOUCHES || seen.xPx >= said.xPx + said.widthPx - TOUCHES;
  if (key === 'wide' && areStacked) {
    const isFirst = seen.yPx < said.yPx;
    return [...moved(pictures, seen, { xPx: isFirst ? 0 : 0.5, yPx: 0, widthPx: 0.5, heightPx: 1 }), ...moved(words, said, { xPx: isFirst ? 0.5 : 0, yPx: 0, widthPx: 0.5, heightPx: 1 })];
  }
  if (key === 'tall' && areBeside && !areStacked) {
    const isFirst = seen.xPx < said.xPx;
    return [...moved(pictures, seen, { xPx: 0, yPx: isFirst ? 0 : 0.5, widthPx: 1, heightPx: 0.5 }), ...moved(words, said, { xPx: 0, yPx: isFirst ? 0.5 : 0, widthPx: 1, heightPx: 0.5 })];
  }
  return regions;
}

function moved(regions: readonly Region[], from: Box, to: Box): readonly Region[] {
  const [wide, high] = [to.widthPx / from.widthPx, to.heightPx / from.heightPx];
  return regions.map((each) => ({ ...each, x: to.xPx + (each.x - from.xPx) * wide, y: to.yPx + (each.y - from.yPx) * high, width: each.width * wide, height: each.height * high }));
}

/** Regions of a cell as parts: a ground with what lies on it, else cut apart across or down, else one below the other. */
function laidOut(regions: readonly Region[], context: Context): Part {
  const [only, ...others] = regions;
  if (!only) return stackOf('column', []);
  if (regions.every(({ kind }) => kind !== 'picture')) return words(regions, context);
  if (others.length === 0) return picture(only, context);
  const ground = regions.find((each) => each.kind === 'picture' && regions.every((other) => other === each || heldShare(each, other) >= HOLDS));
  if (ground) return onPicture(ground, regions.filter((each) => each !== ground), context);
  const rows = cutApart(regions, 'y', 'height');
  if (rows.length > 1) return divided('column', rows, context);
  const columns = cutApart(regions, 'x', 'width');
  if (columns.length > 1) return divided('row', columns, context);
  return divided('column', regions.toSorted((a, b) => a.y + a.height / 2 - b.y - b.height / 2).map((each) => [each]), context);
}

/** Share of a region that lies over another. */
function heldShare(ground: Region, { x, y, width, height }: Region): number {
  const across = Math.min(ground.x + ground.width, x + width) - Math.max(ground.x, x);
  const down = Math.min(ground.y + ground.height, y + height) - Math.max(ground.y, y);
  return across <= 0 || down <= 0 ? 0 : (across * down) / (width * height);
}

/** Groups that lines across the sheet part, in their order. */
function cutApart(regions: readonly Region[], start: 'x' | 'y', length: 'width' | 'height'): readonly (readonly Region[])[] {
  const groups: Region[][] = [];
  let end = -Infinity;
  for (const region of regions.toSorted((a, b) => a[start] - b[start])) {
    const last = groups.at(-1);
    if (!last || region[start] >= end - TOUCHES) groups.push([region]);
    else last.push(region);
    end = Math.max(end, region[start] + region[length]);
  }
  return groups;
}

/** Cells of groups side by side or one below the other. Pictures take the room; words take what they need of a column, and their share of a row. */
function divided(direction: 'row' | 'column', parted: readonly (readonly Region[])[], context: Context): StackPart {
  const groups = withWordsTogether(parted);
  const [first, last]: readonly [Edge, Edge] = direction === 'row' ? ['left', 'right'] : ['top', 'bottom'];
  const children = groups.map((group, index) => {
    const edges = new Set([...context.cell.edges].filter((edge) => (edge !== first || index === 0) && (edge !== last || index === groups.length - 1)));
    const bounds = boundsOf(group);
    const { box } = context.cell;
    const part = laidOut(group, { ...context, cell: { box: direction === 'row' ? { ...box, xPx: bounds.xPx, widthPx: bounds.widthPx } : { ...box, yPx: bounds.yPx, heightPx: bounds.heightPx }, edges } });
    const share = direction === 'row' ? bounds.widthPx : bounds.heightPx;
    const hasPicture = group.some(({ kind }) => kind === 'picture');
    if (direction === 'column' && !hasPicture) return part;
    return { ...part, grow: tenths(share), share: 0, ...(direction === 'column' ? { leastShare: Math.round((share / context.cell.box.heightPx) * LEAST_OF_SHARE * 100) / 100 } : {}) };
  });
  return stackOf(direction, children);
}

/** Words that follow each other are one group: they share their margin, and one that is left empty leaves no gap. */
function withWordsTogether(groups: readonly (readonly Region[])[]): readonly (readonly Region[])[] {
  const isOfWords = (group: readonly Region[]): boolean => group.every(({ kind }) => kind !== 'picture');
  return groups.reduce<readonly (readonly Region[])[]>((joined, group) => {
    const last = joined.at(-1);
    return last && isOfWords(last) && isOfWords(group) ? [...joined.slice(0, -1), [...last, ...group]] : [...joined, group];
  }, []);
}

/** A share as a factor of growth, which may be 10 at the most. */
const tenths = (share: number): number => Math.max(0.1, Math.round(share * 100) / 10);

const stackOf = (direction: 'row' | 'column', children: readonly Part[], own: Partial<StackPart> = {}): StackPart => ({ part: 'stack', direction, align: 'stretch', ...own, children: [...children] });

function asStack(part: Part): StackPart {
  return part.part === 'stack' ? part : stackOf('column', [part]);
}

/** A picture that reaches the edges which its region reaches, and keeps a margin to the others. */
function picture(region: Region, { slots, cell }: Context): Part {
  const part: Part = { part: 'picture', slot: slots.get(region.id)?.key ?? '', grow: 1 };
  const inset = [...cell.edges].filter((edge) => distanceTo(edge, region) > TOUCHES);
  return inset.length === 0 ? part : stackOf('column', [part], { padM: Object.fromEntries(inset.map((edge) => [edge, PAD_M])), safe: inset });
}

function distanceTo(edge: Edge, { x, y, width, height }: Region): number {
  return { left: x, top: y, right: 1 - x - width, bottom: 1 - y - height }[edge];
}

/** Words on a picture: in its calmest place near to where they were drawn where it fills the cut, else on a field of their own. */
function onPicture(ground: Region, over: readonly Region[], context: Context): StackPart {
  const bounds = boundsOf(over);
  const slot = context.slots.get(ground.id)?.key ?? '';
  const inset = { top: PAD_M, right: PAD_M, bottom: PAD_M, left: PAD_M };
  const edges = [...context.cell.edges];
  const inside = laidOut(over, { ...context, cell: { box: bounds, edges: new Set() } });
  const isUpper = bounds.yPx + bounds.heightPx / 2 < ground.y + ground.height / 2;
  const fillsCut = ground.width * ground.height >= FILLS && over.every(({ kind }) => kind !== 'picture');
  const block: StackPart = fillsCut
    ? stackOf('row', [asStack(inside)], { over: inset, safe: edges, align: undefined, afloat: { picture: slot, places: isUpper ? ['top', 'bottom'] : ['bottom', 'top'], width: Math.min(1, Math.max(0.3, bounds.widthPx)), height: Math.min(0.9, Math.max(0.16, bounds.heightPx)) } })
    : stackOf('column', [{ ...asStack(inside), field: { ink: 'ground' }, padM: inset }], { over: inset, safe: edges, align: 'start', justify: isUpper ? 'start' : 'end' });
  return stackOf('column', [picture(ground, context), block]);
}

/** Regions without a picture: in rows and columns of words with a margin around them. */
function words(regions: readonly Region[], context: Context): StackPart {
  const edges = [...context.cell.edges];
  const bounds = boundsOf(regions);
  const [above, below] = [bounds.yPx, 1 - bounds.yPx - bounds.heightPx];
  const isWholeHeight = edges.includes('top') && edges.includes('bottom');
  const justify = isWholeHeight ? (Math.abs(above - below) < 0.12 ? 'centre' : above > below ? 'end' : 'start') : undefined;
  const pad = context.cell.edges.size === 0 ? {} : { padM: { top: PAD_M, right: PAD_M, bottom: PAD_M, left: PAD_M }, safe: edges };
  return { ...asStack(set(regions, context)), ...pad, ...(justify ? { justify } : {}) };
}

function set(regions: readonly Region[], context: Context): Part {
  const [only, ...others] = regions;
  if (only && others.length === 0) return wordPart(only, context);
  const rows = cutApart(regions, 'y', 'height');
  if (rows.length > 1) return stackOf('column', rows.map((row) => set(row, context)), { gapM: isClose(rows, 'y', 'height', context) ? WORD_GAP_M : GAP_M });
  const columns = cutApart(regions, 'x', 'width');
  if (columns.length > 1) return stackOf('row', columns.map((column) => growing(set(column, context), boundsOf(column).widthPx)), { gapM: GAP_M, align: 'end', justify: 'between' });
  return stackOf('column', regions.toSorted((a, b) => a.y - b.y).map((each) => wordPart(each, context)), { gapM: WORD_GAP_M });
}

/** In a row of words the mark keeps its size, and words share what is left. */
function growing(part: Part, share: number): Part {
  return part.part === 'mark' ? part : { ...part, grow: tenths(share), share: 0 };
}

/** Whether the groups of a column stand close to each other in the sketch. */
function isClose(groups: readonly (readonly Region[])[], start: 'y', length: 'height', { shape }: Context): boolean {
  const gaps = groups.slice(1).map((group, index) => Math.min(...group.map((each) => each[start])) - Math.max(...(groups[index] ?? []).map((each) => each[start] + each[length])));
  return Math.max(0, ...gaps) * shape.heightM < GAP_M * 2;
}

function wordPart(region: Region, { slots, shape, cell }: Context): Part {
  const slot = slots.get(region.id)?.key ?? '';
  const heightM = region.height * shape.heightM;
  const align = alignOf(region, cell.box);
  switch (region.kind) {
    case 'mark':
      return { part: 'mark', heightM: within(heightM, 1.4, 3.6), alignSelf: align };
    case 'list':
      return { part: 'rows', slot, ink: 'ink', numeralInk: 'accent', numerals: true, sizeM: { max: within(heightM / 6, 0.7, 1.2), min: 0.54 }, gapM: 0.4 };
    case 'headline':
    case 'line':
    case 'label': {
      const { role, ink, max, min, lines } = types[region.kind];
      const text: TextPart = { part: 'text', slot, role, align, ink, sizeM: { max: within(heightM / lines, max[0], max[1]), min } };
      return text;
    }
    case 'picture':
      throw new TypeError('A picture is no word');
  }
}

const within = (value: number, least: number, most: number): number => Math.round(Math.min(most, Math.max(least, value)) * 100) / 100;

/** Words stand where their region stands in what holds it: at its start, in its middle or at its end. */
function alignOf({ x, width }: Region, { xPx, widthPx }: Box): 'start' | 'centre' | 'end' {
  const [before, behind] = [x - xPx, xPx + widthPx - x - width];
  if (width >= widthPx * WHOLE_LINE) return 'start';
  if (Math.abs(before - behind) < TOUCHES * 2) return 'centre';
  return before < behind ? 'start' : 'end';
}
