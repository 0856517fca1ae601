import { clearWindow } from '../crop/clear-window.ts';
import { boxInCut, likelySubject } from '../crop/known-subject.ts';
import { ownCropWindow, type CropWindow, type Picture } from '../crop/crop-window.ts';
import type { PictureFacts } from '../crop/picture-facts.ts';
import { intersectBoxes, type Box } from '../geometry/box.ts';
import type { OwnCrop } from '../piece/adjustment.ts';
import { walkParts, type Afloat, type CalmPlace, type Part, type StackPart } from '../template/parts.ts';
import type { CutFrame } from './cut-frame.ts';
import { uncovered } from './uncovered.ts';

interface PlaceInput {
  readonly frame: CutFrame;
  /** The pictures of the frame by slot. */
  readonly pictures: Readonly<Record<string, Picture>>;
  /** Crops that a person has moved, by slot. */
  readonly crops: Readonly<Record<string, OwnCrop>>;
  /** Whether a block may not grow beyond the part of the cut that its place was measured for. */
  readonly isBound: boolean;
  /** Whether words go to the subject that may stand before them, instead of keeping away from it. */
  readonly meetsSubject: boolean;
}

/** Weights of the cost of a place: means over the cells of the picture below it, nearness to the subject, and how much closer its crop has to be. */
const WEIGHTS = { saliency: 1, detail: 0.7, spread: 0.9, subject: 0.8, closer: 0.6 } as const;
/** Added cost of each place further back in the template's list. */
const LATER = 0.02;
/** Room at the foot of the cut for what stands below words that go to a subject, as a share of its height. */
const FOOT_SHARE = 0.24;
/** How near to the subject a block may come, as a share of the cut's short side. */
const SUBJECT_ROOM = 0.12;

/** True when words on a photograph may grow beyond their place. A block with a field may not, as it would cover the picture, nor one of a few large letters. */
export function mayGrow(root: StackPart): boolean {
  const parts = [...walkParts(root)];
  if (parts.some((part) => part.part === 'text' && part.behind !== undefined)) return false;
  return parts.some((part) => part.part === 'stack' && part.afloat && part.children.every((child) => child.part !== 'stack' || !child.field));
}

/**
 * Decides where blocks of words stand on their photographs: for each place that a template names, the crop that leaves room for
 * it is found, and what that crop shows below the block is measured. The calmest place is taken. Only the picture, the shape and the
 * template decide, so that words do not jump about while somebody types.
 */
export function placeWords(root: StackPart, input: PlaceInput): StackPart {
  if (![...walkParts(root)].some((part) => part.part === 'stack' && part.afloat)) return root;
  const placed = (part: Part): readonly Part[] => (part.part === 'stack' ? blocksOf({ ...part, children: part.children.flatMap(placed) }, input).map((stack) => settled(stack, input)) : [part]);
  return settled({ ...root, children: root.children.flatMap(placed) }, input);
}

/** Words that go to a subject leave what stands below them in their block at the foot of the cut, a block of its own. */
function blocksOf(stack: StackPart, { meetsSubject }: PlaceInput): readonly StackPart[] {
  const [block] = stack.children;
  const { afloat } = stack;
  if (!meetsSubject || !afloat || block?.part !== 'stack') return [stack];
  const at = block.children.findIndex((part) => part.part === 'text' && part.behind === afloat.picture);
  if (at < 0) return [stack];
  const part = (children: readonly Part[], place: CalmPlace, height: number): StackPart => ({ ...stack, afloat: { ...afloat, places: [place], height }, children: [{ ...block, children: [...children] }] });
  const [words, foot] = [block.children.slice(0, at + 1), block.children.slice(at + 1)];
  // A foot with a mark at its end takes the whole width; one without leaves it to a mark in the corner of the cut.
  const hasMark = foot.some((each) => each.part === 'mark' || (each.part === 'stack' && [...walkParts(each)].some((inner) => inner.part === 'mark')));
  return foot.length === 0 ? [part(words, 'top', afloat.height)] : [part(words, 'top', afloat.height), part(foot, hasMark ? 'bottom' : 'bottom-left', FOOT_SHARE)];
}

function settled(stack: StackPart, input: PlaceInput): StackPart {
  const { afloat } = stack;
  if (!afloat) return stack;
  const place = calmest(afloat, input);
  const [across, down] = sidesOf(place);
  const width = isWholeWidth(place) ? 1 : afloat.width;
  return {
    ...stack,
    afloat: { ...afloat, places: [place] },
    ...(input.isBound ? { over: boundEdges(stack.over ?? {}, down, afloat, input.frame) } : {}),
    direction: 'row',
    justify: across,
    align: down,
    children: stack.children.map((child) => ({ ...child, share: width })),
  };
}

/** Where a stack lies over its parent, made only as high as its block may get. */
function boundEdges(over: NonNullable<StackPart['over']>, down: Side, { height }: Afloat, { size, safe, marginPx }: CutFrame): NonNullable<StackPart['over']> {
  const topM = Math.max((over.top ?? 0) * marginPx, safe.topPx) / marginPx;
  const bottomM = Math.max((over.bottom ?? 0) * marginPx, safe.bottomPx) / marginPx;
  const spareM = Math.max(0, (size.heightPx * (1 - height)) / marginPx - topM - bottomM);
  const above = { start: 0, centre: 0.5, end: 1 }[down];
  return { ...over, top: topM + spareM * above, bottom: bottomM + spareM * (1 - above) };
}

/** The place with the least cost; without a picture the first. */
function calmest(afloat: Afloat, { frame, pictures, crops }: PlaceInput): CalmPlace {
  const [first = 'bottom'] = afloat.places;
  const picture = pictures[afloat.picture];
  if (!picture || afloat.places.length < 2) return first;
  const cut: Box = { xPx: 0, yPx: 0, ...frame.size };
  const own = crops[afloat.picture];
  const rated = afloat.places.map((place, index) => {
    const block = blockBox(place, afloat, frame);
    const window = own ? ownCropWindow(picture, cut, own) : clearWindow(picture, cut, uncovered(cut, [block], 1));
    return { place, cost: disquiet(picture, window, block, frame) + index * LATER };
  });
  return rated.reduce((best, each) => (each.cost < best.cost ? each : best)).place;
}

/** About where the block would stand. */
function blockBox(place: CalmPlace, { width, height }: Afloat, { size, safe, marginPx }: CutFrame): Box {
  const inset = { left: Math.max(safe.leftPx, marginPx), right: Math.max(safe.rightPx, marginPx), top: Math.max(safe.topPx, marginPx), bottom: Math.max(safe.bottomPx, marginPx) };
  const room = { widthPx: size.widthPx - inset.left - inset.right, heightPx: size.heightPx - inset.top - inset.bottom };
  const [across, down] = sidesOf(place);
  const widthPx = room.widthPx * (isWholeWidth(place) ? 1 : width);
  const heightPx = Math.min(room.heightPx, size.heightPx * height);
  const along = { start: 0, centre: 0.5, end: 1 } as const;
  return { xPx: inset.left + (room.widthPx - widthPx) * along[across], yPx: inset.top + (room.heightPx - heightPx) * along[down], widthPx, heightPx };
}

type Side = 'start' | 'centre' | 'end';

/** Where a place lies across the cut and down it. */
export function sidesOf(place: CalmPlace): readonly [across: Side, down: Side] {
  const across = place.endsWith('left') ? 'start' : place.endsWith('right') ? 'end' : 'centre';
  const down = place.startsWith('top') ? 'start' : place.startsWith('bottom') ? 'end' : 'centre';
  return [across, down];
}

function isWholeWidth(place: CalmPlace): boolean {
  return place === 'top' || place === 'bottom';
}

/** How little a region of the cut suits words: what stands out there, fine detail, uneven light, and the subject itself. */
function disquiet(picture: Picture, window: CropWindow, block: Box, { size }: CutFrame): number {
  const { facts, focal } = picture;
  const cells = cellsIn(facts, window, block, size);
  const mean = (of: (cell: number) => number): number => cells.reduce((sum, cell) => sum + of(cell), 0) / Math.max(1, cells.length) / 255;
  const light = mean((cell) => facts.meanLuminance[cell] ?? 0) * 255;
  const spread = Math.sqrt(cells.reduce((sum, cell) => sum + ((facts.meanLuminance[cell] ?? 0) - light) ** 2, 0) / Math.max(1, cells.length)) / 255;
  const subject = { x: ((focal.x - window.x) / window.width) * size.widthPx, y: ((focal.y - window.y) / window.height) * size.heightPx };
  const [awayX, awayY] = [outside(subject.x, block.xPx, block.widthPx), outside(subject.y, block.yPx, block.heightPx)];
  const nearness = Math.max(0, 1 - Math.hypot(awayX, awayY) / (SUBJECT_ROOM * Math.min(size.widthPx, size.heightPx)));
  return (
    WEIGHTS.saliency * mean((cell) => facts.saliency[cell] ?? 0) +
    WEIGHTS.detail * mean((cell) => (facts.mostLuminance[cell] ?? 0) - (facts.leastLuminance[cell] ?? 0)) +
    WEIGHTS.spread * spread +
    WEIGHTS.subject * Math.max(nearness, coveredOf(picture, window, block, size)) +
    WEIGHTS.closer * (1 / Math.max(window.width, window.height) - 1)
  );
}

/** The share of the likely subject's box that a block would cover, of what the cut shows. */
function coveredOf(picture: Picture, window: CropWindow, block: Box, size: CutFrame['size']): number {
  const likely = likelySubject(picture);
  const subject = likely && boxInCut(likely, { box: { xPx: 0, yPx: 0, ...size }, window });
  const covered = subject && intersectBoxes(subject, block);
  return covered ? (covered.widthPx * covered.heightPx) / (subject.widthPx * subject.heightPx) : 0;
}

/** How far a coordinate lies outside a span; 0 inside. */
function outside(value: number, from: number, length: number): number {
  return Math.max(0, from - value, value - from - length);
}

/** Indices of the cells of a picture's grid that a region of the cut shows. */
function cellsIn({ columns, rows }: PictureFacts, window: CropWindow, block: Box, size: CutFrame['size']): readonly number[] {
  const span = (from: number, length: number, start: number, share: number, cells: number): readonly [number, number] => {
    const within = (value: number): number => Math.min(cells - 1, Math.max(0, value));
    return [within(Math.floor((start + from * share) * cells)), within(Math.ceil((start + (from + length) * share) * cells) - 1)];
  };
  const [left, right] = span(block.xPx / size.widthPx, block.widthPx / size.widthPx, window.x, window.width, columns);
  const [top, bottom] = span(block.yPx / size.heightPx, block.heightPx / size.heightPx, window.y, window.height, rows);
  const cells: number[] = [];
  for (let row = top; row <= bottom; row += 1) for (let column = left; column <= right; column += 1) cells.push(row * columns + column);
  return cells;
}
